import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lotsFromStockLot, stockLotsInLot } from '../trace/trace';
import type { AvailableStock } from './allocate';
import { allocate, allocateParts } from './allocate';
import { countDifference, foldOnHand } from './ledger';

const stockLot = (stockLotId: string, free: number, receivedOn: string, bestBefore?: string): AvailableStock => ({
  stockLotId,
  free,
  receivedOn,
  ...(bestBefore ? { bestBefore } : {}),
});

describe('allocate', () => {
  const shelf = [
    stockLot('keeps', 100, '2024-01-01'),
    stockLot('late', 100, '2026-01-01', '2027-01-01'),
    stockLot('soon', 50, '2026-02-01', '2026-09-01'),
    stockLot('past', 500, '2023-01-01', '2026-01-01'),
  ];
  it.each<[string, number, [string, number][], number]>([
    ['takes what goes off first', 40, [['soon', 40]], 0],
    [
      'goes on to the next, what keeps comes last',
      180,
      [
        ['soon', 50],
        ['late', 100],
        ['keeps', 30],
      ],
      0,
    ],
    [
      'never touches what is past its day, and says what is short',
      300,
      [
        ['soon', 50],
        ['late', 100],
        ['keeps', 100],
      ],
      50,
    ],
    ['takes nothing for nothing', 0, [], 0],
  ])('%s', (_name, amount, picks, short) => {
    const result = allocate(amount, shelf, { today: '2026-06-01' });
    expect(result.picks.map((p) => [p.stockLotId, p.amount])).toEqual(picks);
    expect(result.short).toBe(short);
  });
  it('uses a jar on the very day it is best before', () =>
    expect(allocate(1, [stockLot('a', 5, '2026-01-01', '2026-06-01')], { today: '2026-06-01' }).short).toBe(0));
  it('prefers one lot that covers all', () =>
    expect(allocate(90, shelf, { today: '2026-06-01', preferOneLot: true }).picks).toEqual([
      { stockLotId: 'late', amount: 90 },
    ]));
  it.each([-1, 0.5, NaN])('refuses an amount of %s', (amount) =>
    expect(() => allocate(amount, shelf, { today: '2026-06-01' })).toThrow(RangeError),
  );

  it.each<[string, number, { stockLotId: string; part: number }[], [string, number][], number]>([
    [
      'takes what is asked for out of the jars that are asked for',
      40,
      [{ stockLotId: 'keeps', part: 1 }],
      [['keeps', 40]],
      0,
    ],
    [
      'takes several in the parts that are asked for, in steps of the balance',
      95,
      [
        { stockLotId: 'late', part: 0.3 },
        { stockLotId: 'keeps', part: 0.6 },
      ],
      [
        ['late', 30],
        ['keeps', 65],
      ],
      0,
    ],
    ['is short of what the jar lacks, and takes no other', 80, [{ stockLotId: 'soon', part: 1 }], [['soon', 50]], 30],
    ['takes nothing past its day', 10, [{ stockLotId: 'past', part: 1 }], [], 10],
    ['takes nothing of a jar that isn’t there', 10, [{ stockLotId: 'gone', part: 1 }], [], 10],
  ])('by parts: %s', (_name, amount, parts, picks, short) => {
    const result = allocateParts(amount, shelf, parts, { today: '2026-06-01', step: 10 });
    expect(result.picks.map((p) => [p.stockLotId, p.amount])).toEqual(picks);
    expect(result.short).toBe(short);
  });

  it('gives exactly what is asked or says what is short, never more than a jar has', () => {
    const stockLots = fc
      .array(fc.record({ free: fc.integer({ min: -50, max: 500 }), day: fc.integer({ min: 1, max: 28 }) }), {
        maxLength: 8,
      })
      .map((list) => list.map((j, i) => stockLot(`j${i}`, j.free, `2026-01-${String(j.day).padStart(2, '0')}`)));
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 2000 }), stockLots, (amount, stock) => {
        const { picks, short } = allocate(amount, stock, { today: '2026-06-01' });
        expect(picks.reduce((sum, p) => sum + p.amount, 0) + short).toBe(amount);
        for (const p of picks)
          expect(p.amount).toBeLessThanOrEqual(stock.find((s) => s.stockLotId === p.stockLotId)?.free ?? 0);
        if (short > 0)
          expect(picks.reduce((sum, p) => sum + p.amount, 0)).toBe(
            stock.reduce((sum, s) => sum + Math.max(0, s.free), 0),
          );
      }),
      { seed: 41 },
    );
  });
});

describe('the ledger', () => {
  const moves = fc.array(
    fc.record({ stockLotId: fc.constantFrom('a', 'b', 'c'), amount: fc.integer({ min: -1_000_000, max: 1_000_000 }) }),
    { maxLength: 60 },
  );
  it('sums the same whatever the order of arrival', () => {
    fc.assert(
      fc.property(moves, (list) => {
        expect([...foldOnHand(list)].sort()).toEqual([...foldOnHand([...list].reverse())].sort());
      }),
      { seed: 42 },
    );
  });
  it('is restored exactly by reversing', () => {
    fc.assert(
      fc.property(moves, (list) => {
        for (const sum of foldOnHand([...list, ...list.map((m) => ({ ...m, amount: -m.amount }))]).values())
          expect(sum).toBe(0);
      }),
      { seed: 43 },
    );
  });
  it('refuses what is not whole', () => {
    expect(() => foldOnHand([{ stockLotId: 'a', amount: 0.5 }])).toThrow(RangeError);
    expect(() => countDifference(5, -1)).toThrow(RangeError);
    expect(countDifference(500, 480)).toBe(-20);
  });
});

describe('the trace', () => {
  const moved = [
    { stockLotId: 'WEL-1', lotId: 'L1', amount: -100 },
    { stockLotId: 'WEL-2', lotId: 'L1', amount: -50 },
    { stockLotId: 'WEL-2', lotId: 'L1', amount: 50 },
    { stockLotId: 'WEL-1', lotId: 'L2', amount: -30 },
    { stockLotId: 'WEL-1', lotId: null, amount: 500 },
  ];
  it('runs both ways, net of corrections', () => {
    expect([...stockLotsInLot(moved, 'L1')]).toEqual([['WEL-1', 100]]);
    expect([...lotsFromStockLot(moved, 'WEL-1')]).toEqual([
      ['L1', 100],
      ['L2', 30],
    ]);
  });
});
