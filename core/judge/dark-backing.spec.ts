import { describe, expect, it } from 'vitest';
import { looksBackedDark } from './dark-backing';

describe('a piece read on a black table', () => {
  const before = { L: 70, a: 4, b: 40 };
  it('is clearly darker in the same hue, and no clearer', () => {
    expect(looksBackedDark(before, { L: 62, a: 3.6, b: 36 })).toBeCloseTo(8);
    expect(looksBackedDark({ L: 88, a: 0, b: 3 }, { L: 80, a: 0.4, b: -1 })).toBeCloseTo(8);
  });
  it.each([
    ['as it was', { L: 68, a: 4, b: 40 }],
    ['paler: faded', { L: 76, a: 3, b: 34 }],
    ['deeper with more colour: another dip', { L: 62, a: 5, b: 48 }],
    ['another hue: a modifier', { L: 62, a: -12, b: 34 }],
  ])('not where it is %s', (_, now) => expect(looksBackedDark(before, now)).toBeUndefined());
});
