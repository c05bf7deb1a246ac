import { said } from '../words/said';
import { worded } from '../words/worded';
import { formatTemperature } from '../quantity/temperature';
import type { AmountProblem, StockMeasure } from '../quantity/amount';
import { formatAmount } from '../quantity/amount';
import { joinList } from '../quantity/word-list';
import type { PotInUse } from './pots-in-use';
import type { NamedStockLot } from './wrong-stock-lot';
import { sayWrongStockLot } from './wrong-stock-lot';

/** What is missing in an entry that says nothing without it. */
export type MissingPart =
  | 'note'
  | 'temperature'
  | 'ph'
  | 'sample'
  | 'bath'
  | 'added'
  | 'place'
  | 'pieces'
  | 'step'
  | 'pulls'
  | 'piece'
  | 'zone'
  | 'straining'
  | 'rescale'
  | 'person'
  | 'weighing';

/** Reasons that need no facts. */
const PLAIN = worded(
  () =>
    ({
      noSuchStep: $localize`This lot has no such step. Reload the bench.`,
      cancelled: $localize`This lot was cancelled meanwhile; its record is closed. What was weighed for it can be put back from the jar’s page.`,
      badCorrection: $localize`A correction names an entry of the same step and kind. Choose the entry to correct again.`,
      replacedAlready: $localize`That entry was corrected already. Correct the newest one.`,
      inFuture: $localize`That time is still to come. Write when it really happened.`,
      beforeLot: $localize`That is before the lot was made. Check the date.`,
      finishedBeforeStart: $localize`A step can’t be finished before it began. Check the time.`,
      noSuchZone: $localize`Nothing is placed there at this step. Choose the zone from the list.`,
      ofItself: $localize`Those pieces are of this very lot: it can’t be its own cloth. Choose the jar they were really taken from.`,
      zoneOver: $localize`That zone is done already. If it was a slip, take that back first.`,
      noSuchPiece: $localize`This lot has no such piece. Choose it again.`,
      pulledAlready: $localize`That piece is out already.`,
      notPlanned: $localize`This step does not weigh that material for that batch. Choose it from the list.`,
      idReused: $localize`That id was used for something else already. Reload the bench and do it again.`,
      notASolution: $localize`Say how much of the solution was taken, and what was dissolved in how much water.`,
      noSuchStockLot: $localize`There is no such jar. Scan or type its tag again.`,
    }) as const,
);
type PlainReason = keyof typeof PLAIN;

/** What is never written without its reason. */
type ReasonedKind = 'cancel' | 'redo' | 'skip' | 'leaveOut' | 'zone';

/** Why an entry can't be written, as facts. */
export type RunRefusalFact =
  | { readonly reason: PlainReason }
  /** `then` is what has to wait for it, as a verb. */
  | { readonly reason: 'notBegun'; readonly title: string; readonly then: string }
  | {
      readonly reason: 'notDone' | 'notRunning' | 'notPaused' | 'over' | 'alreadyBegun';
      readonly title: string;
    }
  | { readonly reason: 'reasonMissing'; readonly of: ReasonedKind }
  | { readonly reason: 'phLocked'; readonly lock: string }
  | { readonly reason: 'potInUse'; readonly pot: PotInUse }
  | { readonly reason: 'outOfOrder'; readonly open: readonly string[]; readonly consequence: string }
  | {
      readonly reason: 'notWeighed';
      readonly missing: readonly { readonly materialName: string; readonly batch: number }[];
    }
  | { readonly reason: 'missing'; readonly part: MissingPart }
  | { readonly reason: 'outOfRange'; readonly temperatureC: number }
  /** What was written is no amount; reading it said why. */
  | { readonly reason: AmountProblem; readonly message: string }
  | { readonly reason: 'closed'; readonly state: string }
  | { readonly reason: 'begunSince'; readonly title: string; readonly next: string }
  | { readonly reason: 'doneSince'; readonly title: string }
  | {
      readonly reason: 'weighedAlready';
      readonly materialName: string;
      readonly batch: number;
      readonly amount: number;
      readonly measure: StockMeasure;
    }
  | { readonly reason: 'jarCameLater'; readonly tag: string; readonly receivedOn: string }
  | { readonly reason: 'noSuchBatch'; readonly batch: number }
  | { readonly reason: 'tooManyOut'; readonly batch: number; readonly pieces: number }
  | {
      readonly reason: 'wrongStockLot';
      readonly tag: string;
      readonly wanted: string;
      readonly right: readonly NamedStockLot[];
    }
  | { readonly reason: 'solutionShort'; readonly tag: string; readonly free: number; readonly wantedMg: number }
  | {
      readonly reason: 'notOnHand';
      readonly tag: string;
      readonly onHand: number;
      readonly amount: number;
      readonly measure: StockMeasure;
    };

/** Why an entry can't be written: a code, and a sentence that says what to do. */
export interface RunRefusal {
  readonly reason: RunRefusalFact['reason'];
  readonly message: string;
}

/** A refusal with its sentence. */
export const refuseEntry = (fact: RunRefusalFact): RunRefusal => ({ reason: fact.reason, message: sayRefusal(fact) });

