import type { Spectrum } from './spectrum';

/** A reader is not trusted below this, nor a white above its like. */
const LEAST = 0.001;
const MOST = 0.999;

/** K/S of one band: (1 − R)² ÷ 2R, Kubelka and Munk 1931. R from 0.001 to 0.999. */
export function ksOfReflectance(reflectance: number): number {
  const r = Math.min(MOST, Math.max(LEAST, reflectance));
  return (1 - r) ** 2 / (2 * r);
}

/** R of a K/S: the same, reversed. */
export const reflectanceOfKs = (ks: number): number => 1 + ks - Math.sqrt(ks * ks + 2 * ks);

/** K/S of every band. */
export const ksOfSpectrum = (spectrum: Spectrum): number[] => spectrum.map(ksOfReflectance);

/** What dye there is on a piece, by band: its K/S less that of the undyed base, never below nothing. */
export const ksOverBase = (dyed: Spectrum, undyed: Spectrum): number[] =>
  dyed.map((r, i) => Math.max(0, ksOfReflectance(r) - ksOfReflectance(undyed[i] ?? MOST)));

/** Depth as one figure: the sum of K/S over the base, over all bands. */
export const depthOfSpectrum = (dyed: Spectrum, undyed: Spectrum): number =>
  ksOverBase(dyed, undyed).reduce((sum, ks) => sum + ks, 0);

/**
 * Strength of a sample beside a standard dyed alike, 1 = as strong: the ratio of depths over the base. `null` where
 * the standard has none.
 */
export function strengthBeside(standard: Spectrum, sample: Spectrum, undyed: Spectrum): number | null {
  const whole = depthOfSpectrum(standard, undyed);
  return whole > 0 ? depthOfSpectrum(sample, undyed) / whole : null;
}
