import { converter, differenceCie76, differenceCiede2000, differenceCmc, useMode, modeLab65 } from 'culori/fn';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ciede2000 } from './ciede2000';
import { cie76, cmc } from './differences';
import type { Lab } from './lab';

useMode(modeLab65);
const asTheirs = ({ L, a, b }: Lab) => ({ mode: 'lab65' as const, l: L, a, b });
const theirs = converter('lab65');
const anyLab = fc.record({
  L: fc.double({ min: 0, max: 100, noNaN: true }),
  a: fc.double({ min: -100, max: 100, noNaN: true }),
  b: fc.double({ min: -100, max: 100, noNaN: true }),
});

describe('colour differences', () => {
  it('are those of a second library, pair by pair', () => {
    const [e76, e00, eCmc] = [differenceCie76(), differenceCiede2000(), differenceCmc(2, 1)];
    fc.assert(
      fc.property(anyLab, anyLab, (x, y) => {
        const [a, b] = [theirs(asTheirs(x)), theirs(asTheirs(y))];
        expect(cie76(x, y).deltaE).toBeCloseTo(e76(a, b), 6);
        expect(ciede2000(x, y, { kL: 1, kC: 1, kH: 1 }).deltaE).toBeCloseTo(e00(a, b), 6);
        expect(cmc(x, y, { l: 2, c: 1 }).deltaE).toBeCloseTo(eCmc(a, b), 6);
      }),
      { seed: 76, numRuns: 2000 },
    );
  });
  it('are made up of their parts', () => {
    fc.assert(
      fc.property(anyLab, anyLab, (x, y) => {
        for (const d of [cie76(x, y), cmc(x, y, { l: 2, c: 1 })])
          expect(Math.hypot(d.deltaL, d.deltaC, d.deltaH)).toBeCloseTo(d.deltaE, 6);
      }),
      { seed: 77 },
    );
  });
  it.each<[string, Lab, 'deltaL' | 'deltaC' | 'deltaH', number]>([
    ['lighter', { L: 62, a: 40, b: 5 }, 'deltaL', 1],
    ['duller', { L: 60, a: 30, b: 3.75 }, 'deltaC', -1],
    ['yellower, for a red', { L: 60, a: 39.5, b: 8 }, 'deltaH', 1],
    ['bluer, for a red', { L: 60, a: 40, b: 1 }, 'deltaH', -1],
  ])('sign a sample that is %s', (_name, sample, part, sign) =>
    expect(Math.sign(cie76({ L: 60, a: 40, b: 5 }, sample)[part])).toBe(sign),
  );
  it('by CMC at 2:1 forgive twice the lightness, and take the first colour as the standard', () => {
    const [x, y] = [
      { L: 50, a: 0, b: 0 },
      { L: 53, a: 0, b: 0 },
    ];
    expect(cmc(x, y, { l: 2, c: 1 }).deltaE).toBeCloseTo(cmc(x, y, { l: 1, c: 1 }).deltaE / 2, 10);
    expect(cmc({ L: 20, a: 5, b: 5 }, { L: 60, a: 40, b: 0 }, { l: 2, c: 1 }).deltaE).not.toBeCloseTo(
      cmc({ L: 60, a: 40, b: 0 }, { L: 20, a: 5, b: 5 }, { l: 2, c: 1 }).deltaE,
      1,
    );
  });
});
