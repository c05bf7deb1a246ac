import { describe, expect, it } from 'vitest';
import { underConditions } from './under-conditions';

describe('what a picture says, under the light of a master', () => {
  const seen = { lab: { L: 60, a: 20, b: 40 }, deltaE00Within80: 1.2 };
  it('is what it is under D65 and 2°', () =>
    expect(underConditions(seen, { illuminant: 'D65', observer: '2' })).toEqual({ lab: seen.lab, within80: 1.2 }));
  it('is nearly that for another observer, and less sure', () => {
    const { lab, within80 } = underConditions(seen, { illuminant: 'D65', observer: '10' });
    expect(Math.hypot(lab.L - 60, lab.a - 20, lab.b - 40)).toBeLessThan(2);
    expect(within80).toBeCloseTo(Math.hypot(1.2, 1), 9);
  });
  it('keeps a grey grey', () => {
    const { lab } = underConditions(
      { lab: { L: 50, a: 0, b: 0 }, deltaE00Within80: 1 },
      { illuminant: 'A', observer: '10' },
    );
    expect([lab.a, lab.b]).toEqual([expect.closeTo(0, 6), expect.closeTo(0, 6)]);
  });
});
