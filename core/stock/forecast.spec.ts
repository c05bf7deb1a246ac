import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysToNextSeason, isInSeason, rateOfUse, reorder, runOut, toGather } from './forecast';
import { firstOverdraft, foldOnHand, onHandAt } from './ledger';

const steady = rateOfUse({ weekly: Array.from({ length: 20 }, () => 700) });

describe('looking ahead', () => {
  it('says nothing from too little', () => {
    expect(rateOfUse({ weekly: [5, 5, 5] })).toBeUndefined();
    expect(rateOfUse({ weekly: [0, 0, 0, 0, 0, 0, 9, 9] })).toBeUndefined();
  });
  it('runs out when a steady use says so, with no band', () =>
    expect(steady && runOut(7000, steady)).toEqual({ likelyDays: 70, earlyDays: 70, lateDays: 70 }));
  it('is out already with nothing free', () =>
    expect(steady && runOut(-5, steady)).toEqual({ likelyDays: 0, earlyDays: 0, lateDays: 0 }));
  it('widens the band with uneven use, around the likely day', () => {
    const weeks = fc
      .array(fc.integer({ min: 0, max: 5000 }), { minLength: 12, maxLength: 52 })
      .filter((w) => w.filter((x) => x > 0).length >= 3);
    fc.assert(
      fc.property(weeks, fc.integer({ min: 1, max: 200_000 }), (weekly, free) => {
        const rate = rateOfUse({ weekly });
        if (!rate) return;
        const out = runOut(free, rate);
        const day = (d: number | null): number => d ?? Infinity;
        expect(day(out.earlyDays)).toBeLessThanOrEqual(day(out.likelyDays));
        expect(day(out.likelyDays)).toBeLessThanOrEqual(day(out.lateDays));
      }),
      { seed: 71 },
    );
  });
  it('holds four times in five, on demand drawn from the same weeks', () => {
    // Demand of 26 weeks against what the band allowed for: most runs must fall inside.
    let state = 12345;
    const next = (): number => (state = (Math.imul(state, 1103515245) + 12345) & 0x7fffffff) / 0x7fffffff;
    let inside = 0;
    for (let trial = 0; trial < 200; trial += 1) {
      const week = (): number => Math.round(next() < 0.4 ? 0 : 400 + 900 * next());
      const rate = rateOfUse({ weekly: Array.from({ length: 52 }, week) });
      if (!rate) continue;
      const { earlyDays, lateDays } = runOut(20_000, rate);
      let left = 20_000;
      let days = 0;
      while (left > 0 && days < 2000) {
        left -= week();
        days += 7;
      }
      if (days >= (earlyDays ?? 0) - 7 && days <= (lateDays ?? Infinity) + 7) inside += 1;
    }
    expect(inside / 200).toBeGreaterThan(0.7);
  });
  it('orders in time for the lead, or where the studio says', () => {
    if (!steady) throw new Error('no rate');
    expect(reorder(steady, { leadTimeDays: 14, unit: 'mg' })).toMatchObject({
      point: { value: 1400 },
      quantity: { value: 18_200 },
    });
    expect(reorder(steady, { leadTimeDays: 14, unit: 'mg', setPoint: 50, setQuantity: 9 })).toMatchObject({
      point: { value: 50 },
      quantity: { value: 9 },
    });
  });
  it.each<[string, number, number, boolean, number]>([
    ['2026-07-10', 6, 8, true, 326],
    ['2026-11-23', 10, 2, true, 312],
    ['2026-03-01', 10, 2, false, 214],
    ['2026-02-28', 10, 2, true, 215],
  ])('knows the seasons on %s', (date, fromMonth, toMonth, inSeason, days) => {
    expect(isInSeason({ fromMonth, toMonth }, date)).toBe(inSeason);
    expect(daysToNextSeason({ fromMonth, toMonth }, date)).toBe(days);
  });
  it('gathers what is missing until the next season', () => {
    if (!steady) throw new Error('no rate');
    expect(toGather(10_000, steady, { fromMonth: 6, toMonth: 8 }, '2026-07-10', 'mg').value).toBe(22_600);
    expect(toGather(90_000, steady, { fromMonth: 6, toMonth: 8 }, '2026-07-10', 'mg').value).toBe(0);
  });
});

describe('on hand at a date', () => {
  const day = (n: number): string => new Date(Date.UTC(2026, 0, 1 + n)).toISOString();
  const moves = fc.array(
    fc.record({
      stockLotId: fc.constantFrom('a', 'b'),
      amount: fc.integer({ min: -1000, max: 1000 }),
      at: fc.integer({ min: 0, max: 30 }).map(day),
    }),
    { maxLength: 40 },
  );
  it('is the sum of what happened by then, whatever the order of arrival', () => {
    fc.assert(
      fc.property(moves, fc.integer({ min: 0, max: 31 }), (list, on) => {
        const shuffled = [...list].sort((x, y) => x.amount - y.amount);
        expect([...onHandAt(shuffled, day(on))].sort()).toEqual(
          [...foldOnHand(list.filter((m) => m.at <= day(on)))].sort(),
        );
      }),
      { seed: 72 },
    );
  });
  it('finds the first moment a jar would have held less than nothing, and only then', () => {
    fc.assert(
      fc.property(moves, (list) => {
        const lowest = (id: string): number =>
          Math.min(
            0,
            ...list.map(
              (m) =>
                onHandAt(
                  list.filter((x) => x.stockLotId === id),
                  m.at,
                ).get(id) ?? 0,
            ),
          );
        const over = firstOverdraft(list);
        expect(over === undefined).toBe(lowest('a') >= 0 && lowest('b') >= 0);
        if (over)
          expect(
            onHandAt(
              list.filter((m) => m.stockLotId === over.stockLotId),
              over.at,
            ).get(over.stockLotId),
          ).toBe(over.balance);
      }),
      { seed: 73 },
    );
  });
});
