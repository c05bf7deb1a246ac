import type { MaterialForm } from '../stock/material-facts';
import type { KitchenUnit, VolumeSystem } from '../quantity/volume';
import type { PhReagent } from '../bath/ph-reagent';

/**
 * A dose of a material, in the way dyers write it. Every way is turned into grams, millilitres or packets to measure
 * out.
 */
export type Dose = { readonly materialId: string } & (
  | {
      readonly by: 'percentOwf';
      readonly percentOwf: number;
      /** The form the per cent was proven with; other forms are converted. */ readonly form?: MaterialForm | null;
    }
  | { readonly by: 'gPerLitre'; readonly gPerL: number }
  | { readonly by: 'solution'; readonly mlPer100G: number; readonly gPerL: number }
  | { readonly by: 'perPiece'; readonly gPerPiece: number }
  | { readonly by: 'packet' }
  | { readonly by: 'spoons'; readonly spoonsPer100G: number; readonly unit: KitchenUnit; readonly system: VolumeSystem }
  | { readonly by: 'toPh'; readonly targetPh: number; readonly reagent: PhReagent }
);

/** Every way in which a dose can be written. */
export const DOSE_WAYS = ['percentOwf', 'gPerLitre', 'solution', 'perPiece', 'packet', 'spoons', 'toPh'] as const;

/** One of `DOSE_WAYS`. */
export type DoseWay = (typeof DOSE_WAYS)[number];
