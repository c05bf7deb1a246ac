import type { VesselMetal } from '../bath/vessel';
import type { FibreKind } from '../bath/fibre';

/** The stations of a lot, in the order dyers work. */
export const STEP_KINDS = ['scour', 'tannin', 'mordant', 'wetOut', 'extract', 'dye', 'modify', 'rinse', 'dry', 'cure', 'wash'] as const;
export type StepKind = (typeof STEP_KINDS)[number];

/** So much of a material, as per cent of the weight of fibre. */
export interface Dose {
  readonly materialId: string;
  readonly percentOwf: number;
}

export interface RecipeStep {
  readonly kind: StepKind;
  readonly title: string;
  readonly instruction: string;
  /** Temperature to reach and hold, °C; absent where none is asked for. */
  readonly temperatureC?: number;
  /** Never above this, °C: where the dyestuff dulls or the fibre suffers. */
  readonly ceilingC?: number;
  readonly durationMin: number;
  /** Hands are needed all the time, or only at its ends. */
  readonly attended: boolean;
  readonly lookFor: string;
  /** This step is done in a vessel with liquor made up to the liquor ratio. */
  readonly usesBath: boolean;
  readonly doses: readonly Dose[];
}

/** What scaling needs to know of a recipe version. Immutable once made. */
export interface RecipeVersion {
  readonly id: string;
  readonly recipeName: string;
  readonly number: number;
  readonly fibres: readonly FibreKind[];
  /** ml of liquor per gram of fibre. */
  readonly liquorRatio: number;
  readonly allowedMetals: readonly VesselMetal[];
  readonly steps: readonly RecipeStep[];
}
