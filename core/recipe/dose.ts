import type { MaterialForm } from '../stock/material-facts';
import type { KitchenUnit, VolumeSystem } from '../quantity/volume';
import { KITCHEN_UNITS } from '../quantity/volume';
import type { PhReagent } from '../bath/ph-reagent';

/** Units of an amount for a whole bath: weighed, measured out, counted, or by kitchen measures. */
export const BATH_UNITS = ['g', 'ml', 'pieces', ...KITCHEN_UNITS] as const;
/** One of `BATH_UNITS`. */
export type BathUnit = (typeof BATH_UNITS)[number];

/**
 * A dose of a material, in the way dyers write it. Every way is turned into grams, millilitres or packets to measure
 * out.
 */
export type Dose = { readonly materialId: string } & (
  | {
      readonly by: 'percentOwf';
      readonly percentOwf: number;
      /** The most it may be, where the recipe gives a range; chosen for each lot. */
      readonly toPercentOwf?: number | undefined;
      /** The jar it was proven with, where that was what a trial was about: taken first while it lasts. */
      readonly source?: { readonly stockLotId: string; readonly tag: string } | undefined;
      /** The form the per cent was proven with; other forms are converted. */ readonly form?: MaterialForm | null;
    }
  | { readonly by: 'gPerLitre'; readonly gPerL: number }
  /** Its strength is `null` where nobody knows it: drinks, home-made liquors. */
  | { readonly by: 'solution'; readonly mlPer100G: number; readonly gPerL: number | null }
  | { readonly by: 'perPiece'; readonly gPerPiece: number }
  | { readonly by: 'packet' }
  | { readonly by: 'spoons'; readonly spoonsPer100G: number; readonly unit: KitchenUnit; readonly system: VolumeSystem }
  /** So much for each bath, whatever is in it: a tablespoon, a gallon, three stones. */
  | {
      readonly by: 'perBath';
      readonly amount: number;
      readonly unit: BathUnit;
      readonly system: VolumeSystem;
    }
  | { readonly by: 'count'; readonly piecesPer100G: number }
  /** All of it that is free on the shelf. */
  | { readonly by: 'allThere' }
  /** A kept bath that is the liquor itself: as much as there is, and water for what is missing. */
  | { readonly by: 'liquor' }
  | { readonly by: 'toPh'; readonly targetPh: number; readonly reagent: PhReagent }
);

/** Every way in which a dose can be written. */
export const DOSE_WAYS = [
  'percentOwf',
  'gPerLitre',
  'solution',
  'perPiece',
  'perBath',
  'count',
  'packet',
  'spoons',
  'toPh',
  'allThere',
  'liquor',
] as const;

/** One of `DOSE_WAYS`. */
export type DoseWay = (typeof DOSE_WAYS)[number];
