import type { BathMoveKind } from '../bath/bath-ledger';
import type { Lab } from '../colour/lab';
import type { StepRecord } from './deviations';

/** Everything that can be written into a run. */
export const RUN_ENTRY_KINDS = [
  'start',
  'weigh',
  'temperature',
  'ph',
  'sample',
  'bath',
  'note',
  'pause',
  'resume',
  'redo',
  'pulls',
  'pull',
  'rescale',
  'hand',
  'finish',
  'skip',
  'cancel',
] as const;
/** One of `RUN_ENTRY_KINDS`. */
export type RunEntryKind = (typeof RUN_ENTRY_KINDS)[number];

/** How a reading came to be written down. */
export const READ_BY = ['hand', 'instrument', 'simulated', 'strip', 'card'] as const;
/** One of `READ_BY`. */
export type ReadBy = (typeof READ_BY)[number];

/** What a sample was taken of. */
export const SAMPLE_OF = ['liquor', 'piece'] as const;

/** One target of a later weighing, changed because an earlier one came out otherwise. */
export interface Rescaling {
  readonly stepIndex: number;
  readonly batch: number;
  readonly materialId: string;
  readonly factor: number;
}

/** What an entry says beside its kind; each kind uses its own few. */
export interface RunDetail {
  /** Begun though earlier steps are open; what that does stands in the entry's text. */
  readonly outOfOrder?: boolean | undefined;
  /** Pots used instead of those planned, and another water. */
  readonly vessels?:
    readonly { readonly batch: number; readonly vesselId: string; readonly vesselName: string }[] | undefined;
  readonly water?: { readonly id: string; readonly name: string } | undefined;
  /** More of this weighing is to come: a portion. */
  readonly more?: boolean | undefined;
  readonly readBy?: ReadBy | undefined;
  readonly ph?: number | undefined;
  /** Minutes truly held in band, by a probe that followed the step. */
  readonly heldMin?: number | undefined;
  /** What of the reagent is in the bath by then, in `unit`. */
  readonly totalDose?: number | undefined;
  readonly unit?: 'g' | 'ml' | undefined;
  readonly batch?: number | undefined;
  readonly sampleOf?: (typeof SAMPLE_OF)[number] | undefined;
  readonly lab?: Lab | undefined;
  /** Share of the depth wanted. */
  readonly depth?: number | undefined;
  readonly bath?: { readonly kind: BathMoveKind; readonly ml: number } | undefined;
  /** Minutes at which to pull, piece by piece. */
  readonly pullMinutes?: readonly number[] | undefined;
  readonly piece?: number | undefined;
  readonly rescale?: readonly Rescaling[] | undefined;
  /** A note that tells of something done otherwise. */
  readonly deviation?: boolean | undefined;
  readonly toPerson?: { readonly id: string; readonly name: string } | undefined;
}

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
  readonly weighing: {
    readonly batch: number;
    readonly materialId: string;
    readonly stockLotId: string;
    readonly amount: number;
  } | null;
  readonly detail?: RunDetail | null | undefined;
}

/** How far a step has come. */
export type StepState = 'waiting' | 'running' | 'paused' | 'done' | 'skipped';

/** Entries that still stand: those no later entry replaces. Order is kept. */
export function currentEntries<E extends Pick<RunEntry, 'id' | 'replacesId'>>(entries: readonly E[]): E[] {
  const replaced = new Set(entries.map((e) => e.replacesId));
  return entries.filter((e) => !replaced.has(e.id));
}

/**
 * Folds a run's entries into one record a step, for steps 0 to `steps` - 1. What was before a redo stays written but
 * no longer counts for the step.
 */
export function foldRun(entries: readonly RunEntry[], steps: number): StepRecord[] {
  const byStep: RunEntry[][] = Array.from({ length: steps }, () => []);
  for (const entry of currentEntries(entries)) byStep[entry.stepIndex]?.push(entry);
  return byStep.map((stepEntries, stepIndex) => foldStep(stepEntries, stepIndex));
}

