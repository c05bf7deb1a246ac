import { describe, expect, it } from 'vitest';
import { seeded } from '../photo/seeded';
import {
  LEAST_FOR_FADING,
  SHELF_SHARE,
  careText,
  daysToFade,
  fadedAfter,
  fadedBetween,
  fitFading,
  nextDueDays,
  worstGrade,
} from './fastness';

const DAYS = [3, 7, 14, 28, 56, 112];

describe('a fading curve', () => {
  it('is found again from what it shows, whatever it is', () => {
    const random = seeded(9).uniform;
    for (let i = 0; i < 40; i++) {
      const [most, tau] = [2 + random() * 20, 5 + random() * 150];
      const seen = DAYS.map((days) => ({ days, deltaE00: most * (1 - Math.exp(-days / tau)) }));
      const curve = fitFading(seen, 'window')!;
      expect(curve.residualDeltaE00).toBeLessThan(0.12);
      for (const { days, deltaE00 } of seen) expect(fadedAfter(curve, days, 'window')).toBeCloseTo(deltaE00, 0);
    }
  });
  it('says when it will show: sooner in a window than on a shelf, by the light that reaches it', () => {
    const curve = {
      mostDeltaE00: 10,
      timeConstantDays: 40,
      place: 'window',
      residualDeltaE00: 0,
      readings: 5,
    } as const;
    const [one, three] = [daysToFade(curve, 1, 'window')!, daysToFade(curve, 3, 'window')!];
    expect(one).toBeCloseTo(-40 * Math.log(0.9), 9);
    expect(three).toBeGreaterThan(one);
    expect(daysToFade(curve, 1, 'openShelf')).toBeCloseTo(one / SHELF_SHARE, 9);
    expect(fadedAfter(curve, one / SHELF_SHARE, 'openShelf')).toBeCloseTo(1, 9);
    expect(daysToFade({ ...curve, place: 'openShelf' }, 1, 'window')).toBeCloseTo(one * SHELF_SHARE, 9);
    expect(daysToFade(curve, 12, 'window')).toBeNull();
  });
  it('is not drawn through too little, nor through nothing', () => {
    expect(
      fitFading(
        [
          { days: 0, deltaE00: 0 },
          { days: 7, deltaE00: 1 },
        ],
        'window',
      ),
    ).toBeNull();
    expect(LEAST_FOR_FADING).toBe(2);
    expect(
      fitFading(
        DAYS.map((days) => ({ days, deltaE00: 0 })),
        'window',
      ),
    ).toBeNull();
  });
});

describe('a card', () => {
  it.each([
    ['light', [], 3],
    ['light', [3.2], 7],
    ['light', [3, 30], 56],
    ['light', [450], null],
    ['wash', [], 2],
    ['wash', [2], null],
  ] as const)('of %s, read on days %j, is due on day %j', (kind, read, due) =>
    expect(nextDueDays(kind, read)).toBe(due),
  );
  it('tells how far its halves have parted', () =>
    expect(fadedBetween({ L: 60, a: 0, b: 40 }, { L: 66, a: 0, b: 30 })).toBeGreaterThan(5));
});

describe('what is printed with the goods', () => {
  it('is the worst that was tried, and says what was not', () => {
    expect(worstGrade([4, null, 2.5, 5])).toBe(2.5);
    expect(worstGrade([null])).toBeNull();
    expect(careText({ lightChange: null, washChange: null, staining: null })).toEqual([
      'Its fastness to washing has not been tried.',
      'Its fastness to light has not been tried.',
    ]);
    expect(careText({ lightChange: 2.5, washChange: 3, staining: 2 })).toEqual([
      'Wash it alone: it stains white cloth.',
      'Wash it seldom, cool, with neutral soap: it pales with washing.',
      'Keep it out of the sun and off open shelves: it fades.',
    ]);
    expect(careText({ lightChange: 4.5, washChange: 4, staining: 5 })).toEqual([
      'Wash it cool, with neutral soap.',
      'Don’t leave it in a window for long.',
    ]);
  });
});
