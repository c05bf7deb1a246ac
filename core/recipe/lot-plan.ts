import type { VesselMetal } from '../bath/vessel';
import type { Figure } from '../quantity/figure';
import type { StepKind } from './recipe';

/** A share of a planned weighing from one stock lot; `stockLotId` is null where nothing on the shelf covers it. */
export interface PlannedPick {
  readonly stockLotId: string | null;
  readonly amountMg: number;
}

export interface PlannedWeighing {
  readonly batch: number;
  readonly materialId: string;
  readonly materialName: string;
  readonly target: Figure;
  readonly toleranceG: number;
  readonly picks: readonly PlannedPick[];
}

export interface PlannedStep {
  readonly index: number;
  readonly kind: StepKind | 'fibre';
  readonly title: string;
  readonly instruction: string;
  readonly temperatureC?: number;
  readonly ceilingC?: number;
  readonly durationMin: number;
  readonly attended: boolean;
  readonly lookFor: string;
  readonly usesBath: boolean;
  readonly weighings: readonly PlannedWeighing[];
  readonly cautions: readonly string[];
}

export interface PlannedBatch {
  /** 1, 2, 3 … */
  readonly number: number;
  readonly vesselId: string;
  readonly vesselName: string;
  readonly metal: VesselMetal;
  readonly pieces: number;
  readonly wof: Figure;
  readonly liquor: Figure;
  /** Liquor and submerged fibre as per cent of the vessel's working volume. */
  readonly fill: Figure;
}

export interface PlannedMaterial {
  readonly materialId: string;
  readonly name: string;
  readonly total: Figure;
  readonly picks: readonly PlannedPick[];
  readonly shortMg: number;
  readonly notes: readonly string[];
}

/** Everything proposed for a lot. Plain data: kept with the lot as agreed and never rewritten. */
export interface LotPlan {
  readonly pieces: number;
  readonly pieceWeightG: number;
  readonly wof: Figure;
  readonly liquorRatio: number;
  readonly batches: readonly PlannedBatch[];
  /** The base first, then materials in the order they are used. */
  readonly materials: readonly PlannedMaterial[];
  readonly steps: readonly PlannedStep[];
  readonly cautions: readonly string[];
}

export type PlanRefusal =
  | { readonly code: 'noVesselOfMetal'; readonly sentence: string; readonly allowedMetals: readonly VesselMetal[] }
  | { readonly code: 'pieceTooBig'; readonly sentence: string }
  | { readonly code: 'lotTooBig'; readonly sentence: string; readonly mostPieces: number }
  | { readonly code: 'fibreNotSuited'; readonly sentence: string };

export type PlanResult = { readonly ok: true; readonly plan: LotPlan } | { readonly ok: false; readonly refusal: PlanRefusal };
