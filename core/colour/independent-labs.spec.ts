import { describe, expect, it } from 'vitest';
import { INDEPENDENT_LABS, SMOOTH_SPECTRA } from './independent-labs.fixture';
import { labOfSpectrum } from './spectrum';

describe('spectra to L*a*b*', () => {
  it.each(INDEPENDENT_LABS)(
    'agree with an independent program within 0.02 under $illuminant, $observer°',
    ({ labs, ...under }) => {
      for (const [i, spectrum] of SMOOTH_SPECTRA.entries()) {
        const [own, theirs] = [labOfSpectrum(spectrum, under), labs[i]!];
        expect(
          Math.max(Math.abs(own.L - theirs.L), Math.abs(own.a - theirs.a), Math.abs(own.b - theirs.b)),
        ).toBeLessThan(0.02);
      }
    },
  );
});
