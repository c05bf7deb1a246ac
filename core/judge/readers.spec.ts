import { describe, expect, it } from 'vitest';
import { seeded } from '../photo/seeded';
import type { ReaderReading } from './readers';
import { LEAST_SHARED, compareReaders, withoutOffset } from './readers';
import { foldSpots } from './spots';

const OFFSET = { L: 0.8, a: -0.5, b: 1.2 };
const swatches = Array.from({ length: 8 }, (_, i) => ({ L: 30 + i * 7, a: 20 - i * 4, b: 5 + i * 5 }));

describe('spots of one piece', () => {
  it('are one reading: their mean, and how even it is', () => {
    const spots = [
      { L: 50, a: 10, b: 20 },
      { L: 52, a: 10, b: 20 },
      { L: 51, a: 12, b: 20 },
    ];
    const folded = foldSpots(spots);
    expect(folded.lab.L).toBeCloseTo(51, 9);
    expect(folded.evenness?.maxDeltaE00).toBeGreaterThan(folded.spreadDeltaE00 ?? 99);
    expect(folded.spreadDeltaE00).toBeGreaterThanOrEqual(folded.evenness?.meanDeltaE00 ?? 99);
  });
  it('of which there is one say nothing of evenness', () => {
    expect(foldSpots([{ L: 50, a: 10, b: 20 }])).toEqual({
      lab: { L: 50, a: 10, b: 20 },
      evenness: null,
      spreadDeltaE00: null,
    });
    expect(() => foldSpots([])).toThrow(RangeError);
  });
});

describe('readers of a studio', () => {
  const random = seeded(7).uniform;
  const noisy = (lab: { L: number; a: number; b: number }) => ({
    L: lab.L + (random() - 0.5) * 0.2,
    a: lab.a + (random() - 0.5) * 0.2,
    b: lab.b + (random() - 0.5) * 0.2,
  });
  const house: ReaderReading[] = swatches.flatMap((lab, i) =>
    [1, 2].map(() => ({ reader: 'house', swatch: `s${i}`, lab: noisy(lab) })),
  );
  const other: ReaderReading[] = swatches.slice(0, 5).map((lab, i) => ({
    reader: 'borrowed',
    swatch: `s${i}`,
    lab: noisy({ L: lab.L + OFFSET.L, a: lab.a + OFFSET.a, b: lab.b + OFFSET.b }),
  }));

  it('repeat themselves as closely as they do, and the second is put beside the first', () => {
    const [first, second] = compareReaders([...other, ...house]);
    expect([first?.name, first?.offset, first?.readings]).toEqual(['house', null, 16]);
    expect(first?.repeatabilityDeltaE00).toBeLessThan(0.2);
    expect(second?.repeatabilityDeltaE00).toBeNull();
    expect(second?.sharedSwatches).toBe(5);
    for (const of of ['L', 'a', 'b'] as const) expect(second?.offset?.lab[of]).toBeCloseTo(OFFSET[of], 0);
    expect(second?.offset?.leftDeltaE00).toBeLessThan(0.2);
    const right = withoutOffset({ L: 50.8, a: 9.5, b: 21.2 }, { lab: OFFSET, leftDeltaE00: 0 });
    expect([right.L, right.a, right.b].map((v) => Math.round(v * 100) / 100)).toEqual([50, 10, 20]);
  });
  it('are not set beside each other on too few swatches', () => {
    const [, second] = compareReaders([...house, ...other.slice(0, LEAST_SHARED - 1)]);
    expect([second?.sharedSwatches, second?.offset]).toEqual([LEAST_SHARED - 1, null]);
  });
});