function foldStep(all: readonly RunEntry[], stepIndex: number): StepRecord {
  const redos = all.filter((e) => e.kind === 'redo');
  const lastRedo = redos.at(-1);
  const sinceRedo = lastRedo ? all.slice(all.indexOf(lastRedo) + 1) : all;
  const first = (kind: RunEntryKind): RunEntry | undefined => sinceRedo.find((e) => e.kind === kind);
  const start = first('start');
  const finished = first('finish')?.at;
  const skipped = first('skip');
  const details = <K extends keyof RunDetail>(
    kind: RunEntryKind,
    key: K,
  ): { readonly entry: RunEntry; readonly value: NonNullable<RunDetail[K]> }[] =>
    sinceRedo.flatMap((entry) => {
      const value = entry.kind === kind ? entry.detail?.[key] : undefined;
      return value === undefined || value === null ? [] : [{ entry, value }];
    });
  const pauses = foldPauses(sinceRedo, finished);
  const openPause = pauses.find((p) => p.to === undefined);
  return {
    stepIndex,
    ...(start === undefined ? {} : { startedAt: start.at }),
    ...(finished === undefined ? {} : { finishedAt: finished }),
    ...(skipped === undefined ? {} : { skippedReason: skipped.text ?? 'no reason given' }),
    temperaturesC: sinceRedo.flatMap((e) => (e.temperatureC === null ? [] : [e.temperatureC])),
    temperatures: sinceRedo.flatMap((e) =>
      e.temperatureC === null ? [] : [{ at: e.at, temperatureC: e.temperatureC }],
    ),
    weighings: sinceRedo.flatMap((e) => (e.weighing ? [{ ...e.weighing, more: e.detail?.more === true }] : [])),
    ...(sinceRedo.some((e) => e.detail?.heldMin !== undefined)
      ? { heldMin: sinceRedo.flatMap((e) => e.detail?.heldMin ?? []).at(-1) ?? 0 }
      : {}),
    ...(openPause && finished === undefined ? { pausedAt: openPause.from } : {}),
    pausedMs: pauses.reduce((sum, p) => sum + (p.to === undefined ? 0 : Date.parse(p.to) - Date.parse(p.from)), 0),
    ...(start?.detail?.outOfOrder ? { outOfOrder: start.text ?? '' } : {}),
    ...(start?.detail?.vessels ? { vessels: start.detail.vessels } : {}),
    ...(start?.detail?.water ? { water: start.detail.water } : {}),
    phs: details('ph', 'ph').map(({ entry, value }) => ({
      at: entry.at,
      ph: value,
      totalDose: entry.detail?.totalDose ?? 0,
      unit: entry.detail?.unit ?? 'ml',
    })),
    samples: sinceRedo.flatMap((e) =>
      e.kind === 'sample' && e.detail?.depth !== undefined
        ? [{ at: e.at, of: e.detail.sampleOf ?? 'piece', depth: e.detail.depth, batch: e.detail.batch ?? 1 }]
        : [],
    ),
    bathMoves: details('bath', 'bath').map(({ entry, value }) => ({
      ...value,
      batch: entry.detail?.batch ?? 1,
      at: entry.at,
    })),
    pullMinutes: details('pulls', 'pullMinutes').at(-1)?.value ?? [],
    pulls: sinceRedo.flatMap((e) =>
      e.kind === 'pull' && e.detail?.piece !== undefined ? [{ at: e.at, piece: e.detail.piece }] : [],
    ),
    reported: all.flatMap((e) => (e.kind === 'note' && e.detail?.deviation && e.text ? [e.text] : [])),
    redone: redos.map((e) => e.text ?? ''),
  };
}

/** Pauses from the first start; a finish ends an open one. */
function foldPauses(
  stepEntries: readonly RunEntry[],
  finishedAt: string | undefined,
): { from: string; to: string | undefined }[] {
  const pauses: { from: string; to: string | undefined }[] = [];
  for (const entry of stepEntries) {
    const open = pauses.at(-1);
    if (entry.kind === 'pause' && (!open || open.to !== undefined)) pauses.push({ from: entry.at, to: finishedAt });
    if (entry.kind === 'resume' && open) open.to = entry.at;
  }
  return pauses;
}

/** How far a step has come, by its record. */
export function stepState(record: StepRecord): StepState {
  if (record.skippedReason !== undefined) return 'skipped';
  if (record.finishedAt !== undefined) return 'done';
  if (record.startedAt === undefined) return 'waiting';
  return record.pausedAt === undefined ? 'running' : 'paused';
}

/** Whether a step is finished or was skipped. */
export const isOver = (record: StepRecord | undefined): boolean =>
  record !== undefined && (record.skippedReason !== undefined || record.finishedAt !== undefined);

/** The step to do next: the first not done or skipped; `undefined` when the run is complete. */
export function nextStepIndex(records: readonly StepRecord[]): number | undefined {
  return records.find((r) => !isOver(r))?.stepIndex;
}

/**
 * Minutes a step has been in work, its pauses left out. 0 before it began. @param nowMs epoch ms, used while it runs
 */
export function minutesInWork(record: StepRecord, nowMs: number): number {
  if (record.startedAt === undefined) return 0;
  const end =
    record.finishedAt !== undefined
      ? Date.parse(record.finishedAt)
      : record.pausedAt !== undefined
        ? Date.parse(record.pausedAt)
        : nowMs;
  return Math.max(0, (end - Date.parse(record.startedAt) - (record.pausedMs ?? 0)) / 60_000);
}
