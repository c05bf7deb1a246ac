import fc from 'fast-check';
import { expect, it } from 'vitest';
import { moveEdge } from './zone-edges';

const zone = (fromPercent: number, toPercent: number) => ({
  title: '',
  way: 'dip' as const,
  fromPercent,
  toPercent,
  order: 1,
  minutes: 0,
  waitMin: 0,
  mlPerPiece: null,
  gPerPiece: null,
  materialId: null,
  spacingCm: null,
});

it('moves one edge of one zone to whole per cents, on the piece and never past its other edge', () => {
  expect(
    moveEdge([zone(0, 20), zone(40, 60)], 1, 'fromPercent', 33.4).map((z) => [z.fromPercent, z.toPercent]),
  ).toEqual([
    [0, 20],
    [33, 60],
  ]);
  fc.assert(
    fc.property(
      fc.double({ min: -50, max: 150, noNaN: true }),
      fc.constantFrom('fromPercent' as const, 'toPercent' as const),
      (percent, side) => {
        const [moved] = moveEdge([zone(30, 60)], 0, side, percent);
        expect(moved && moved.fromPercent >= 0 && moved.toPercent <= 100 && moved.fromPercent < moved.toPercent).toBe(
          true,
        );
        expect(side === 'fromPercent' ? moved?.toPercent : moved?.fromPercent).toBe(side === 'fromPercent' ? 60 : 30);
      },
    ),
    { seed: 71 },
  );
});
