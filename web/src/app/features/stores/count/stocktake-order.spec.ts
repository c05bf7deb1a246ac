import type { Stocktake } from '@vestigia/contract';
import { describe, expect, it } from 'vitest';
import { countedLines, differingLines, nextStockLot, sayBooking } from './stocktake-order';

type Line = Stocktake['lines'][number];
const line = (id: string, counted: number | null = null, rest: Partial<Line> = {}): Line => ({
  row: { id } as Line['row'],
  tareMg: null,
  bulkDensityGPerMl: null,
  counted,
  seenOnHand: 10,
  fromBalance: false,
  difference: counted === null ? null : counted - 10,
  reasons: [],
  movedSince: false,
  ...rest,
});

describe('the order of a walk', () => {
  const lines = [line('a', 10), line('b'), line('c', 7), line('d')];
  it.each<[string, Line[], string, string[], string | undefined]>([
    ['the first without a figure', lines, '', [], 'b'],
    ['past what was put off', lines, '', ['b'], 'd'],
    ['the one asked for again', lines, 'c', [], 'c'],
    ['what moved, before the rest', [...lines, line('e', 4, { movedSince: true })], '', [], 'e'],
    ['nothing, when all is done', lines, '', ['b', 'd'], undefined],
  ])('goes to %s', (_name, all, again, skipped, next) => expect(nextStockLot(all, again, skipped)?.row.id).toBe(next));
  it('tells what is counted from what differs', () =>
    expect([countedLines(lines).length, differingLines(lines).map((l) => l.row.id)]).toEqual([2, ['c']]));
  it.each([
    [0, 'Book the count'],
    [1, 'Book one difference'],
    [4, 'Book 4 differences'],
  ])('says what %i differences book', (n, label) => expect(sayBooking(n)).toBe(label));
});
