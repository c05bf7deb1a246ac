import type { BlendShare, FibreKind } from '../bath/fibre';
import type { Heating } from '../bath/heating';
import type { VesselMetal } from '../bath/vessel';
import type { StockMeasure } from '../quantity/amount';
import type { Figure } from '../quantity/figure';
import type { StepKind } from '../recipe/step-kind';
import type { PlacedPlan } from '../recipe/placed';
import type { FinishedBy, HeatLeg, StrainWay } from '../recipe/course';
import type { MaterialKind } from '../stock/material-facts';
import type { PlanCaution } from './plan-caution';
import type { PlannedZone } from './placed-zones';
import type { PlanRefusal } from './plan-refusal';
import type { StepCaution } from './step-caution';
import type { StockSolution } from './stock-solution';

/**
 * A share of a planned weighing from one stock lot; `stockLotId` is null where nothing on the shelf covers it.
 * Smallest units of the material's measure.
 */
export interface PlannedPick {
  readonly stockLotId: string | null;
  readonly amount: number;
}

/** What is measured out once, for one bath: the batch it is named by, and all the batches that share that bath. */
export interface PlannedWeighing {
  readonly batch: number;
  readonly forBatches: readonly number[];
  readonly materialId: string;
  readonly materialName: string;
  readonly measure: StockMeasure;
  /** In g, ml or pieces, as its measure says. */
  readonly target: Figure;
  readonly tolerance: number;
  readonly picks: readonly PlannedPick[];
  /** A stock solution to take it from, portions to weigh it in, what a first third is. */
  readonly advice: readonly string[];
  /** Where it is too little to weigh well, the solution to take it from. */
  readonly solution?: StockSolution | null | undefined;
}

/** One filling of one vessel at a step, and the batches that are in it together. */
export interface PlannedBath {
  readonly batches: readonly number[];
  readonly vesselId: string;
  readonly vesselName: string;
  readonly metal: VesselMetal;
  /** All that goes through it, in all its turns; liquor and fill are those of one turn. */
  readonly pieces: number;
  readonly wof: Figure;
  readonly liquor: Figure;
  /** Fresh water to draw for one turn, ml; `null` in plans kept before it was worked out. */
  readonly water: Figure | null;
  readonly fillLevel: Figure;
  /** Times this vessel is filled for them, one after another, where it can't take all at once. */
  readonly turns: number;
  readonly heating: Heating | null;
  readonly fullWeight: Figure;
  readonly notes: readonly string[];
}

/** A step of a lot, as agreed. Temperatures in °C, times in minutes. */
export interface PlannedStep {
  readonly index: number;
  /**
   * Key of the recipe step it comes from; empty for the weighing of the fibre, and in plans kept before it was noted.
   */
  readonly key: string;
  readonly kind: StepKind | 'fibre';
  readonly title: string;
  readonly instruction: string;
  readonly temperatureC?: number | undefined;
  readonly ceilingC?: number | undefined;
  readonly durationMin: number;
  readonly attended: boolean;
  readonly lookFor: string;
  /** Looked at again every so many minutes; nobody asks for it where absent. */
  readonly lookEveryMin?: number | undefined;
  readonly usesBath: boolean;
  /** Names the liquor it is done in: steps of one liquor share it. Empty without one, and in plans kept before. */
  readonly liquor: string;
  readonly weighings: readonly PlannedWeighing[];
  readonly cautions: readonly StepCaution[];
  /** Indexes of the steps it follows. */
  readonly after: readonly number[];
  readonly finishedBy: FinishedBy;
  readonly wait: { readonly minMinutes: number; readonly maxMinutes: number | null } | null;
  readonly course: readonly HeatLeg[];
  readonly repeats: number;
  readonly strain: StrainWay | null;
  readonly targetPh: { readonly low: number; readonly high: number } | null;
  /** Which of the pieces, in words; empty when all of them. */
  readonly forWhom: string;
  /** The same as keys of groups; all of them where absent. */
  readonly groups?: readonly string[] | undefined;
  readonly baths: readonly PlannedBath[];
  /** Placed colour that is put on at it, turn by turn; none where absent. */
  readonly zones?: readonly PlannedZone[] | undefined;
}

/** Pieces of one base that go the same way through the chain. */
export interface PlannedGroup {
  readonly key: string;
  readonly baseId: string;
  readonly baseName: string;
  readonly fibre: FibreKind;
  /** Every fibre of a blend with its share, per cent; empty where it is of one fibre. */
  readonly blend: readonly BlendShare[];
  readonly pieceWord: string;
  /** Key and name of the recipe's part; empty where the recipe has none. */
  readonly part: string;
  readonly partName: string;
  readonly pieces: number;
  readonly pieceWeightG: number;
}

/** Pieces dyed together in one vessel. */
export interface PlannedBatch {
  /** 1, 2, 3 … */
  readonly number: number;
  readonly vesselId: string;
  readonly vesselName: string;
  readonly metal: VesselMetal;
  readonly pieces: number;
  readonly wof: Figure;
  readonly liquor: Figure;
  /** Liquor, and what lies in it, as per cent of the vessel's working volume. */
  readonly fillLevel: Figure;
  readonly groups: readonly { readonly key: string; readonly pieces: number }[];
  /** 1, or 2 where the vessel is used a second time for this lot. */
  readonly fill: number;
}

/** What a lot takes of one material in all, in smallest units of its measure. */
export interface PlannedMaterial {
  readonly materialId: string;
  readonly name: string;
  /** What kind of material it is; `null` in plans kept before that was noted. */
  readonly kind: MaterialKind | null;
  readonly measure: StockMeasure;
  readonly total: Figure;
  readonly picks: readonly PlannedPick[];
  /** What nothing on the shelf covers, in smallest units. */
  readonly short: number;
  /** A customer's own, which never stood on the shelf. */
  readonly ownGoods?: boolean | undefined;
  readonly notes: readonly string[];
}

/** Everything proposed for a lot. Plain data: kept with the lot as agreed and never rewritten. */
export interface LotPlan {
  readonly pieces: number;
  /** Of the first base, g; each group has its own. */
  readonly pieceWeightG: number;
  readonly wof: Figure;
  readonly liquorRatio: number;
  readonly groups: readonly PlannedGroup[];
  readonly batches: readonly PlannedBatch[];
  /** The bases first, then materials in the order they are used. */
  readonly materials: readonly PlannedMaterial[];
  readonly steps: readonly PlannedStep[];
  /** Where colour goes on each piece; none where absent. */
  readonly placed?: PlacedPlan | undefined;
  readonly cautions: readonly PlanCaution[];
}

/** A plan, or why there is none. */
export type PlanResult =
  { readonly ok: true; readonly plan: LotPlan } | { readonly ok: false; readonly refusal: PlanRefusal };

/** Smallest units in a unit of the figure: mg in a gram, µl in a millilitre, a piece in a piece. */
export const smallestIn = (measure: StockMeasure): number => (measure === 'pieces' ? 1 : 1000);
