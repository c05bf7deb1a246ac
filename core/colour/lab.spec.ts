import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chroma, hueDegrees, meanLab, sameConditions } from './lab';

describe('L*a*b*', () => {
  it.each<[string, number, number, number, number]>([
    ['red', 10, 0, 10, 0],
    ['yellow', 0, 10, 10, 90],
    ['green', -10, 0, 10, 180],
    ['blue', 0, -10, 10, 270],
    ['between', 3, 4, 5, 53.13],
    ['grey', 0, 0, 0, 0],
  ])('%s has its chroma and hue', (_name, a, b, c, h) => {
    expect(chroma({ L: 50, a, b })).toBeCloseTo(c, 10);
    expect(hueDegrees({ L: 50, a, b })).toBeCloseTo(h, 2);
  });

  it('has a hue from 0 up to 360, whatever the colour', () => {
    const part = fc.double({ min: -128, max: 128, noNaN: true });
    fc.assert(
      fc.property(part, part, (a, b) => {
        const h = hueDegrees({ L: 50, a, b });
        expect(h).toBeGreaterThanOrEqual(0);
        expect(h).toBeLessThanOrEqual(360);
      }),
      { seed: 72 },
    );
  });

  it('has a middle, and none of nothing', () => {
    const low = { L: 40, a: -10, b: 0 };
    const high = { L: 60, a: 10, b: 30 };
    expect(meanLab([low, high])).toEqual({ L: 50, a: 0, b: 15 });
    expect(meanLab([low])).toEqual(low);
    expect(() => meanLab([])).toThrow(RangeError);
  });

  it('compares only under the same light and observer', () => {
    const d65 = { illuminant: 'D65', observer: '10' } as const;
    expect(sameConditions(d65, { ...d65 })).toBe(true);
    expect(sameConditions(d65, { ...d65, observer: '2' })).toBe(false);
    expect(sameConditions(d65, { ...d65, illuminant: 'A' })).toBe(false);
  });
});
