import { describe, expect, it } from 'vitest';
import { seeded } from '../photo/seeded';
import { readColourFile } from './colour-file';
import { BANDS_NM } from './spectrum';
import { writeCgats, writeColourTable } from './write-colour-file';

const random = seeded(4).uniform;
const conditions = { illuminant: 'D65', observer: '10' } as const;
const swatch = (name: string, spectral: boolean) => ({
  name,
  lab: { L: random() * 100, a: random() * 60 - 30, b: random() * 60 - 30 },
  conditions,
  spectrum: spectral ? BANDS_NM.map(() => 0.03 + random() * 0.9) : null,
});

describe.each([
  ['CGATS.17 text', writeCgats],
  ['a table', writeColourTable],
])('colours written as %s', (_name, write) => {
  it.each([true, false])('are read again as they were, spectra %s', (spectral) => {
    const swatches = [swatch('Marram, first dip', spectral), swatch('“Sluice” "deep"\n', spectral)];
    const read = readColourFile(write(swatches));
    if (!read.ok) throw new Error(JSON.stringify(read.refusal));
    expect(read.swatches.map((s) => s.name)).toEqual(['Marram, first dip', '“Sluice” deep']);
    for (const [i, s] of read.swatches.entries()) {
      if (spectral)
        for (const [j, r] of (s.spectrum ?? []).entries()) expect(r).toBeCloseTo(swatches[i]!.spectrum![j]!, 5);
      else expect(s.lab?.L).toBeCloseTo(swatches[i]!.lab.L, 2);
      expect(s.spectrum === null).toBe(!spectral);
    }
  });
  it('has colours alone where one swatch has no spectrum', () => {
    const read = readColourFile(write([swatch('one', true), swatch('two', false)]));
    expect(read.ok && read.swatches.map((s) => s.spectrum)).toEqual([null, null]);
  });
});
