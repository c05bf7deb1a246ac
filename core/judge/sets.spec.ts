import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ciede2000 } from '../colour/ciede2000';
import type { Apart } from './sets';
import { sortIntoSets } from './sets';

const onALine =
  (places: readonly number[]): Apart =>
  (one, two) =>
    Math.abs((places[one] ?? 0) - (places[two] ?? 0));

/** Every partition into sets of two, and what is left over: the least worst pair. */
function leastOfPairs(places: readonly number[]): number {
  const walk = (left: readonly number[]): number => {
    if (left.length < 2) return 0;
    const [first = 0, ...rest] = left;
    const pairs = rest.map((other) => Math.max(Math.abs(first - other), walk(rest.filter((p) => p !== other))));
    const without = left.length % 2 === 1 ? walk(rest) : Infinity;
    return Math.min(without, ...pairs);
  };
  return walk(places);
}

describe('sorting pieces into sets', () => {
  it('is the best there is, for a few pieces', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 99 }), { minLength: 2, maxLength: 8 }), (places) => {
        expect(sortIntoSets(places.length, 2, onALine(places)).worst).toBe(leastOfPairs(places));
      }),
      { seed: 8 },
    );
  });
  it('puts alike to alike, and leaves over what fits nowhere', () => {
    const places = [1, 50, 2, 51, 3, 52, 99];
    const { sets, leftOver, worst } = sortIntoSets(7, 3, onALine(places));
    const shown = sets
      .map((s) => s.map((p) => places[p] ?? 0).sort((x, y) => x - y))
      .sort((x, y) => (x[0] ?? 0) - (y[0] ?? 0));
    expect([shown, leftOver.map((p) => places[p]), worst]).toEqual([
      [
        [1, 2, 3],
        [50, 51, 52],
      ],
      [99],
      2,
    ]);
  });
  it('holds every piece once, in sets of that size, and the same every time', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 400 }), { maxLength: 40 }),
        fc.integer({ min: 1, max: 6 }),
        (places, size) => {
          const found = sortIntoSets(places.length, size, onALine(places));
          expect([...found.sets.flat(), ...found.leftOver].sort((x, y) => x - y)).toEqual(places.map((_, i) => i));
          expect(found.sets.every((s) => s.length === size)).toBe(true);
          expect(found.leftOver.length).toBe(places.length % size);
          expect(sortIntoSets(places.length, size, onALine(places))).toEqual(found);
        },
      ),
      { seed: 40, numRuns: 60 },
    );
  });
  it('finds what was mixed up: sets of five, each about a shade of its own', () => {
    const shades = Array.from({ length: 12 }, (_, i) => ({
      L: 40 + (i % 4) * 12,
      a: -10 + 15 * Math.floor(i / 4),
      b: 20,
    }));
    const labs = Array.from({ length: 60 }, (_, i) => {
      const { L, a, b } = shades[(i * 7) % 12]!;
      return { L: L + 0.3 * Math.sin(i), a: a + 0.3 * Math.cos(i * 3), b };
    });
    const apart: Apart = (x, y) => ciede2000(labs[x]!, labs[y]!, { kL: 1, kC: 1, kH: 1 }).deltaE;
    expect(sortIntoSets(60, 5, apart).worst).toBeLessThan(1.2);
  });
  it('of fewer pieces than a set has leaves them all over; a set of nothing is none', () => {
    expect(sortIntoSets(2, 3, () => 1)).toEqual({ sets: [], leftOver: [0, 1], worst: 0 });
    expect(() => sortIntoSets(4, 0, () => 1)).toThrow(RangeError);
  });
});
