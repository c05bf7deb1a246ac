import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { meanLab } from '../colour/lab';

/** How even a piece is over several spots: how far they lie from their mean, ΔE00 at 1:1:1. */
export interface Evenness {
  readonly meanDeltaE00: number;
  readonly maxDeltaE00: number;
}

/** Evenness of spots read across one piece. Throws RangeError on none. */
export function evennessOf(spots: readonly Lab[]): Evenness {
  const mean = meanLab(spots);
  const far = spots.map((spot) => ciede2000(mean, spot, { kL: 1, kC: 1, kH: 1 }).deltaE);
  return { meanDeltaE00: far.reduce((sum, d) => sum + d, 0) / far.length, maxDeltaE00: Math.max(...far) };
}
