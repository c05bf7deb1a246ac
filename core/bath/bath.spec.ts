import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { FibreKind } from './fibre';
import { FIBRE_KINDS, fibreDisplacementMl, fibreFamily } from './fibre';
import { liquorVolume } from './liquor';
import { VESSEL_METALS, maxC } from './vessel';

describe('fibres', () => {
  /** Morton & Hearle 2008, table 5.1: density of the dry fibre, g per ml. */
  it.each<[FibreKind, number, string]>([
    ['wool', 1.3, 'protein'],
    ['alpaca', 1.3, 'protein'],
    ['cashmere', 1.3, 'protein'],
    ['silk', 1.34, 'protein'],
    ['cotton', 1.55, 'cellulose'],
    ['linen', 1.54, 'cellulose'],
    ['ramie', 1.54, 'cellulose'],
    ['viscose', 1.52, 'cellulose'],
    ['synthetic', 1.39, 'synthetic'],
  ])('%s has density %f and is %s', (kind, density, family) => {
    expect(fibreDisplacementMl(kind, 100)).toBeCloseTo(100 / density, 10);
    expect(fibreFamily(kind)).toBe(family);
  });

  it('pushes nothing aside when there is none', () => {
    for (const kind of FIBRE_KINDS) expect(fibreDisplacementMl(kind, 0)).toBe(0);
  });
});

describe('liquor', () => {
  it.each<[number, number, number]>([
    [600, 30, 18_000],
    [100, 20, 2000],
    [226.796185, 30, 6850],
    [1, 30, 50],
    [1.6666666667, 30, 50],
    [5, 30, 150],
    [5.01, 30, 200],
  ])('%f g at 1:%i is %i ml', (wofG, ratio, ml) => {
    const liquor = liquorVolume(wofG, ratio);
    expect(liquor.value).toBe(ml);
    expect(liquor.working.inputs.map((i) => i.value)).toEqual([wofG, ratio]);
    expect(liquor.working.notes[0]).toContain('50 ml');
  });

  it('is never short, nor more than a jug’s step over', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.1, max: 50_000, noNaN: true }),
        fc.integer({ min: 3, max: 200 }),
        (wofG, ratio) => {
          const over = liquorVolume(wofG, ratio).value - wofG * ratio;
          expect(over).toBeGreaterThan(-1e-4);
          expect(over).toBeLessThanOrEqual(50 + 1e-4);
        },
      ),
      { seed: 71 },
    );
  });
});

describe('a vessel', () => {
  it.each<[string, Parameters<typeof maxC>[0], number | null]>([
    ['steel boils', { metal: 'stainless' }, null],
    ['a bucket sags', { metal: 'plastic' }, 60],
    ['a bucket that says so', { metal: 'plastic', maxC: 95 }, 95],
    ['glass on a flame', { metal: 'glass' }, 95],
  ])('%s', (_name, vessel, max) => expect(maxC(vessel)).toBe(max));
  it('has a metal to be checked against a recipe', () => expect(VESSEL_METALS).toContain('iron'));
});
