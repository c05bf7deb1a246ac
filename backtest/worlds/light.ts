import { BANDS_NM, ciede2000, ksOfReflectance, labOfSpectrum, reflectanceOfKs } from '@vestigia/core';
import type { Lab } from '../world';

/** What worlds and scorer know of light: published formulas, no more. */
export const BANDS = BANDS_NM;
export const ksOf = ksOfReflectance;
export const reflectanceOf = reflectanceOfKs;
export const labOf = (reflectance: readonly number[]): Lab =>
  labOfSpectrum(reflectance, { illuminant: 'D65', observer: '10' });
export const deltaE00 = (standard: Lab, sample: Lab): number =>
  ciede2000(standard, sample, { kL: 1, kC: 1, kH: 1 }).deltaE;
