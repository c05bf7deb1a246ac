import type { StepRecord } from './deviations';

export const RUN_ENTRY_KINDS = ['start', 'weigh', 'temperature', 'note', 'finish', 'skip', 'cancel'] as const;
export type RunEntryKind = (typeof RUN_ENTRY_KINDS)[number];

/** One thing that happened at the bench. Append-only; `replacesId` names an entry this one corrects. */
export interface RunEntry {
  readonly id: string;
  readonly stepIndex: number;
  readonly kind: RunEntryKind;
  /** When it happened, ISO in UTC. */
  readonly at: string;
  readonly replacesId: string | null;
  readonly temperatureC: number | null;
  readonly text: string | null;
  readonly weighing: { readonly batch: number; readonly materialId: string; readonly stockLotId: string; readonly amount: number } | null;
}

export type StepState = 'waiting' | 'running' | 'done' | 'skipped';

/** Entries that still stand: those no later entry replaces. Order is kept. */
export function standingEntries<E extends Pick<RunEntry, 'id' | 'replacesId'>>(entries: readonly E[]): E[] {
  const replaced = new Set(entries.map((e) => e.replacesId));
  return entries.filter((e) => !replaced.has(e.id));
}

/** Folds a run's entries into one record a step, for steps 0 to `steps` - 1. */
export function foldRun(entries: readonly RunEntry[], steps: number): StepRecord[] {
  const standing = standingEntries(entries);
  return Array.from({ length: steps }, (_, stepIndex) => {
    const its = standing.filter((e) => e.stepIndex === stepIndex);
    const first = (kind: RunEntryKind): RunEntry | undefined => its.find((e) => e.kind === kind);
    const started = first('start')?.at;
    const finished = first('finish')?.at;
    const skipped = first('skip');
    return {
      stepIndex,
      ...(started === undefined ? {} : { startedAt: started }),
      ...(finished === undefined ? {} : { finishedAt: finished }),
      ...(skipped === undefined ? {} : { skippedReason: skipped.text ?? 'no reason given' }),
      temperaturesC: its.flatMap((e) => (e.temperatureC === null ? [] : [e.temperatureC])),
      weighings: its.flatMap((e) => (e.weighing ? [e.weighing] : [])),
    };
  });
}

export function stepState(record: StepRecord): StepState {
  if (record.skippedReason !== undefined) return 'skipped';
  if (record.finishedAt !== undefined) return 'done';
  return record.startedAt === undefined ? 'waiting' : 'running';
}

/** The step to do next: the first not done or skipped; `undefined` when the run is complete. */
export function nextStepIndex(records: readonly StepRecord[]): number | undefined {
  return records.find((r) => !['done', 'skipped'].includes(stepState(r)))?.stepIndex;
}
