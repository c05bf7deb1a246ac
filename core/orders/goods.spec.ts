import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { GoodsKind, GoodsMove } from './goods';
import { foldGoods, GOODS_KINDS, goodsRefusal, sayGoodsRefusal, standingMoves } from './goods';

let made = 0;
const move = (kind: GoodsKind, pieces: number, rest: Partial<GoodsMove> = {}): GoodsMove => ({
  id: `m${(made += 1)}`,
  kind,
  lotId: 'lot',
  group: null,
  pieces,
  lineId: ['setAside', 'putBack', 'handOver', 'cameBack'].includes(kind) ? 'line' : null,
  set: null,
  reversesId: null,
  ...rest,
});
const LOT = { tag: 'Lot 63', pieces: 10 };

describe('finished pieces', () => {
  it.each<[string, GoodsMove[], object]>([
    ['lie on the shelf once they are counted', [move('came', 8)], { came: 8, onShelf: 8 }],
    ['are set aside for a line', [move('came', 8), move('setAside', 6)], { onShelf: 2, setAside: 6 }],
    [
      'are handed over from there',
      [move('came', 8), move('setAside', 6), move('handOver', 4)],
      { onShelf: 2, setAside: 2, handedOver: 4 },
    ],
    [
      'come back to the shelf',
      [move('came', 8), move('setAside', 6), move('handOver', 6), move('cameBack', 1)],
      { onShelf: 3, handedOver: 5 },
    ],
    ['are put back', [move('came', 8), move('setAside', 6), move('putBack', 5)], { onShelf: 7, setAside: 1 }],
    ['are sold without an order', [move('came', 8), move('sold', 6)], { onShelf: 2, handedOver: 6 }],
    ['go another way', [move('came', 8), move('gone', 1)], { onShelf: 7, gone: 1 }],
  ])('%s', (_what, moves, expected) => expect(foldGoods(moves).groups[0]).toMatchObject(expected));

  it('are counted by base and part, and by line and set', () => {
    const { groups, lines } = foldGoods([
      move('came', 4, { group: 'wool' }),
      move('came', 2, { group: 'silk' }),
      move('setAside', 3, { group: 'wool', set: 1 }),
      move('setAside', 1, { group: 'wool', set: 2 }),
    ]);
    expect(groups.map((g) => [g.group, g.onShelf])).toEqual([
      ['wool', 0],
      ['silk', 2],
    ]);
    expect(lines.map((l) => [l.set, l.setAside])).toEqual([
      [1, 3],
      [2, 1],
    ]);
  });
  it('are as if a slip had never been, once it is taken back', () => {
    const slip = move('came', 8);
    const moves = [slip, move('came', 8, { reversesId: slip.id }), move('came', 3)];
    expect(standingMoves(moves)).toEqual([moves[2]]);
    expect(foldGoods(moves).groups[0]).toMatchObject({ came: 3, onShelf: 3 });
  });
});

describe('what can’t move', () => {
  const came = move('came', 8);
  const aside = move('setAside', 6);
  const out = move('handOver', 4);
  it.each<[string, GoodsMove[], GoodsMove, string, RegExp]>([
    ['more than the lot', [came], move('came', 3), 'moreThanLot', /is of 10 pieces, and 8 of them/],
    ['more than lies there', [came], move('setAside', 9), 'moreThanShelf', /there are 8 left on the shelf/],
    ['more than is set aside', [came, aside], move('handOver', 7), 'moreThanSetAside', /there are 6 set aside here/],
    ['for a line that has none', [came], move('handOver', 1), 'moreThanSetAside', /there are 0 set aside/],
    ['more than went out', [came, aside, out], move('cameBack', 5), 'moreThanHandedOver', /there were 4 handed over/],
    ['a slip on which something rests', [came, aside], move('came', 8, { reversesId: came.id }), 'wentOn', /went on/],
    [
      'a set aside that went out',
      [came, aside, out],
      move('setAside', 6, { reversesId: aside.id }),
      'wentOn',
      /went on since/,
    ],
  ])('%s', (_what, before, next, code, words) => {
    const refusal = goodsRefusal(before, next, LOT);
    expect(refusal?.code).toBe(code);
    expect(refusal && sayGoodsRefusal(refusal)).toMatch(words);
  });

  it('never takes anything below nothing, whatever is tried', () => {
    const tried = fc.record({
      kind: fc.constantFrom(...GOODS_KINDS),
      pieces: fc.integer({ min: 1, max: 6 }),
      line: fc.constantFrom('a', 'b'),
      set: fc.constantFrom(null, 1, 2),
      slip: fc.nat(30),
      isSlip: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(tried, { maxLength: 30 }), (all) => {
        const moves: GoodsMove[] = [];
        for (const { kind, pieces, line, set, slip, isSlip } of all) {
          const fresh = move(kind, pieces);
          const back = standingMoves(moves)[slip];
          const next =
            isSlip && back
              ? { ...back, id: fresh.id, reversesId: back.id }
              : fresh.lineId === null
                ? fresh
                : { ...fresh, lineId: line, set };
          if (!goodsRefusal(moves, next, LOT)) moves.push(next);
        }
        const { groups, lines } = foldGoods(moves);
        for (const g of groups) {
          expect(Math.min(g.came, g.onShelf, g.setAside, g.handedOver, g.gone)).toBeGreaterThanOrEqual(0);
          expect(g.onShelf + g.setAside + g.handedOver + g.gone).toBe(g.came);
          expect(g.came).toBeLessThanOrEqual(LOT.pieces);
        }
        for (const l of lines) expect(Math.min(l.setAside, l.handedOver)).toBeGreaterThanOrEqual(0);
      }),
      { seed: 17 },
    );
  });
});
