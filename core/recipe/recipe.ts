import type { VesselMetal } from '../bath/vessel';
import type { FibreKind } from '../bath/fibre';
import type { WaterAsk } from '../bath/water';
import type { PlacedPlan } from './placed';
import type { Practice } from './practice-questions';
import type { RecipeStep } from './recipe-step';

/** A share of the pieces that goes its own way for some steps: modified and not, pulled sooner and later. */
export interface RecipePart {
  readonly key: string;
  readonly name: string;
  readonly sharePercent: number;
}

/** What scaling needs to know of a recipe version. Immutable once made. */
export interface RecipeVersion {
  readonly id: string;
  readonly recipeName: string;
  readonly number: number;
  readonly fibres: readonly FibreKind[];
  /** ml of liquor per gram of fibre. */
  readonly liquorRatio: number;
  /** The shortest bath that still came out level, ml per g; `null`: only the ratio itself is proven. */
  readonly minLiquorRatio: number | null;
  /** How near a weighing must come to its target, per cent; the balance's step where that is more. */
  readonly weighWithinPercent?: number | undefined;
  readonly allowedMetals: readonly VesselMetal[];
  readonly water: WaterAsk;
  /** The schools it was proven in; the house's own where not said. */
  readonly practice: Practice;
  readonly parts: readonly RecipePart[];
  readonly placed: PlacedPlan | null;
  readonly steps: readonly RecipeStep[];
}
