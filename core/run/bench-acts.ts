import type { StepRecord } from './step-record';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { nextWeighing } from './next-weighing';
import type { WeighingToDo } from './next-weighing';
import type { ZoneToDo } from './next-zone';
import { nextZone } from './next-zone';
import type { RunEntry } from './run-entry';
import { currentEntries } from './run-entry';
import { foldRun, isOver, minutesInWork, stepState } from './run-record';
import { openBefore } from './run-rules';

/** A lot as the bench needs it. */
export interface BenchRun {
  readonly lotId: string;
  readonly plan: LotPlan;
  readonly entries: readonly RunEntry[];
}

/** What can be done now at one step of one lot. */
export type BenchAct = {
  readonly lotId: string;
  readonly step: PlannedStep;
  readonly record: StepRecord;
  /** Lower is more pressing. */
  readonly rank: number;
  /** When it is due, epoch ms; acts of one rank follow one another by it. */
  readonly dueMs: number;
} & (
  | { readonly kind: 'begin' }
  | ({ readonly kind: 'weigh' } & WeighingToDo)
  | ({ readonly kind: 'zone' } & ZoneToDo)
  | { readonly kind: 'pull'; readonly piece: number; readonly of: number }
  | { readonly kind: 'finish'; readonly endsMs: number }
  | { readonly kind: 'resume' }
);

const RANK = { pull: 0, over: 1, weigh: 2, hands: 3, begin: 4, paused: 5, wait: 6 } as const;
/** A pull is called for this long before its minute. */
const PULL_NOTICE_MS = 20_000;

/**
 * Everything that can be done now on these lots, the most pressing first: what a pot calls for, then hands, then what
 * may begin, then what only waits.
 */
export function benchActs(runs: readonly BenchRun[], nowMs: number): BenchAct[] {
  return runs.flatMap((run) => actsOf(run, nowMs)).sort((a, b) => a.rank - b.rank || a.dueMs - b.dueMs);
}

function actsOf({ lotId, plan, entries }: BenchRun, nowMs: number): BenchAct[] {
  if (currentEntries(entries).some((e) => e.kind === 'cancel')) return [];
  const records = foldRun(entries, plan.steps.length);
  return plan.steps.flatMap((step): BenchAct[] => {
    const record = records[step.index];
    if (!record || isOver(record)) return [];
    const shared = { lotId, step, record };
    const state = stepState(record);
    if (state === 'waiting')
      return openBefore(plan, records, step).length > 0
        ? []
        : [{ ...shared, kind: 'begin', rank: RANK.begin, dueMs: readyMs(records, step) }];
    const startedMs = Date.parse(record.startedAt ?? '');
    if (state === 'paused')
      return [{ ...shared, kind: 'resume', rank: RANK.paused, dueMs: Date.parse(record.pausedAt ?? '') }];
    const pull = nextPull(record);
    if (pull)
      return [{ ...shared, kind: 'pull', ...pull, rank: pull.dueMs - nowMs <= PULL_NOTICE_MS ? RANK.pull : RANK.wait }];
    const weighing = nextWeighing(step, record, entries);
    if (weighing) return [{ ...shared, kind: 'weigh', ...weighing, rank: RANK.weigh, dueMs: startedMs }];
    const zone = nextZone(step, record, nowMs);
    if (zone) {
      const rank = zone.dueMs > nowMs ? RANK.wait : zone.inMs === null ? RANK.hands : RANK.pull;
      return [{ ...shared, kind: 'zone', ...zone, rank }];
    }
    const endsMs = nowMs + (step.durationMin - minutesInWork(record, nowMs)) * 60_000;
    const rank = step.attended ? RANK.hands : endsMs <= nowMs ? RANK.over : RANK.wait;
    return [{ ...shared, kind: 'finish', endsMs, rank, dueMs: step.attended ? startedMs : endsMs }];
  });
}

/** When the last of the steps it follows was over. */
function readyMs(records: readonly StepRecord[], step: PlannedStep): number {
  return Math.max(0, ...step.after.map((i) => Date.parse(records[i]?.finishedAt ?? '') || 0));
}

function nextPull(record: StepRecord): { piece: number; of: number; dueMs: number } | undefined {
  const minutes = record.pullMinutes ?? [];
  const out = new Set((record.pulls ?? []).map((p) => p.piece));
  const piece = minutes.findIndex((_, i) => !out.has(i + 1));
  if (piece === -1 || record.startedAt === undefined) return undefined;
  return {
    piece: piece + 1,
    of: minutes.length,
    dueMs: Date.parse(record.startedAt) + (record.pausedMs ?? 0) + (minutes[piece] ?? 0) * 60_000,
  };
}
