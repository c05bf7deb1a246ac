import type { DeltaEFormula } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import type { Correction } from './correct';
import { factorise, solveFactorised } from './linear-algebra';
import type { Posterior } from './posterior';
import type { Foreseen } from './predict';
import { expectedDifference, inLab } from './predict';

/**
 * The difference from a standard that is to be expected of a way once a strike-off of it was dyed and read and what it
 * showed was made up for, by its formula: what a reading leaves unsure doesn’t depend on what it says (Kalman’s covariance).
 */
export function afterStrikeOff(
  { space, widths }: Posterior,
  { said, unsure, scatter }: Foreseen,
  standard: Lab,
  formula: DeltaEFormula,
): number {
  const n = space.count;
  const low = factorise({ n, cells: unsure.map((v, i) => v + (scatter[i] ?? 0)) });
  const left = Float64Array.from(unsure, (v, i) => v + (scatter[i] ?? 0));
  for (let j = 0; j < n; j += 1) {
    const column = solveFactorised(
      low,
      Float64Array.from({ length: n }, (_, i) => unsure[i * n + j] ?? 0),
    );
    for (let i = 0; i < n; i += 1)
      for (let k = 0; k < n; k += 1)
        left[i * n + j] = (left[i * n + j] ?? 0) - (unsure[i * n + k] ?? 0) * (column[k] ?? 0);
  }
  for (let c = 0; c < n; c += 1) left[c * n + c] = (left[c * n + c] ?? 0) - widths.scatter.reading ** 2 / 2;
  return expectedDifference(standard, space.lab(said.channels), inLab(space, said.channels, left), formula);
}

/** A strike-off costs half a day: it has to bring the lot nearer by this, as a share of the tolerance. */
const GAIN_SHARE = 0.2;
/** So near as this share of the tolerance, nobody strikes anything off. */
const NEAR_SHARE = 0.5;

/**
 * Whether a strike-off is worth its while: where the lot is likely to come clearly nearer after one than without.
 * @param best the best way without one @param struckOff the way it would be dyed of @param toleranceDeltaE ΔE00 that the
 * colourway allows
 */
export const isStrikeOffWorth = (
  best: Pick<Correction, 'expectedDeltaE'>,
  struckOff: Pick<Correction, 'afterStrikeOffDeltaE'>,
  toleranceDeltaE: number,
): boolean =>
  best.expectedDeltaE - struckOff.afterStrikeOffDeltaE > GAIN_SHARE * toleranceDeltaE &&
  best.expectedDeltaE > NEAR_SHARE * toleranceDeltaE;
