import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { meanLab } from '../colour/lab';
import type { Evenness } from '../photo/evenness';
import { evennessOf } from '../photo/evenness';

/** Several spots of one piece as one reading. */
export interface FoldedSpots {
  /** Their mean. */
  readonly lab: Lab;
  /** How far the spots lie from it; `null` for a single spot. */
  readonly evenness: Evenness | null;
  /** Root mean square distance from the mean, ΔE00 at 1:1:1; `null` for a single spot. */
  readonly spreadDeltaE00: number | null;
}

/** One reading out of the spots that were read of a piece. Throws RangeError on none. */
export function foldSpots(spots: readonly Lab[]): FoldedSpots {
  const lab = meanLab(spots);
  if (spots.length === 1) return { lab, evenness: null, spreadDeltaE00: null };
  const squares = spots.map((spot) => ciede2000(lab, spot, { kL: 1, kC: 1, kH: 1 }).deltaE ** 2);
  const spreadDeltaE00 = Math.sqrt(squares.reduce((sum, d) => sum + d, 0) / spots.length);
  return { lab, evenness: evennessOf(spots), spreadDeltaE00 };
}
