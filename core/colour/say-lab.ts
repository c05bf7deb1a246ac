import type { Lab } from './lab';
import { decimals } from '../quantity/shown-in';

/** Enough to tell two readings apart: a tenth of L*, a* or b* is under what any eye sees. */
const PLACES = 1;

/** A reading as people write one, with the studio’s decimal mark: `L* 51.2, a* 7.6, b* -9.8`. */
export const sayLab = ({ L, a, b }: Pick<Lab, 'L' | 'a' | 'b'>, places = PLACES): string =>
  `L* ${decimals(L, places)}, a* ${decimals(a, places)}, b* ${decimals(b, places)}`;
