import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import { SMOOTH_SPECTRA } from '../colour/independent-labs.fixture';
import type { Lab } from '../colour/lab';
import { BANDS_NM, labOfSpectrum } from '../colour/spectrum';
import { MATCH_CONDITIONS } from './channels';
import { smoothSpectrum } from './smooth-spectrum';
import { groundUnderOurLight, meanSpectrum, underOurLight } from './under-our-light';

const far = (x: Lab, y: Lab): number => ciede2000(x, y, { kL: 1, kC: 1, kH: 1 }).deltaE;

describe('a smooth spectrum of a colour', () => {
  it.each<[string, Lab]>([
    ['undyed wool', { L: 86, a: 0, b: 9 }],
    ['madder', { L: 45, a: 42, b: 25 }],
    ['weld', { L: 75, a: 0, b: 65 }],
    ['indigo', { L: 25, a: 2, b: -28 }],
    ['iron black', { L: 14, a: 1, b: -2 }],
  ])('of %s looks like it, and is one that a surface may have', (_name, lab) => {
    const spectrum = smoothSpectrum(lab, MATCH_CONDITIONS);
    expect(spectrum).toHaveLength(BANDS_NM.length);
    expect(far(labOfSpectrum(spectrum, MATCH_CONDITIONS), lab)).toBeLessThan(0.02);
    expect(Math.min(...spectrum)).toBeGreaterThan(0);
    expect(Math.max(...spectrum)).toBeLessThan(1);
  });
  it('lies near the real one of smooth dyes', () => {
    for (const real of SMOOTH_SPECTRA) {
      const spectrum = smoothSpectrum(labOfSpectrum(real, MATCH_CONDITIONS), MATCH_CONDITIONS);
      const off = spectrum.map((r, i) => Math.abs(r - (real[i] ?? 0)));
      expect(off.reduce((sum, o) => sum + o, 0) / off.length).toBeLessThan(0.1);
    }
  });
  it('of a colour no surface has is the nearest found, and a spectrum still', () => {
    const spectrum = smoothSpectrum({ L: 50, a: 120, b: -120 }, MATCH_CONDITIONS);
    expect(spectrum.every((r) => r >= 0 && r <= 1)).toBe(true);
  });
});

describe('a colour under the light that is matched in', () => {
  const [real] = SMOOTH_SPECTRA;
  const a = { illuminant: 'A', observer: '10' } as const;
  it('comes out of its spectrum, whatever light its L*a*b* was told under', () => {
    const ours = underOurLight({ ...labOfSpectrum(real!, a), ...a }, real!);
    expect(ours?.lab).toEqual(labOfSpectrum(real!, MATCH_CONDITIONS));
    expect(ours?.spectrum).toBe(real);
  });
  it('without one counts only where it was read under that light; a ground is taken as it would look', () => {
    const lab = { L: 86, a: 1, b: 9 };
    expect(underOurLight({ ...lab, ...MATCH_CONDITIONS }, null)).toEqual({ lab, spectrum: null });
    expect(underOurLight({ ...lab, ...a }, null)).toBeUndefined();
    const under50 = { illuminant: 'D50', observer: '2' } as const;
    expect(far(groundUnderOurLight({ ...lab, ...under50 }, null).lab, lab)).toBeLessThan(2);
  });
  it('is a mean band by band only where every one was read so', () => {
    expect(
      meanSpectrum([
        [0.2, 0.4],
        [0.4, 0.6],
      ])?.map((r) => r.toFixed(2)),
    ).toEqual(['0.30', '0.50']);
    expect(meanSpectrum([[0.2, 0.4], null])).toBeNull();
    expect(meanSpectrum([])).toBeNull();
  });
});
