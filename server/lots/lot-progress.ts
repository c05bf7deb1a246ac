import type { Colourway, LotState, ReadingView, RunEntryView } from '@vestigia/contract';
import type { KeptPlan, LotPlan, StepRecord } from '@vestigia/core';
import {
  completePlan,
  findRunDeviations,
  foldRun,
  hottestC,
  lotColour,
  nextStepIndex,
  sameConditions,
  settledReadings,
  currentEntries,
  stepState,
} from '@vestigia/core';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import type { Db } from '../db/database';
import type { RunningOfLot } from '../db/schema';
import { lotProgress, lots, verdicts } from '../db/schema';
import { masterOf } from './master-of';
import type { LotRow } from './lots-store';
import { findLot, readEntries, readReadings, currentReadings } from './lots-store';

type Progress = typeof lotProgress.$inferInsert;
type Master = Colourway['master'];

export interface LotFacts {
  readonly lot: Pick<LotRow, 'id' | 'at'> & { readonly plan: KeptPlan };
  readonly master: Master;
  readonly entries: readonly RunEntryView[];
  readonly readings: readonly ReadingView[];
  /** Verdicts in the order they were given. */
  readonly verdicts: readonly ('pass' | 'hold' | 'refuse')[];
}

/** Folds everything recorded of a lot into where it stands. Pure: the same facts always give the same progress. */
export function foldProgress({ lot, master, entries, readings, verdicts: given }: LotFacts): Progress {
  const plan = completePlan(lot.plan);
  const { steps } = plan;
  const records = foldRun(entries, steps.length);
  const next = nextStepIndex(records);
  const nextStep = next === undefined ? undefined : steps[next];
  const cancelled = currentEntries(entries).some((e) => e.kind === 'cancel');
  const dry = [...settledReadings(currentReadings(readings)).values()];
  const under = master ?? dry[0];
  const settled = dry.filter((r) => under !== undefined && sameConditions(r, under));
  const hasDeviation = new Set(findRunDeviations(plan, entries, () => 'another jar', records).map((d) => d.stepIndex));
  const colour = settled.length === 0 ? undefined : lotColour(master, settled);
  return {
    lotId: lot.id,
    state: cancelled
      ? 'cancelled'
      : stateOf(
          given.at(-1),
          next,
          entries.some((e) => e.kind === 'start' || e.kind === 'skip'),
        ),
    stations: steps.map((step, i) => ({
      kind: step.kind,
      title: step.title,
      state: stepState(records[i] ?? { stepIndex: i, temperaturesC: [], weighings: [] }),
      hasDeviation: hasDeviation.has(i),
    })),
    running: cancelled ? [] : runningOf(plan, records),
    next:
      nextStep === undefined || cancelled
        ? null
        : {
            index: nextStep.index,
            title: nextStep.title,
            startedAt: records[nextStep.index]?.startedAt ?? null,
            durationMin: nextStep.durationMin,
            attended: nextStep.attended,
          },
    result: colour && under ? { ...colour.lab, illuminant: under.illuminant, observer: under.observer } : null,
    deltaE: colour?.worstDeltaE ?? null,
    lastAt: entries.at(-1)?.recordedAt ?? lot.at,
  };
}

const HOT_C = 45;

/** Steps in work, with their pauses put off: what the pot line shows and what must not be forgotten. */
function runningOf(plan: LotPlan, records: readonly StepRecord[]): RunningOfLot[] {
  return plan.steps.flatMap((step) => {
    const record = records[step.index];
    if (record?.startedAt === undefined || !['running', 'paused'].includes(stepState(record))) return [];
    const planned =
      step.baths.length > 0
        ? step.baths.map((b) => b.vesselName)
        : step.usesBath
          ? plan.batches.map((b) => b.vesselName)
          : [];
    return [
      {
        stepIndex: step.index,
        title: step.title,
        vesselNames: [...new Set(record.vessels?.map((v) => v.vesselName) ?? planned)],
        startedAt: new Date(Date.parse(record.startedAt) + (record.pausedMs ?? 0)).toISOString(),
        pausedAt: record.pausedAt ?? null,
        durationMin: step.durationMin,
        attended: step.attended,
        hot: (hottestC({ course: step.course, temperatureC: step.temperatureC }) ?? 0) >= HOT_C,
      },
    ];
  });
}

function stateOf(verdict: 'pass' | 'hold' | 'refuse' | undefined, next: number | undefined, begun: boolean): LotState {
  if (verdict === 'pass') return 'released';
  if (verdict === 'refuse') return 'refused';
  if (verdict === 'hold') return 'held';
  if (next === undefined) return 'toJudge';
  return begun ? 'inWork' : 'planned';
}

/** Folds a lot again and keeps the result; called in the transaction of whatever changed it. */
export async function refoldProgress(db: Db, lotId: string): Promise<Progress> {
  const lot = await findLot(db, lotId);
  const given = await db
    .select({ verdict: verdicts.verdict })
    .from(verdicts)
    .where(eq(verdicts.lotId, lotId))
    .orderBy(asc(verdicts.seq));
  const progress = foldProgress({
    lot,
    master: await masterOf(db, lot),
    entries: await readEntries(db, lotId),
    readings: await readReadings(db, lotId),
    verdicts: given.map((v) => v.verdict),
  });
  await db.insert(lotProgress).values(progress).onConflictDoUpdate({ target: lotProgress.lotId, set: progress });
  return progress;
}

export async function readState(db: Db, lotId: string): Promise<LotState> {
  const [row] = await db.select({ state: lotProgress.state }).from(lotProgress).where(eq(lotProgress.lotId, lotId));
  return row?.state ?? 'planned';
}

/** Folds every lot: after a studio file was opened. */
export async function refoldAll(db: Db): Promise<void> {
  for (const { id } of await db.select({ id: lots.id }).from(lots)) await refoldProgress(db, id);
}

/** Folds lots again that an earlier version of the program folded, where it knew less. */
export async function refoldStale(db: Db): Promise<void> {
  const stale = await db
    .select({ id: lotProgress.lotId })
    .from(lotProgress)
    .where(and(isNull(lotProgress.running), inArray(lotProgress.state, ['planned', 'inWork'])));
  for (const { id } of stale) await refoldProgress(db, id);
}
