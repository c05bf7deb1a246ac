import { trimZeros } from './weight';

/** A pH as people write it, to a hundredth at most, with the studio’s decimal mark: `pH 7.5`. @param ph 0 to 14 */
export const sayPh = (ph: number): string => `pH ${trimZeros(ph, 2)}`;

/** Between which two it is meant to be: `pH 4 to 4.5`. */
export const sayPhBetween = ({ low, high }: { readonly low: number; readonly high: number }): string =>
  $localize`${sayPh(low)} to ${trimZeros(high, 2)}`;
