import { describe, expect, it } from 'vitest';
import type { GoodsMove } from './goods';
import { foldGoods } from './goods';
import type { LineState } from './line-standing';
import { standLines, standOrder } from './line-standing';
import { saySetCaution, setsOfLine } from './sets-of-line';

const D65 = { illuminant: 'D65', observer: '10' } as const;
const move = (kind: GoodsMove['kind'], lotId: string, pieces: number, lineId: string | null = null): GoodsMove => ({
  id: `${kind} ${lotId} ${lineId ?? ''}`,
  kind,
  lotId,
  group: null,
  pieces,
  lineId,
  set: null,
  reversesId: null,
});
const lot = (lotId: string, pieces: number, isOver = false) => ({ lotId, pieces, isOver });
const line = (lineId: string, pieces: number, lotIds: string[] = ['x']) => ({ lineId, pieces, lotIds });
const stands = (lines: ReturnType<typeof line>[], lots: ReturnType<typeof lot>[], moves: GoodsMove[] = []) =>
  standLines(lines, lots, foldGoods(moves));

describe('where a line of an order stands', () => {
  const ready = [move('came', 'x', 10), move('setAside', 'x', 6, 'a')];
  it.each<[LineState, string[], GoodsMove[], boolean]>([
    ['toDye', [], [], false],
    ['inWork', ['x'], [], false],
    ['toDye', ['x'], [], true],
    ['onShelf', ['x'], [move('came', 'x', 10)], false],
    ['ready', ['x'], ready, false],
    ['handedOver', ['x'], [...ready, move('handOver', 'x', 6, 'a')], false],
  ])('%s', (state, lotIds, moves, isOver) =>
    expect(stands([line('a', 6, lotIds)], [lot('x', 10, isOver)], moves)[0]?.state).toBe(state),
  );
  it('shares a lot among the lines it is meant for, the first promised first, no piece twice', () => {
    const [first, second] = stands([line('a', 6), line('b', 8)], [lot('x', 10)], [move('came', 'x', 3)]);
    expect(first).toMatchObject({ onShelf: 3, inWork: 3, toDye: 0 });
    expect(second).toMatchObject({ onShelf: 0, inWork: 4, toDye: 4, state: 'toDye' });
  });
  it('adds several lots up', () =>
    expect(stands([line('a', 12, ['x', 'y'])], [lot('x', 10), lot('y', 10)])[0]).toMatchObject({
      inWork: 12,
      state: 'inWork',
    }));
  it('counts what came back as still wanted', () => {
    const moves = [...ready, move('handOver', 'x', 6, 'a'), move('cameBack', 'x', 1, 'a')];
    expect(stands([line('a', 6)], [lot('x', 10)], moves)[0]).toMatchObject({ handedOver: 5, onShelf: 1 });
  });
  it('is, of a whole order, where the line furthest back is', () => {
    expect(standOrder(['ready', 'inWork', 'handedOver'])).toBe('inWork');
    expect(standOrder([])).toBeUndefined();
  });
});

describe('sets that go out as one', () => {
  const held = (set: number, lotId: string, setAside: number) => ({
    lineId: 'a',
    lotId,
    group: null,
    set,
    setAside,
    handedOver: 0,
  });
  const colours = new Map([
    ['x', { L: 60, a: 2, b: 40, ...D65 }],
    ['y', { L: 55, a: 2, b: 40, ...D65 }],
    ['z', null],
  ]);
  const tags = new Map([
    ['x', 'Lot 1'],
    ['y', 'Lot 2'],
    ['z', 'Lot 3'],
  ]);
  const cautions = (...all: ReturnType<typeof held>[]) =>
    setsOfLine(all, 3, colours).map((s) => [s.isFull, saySetCaution(s, 3, tags)]);

  it('are full of one lot, and then nothing is to be said', () =>
    expect(cautions(held(2, 'x', 2), held(1, 'x', 3))).toEqual([
      [true, undefined],
      [false, undefined],
    ]));
  it('tell how far two lots in one of them lie apart', () =>
    expect(cautions(held(1, 'x', 2), held(1, 'y', 1))[0]?.[1]).toBe(
      'Set 1 holds pieces of Lot 1 and Lot 2, ΔE 4.6 apart. A set is better of one lot.',
    ));
  it('are to be looked at where one wasn’t read', () =>
    expect(cautions(held(1, 'x', 2), held(1, 'z', 1))[0]?.[1]).toMatch(/beside each other in daylight/));
  it('hold no more than a set does', () => expect(cautions(held(1, 'x', 4))[0]?.[1]).toMatch(/holds 4 pieces/));
});
