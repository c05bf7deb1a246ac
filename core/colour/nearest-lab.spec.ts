import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ciede2000 } from './ciede2000';
import type { Lab } from './lab';
import { indexLabs } from './nearest-lab';

const anyLab = fc.record({
  L: fc.double({ min: 0, max: 100, noNaN: true }),
  a: fc.double({ min: -110, max: 110, noNaN: true }),
  b: fc.double({ min: -110, max: 110, noNaN: true }),
});
const byBruteForce = (labs: readonly Lab[], to: Lab, count: number) =>
  labs
    .map((lab, position) => ({ position, deltaE: ciede2000(to, lab, { kL: 1, kC: 1, kH: 1 }).deltaE }))
    .sort((x, y) => x.deltaE - y.deltaE || x.position - y.position)
    .slice(0, count);

describe('the nearest colours', () => {
  it('are exactly those that comparing with every one finds, in that order', () => {
    fc.assert(
      fc.property(fc.array(anyLab, { maxLength: 300 }), anyLab, fc.integer({ min: 1, max: 6 }), (labs, to, count) => {
        expect(indexLabs(labs).nearest(to, count)).toEqual(byBruteForce(labs, to, count));
      }),
      { seed: 2000, numRuns: 400 },
    );
  });
  it('are found where many are alike, and in the blues, where the formula turns', () => {
    const blues = Array.from({ length: 400 }, (_, i) => ({ L: 30 + (i % 20), a: 10 + (i % 7), b: -60 + (i % 13) }));
    for (const to of [
      { L: 38.5, a: 12.2, b: -54 },
      { L: 99, a: -80, b: 90 },
    ])
      expect(indexLabs(blues).nearest(to, 5)).toEqual(byBruteForce(blues, to, 5));
  });
  it('of none are none', () => {
    expect(indexLabs([]).nearest({ L: 50, a: 0, b: 0 }, 3)).toEqual([]);
    expect(indexLabs([{ L: 50, a: 0, b: 0 }]).nearest({ L: 50, a: 0, b: 0 }, 0)).toEqual([]);
  });
});
