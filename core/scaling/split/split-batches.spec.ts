import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { VesselRoom } from './split-batches';
import { splitBatches } from './split-batches';

const rooms = (...of: number[]): VesselRoom[] =>
  of.map((roomForPieces, i) => ({
    vessel: { id: `v${i}`, name: `pot ${i}`, metal: 'stainless', workingMl: roomForPieces * 1000 },
    roomForPieces,
  }));

/**
 * The measure of docs/formulas.md: fewest batches, then least spread, then least room unused. Tried over every way
 * there is.
 */
function bestByTrying(pieces: number, roomsOf: readonly number[]): [number, number, number] | undefined {
  let best: [number, number, number] | undefined;
  const shares: number[] = [];
  const tryFrom = (i: number, left: number): void => {
    if (i === roomsOf.length) {
      const used = shares.filter((s) => s > 0);
      if (left > 0) return;
      const unused = roomsOf.reduce((sum, room, v) => sum + ((shares[v] ?? 0) > 0 ? room : 0), 0) - pieces;
      const score: [number, number, number] = [used.length, Math.max(...used) - Math.min(...used), unused];
      if (
        !best ||
        score.some(
          (part, p) => part < (best as number[])[p]! && score.slice(0, p).every((s, q) => s === (best as number[])[q]),
        )
      )
        best = score;
      return;
    }
    for (let share = 0; share <= Math.min(left, roomsOf[i] ?? 0); share += 1) {
      shares[i] = share;
      tryFrom(i + 1, left - share);
    }
    shares.length = i;
  };
  tryFrom(0, pieces);
  return best;
}

describe('splitBatches', () => {
  it.each<[string, number, number[], number[]]>([
    ['one pot when one holds it', 4, [10, 6, 4], [4]],
    ['the smallest pot that holds it', 4, [10, 4, 6], [4]],
    ['two alike rather than one full and one near empty', 12, [10, 6, 4], [6, 6]],
    ['fewest pots even if less alike', 15, [10, 6, 4], [9, 6]],
    ['all of them to the brim', 20, [10, 6, 4], [10, 6, 4]],
    ['pots without room left out', 5, [0, 5, 0], [5]],
  ])('%s', (_name, pieces, roomsOf, sizes) => {
    const split = splitBatches(pieces, rooms(...roomsOf));
    expect(split.ok && split.shares.map((s) => s.pieces)).toEqual(sizes);
  });

  it('says the most that fits when a lot does not', () =>
    expect(splitBatches(21, rooms(10, 6, 4))).toEqual({ ok: false, maxPieces: 20 }));
  it.each([0, -1, 1.5, NaN])('refuses %s pieces', (pieces) =>
    expect(() => splitBatches(pieces, rooms(4))).toThrow(RangeError),
  );

  it('is as good as the best of every way there is, and never over a pot', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 8 }),
        fc.array(fc.integer({ min: 0, max: 6 }), { minLength: 1, maxLength: 4 }),
        (pieces, roomsOf) => {
          const split = splitBatches(pieces, rooms(...roomsOf));
          const best = bestByTrying(pieces, roomsOf);
          expect(split.ok).toBe(best !== undefined);
          if (!split.ok || !best) return;
          expect(split.shares.reduce((sum, s) => sum + s.pieces, 0)).toBe(pieces);
          expect(new Set(split.shares.map((s) => s.vessel.id)).size).toBe(split.shares.length);
          for (const s of split.shares) expect(s.pieces * 1000).toBeLessThanOrEqual(s.vessel.workingMl);
          const unused = split.shares.reduce((sum, s) => sum + s.vessel.workingMl / 1000 - s.pieces, 0);
          expect([split.shares.length, split.spreadPieces, unused]).toEqual(best);
        },
      ),
      { seed: 31, numRuns: 300 },
    );
  });
});
