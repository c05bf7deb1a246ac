import type { BathMoveKind } from '../bath/bath-ledger';
import type { BathContent } from '../bath/saved-bath';
import type { Lab } from '../colour/lab';
import type { Taken } from '../instrument/taken';
import type { StockMeasure } from '../quantity/amount';
import type { StrainWay } from '../recipe/course';
import type { StepKind } from '../recipe/step-kind';
import type { ShadeOf } from '../scaling/shade-of';
import type { CoursePoint } from './watch-course';

/** What can be told of a zone: it is in, it is done, or it was left out. */
export const ZONE_DEEDS = ['in', 'done', 'left'] as const;
/** One of `ZONE_DEEDS`. */
export type ZoneDeed = (typeof ZONE_DEEDS)[number];

/** Everything that can be written into a run. */
export const RUN_ENTRY_KINDS = [
  'start',
  'weigh',
  'leaveOut',
  'temperature',
  'ph',
  'sample',
  'bath',
  'add',
  'moved',
  'pieces',
  'extra',
  'note',
  'pause',
  'resume',
  'redo',
  'pulls',
  'pull',
  'zone',
  'strained',
  'rescale',
  'hand',
  'finish',
  'skip',
  'takeBack',
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

/** A pot used instead of the one planned for a batch. */
export interface VesselUsed {
  readonly batch: number;
  readonly vesselId: string;
  readonly vesselName: string;
}

/**
 * A dose taken as millilitres of a stock solution, in its jar, at so many grams to the litre; `made` where the solution
 * was made for it in the same press: crystals of which jar, how many grams in how many millilitres.
 */
export interface SolutionTaken {
  readonly stockLotId: string;
  readonly takenMl: number;
  readonly gPerL: number;
  readonly made?:
    { readonly fromStockLotId: string; readonly dissolvedG: number; readonly madeUpMl: number } | undefined;
}

/** How fibre was weighed where it was not weighed dry. */
export const NOT_DRY = ['damp', 'guessed'] as const;
/** One of `NOT_DRY`. */
export type NotDry = (typeof NOT_DRY)[number];

interface Detail {
  /** How it came to be written down; by hand where it doesn't say. */
  readonly readBy?: ReadBy | undefined;
  /** Where its time is only about right, how it was told: “overnight”, “an hour or so”. */
  readonly about?: string | undefined;
  /** Why it is told only now, where the lot's record was closed already. */
  readonly late?: string | undefined;
}

/** What an entry of each kind says beside when, at which step and by whom. */
export interface RunDetails {
  readonly start: Detail & {
    /** Begun though earlier steps are open; what that does stands in the entry's text. */
    readonly outOfOrder?: boolean | undefined;
    /** Pots used instead of those planned, and another water. */
    readonly vessels?: readonly VesselUsed[] | undefined;
    readonly water?: { readonly id: string; readonly name: string } | undefined;
  };
  readonly weigh: Detail & {
    /** More of this weighing is to come: a portion. */
    readonly more?: boolean | undefined;
    /** It was weighed before, and this went in on top of that: somebody said so. */
    readonly again?: boolean | undefined;
    /** Fibre that was not dry, or whose weight nobody took: it is corrected once that is known. */
    readonly notDry?: NotDry | undefined;
    /** The jar held more than the books say, or this was the last of it: its figure is put right with it. */
    readonly settles?: 'more' | 'empty' | undefined;
    readonly solution?: SolutionTaken | undefined;
    /** What was dissolved in a kept liquor that was poured in; written down by what knows the jar. */
    readonly contents?: readonly BathContent[] | undefined;
  };
  /** A weighing that can't be done: left out, for a reason; the step goes on. */
  readonly leaveOut: Detail & { readonly batch: number; readonly materialId: string };
  readonly temperature: Detail & {
    /** Minutes truly held in band, by a probe that followed the step. */
    readonly heldMin?: number | undefined;
    /** What that probe saw from the step’s beginning, corner by corner. */
    readonly course?: readonly CoursePoint[] | undefined;
  };
  readonly ph: Detail & {
    readonly ph: number;
    /** What of the reagent is in the bath by then, in `unit`. */
    readonly totalDose?: number | undefined;
    readonly unit?: 'g' | 'ml' | undefined;
  };
  readonly sample: Detail & {
    readonly sampleOf?: (typeof SAMPLE_OF)[number] | undefined;
    readonly batch?: number | undefined;
    /** Share of the depth wanted. */
    readonly depth: number;
    readonly lab?: Lab | undefined;
    /** How that colour was read. */
    readonly taken?: Taken | undefined;
  };
  readonly bath: Detail & {
    readonly batch?: number | undefined;
    readonly bath: { readonly kind: BathMoveKind; readonly ml: number };
  };
  /**
   * Something that the plan doesn't have, put into a bath. Out of a jar where the entry has a weighing; else it never
   * stood on the shelf.
   */
  readonly add: Detail & {
    readonly batch: number;
    readonly name: string;
    readonly measure: StockMeasure;
    /** How much, as it was written. */
    readonly quantityText: string;
    /** The same in smallest units; nobody knows where absent. */
    readonly amount?: number | undefined;
    /** Guessed, not weighed. */
    readonly guessed?: boolean | undefined;
    /** What was dissolved in it, where it was a kept liquor; written down by what knows the jar. */
    readonly contents?: readonly BathContent[] | undefined;
  };
  /** From here on in another pot, or with another water. */
  readonly moved: Detail & {
    readonly vessels?: readonly VesselUsed[] | undefined;
    readonly water?: { readonly id: string; readonly name: string } | undefined;
  };
  /** Pieces put in that were not planned (above nothing) or taken out (below); `weightG` is their dry weight. */
  readonly pieces: Detail & {
    readonly batch: number;
    readonly change: number;
    readonly weightG?: number | undefined;
  };
  /** A step that the chain doesn't have, done after this one. */
  readonly extra: Detail & {
    readonly title: string;
    readonly stepKind: StepKind;
    readonly minutes?: number | undefined;
    readonly temperatureC?: number | undefined;
  };
  readonly note: Detail & {
    /** To be seen again when the lot is dyed again, or when its recipe is written anew. */
    readonly next?: boolean | undefined;
    /** It tells of something done otherwise. */
    readonly deviation?: boolean | undefined;
    /** What of the lot it is about, where it is not the step as a whole. */
    readonly of?: ShadeOf | undefined;
  };
  readonly pulls: Detail & {
    /** Minutes at which to pull, piece by piece. */
    readonly pullMinutes: readonly number[];
  };
  readonly pull: Detail & { readonly piece: number };
  /** Placed colour: a zone was put into its liquor, is done, or was left out; on one piece, or on all of them. */
  readonly zone: Detail & {
    readonly zone: number;
    readonly did: ZoneDeed;
    readonly piece?: number | undefined;
    /** What really went on one piece, ml. */
    readonly ml?: number | undefined;
  };
  /** How plant matter was really kept out of the bath, or that its bag was lifted out. */
  readonly strained: Detail & { readonly way: StrainWay | 'bagOut' };
  readonly rescale: Detail & { readonly rescale: readonly Rescaling[] };
  readonly hand: Detail & { readonly toPerson: { readonly id: string; readonly name: string } };
  readonly pause: Detail;
  readonly resume: Detail;
  readonly redo: Detail & {
    /** With what was weighed already: nothing is taken from a jar a second time. */
    readonly keepsWeighings?: boolean | undefined;
  };
  readonly finish: Detail;
  readonly skip: Detail;
  /** The entry it replaces was a slip: it counts no more. */
  readonly takeBack: Detail;
  readonly cancel: Detail;
}

/** Kinds whose entry says nothing without its detail. */
type DetailedKind =
  | 'leaveOut'
  | 'ph'
  | 'sample'
  | 'bath'
  | 'add'
  | 'moved'
  | 'pieces'
  | 'extra'
  | 'pulls'
  | 'pull'
  | 'zone'
  | 'strained'
  | 'rescale'
  | 'hand';

/** What was weighed out; `amount` in smallest units. The jar is `null` where it was dyed before the books began. */
export interface Weighed {
  readonly batch: number;
  readonly materialId: string;
  readonly stockLotId: string | null;
  readonly amount: number;
}

/** A weighing as it is brought: the amount still as it was written. */
export interface BroughtWeighing {
  readonly batch: number;
  readonly materialId: string;
  readonly stockLotId: string | null;
  readonly quantityText: string;
}

interface EntryBase<K extends RunEntryKind> {
  readonly id: string;
  readonly stepIndex: number;
  readonly kind: K;
  /** The entry this one corrects. */
  readonly replacesId: string | null;
  readonly text: string | null;
}

/** An entry of one kind, looked over and complete, before it has its time. */
export interface CheckedEntryOf<K extends RunEntryKind> extends EntryBase<K> {
  readonly temperatureC: K extends 'temperature' ? number : null;
  readonly weighing: K extends 'weigh' ? Weighed : K extends 'add' ? Weighed | null : null;
  readonly detail: K extends DetailedKind ? RunDetails[K] : RunDetails[K] | null;
}
/** An entry of any kind, looked over and complete, before it has its time. */
export type CheckedEntry = { [K in RunEntryKind]: CheckedEntryOf<K> }[RunEntryKind];

/** One thing of one kind that happened at the bench; `at` is when, ISO in UTC. */
export interface RunEntryOf<K extends RunEntryKind> extends CheckedEntryOf<K> {
  readonly at: string;
}
/** One thing that happened at the bench, told apart by `kind`. Append-only. */
export type RunEntry = { [K in RunEntryKind]: RunEntryOf<K> }[RunEntryKind];

/** An entry of one kind as it is brought: anything it needs may still be missing. */
export interface BroughtEntryOf<K extends RunEntryKind> extends EntryBase<K> {
  readonly temperatureC: K extends 'temperature' ? number | null : null;
  readonly weighing: K extends 'weigh' | 'add' ? BroughtWeighing | null : null;
  readonly detail: { readonly [P in keyof RunDetails[K]]?: RunDetails[K][P] | undefined } | null;
}
/** An entry of any kind as it is brought. */
export type BroughtEntry = { [K in RunEntryKind]: BroughtEntryOf<K> }[RunEntryKind];

/** Entries that still stand: those no later entry replaces. Order is kept. */
export function currentEntries<E extends Pick<RunEntry, 'id' | 'replacesId'>>(entries: readonly E[]): E[] {
  const replaced = new Set(entries.map((e) => e.replacesId));
  return entries.filter((e) => !replaced.has(e.id));
}

/** Entries of one kind, in their order. */
export const entriesOfKind = <E extends { readonly kind: RunEntryKind }, K extends E['kind']>(
  entries: readonly E[],
  kind: K,
): Extract<E, { kind: K }>[] => entries.filter((e): e is Extract<E, { kind: K }> => e.kind === kind);