const MISSING: Readonly<Record<MissingPart, string>> = worded(() => ({
  note: $localize`The note is empty. Write what you saw.`,
  temperature: $localize`Write the temperature in °C.`,
  ph: $localize`Write the pH, a number from 0 to 14.`,
  sample: $localize`Say which step it matches, or read its colour.`,
  bath: $localize`Say what went in or out, and how much.`,
  added: $localize`Say what went in, and how much; “a handful” will do where it came from no jar.`,
  place: $localize`Say which pot or which water it went into.`,
  pieces: $localize`Say how many pieces were put in or taken out.`,
  step: $localize`Say what was done, and what kind of step it was.`,
  pulls: $localize`Say how many pieces are pulled, and when.`,
  piece: $localize`Say which piece was pulled.`,
  zone: $localize`Say which zone it was, and whether it is in, done or left out.`,
  straining: $localize`Say how it was strained, or that the bag is out.`,
  rescale: $localize`There is nothing left to rescale.`,
  person: $localize`Say who takes it over.`,
  weighing: $localize`Write what was weighed, and from which jar.`,
}));
const WHY: Readonly<Record<ReasonedKind, string>> = worded(() => ({
  zone: $localize`Say why that zone is left out: the piece will show it.`,
  leaveOut: $localize`Say why it is left out: the next lot will want to know.`,
  cancel: $localize`Say why the lot is cancelled.`,
  redo: $localize`Say why it is done over: the next lot will want to know.`,
  skip: $localize`Say why the step is skipped: the next lot will want to know.`,
}));

/** That a pot holds another liquor, and what to do. */
export const sayPotInUse = ({ vesselName, title, lotTag }: PotInUse): string =>
  $localize`${vesselName} still holds “${title}” of ${lotTag}. Finish that first, choose another pot, or say why it is begun there all the same.`;

const isPlain = (fact: RunRefusalFact): fact is { readonly reason: PlainReason } => fact.reason in PLAIN;

function sayRefusal(fact: RunRefusalFact): string {
  if (isPlain(fact)) return PLAIN[fact.reason];
  switch (fact.reason) {
    case 'notBegun':
      return $localize`“${fact.title}” has not been begun. Begin it, then ${fact.then}.`;
    case 'notDone':
      return $localize`“${fact.title}” has not been done yet.`;
    case 'notRunning':
      return $localize`“${fact.title}” is not running, so it can’t be paused.`;
    case 'notPaused':
      return $localize`“${fact.title}” is not paused.`;
    case 'over':
      return $localize`“${fact.title}” is over already.`;
    case 'alreadyBegun':
      return $localize`“${fact.title}” was begun already.`;
    case 'reasonMissing':
      return WHY[fact.of];
    case 'potInUse':
      return sayPotInUse(fact.pot);
    case 'phLocked':
      return fact.lock;
    case 'outOfOrder': {
      const open = fact.open.map((title) => `“${title}”`).join(', ');
      return $localize`An earlier step is not finished: ${open}. Finish it or skip it with a reason first, or begin out of order: ${fact.consequence}`;
    }
    case 'notWeighed': {
      const missing = fact.missing.map((w) => $localize`${w.materialName} for batch ${w.batch}`);
      return $localize`Not weighed yet: ${joinList(missing)}. Weigh it, or say why it is left out.`;
    }
    case 'missing':
      return MISSING[fact.part];
    case 'outOfRange':
      return $localize`${formatTemperature(fact.temperatureC)} is no temperature of a dye bath. Take it again; a probe that says so is broken.`;
    case 'closed':
      return $localize`This lot is ${said(fact.state)}; its record is closed. What was forgotten is told on the lot’s page, as an entry of its own with the reason why only now.`;
    case 'begunSince':
      return $localize`“${fact.next}” was begun since, so “${fact.title}” can’t be taken back. Take that back first, or do “${fact.title}” over.`;
    case 'doneSince':
      return $localize`Other things were written down in “${fact.title}” since. Take those back first.`;
    case 'weighedAlready':
      return $localize`${formatAmount(fact.amount, fact.measure)} of ${fact.materialName} were weighed for batch ${fact.batch} already. Say whether this went in on top of that, or was the same weighing told twice.`;
    case 'jarCameLater':
      return $localize`${fact.tag} came into the house on ${fact.receivedOn}, after that day. Choose the jar it was really taken from, or correct the date.`;
    case 'noSuchBatch':
      return $localize`This lot has no batch ${fact.batch}. Choose the batch again.`;
    case 'tooManyOut':
      return $localize`Batch ${fact.batch} has ${fact.pieces === 1 ? $localize`one piece` : $localize`${fact.pieces} pieces`} in it; no more than that can be taken out.`;
    case 'wrongStockLot':
      return sayWrongStockLot(fact.tag, fact.wanted, fact.right);
    case 'solutionShort':
      return $localize`${formatAmount(fact.free, 'weight')} of ${fact.tag} can be dissolved; the rest is promised to other lots or not there, and ${formatAmount(fact.wantedMg, 'weight')} are wanted. Take another jar, or weigh the dose as near as the balance comes.`;
    case 'notOnHand': {
      const [onHand, amount] = [fact.onHand, fact.amount].map((of) => formatAmount(of, fact.measure));
      return $localize`${fact.tag} holds ${onHand}, so ${amount} can’t have come from it. Count the jar if the screen is wrong, or take the rest from another.`;
    }
    default:
      return fact.message;
  }
}
