import { cie76 } from './differences';
import type { ColourConditions } from './lab';
import type { Spectrum } from './spectrum';
import { xyzOfSpectrum } from './spectrum';
import { convertXyzToLab } from './xyz';

/**
 * How far two pieces that match under one light part under another: the special metamerism index for a change of
 * illuminant, CIE 15:2018, section 9.2, as ΔE*ab. What they already differ by under the first light is taken out by
 * scaling the sample's X, Y and Z.
 */
export function metamerism(
  standard: Spectrum,
  sample: Spectrum,
  { reference, test }: { readonly reference: ColourConditions; readonly test: ColourConditions },
): number {
  const [standardRef, sampleRef] = [xyzOfSpectrum(standard, reference), xyzOfSpectrum(sample, reference)];
  const [standardTest, sampleTest] = [xyzOfSpectrum(standard, test), xyzOfSpectrum(sample, test)];
  const scaled = (i: 0 | 1 | 2): number =>
    sampleRef[i] === 0 ? sampleTest[i] : (sampleTest[i] * standardRef[i]) / sampleRef[i];
  return cie76(convertXyzToLab(standardTest, test), convertXyzToLab([scaled(0), scaled(1), scaled(2)], test)).deltaE;
}
