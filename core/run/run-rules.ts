import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import type { RunRefusal } from './check-entry';
import { checkEntry } from './check-entry';
import type { StepRecord } from './step-record';
import { phLock } from './ph-lock';
import type { BroughtEntry, BroughtEntryOf, CheckedEntry, RunEntry, RunEntryKind } from './run-entry';
import { currentEntries } from './run-entry';
import { foldRun, isOver, stepState } from './run-record';

/** What a ruling rests on beside the entry: the plan, what stands in the run, the moment. */
export interface RunFacts {
  readonly plan: LotPlan;
  /** Everything written so far, in the order it was recorded. */
  readonly entries: readonly RunEntry[];
  /** When the lot was agreed, ISO. */
  readonly lotAt: string;
  readonly nowMs: number;
}

/** Whether an entry may be written, and what it is if it may. */
export type RunRuling =
  | {
      readonly ok: true;
      readonly step: PlannedStep;
      readonly replaced: RunEntry | undefined;
      readonly entry: CheckedEntry;
    }
  | { readonly ok: false; readonly refusal: RunRefusal };

/** A tablet's clock may run this far ahead. */
export const AHEAD_MS = 2 * 60_000;

/**
 * Whether something may be written into a run, and what it amounts to. The server rules by it before it records, the
 * bench before it shows an entry as done: both say the same sentence.
 * @param atMs when it happened, epoch ms
 */
export function ruleOnEntry({ plan, entries, lotAt, nowMs }: RunFacts, entry: BroughtEntry, atMs: number): RunRuling {
  const refuse = (reason: string, message: string): RunRuling => ({ ok: false, refusal: { reason, message } });
  const step = plan.steps[entry.stepIndex];
  if (!step) return refuse('noSuchStep', 'This lot has no such step. Reload the bench.');
  if (currentEntries(entries).some((e) => e.kind === 'cancel'))
    return refuse(
      'closed',
      'This lot was cancelled meanwhile; its record is closed. What was weighed for it can be put back from the jar’s page.',
    );
  const replaced = entry.replacesId === null ? undefined : entries.find((e) => e.id === entry.replacesId);
  if (entry.replacesId !== null) {
    if (!replaced || replaced.kind !== entry.kind || replaced.stepIndex !== entry.stepIndex)
      return refuse(
        'badCorrection',
        'A correction names an entry of the same step and kind. Choose the entry to correct again.',
      );
    if (!currentEntries(entries).includes(replaced))
      return refuse('alreadyDone', 'That entry was corrected already. Correct the newest one.');
  }
  const records = foldRun(entries, plan.steps.length);
  const record = records[entry.stepIndex] as StepRecord;
  const refusal =
    timeRefusal(entry, record, lotAt, atMs, nowMs) ?? orderRefusal(plan, records, entry, step, record, replaced);
  if (refusal) return { ok: false, refusal };
  const check = checkEntry(step, entry);
  return check.ok ? { ok: true, step, replaced, entry: check.entry } : check;
}

function timeRefusal(
  entry: BroughtEntry,
  record: StepRecord,
  lotAt: string,
  atMs: number,
  nowMs: number,
): RunRefusal | undefined {
  if (!Number.isFinite(atMs) || atMs > nowMs + AHEAD_MS)
    return { reason: 'inFuture', message: 'That time is still to come. Write when it really happened.' };
  if (atMs < Date.parse(lotAt) - AHEAD_MS)
    return { reason: 'beforeLot', message: 'That is before the lot was made. Check the date.' };
  if (entry.kind === 'finish' && record.startedAt !== undefined && atMs < Date.parse(record.startedAt))
    return { reason: 'finishedBeforeStart', message: 'A step can’t be finished before it began. Check the time.' };
  return undefined;
}

const TAKES_A_RUNNING_STEP: Readonly<Partial<Record<RunEntryKind, string>>> = {
  temperature: 'take its temperature',
  weigh: 'weigh out',
  ph: 'take its pH',
  sample: 'take a sample',
  bath: 'write down what went in or out',
  pulls: 'plan its pulls',
  pull: 'pull a piece',
  pause: 'pause it',
};

