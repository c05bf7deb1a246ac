import { worded } from '../words/worded';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { hasShade } from '../scaling/shade-of';
import { checkEntry, plannedWeighing } from './check-entry';
import { nextPickOf } from './next-weighing';
import type { StepRecord } from './step-record';
import type { PotInUse } from './pots-in-use';
import { potsInUse, potTaken } from './pots-in-use';
import { phLock } from './ph-lock';
import type { BroughtEntry, BroughtEntryOf, CheckedEntry, RunEntry, RunEntryKind } from './run-entry';
import { currentEntries } from './run-entry';
import { foldRun, isOver, stepState } from './run-record';
import type { RunRefusal, RunRefusalFact } from './run-refusal';
import { refuseEntry } from './run-refusal';
import { zoneIsOver } from './zone-records';

/** What a ruling rests on beside the entry: the plan, what stands in the run, the moment. */
export interface RunFacts {
  readonly plan: LotPlan;
  /** Everything written so far, in the order it was recorded. */
  readonly entries: readonly RunEntry[];
  /** When the lot was agreed, ISO. */
  readonly lotAt: string;
  readonly nowMs: number;
  /** The lot's tag, and pots that other lots hold. */
  readonly lotTag: string;
  readonly elsewhere: readonly PotInUse[];
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
export function ruleOnEntry(facts: RunFacts, entry: BroughtEntry, atMs: number): RunRuling {
  const refuse = (fact: RunRefusalFact): RunRuling => ({ ok: false, refusal: refuseEntry(fact) });
  const { plan, entries, lotAt, nowMs } = facts;
  const step = plan.steps[entry.stepIndex];
  if (!step) return refuse({ reason: 'noSuchStep' });
  if (currentEntries(entries).some((e) => e.kind === 'cancel')) return refuse({ reason: 'cancelled' });
  const replaced = entry.replacesId === null ? undefined : entries.find((e) => e.id === entry.replacesId);
  if (entry.replacesId !== null) {
    const fits = entry.kind === 'takeBack' ? replaced && mayBeTakenBack(replaced.kind) : replaced?.kind === entry.kind;
    if (!replaced || !fits || replaced.stepIndex !== entry.stepIndex) return refuse({ reason: 'badCorrection' });
    if (!currentEntries(entries).includes(replaced)) return refuse({ reason: 'replacedAlready' });
  }
  const records = foldRun(entries, plan.steps.length);
  const record = records[entry.stepIndex] as StepRecord;
  const refusal =
    timeRefusal(entry, record, lotAt, atMs, nowMs) ?? orderRefusal(facts, records, entry, step, record, replaced);
  if (refusal) return { ok: false, refusal };
  if (entry.kind === 'note' && entry.detail?.of && !hasShade(plan, entry.detail.of))
    return refuse({ reason: 'noSuchPiece' });
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
  if (!Number.isFinite(atMs) || atMs > nowMs + AHEAD_MS) return refuseEntry({ reason: 'inFuture' });
  if (atMs < Date.parse(lotAt) - AHEAD_MS) return refuseEntry({ reason: 'beforeLot' });
  if (entry.kind === 'finish' && record.startedAt !== undefined && atMs < Date.parse(record.startedAt))
    return refuseEntry({ reason: 'finishedBeforeStart' });
  return undefined;
}

const TAKES_A_RUNNING_STEP: Readonly<Partial<Record<RunEntryKind, string>>> = worded(() => ({
  temperature: $localize`take its temperature`,
  weigh: $localize`weigh out`,
  leaveOut: $localize`leave a weighing out`,
  ph: $localize`take its pH`,
  sample: $localize`take a sample`,
  bath: $localize`write down what went in or out`,
  add: $localize`write down what was put in`,
  moved: $localize`move it`,
  pulls: $localize`plan its pulls`,
  pull: $localize`pull a piece`,
  zone: $localize`place its colour`,
  strained: $localize`say how it was strained`,
  pause: $localize`pause it`,
}));

function orderRefusal(
  facts: RunFacts,
  records: readonly StepRecord[],
  entry: BroughtEntry,
  step: PlannedStep,
  record: StepRecord,
  replaced: RunEntry | undefined,
): RunRefusal | undefined {
  const hasReason = (entry.text ?? '').trim() !== '';
  const now = stepState(record);
  const { title } = step;
  const verb = TAKES_A_RUNNING_STEP[entry.kind];
  if (verb && now === 'waiting') return refuseEntry({ reason: 'notBegun', title, then: verb });
  switch (entry.kind) {
    case 'cancel':
      return hasReason ? undefined : refuseEntry({ reason: 'reasonMissing', of: 'cancel' });
    case 'pull':
      return replaced === undefined && (record.pulls ?? []).some((p) => p.piece === entry.detail?.piece)
        ? refuseEntry({ reason: 'pulledAlready' })
        : undefined;
    case 'zone':
      return replaced === undefined ? zoneRefusal(step, record, entry) : undefined;
    case 'takeBack':
      return takeBackRefusal(facts, records, entry, step, replaced);
    case 'weigh':
      return replaced ? undefined : weighedAlready(facts, record, entry, step);
    case 'pieces':
      return piecesRefusal(facts.plan, records, entry, replaced);
    case 'pause':
      return now === 'running' ? undefined : refuseEntry({ reason: 'notRunning', title });
    case 'resume':
      return now === 'paused' ? undefined : refuseEntry({ reason: 'notPaused', title });
    case 'redo':
      if (!hasReason) return refuseEntry({ reason: 'reasonMissing', of: 'redo' });
      return now === 'waiting' ? refuseEntry({ reason: 'notDone', title }) : undefined;
    case 'start':
      return replaced ? undefined : startRefusal(facts, records, entry, step, now);
    case 'skip':
      if (!hasReason) return refuseEntry({ reason: 'reasonMissing', of: 'skip' });
      return isOver(record) ? refuseEntry({ reason: 'over', title }) : undefined;
    case 'finish':
      return replaced ? undefined : finishRefusal(step, record, now, hasReason);
    default:
      return undefined;
  }
}

/** Kinds that change what the lot is: they are ended by an entry of their own, not taken back. */
const STANDS: readonly RunEntryKind[] = ['cancel', 'takeBack', 'rescale', 'redo'];
/** Whether an entry of a kind may be a slip that is taken back. */
export const mayBeTakenBack = (kind: RunEntryKind): boolean => !STANDS.includes(kind);

/** Facts that may still be told of a lot whose record is closed: what was done stands, and these come beside it. */
const TOLD_LATE: readonly RunEntryKind[] = [
  'note',
  'temperature',
  'ph',
  'bath',
  'add',
  'moved',
  'pieces',
  'extra',
  'zone',
  'strained',
];

/** Whether an entry may be told of a closed lot: a fact of its own, with the reason why only now; never a change. */
export const mayBeToldLate = ({ kind, replacesId, detail }: BroughtEntry): boolean =>
  replacesId === null && TOLD_LATE.includes(kind) && (detail?.late ?? '').trim() !== '';

/** A slip is taken back while nothing rests on it. */
function takeBackRefusal(
  { plan, entries }: RunFacts,
  records: readonly StepRecord[],
  { stepIndex }: BroughtEntry,
  step: PlannedStep,
  replaced: RunEntry | undefined,
): RunRefusal | undefined {
  if (!replaced) return refuseEntry({ reason: 'badCorrection' });
  if (replaced.kind === 'finish' || replaced.kind === 'skip') {
    const begun = plan.steps.find(
      (s) => s.after.includes(stepIndex) && records[s.index]?.startedAt !== undefined && !records[s.index]?.outOfOrder,
    );
    return begun ? refuseEntry({ reason: 'begunSince', title: step.title, next: begun.title }) : undefined;
  }
  if (replaced.kind !== 'start') return undefined;
  const since = currentEntries(entries).some(
    (e) => e.stepIndex === stepIndex && e !== replaced && e.kind !== 'note' && e.kind !== 'takeBack',
  );
  return since ? refuseEntry({ reason: 'doneSince', title: step.title }) : undefined;
}

/** A zone goes in once and is done once, on pieces that the lot has. */
function zoneRefusal(
  step: PlannedStep,
  { zones = [] }: StepRecord,
  { detail }: BroughtEntryOf<'zone'>,
): RunRefusal | undefined {
  const piece = detail?.piece ?? null;
  const planned = step.zones?.find((z) => z.zone === detail?.zone);
  if (planned && piece !== null && piece > planned.pieces) return refuseEntry({ reason: 'noSuchPiece' });
  const told = zones.find((z) => z.zone === detail?.zone && z.piece === piece);
  const twice = told && (zoneIsOver(told) || (told.inAt !== null && detail?.did === 'in'));
  return twice ? refuseEntry({ reason: 'zoneOver' }) : undefined;
}

/** What is weighed whole already is weighed again only when somebody says that it is more, on top. */
function weighedAlready(
  { entries }: RunFacts,
  record: StepRecord,
  { weighing, detail }: BroughtEntryOf<'weigh'>,
  step: PlannedStep,
): RunRefusal | undefined {
  const planned = weighing && plannedWeighing(step, weighing);
  if (!planned || detail?.again) return undefined;
  const before = record.weighings.filter((w) => w.batch === planned.batch && w.materialId === planned.materialId);
  if (before.length === 0 || nextPickOf(step, planned, record, entries)) return undefined;
  const amount = before.reduce((sum, w) => sum + w.amount, 0);
  const { materialName, batch, measure } = planned;
  return refuseEntry({ reason: 'weighedAlready', materialName, batch, amount, measure });
}

/** No more can be taken out of a batch than are in it. */
function piecesRefusal(
  { batches }: LotPlan,
  records: readonly StepRecord[],
  { detail }: BroughtEntryOf<'pieces'>,
  replaced: RunEntry | undefined,
): RunRefusal | undefined {
  const { batch = 1, change = 0 } = detail ?? {};
  const planned = batches.find((b) => b.number === batch)?.pieces;
  if (planned === undefined) return refuseEntry({ reason: 'noSuchBatch', batch });
  const changes = records.flatMap((r) => r.pieces ?? []).filter((p) => p.batch === batch);
  const before = replaced?.kind === 'pieces' && replaced.detail.batch === batch ? replaced.detail.change : 0;
  const pieces = changes.reduce((sum, p) => sum + p.change, planned) - before;
  return pieces + change < 0 ? refuseEntry({ reason: 'tooManyOut', batch, pieces }) : undefined;
}

function startRefusal(
  { plan, lotTag, elsewhere }: RunFacts,
  records: readonly StepRecord[],
  entry: BroughtEntryOf<'start'>,
  step: PlannedStep,
  now: string,
): RunRefusal | undefined {
  if (now !== 'waiting') return refuseEntry({ reason: 'alreadyBegun', title: step.title });
  const locked = phLock(plan, records, step);
  const hasReason = (entry.text ?? '').trim() !== '';
  if (locked && (locked.gravity === 'stop' || !hasReason))
    return refuseEntry({ reason: 'phLocked', lock: locked.message });
  const taken = potTaken(step, entry.detail?.vessels, { own: potsInUse(plan, records, lotTag), elsewhere });
  if (taken && !hasReason && entry.detail?.readBy !== 'card') return refuseEntry({ reason: 'potInUse', pot: taken });
  const open = openBefore(plan, records, step);
  if (open.length === 0) return undefined;
  const consequence = earlyStartMessage(step, open);
  if (entry.detail?.outOfOrder && hasReason) return undefined;
  return refuseEntry({ reason: 'outOfOrder', open: open.map((s) => s.title), consequence });
}

function finishRefusal(step: PlannedStep, record: StepRecord, now: string, hasReason: boolean): RunRefusal | undefined {
  if (now === 'waiting') return refuseEntry({ reason: 'notBegun', title: step.title, then: $localize`finish it` });
  if (isOver(record)) return refuseEntry({ reason: 'over', title: step.title });
  const missing = step.weighings.filter(
    (w) =>
      ![...record.weighings, ...(record.leftOut ?? [])].some(
        (r) => r.batch === w.batch && r.materialId === w.materialId,
      ),
  );
  if (missing.length === 0 || hasReason) return undefined;
  return refuseEntry({ reason: 'notWeighed', missing });
}

/** Steps this one follows that are not over yet. */
export function openBefore(plan: LotPlan, records: readonly StepRecord[], step: PlannedStep): PlannedStep[] {
  return step.after.filter((i) => !isOver(records[i])).flatMap((i) => plan.steps[i] ?? []);
}

const SKIPPED_MEANS: Readonly<Partial<Record<PlannedStep['kind'], string>>> = worded(() => ({
  scour: $localize`oil and size left in keep dye out in patches`,
  tannin: $localize`cellulose holds less mordant, so paler`,
  mordant: $localize`little or no dye holds`,
  wetOut: $localize`dry or rushed fibre takes dye in patches`,
  extract: $localize`the bath is weaker than it will be`,
  strain: $localize`bits left in spot the cloth`,
  makeUp: $localize`the bath is short and pieces lie in folds`,
  adjustPh: $localize`the shade shifts and protein fibre may suffer`,
  dye: $localize`there is less colour to work on`,
  rinse: $localize`loose dye bleeds later`,
  fibre: $localize`nobody knows the dry weight that every dose is worked out from`,
  dry: $localize`a wet colour is not the colour`,
  cure: $localize`the colour has not settled`,
  modify: $localize`the shade is not shifted yet`,
}));

/** What beginning a step before others are over does, in plain words. */
export function earlyStartMessage(step: PlannedStep, open: readonly PlannedStep[]): string {
  const label = [...new Set(open.flatMap((s) => SKIPPED_MEANS[s.kind] ?? []))];
  return label.length === 0
    ? $localize`“${step.title}” begins while ${open.map((s) => `“${s.title}”`).join($localize` and `)} is still open.`
    : `${label.join('; ')}.`;
}
