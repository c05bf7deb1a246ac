import { foldZones } from './zone-records';
import type { StepRecord } from './step-record';
import type { RunEntry, RunEntryOf } from './run-entry';
import { currentEntries, entriesOfKind } from './run-entry';

/** How far a step has come. */
export type StepState = 'waiting' | 'running' | 'paused' | 'done' | 'skipped';

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
  const redos = entriesOfKind(all, 'redo');
  const lastRedo = redos.at(-1);
  const sinceRedo = lastRedo ? all.slice(all.indexOf(lastRedo) + 1) : all;
  // Done over with what was weighed already, the weighings before it still count.
  const lastFresh = redos.filter((e) => e.detail?.keepsWeighings !== true).at(-1);
  const measured = lastFresh ? all.slice(all.indexOf(lastFresh) + 1) : all;
  const start = entriesOfKind(sinceRedo, 'start')[0];
  const finished = entriesOfKind(sinceRedo, 'finish')[0]?.at;
  const skipped = entriesOfKind(sinceRedo, 'skip')[0];
  const temperatures = entriesOfKind(sinceRedo, 'temperature');
  const held = temperatures.flatMap((e) => e.detail?.heldMin ?? []);
  const course = temperatures.flatMap((e) => (e.detail?.course ? [e.detail.course] : [])).at(-1);
  const pauses = foldPauses(sinceRedo, finished);
  const openPause = pauses.find((p) => p.to === undefined);
  return {
    stepIndex,
    ...(start === undefined ? {} : { startedAt: start.at }),
    ...(finished === undefined ? {} : { finishedAt: finished }),
    ...(skipped === undefined ? {} : { skippedReason: skipped.text ?? $localize`no reason given` }),
    temperaturesC: temperatures.map((e) => e.temperatureC),
    temperatures: temperatures.map(({ at, temperatureC }) => ({ at, temperatureC })),
    weighings: entriesOfKind(measured, 'weigh').map(({ weighing, detail }) => ({
      ...weighing,
      more: detail?.more === true,
      ...(detail?.notDry ? { notDry: detail.notDry } : {}),
      ...(detail?.solution ? { asSolution: true } : {}),
      ...(detail?.contents ? { contents: detail.contents } : {}),
    })),
    leftOut: entriesOfKind(measured, 'leaveOut').map(({ detail, text }) => ({
      batch: detail.batch,
      materialId: detail.materialId,
      reason: text ?? '',
    })),
    ...(held.length === 0 ? {} : { heldMin: held.at(-1) ?? 0 }),
    ...(course ? { course } : {}),
    ...(openPause && finished === undefined ? { pausedAt: openPause.from } : {}),
    pausedMs: pauses.reduce((sum, p) => sum + (p.to === undefined ? 0 : Date.parse(p.to) - Date.parse(p.from)), 0),
    ...(start?.detail?.outOfOrder ? { outOfOrder: start.text ?? '' } : {}),
    ...foldPlace(start, entriesOfKind(sinceRedo, 'moved')),
    ...foldUnplanned(all, measured),
    phs: entriesOfKind(sinceRedo, 'ph').map(({ at, detail }) => ({
      at,
      ph: detail.ph,
      totalDose: detail.totalDose ?? 0,
      unit: detail.unit ?? 'ml',
    })),
    samples: entriesOfKind(sinceRedo, 'sample').map(({ at, detail }) => ({
      at,
      of: detail.sampleOf ?? 'piece',
      depth: detail.depth,
      ...(detail.lab ? { lab: detail.lab } : {}),
      batch: detail.batch ?? 1,
    })),
    bathMoves: entriesOfKind(sinceRedo, 'bath').map(({ at, detail }) => ({
      ...detail.bath,
      batch: detail.batch ?? 1,
      at,
    })),
    pullMinutes: entriesOfKind(sinceRedo, 'pulls').at(-1)?.detail.pullMinutes ?? [],
    pulls: entriesOfKind(sinceRedo, 'pull').map(({ at, detail }) => ({ at, piece: detail.piece })),
    zones: foldZones(entriesOfKind(sinceRedo, 'zone')),
    strained: entriesOfKind(sinceRedo, 'strained').map(({ at, detail }) => ({ at, way: detail.way })),
    reported: entriesOfKind(all, 'note').flatMap((e) => (e.detail?.deviation && e.text ? [e.text] : [])),
    redone: redos.map((e) => e.text ?? ''),
  };
}

/** Where it really was done: as begun, then as moved. */
function foldPlace(
  start: RunEntryOf<'start'> | undefined,
  moves: readonly RunEntryOf<'moved'>[],
): Pick<StepRecord, 'vessels' | 'water'> {
  const told = [start?.detail, ...moves.map((m) => m.detail)];
  const vessels = new Map(told.flatMap((d) => d?.vessels ?? []).map((v) => [v.batch, v]));
  const water = told.flatMap((d) => d?.water ?? []).at(-1);
  return { ...(vessels.size > 0 ? { vessels: [...vessels.values()] } : {}), ...(water ? { water } : {}) };
}

/** What the plan doesn't have: put in since the step was last measured out anew, pieces and steps whenever they came. */
function foldUnplanned(
  all: readonly RunEntry[],
  measured: readonly RunEntry[],
): Pick<StepRecord, 'added' | 'pieces' | 'extras'> {
  return {
    added: entriesOfKind(measured, 'add').map(({ at, weighing, detail }) => ({
      at,
      batch: detail.batch,
      materialId: weighing?.materialId ?? null,
      stockLotId: weighing?.stockLotId ?? null,
      name: detail.name,
      measure: detail.measure,
      quantityText: detail.quantityText,
      amount: weighing?.amount ?? detail.amount ?? null,
      guessed: detail.guessed === true,
      ...(detail.contents ? { contents: detail.contents } : {}),
    })),
    pieces: entriesOfKind(all, 'pieces').map(({ detail, text }) => ({
      batch: detail.batch,
      change: detail.change,
      weightG: detail.weightG ?? null,
      reason: text ?? '',
    })),
    extras: entriesOfKind(all, 'extra').map(({ detail, text }) => ({
      title: detail.title,
      stepKind: detail.stepKind,
      minutes: detail.minutes ?? null,
      temperatureC: detail.temperatureC ?? null,
      note: text ?? '',
    })),
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