function orderRefusal(
  plan: LotPlan,
  records: readonly StepRecord[],
  entry: BroughtEntry,
  step: PlannedStep,
  record: StepRecord,
  replaced: RunEntry | undefined,
): RunRefusal | undefined {
  const hasReason = (entry.text ?? '').trim() !== '';
  const now = stepState(record);
  const no = (reason: string, message: string): RunRefusal => ({ reason, message });
  const verb = TAKES_A_RUNNING_STEP[entry.kind];
  if (verb && now === 'waiting') return no('notBegun', `“${step.title}” has not been begun. Begin it, then ${verb}.`);
  switch (entry.kind) {
    case 'cancel':
      return hasReason ? undefined : no('reasonMissing', 'Say why the lot is cancelled.');
    case 'pull':
      return replaced === undefined && (record.pulls ?? []).some((p) => p.piece === entry.detail?.piece)
        ? no('alreadyDone', 'That piece is out already.')
        : undefined;
    case 'pause':
      return now === 'running' ? undefined : no('notRunning', `“${step.title}” is not running, so it can’t be paused.`);
    case 'resume':
      return now === 'paused' ? undefined : no('notPaused', `“${step.title}” is not paused.`);
    case 'redo':
      if (!hasReason) return no('reasonMissing', 'Say why it is done over: the next lot will want to know.');
      return now === 'waiting' ? no('notBegun', `“${step.title}” has not been done yet.`) : undefined;
    case 'start':
      return replaced ? undefined : startRefusal(plan, records, entry, step, now);
    case 'skip':
      if (!hasReason) return no('reasonMissing', 'Say why the step is skipped: the next lot will want to know.');
      return isOver(record) ? no('alreadyDone', `“${step.title}” is over already.`) : undefined;
    case 'finish':
      return replaced ? undefined : finishRefusal(step, record, now, hasReason);
    default:
      return undefined;
  }
}

function startRefusal(
  plan: LotPlan,
  records: readonly StepRecord[],
  entry: BroughtEntryOf<'start'>,
  step: PlannedStep,
  now: string,
): RunRefusal | undefined {
  if (now !== 'waiting') return { reason: 'alreadyBegun', message: `“${step.title}” was begun already.` };
  const locked = phLock(plan, records, step);
  if (locked) return { reason: 'phLocked', message: locked.message };
  const open = openBefore(plan, records, step);
  if (open.length === 0) return undefined;
  const consequence = earlyStartMessage(step, open);
  if (entry.detail?.outOfOrder && (entry.text ?? '').trim() !== '') return undefined;
  return {
    reason: 'outOfOrder',
    message: `An earlier step is not finished: ${open.map((s) => `“${s.title}”`).join(', ')}. Finish it or skip it with a reason first, or begin out of order: ${consequence}`,
  };
}

function finishRefusal(step: PlannedStep, record: StepRecord, now: string, hasReason: boolean): RunRefusal | undefined {
  if (now === 'waiting')
    return { reason: 'notBegun', message: `“${step.title}” has not been begun. Begin it, then finish it.` };
  if (isOver(record)) return { reason: 'alreadyDone', message: `“${step.title}” is over already.` };
  const missing = step.weighings.filter(
    (w) => !record.weighings.some((r) => r.batch === w.batch && r.materialId === w.materialId),
  );
  if (missing.length === 0 || hasReason) return undefined;
  return {
    reason: 'notWeighed',
    message: `Not weighed yet: ${missing.map((w) => `${w.materialName} for batch ${w.batch}`).join(', ')}. Weigh it, or say why it is left out.`,
  };
}

/** Steps this one follows that are not over yet. */
export function openBefore(plan: LotPlan, records: readonly StepRecord[], step: PlannedStep): PlannedStep[] {
  return step.after.filter((i) => !isOver(records[i])).flatMap((i) => plan.steps[i] ?? []);
}

const SKIPPED_MEANS: Readonly<Partial<Record<PlannedStep['kind'], string>>> = {
  scour: 'oil and size left in keep dye out in patches',
  tannin: 'cellulose holds less mordant, so paler',
  mordant: 'little or no dye holds',
  wetOut: 'dry or rushed fibre takes dye in patches',
  extract: 'the bath is weaker than it will be',
  strain: 'bits left in spot the cloth',
  makeUp: 'the bath is short and pieces lie in folds',
  adjustPh: 'the shade shifts and protein fibre may suffer',
  dye: 'there is less colour to work on',
  rinse: 'loose dye bleeds later',
  fibre: 'nobody knows the dry weight that every dose is worked out from',
  dry: 'a wet colour is not the colour',
  cure: 'the colour has not settled',
  modify: 'the shade is not shifted yet',
};

/** What beginning a step before others are over does, in plain words. */
export function earlyStartMessage(step: PlannedStep, open: readonly PlannedStep[]): string {
  const label = [...new Set(open.flatMap((s) => SKIPPED_MEANS[s.kind] ?? []))];
  return label.length === 0
    ? `“${step.title}” begins while ${open.map((s) => `“${s.title}”`).join(' and ')} is still open.`
    : `${label.join('; ')}.`;
}
