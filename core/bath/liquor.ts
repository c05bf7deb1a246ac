import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';

/** Liquors are measured with a jug, to this step in ml. */
const JUG_STEP_ML = 50;

/**
 * Liquor for a batch, ml: dry weight of fibre times the liquor ratio, rounded up to the jug's step
 * so that the fibre is never short of room.
 * @param wofG dry weight of fibre, grams
 * @param liquorRatio ml of liquor per gram of fibre
 */
export function liquorVolume(wofG: number, liquorRatio: number): Figure {
  const exactMl = wofG * liquorRatio;
  return figure(
    Math.ceil(exactMl / JUG_STEP_ML - 1e-9) * JUG_STEP_ML,
    'ml',
    $localize`weight of fibre × liquor ratio`,
    [
      { name: $localize`weight of fibre`, value: wofG, unit: 'g', source: $localize`this batch, dry` },
      { name: $localize`liquor ratio`, value: liquorRatio, unit: 'ml per g', source: $localize`recipe` },
    ],
    [$localize`rounded up to the next ${JUG_STEP_ML} ml of the jug`],
  );
}
