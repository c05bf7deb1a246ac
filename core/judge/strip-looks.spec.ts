import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { SeenStrip, StripLook } from './strip-looks';
import { checkStripLook, rankByEye, sayStripLookRefusal } from './strip-looks';

const strip = (number: number, place: number, rest: Partial<SeenStrip> = {}): SeenStrip => ({
  number,
  place,
  warmth: 'between',
  evenness: 'even',
  goodFor: '',
  ...rest,
});
const look = (seen: SeenStrip[], rest: Partial<StripLook> = {}): StripLook => ({
  state: 'dry',
  byId: 'ada',
  seen,
  ...rest,
});

describe('strips placed by eye', () => {
  it.each<[SeenStrip[], RegExp]>([
    [[], /at least one strip/],
    [[strip(7, 1)], /has 6 strips/],
    [[strip(0, 1)], /has 6 strips/],
    [[strip(2, 1), strip(2, 3)], /Strip 2 stands there twice/],
  ])('refuses %j', (seen, said) => {
    const refusal = checkStripLook(seen, 6);
    expect(refusal && sayStripLookRefusal(refusal)).toMatch(said);
  });
  it('takes places that are shared, and strips that were left out', () =>
    expect(checkStripLook([strip(1, 1), strip(2, 1), strip(6, 3)], 6)).toBeUndefined());

  it('go by what was seen dry, and tell how drying changed their order', () => {
    const ranked = rankByEye([
      look([strip(1, 1), strip(2, 2), strip(3, 3)], { state: 'wet' }),
      look([strip(1, 2, { warmth: 'warm' }), strip(2, 1, { evenness: 'spotted', goodFor: 'backing' })]),
    ]);
    expect(ranked.map((s) => [s.number, s.state, s.rose])).toEqual([
      [2, 'dry', 1],
      [1, 'dry', -1],
      [3, 'wet', null],
    ]);
    expect(ranked[0]).toMatchObject({ evenness: 'spotted', goodFor: ['backing'], people: 1 });
    expect(ranked[1]?.warmth).toBe('warm');
  });
  it('by several people lie at their mean place; what one said anew counts in place of the old', () => {
    const ranked = rankByEye([
      look([strip(1, 3), strip(2, 1)]),
      look([strip(1, 1), strip(2, 2)]),
      look([strip(1, 2), strip(2, 1)], { byId: 'bo' }),
    ]);
    expect(ranked.map((s) => [s.number, s.place, s.people])).toEqual([
      [1, 1.5, 2],
      [2, 1.5, 2],
    ]);
  });
  it('of one look keep its order, whatever the order they were written in', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 1, max: 24 }), { minLength: 1 }), (numbers) => {
        const seen = numbers.map((number, i) => strip(number, i + 1));
        expect(rankByEye([look([...seen].reverse())]).map((s) => s.number)).toEqual(numbers);
      }),
      { seed: 12 },
    );
  });
});
