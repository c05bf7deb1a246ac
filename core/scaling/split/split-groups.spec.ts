import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { liquorVolume } from '../../bath/liquor';
import { sharePieces } from '../plan-groups';
import type { GroupShare, PieceGroup } from './split-groups';
import { isBetter, splitGroups, splitMeasure } from './split-groups';
import { refused } from '../../result.fixture';

const room = (wofG: number, displacedMl: number): number => liquorVolume(wofG, 30).value + displacedMl;
const pots = (...litres: number[]) =>
  litres.map((l, i) => ({ id: `v${i}`, name: `pot ${i}`, metal: 'stainless' as const, workingMl: l * 1000 }));
const group = (pieces: number, pieceWeightG: number, displacedMlPerG = 0.75): PieceGroup => ({
  pieces,
  pieceWeightG,
  displacedMlPerG,
});

/** The best of every way there is, over every choice of vessels, by the measure of docs/formulas.md. */
function bestByTrying(groups: readonly PieceGroup[], vessels: ReturnType<typeof pots>): readonly number[] | undefined {
  let best: readonly number[] | undefined;
  const counts = vessels.map(() => groups.map(() => 0));
  const weigh = (): void => {
    const shares: GroupShare<(typeof vessels)[number]>[] = vessels.flatMap((vessel, b) =>
      counts[b]!.some((n) => n > 0) ? [{ vessel, counts: [...counts[b]!] }] : [],
    );
    const fits = shares.every(
      (s) =>
        room(
          groups.reduce((sum, g, i) => sum + g.pieceWeightG * s.counts[i]!, 0),
          groups.reduce((sum, g, i) => sum + g.pieceWeightG * g.displacedMlPerG * s.counts[i]!, 0),
        ) <= s.vessel.workingMl,
    );
    if (!fits) return;
    const measure = splitMeasure(groups, shares, room);
    if (!best || isBetter(measure, best)) best = measure;
  };
  const place = (g: number, b: number, left: number): void => {
    if (g === groups.length) return weigh();
    if (b === vessels.length) return left === 0 ? place(g + 1, 0, groups[g + 1]?.pieces ?? 0) : undefined;
    for (let n = 0; n <= left; n += 1) {
      counts[b]![g] = n;
      place(g, b + 1, left - n);
    }
    counts[b]![g] = 0;
  };
  place(0, 0, groups[0]!.pieces);
  return best;
}

describe('splitGroups', () => {
  it('is never worse than the best of every way, mixed or alike, over 200 small lots', () => {
    const groups = fc
      .array(fc.tuple(fc.integer({ min: 1, max: 4 }), fc.constantFrom(25, 100, 150, 250)), {
        minLength: 1,
        maxLength: 3,
      })
      .filter((list) => list.reduce((sum, [n]) => sum + n, 0) <= 8);
    fc.assert(
      fc.property(groups, fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1, maxLength: 4 }), (list, litres) => {
        const lot = list.map(([n, g]) => group(n, g));
        const vessels = pots(...litres);
        const split = splitGroups(lot, vessels, room);
        const best = bestByTrying(lot, vessels);
        expect(split.ok).toBe(best !== undefined);
        if (!split.ok || !best) return;
        expect(isBetter(best, splitMeasure(lot, split.shares, room))).toBe(false);
        expect(lot.map((_, i) => split.shares.reduce((sum, s) => sum + s.counts[i]!, 0))).toEqual(
          lot.map((g) => g.pieces),
        );
      }),
      { seed: 41, numRuns: 200 },
    );
  });

  it('stays within every pot and loses no piece in lots too large to try every way', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 60 }),
        fc.integer({ min: 5, max: 40 }),
        fc.integer({ min: 5, max: 40 }),
        (a, b, c) => {
          const lot = [group(a, 100), group(b, 250, 0.65), group(c, 25)];
          const split = splitGroups(lot, pots(60, 70, 80, 90, 100, 120), room);
          if (!split.ok) return expect(split.maxPieces).toBeLessThan(a + b + c);
          for (const s of split.shares)
            expect(
              room(
                lot.reduce((sum, g, i) => sum + g.pieceWeightG * s.counts[i]!, 0),
                lot.reduce((sum, g, i) => sum + g.pieceWeightG * g.displacedMlPerG * s.counts[i]!, 0),
              ),
            ).toBeLessThanOrEqual(s.vessel.workingMl);
          expect(lot.map((_, i) => split.shares.reduce((sum, s) => sum + s.counts[i]!, 0))).toEqual([a, b, c]);
          expect(new Set(split.shares.map((s) => s.vessel.id)).size).toBe(split.shares.length);
        },
      ),
      { seed: 42, numRuns: 60 },
    );
  });

  it('says the most that goes when a mixed lot doesn’t', () => {
    const split = splitGroups([group(20, 100), group(20, 200)], pots(20, 20), room);
    expect(split).toMatchObject({ ok: false });
    expect(refused(split).maxPieces).toBeGreaterThan(4);
  });
  it('fits as many alike as it says, and not one more', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 5, max: 3000 }), (litres, g) => {
        const over = splitGroups([group(2000, g)], pots(litres), room);
        if (over.ok) return;
        const n = over.maxPieces;
        if (n > 0) expect(splitGroups([group(n, g)], pots(litres), room).ok).toBe(true);
        expect(splitGroups([group(n + 1, g)], pots(litres), room).ok).toBe(false);
      }),
      { seed: 32 },
    );
  });
  it('refuses no pieces', () => expect(() => splitGroups([], pots(10), room)).toThrow(RangeError));
});

describe('sharePieces', () => {
  it.each<[number, number[], number[]]>([
    [12, [66.7, 33.3], [8, 4]],
    [7, [50, 50], [4, 3]],
    [1, [25, 75], [0, 1]],
    [10, [33.3, 33.3, 33.4], [3, 3, 4]],
  ])('%i pieces by %j', (pieces, shares, counts) => {
    expect(
      sharePieces(
        pieces,
        shares.map((sharePercent, i) => ({ key: String(i), name: '', sharePercent })),
      ),
    ).toEqual(counts);
  });
});
