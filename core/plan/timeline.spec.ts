import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { earliestWithin, liesWithin, tidySpans } from './spans';
import { Timeline } from './timeline';

describe('what is in use when', () => {
  it('is free before, between and after, and gives back what is taken out', () => {
    const pot = new Timeline(1, [[100, 200]]);
    pot.add(0, 50, 1, 7);
    expect([pot.earliestFree(0, 50), pot.earliestFree(0, 60), pot.blockedUntil(90, 110)]).toEqual([50, 200, 200]);
    pot.remove(7, 0);
    expect(pot.earliestFree(0, 60)).toBe(0);
  });
  it('lets a burner for two carry two, and no third', () => {
    const burner = new Timeline(2);
    burner.add(0, 100, 1, 1);
    expect(burner.blockedUntil(50, 150)).toBeUndefined();
    burner.add(50, 150, 1, 2);
    expect([burner.blockedUntil(60, 90), burner.blockedUntil(0, 50), burner.blockedUntil(100, 150)]).toEqual([
      100,
      undefined,
      undefined,
    ]);
  });
  it('never says free what isn’t, and never blocked what is free, as minutes counted one by one say', () => {
    const use = fc.record({
      from: fc.integer({ min: 0, max: 40 }),
      length: fc.integer({ min: 1, max: 15 }),
      amount: fc.integer({ min: 1, max: 2 }),
    });
    fc.assert(
      fc.property(fc.array(use, { maxLength: 8 }), fc.integer({ min: 1, max: 3 }), use, (uses, capacity, asked) => {
        const line = new Timeline(capacity);
        uses.forEach((u, i) => line.add(u.from, u.from + u.length, u.amount, i));
        const minutes = Array.from({ length: asked.length }, (_, i) => asked.from + i);
        const loadAt = (m: number): number =>
          uses.reduce((sum, u) => sum + (u.from <= m && u.from + u.length > m ? u.amount : 0), 0);
        const isFree = minutes.every((m) => loadAt(m) + asked.amount <= capacity || loadAt(m) === 0);
        if (asked.amount <= capacity)
          expect(line.blockedUntil(asked.from, asked.from + asked.length, asked.amount) === undefined).toBe(isFree);
      }),
    );
  });
});

describe('spans', () => {
  it('are put in order and joined', () =>
    expect(
      tidySpans([
        [5, 9],
        [0, 3],
        [3, 4],
        [8, 8],
        [8, 12],
      ]),
    ).toEqual([
      [0, 4],
      [5, 12],
    ]));
  it('say where something fits first', () => {
    const spans = tidySpans([
      [0, 10],
      [20, 40],
    ]);
    expect([earliestWithin(spans, 2, 8), earliestWithin(spans, 3, 8), earliestWithin(spans, 25, 16)]).toEqual([
      2,
      20,
      Infinity,
    ]);
    expect([liesWithin(spans, 20, 40), liesWithin(spans, 5, 21)]).toEqual([true, false]);
  });
});
