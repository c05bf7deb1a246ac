import type { ColourConditions, Lab } from '../colour/lab';
import { sameConditions } from '../colour/lab';
import { SCREEN, adaptXyz, convertLabToXyz, convertXyzToLab } from '../colour/xyz';

/** Two observers, or two lights, see a dye so far apart beside their white, ΔE00: a guess where there is no spectrum. */
const OTHER_CONDITIONS_DELTA_E00 = 1;

/**
 * What a picture says, under the light and observer that a master was read in. A picture knows D65 and 2° only; for
 * others its white is turned into theirs (Bradford), and the error grows by what that can’t know.
 */
export function underConditions(
  { lab, deltaE00Within80 }: { readonly lab: Lab; readonly deltaE00Within80: number },
  conditions: ColourConditions,
): { readonly lab: Lab; readonly within80: number } {
  if (sameConditions(SCREEN, conditions)) return { lab, within80: deltaE00Within80 };
  return {
    lab: convertXyzToLab(adaptXyz(convertLabToXyz(lab, SCREEN), SCREEN, conditions), conditions),
    within80: Math.hypot(deltaE00Within80, OTHER_CONDITIONS_DELTA_E00),
  };
}
