import { atMost } from '../quantity/at-most';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';

/** One piece as it read wet, and as it read once it was dry. */
export interface WetDryPair {
  readonly wet: Lab;
  readonly dry: Lab;
}

/** What a wet reading will be once it is dry. */
export interface DryForecast {
  readonly lab: Lab;
  /** The truth lies no further than this four times in five, ΔE00: from leaving each pair out in its turn. */
  readonly within80: number;
  /** How many pairs it rests on. */
  readonly pairs: number;
}

/** Below this many pairs nothing is said: the error can’t be told from so few. */
export const LEAST_WET_DRY_PAIRS = 6;
const EVEN = { kL: 1, kC: 1, kH: 1 };

/** Dry lightness as a line over wet, the two other coordinates by one ratio: water deepens and brightens all alike. */
function fit(pairs: readonly WetDryPair[]): (wet: Lab) => Lab {
  const n = pairs.length;
  const meanWet = pairs.reduce((sum, p) => sum + p.wet.L, 0) / n;
  const meanDry = pairs.reduce((sum, p) => sum + p.dry.L, 0) / n;
  const spread = pairs.reduce((sum, p) => sum + (p.wet.L - meanWet) ** 2, 0);
  const slanted = pairs.reduce((sum, p) => sum + (p.wet.L - meanWet) * (p.dry.L - meanDry), 0);
  // A slope of 1 is what is believed beforehand, as much as pairs 10 L* from their mean would say.
  const slope = (slanted + 100) / (spread + 100);
  const plane = pairs.reduce((sum, p) => sum + p.wet.a ** 2 + p.wet.b ** 2, 0);
  const along = pairs.reduce((sum, p) => sum + p.wet.a * p.dry.a + p.wet.b * p.dry.b, 0);
  const ratio = plane === 0 ? 1 : along / plane;
  return (wet) => ({
    L: Math.min(100, Math.max(0, meanDry + slope * (wet.L - meanWet))),
    a: wet.a * ratio,
    b: wet.b * ratio,
  });
}

/**
 * What a wet piece will be dry, from pairs that were read both ways: by least squares, its error by leaving each pair
 * out in its turn (the jackknife's quantile at ⌈0.8 (n + 1)⌉, Barber et al. 2021). `null` below
 * `LEAST_WET_DRY_PAIRS`.
 */
export function forecastDry(wet: Lab, pairs: readonly WetDryPair[]): DryForecast | null {
  const n = pairs.length;
  if (n < LEAST_WET_DRY_PAIRS) return null;
  const errors = pairs.map((left) => ciede2000(left.dry, fit(pairs.filter((p) => p !== left))(left.wet), EVEN).deltaE);
  return { lab: fit(pairs)(wet), within80: atMost(errors, 0.8), pairs: n };
}
