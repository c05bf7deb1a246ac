import type { Correction } from './correct';

/** A proof costs half a day: it has to be likely that it brings the lot nearer by this, as a share of the tolerance. */
const GAIN_SHARE = 0.2;
/** Below this of what is unsure a proof can do nothing: it is luck. */
const LUCK_DELTA_E = 0.7;

/**
 * Whether a strike-off is worth its while: where what is unsure reaches beyond the tolerance, and is more than luck.
 * @param toleranceDeltaE ΔE00 that the colourway allows
 */
export function isProofWorth({ expectedDeltaE, prediction }: Correction, toleranceDeltaE: number): boolean {
  const unsure = prediction.within80 - LUCK_DELTA_E;
  return unsure > GAIN_SHARE * toleranceDeltaE && expectedDeltaE > toleranceDeltaE / 2;
}
