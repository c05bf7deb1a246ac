import type { BathMoveKind } from '../bath/bath-ledger';
import type { Lab } from '../colour/lab';
import type { BathContent } from '../bath/saved-bath';
import type { StockMeasure } from '../quantity/amount';
import type { StrainWay } from '../recipe/course';
import type { StepKind } from '../recipe/step-kind';
import type { NotDry, VesselUsed } from './run-entry';
import type { CoursePoint } from './watch-course';

/** What became of one zone, on one piece or (`null`) on all of them. */
export interface ZoneRecord {
  readonly zone: number;
  readonly piece: number | null;
  readonly inAt: string | null;
  readonly doneAt: string | null;
  /** Why it was left out. */
  readonly leftReason: string | null;
  readonly ml: number | null;
  readonly note: string;
}

/** What really happened at one step, folded from the run's entries with corrections applied. */
export interface StepRecord {
  readonly stepIndex: number;
  readonly startedAt?: string;
  readonly finishedAt?: string;
  readonly skippedReason?: string;
  readonly temperaturesC: readonly number[];
  readonly temperatures?: readonly { readonly at: string; readonly temperatureC: number }[];
  /** Amounts in smallest units of the material's measure; `more`: a portion, with more to come. */
  readonly weighings: readonly {
    readonly batch: number;
    readonly materialId: string;
    readonly stockLotId: string | null;
    readonly amount: number;
    readonly more?: boolean;
    /** It is of fibre that was damp, or was guessed. */
    readonly notDry?: NotDry;
    /** It was taken as a solution made of the material. */
    readonly asSolution?: boolean;
    /** What was dissolved in it, where it was a kept liquor. */
    readonly contents?: readonly BathContent[];
  }[];
  /** Weighings that were left out, and why. */
  readonly leftOut?: readonly { readonly batch: number; readonly materialId: string; readonly reason: string }[];
  /** Minutes in band of its hold, by a probe; absent where none followed it. */
  readonly heldMin?: number;
  /** What a probe saw from its beginning, corner by corner; absent where none followed it. */
  readonly course?: readonly CoursePoint[];
  /** Since when it is paused, if it is, and how long earlier pauses took. */
  readonly pausedAt?: string;
  readonly pausedMs?: number;
  /** Begun before earlier steps were over, and what was said to that. */
  readonly outOfOrder?: string;
  readonly vessels?: readonly VesselUsed[];
  readonly water?: { readonly id: string; readonly name: string };
  readonly phs?: readonly {
    readonly at: string;
    readonly ph: number;
    readonly totalDose: number;
    readonly unit: 'g' | 'ml';
  }[];
  readonly samples?: readonly {
    readonly at: string;
    readonly of: 'liquor' | 'piece';
    readonly depth: number;
    /** As it was read, wet; absent where an eye held it against steps. */
    readonly lab?: Lab;
    readonly batch: number;
  }[];
  readonly bathMoves?: readonly {
    readonly kind: BathMoveKind;
    readonly ml: number;
    readonly batch: number;
    readonly at: string;
  }[];
  /** Put into its bath though the plan doesn't have it; `amount` in smallest units, `null` where nobody knows. */
  readonly added?: readonly {
    readonly batch: number;
    readonly materialId: string | null;
    readonly stockLotId: string | null;
    readonly name: string;
    readonly measure: StockMeasure;
    readonly quantityText: string;
    readonly amount: number | null;
    readonly guessed: boolean;
    /** What was dissolved in it, where it was a kept liquor. */
    readonly contents?: readonly BathContent[] | undefined;
    readonly at: string;
  }[];
  /** Pieces put in (above nothing) or taken out (below) that were not planned so. */
  readonly pieces?: readonly {
    readonly batch: number;
    readonly change: number;
    readonly weightG: number | null;
    readonly reason: string;
  }[];
  /** Steps done after this one that the chain doesn't have. */
  readonly extras?: readonly {
    readonly title: string;
    readonly stepKind: StepKind;
    readonly minutes: number | null;
    readonly temperatureC: number | null;
    readonly note: string;
  }[];
  readonly pullMinutes?: readonly number[];
  readonly pulls?: readonly { readonly at: string; readonly piece: number }[];
  /** Placed colour, in the order it was first told: when it went in, when it was done, or why not. */
  readonly zones?: readonly ZoneRecord[];
  /** How it was really strained, or that its bag was lifted out; the last told counts. */
  readonly strained?: readonly { readonly at: string; readonly way: StrainWay | 'bagOut' }[];
  /** Told by a person. */
  readonly reported?: readonly string[];
  /** Why it was done over, once for each time. */
  readonly redone?: readonly string[];
}
