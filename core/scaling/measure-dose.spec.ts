import { sayDoseUnknown } from './dose-unknown';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figure } from '../quantity/figure';
import { weighingPortions } from '../quantity/balance';
import { equivalenceOf } from '../stock/equivalence';
import type { DosedMaterial } from './dose-context';
import { measureDose } from './measure-dose';
import { proposeStockSolution } from './stock-solution';
import type { Dose } from '../recipe/dose';
import { granted } from '../result.fixture';

const balance = { name: 'balance', resolutionG: 0.1, capacityG: 3000 };
const powder: DosedMaterial = {
  name: 'Weld',
  measure: 'weight',
  packet: null,
  spoons: [
    { unit: 'tsp', system: 'metric', meanG: 2.5, spreadG: 0.2, weighings: 4, bulkDensity: figure(0.5, 'g/ml', '', []) },
  ],
};
const vinegar: DosedMaterial = { ...powder, name: 'Vinegar', measure: 'volume', spoons: [] };
const packets: DosedMaterial = {
  ...powder,
  name: 'Black',
  measure: 'pieces',
  packet: { contentsG: 20, fibreG: 250, auxiliaries: [] },
};
const bath = { wofG: 600, liquorMl: 18_000, pieces: 6, water: { name: 'Tap', ph: 7.5, hardnessDh: 14, ironMgPerL: 0 } };
const measured = (dose: object, material = powder, at = bath) =>
  measureDose({ materialId: 'm', ...dose } as Dose, material, at, balance, 'Weld, version 1');

describe('a dose', () => {
  it.each<[string, object, DosedMaterial, number, string]>([
    ['% of fibre', { by: 'percentOwf', percentOwf: 15 }, powder, 90, 'g'],
    ['% of fibre, more than the fibre', { by: 'percentOwf', percentOwf: 2000 }, powder, 12_000, 'g'],
    ['g to the litre', { by: 'gPerLitre', gPerL: 2 }, powder, 36, 'g'],
    ['ml of a solution', { by: 'solution', mlPer100G: 20, gPerL: 10 }, vinegar, 120, 'ml'],
    ['a solution of a powder', { by: 'solution', mlPer100G: 200, gPerL: 10 }, powder, 12, 'g'],
    ['a piece', { by: 'perPiece', gPerPiece: 1.5 }, powder, 9, 'g'],
    ['packets, whole', { by: 'packet' }, packets, 3, 'packets'],
    ['taught spoons', { by: 'spoons', spoonsPer100G: 2, unit: 'tsp', system: 'metric' }, powder, 30, 'g'],
  ])('by %s', (_name, dose, material, value, unit) => {
    const answer = measured(dose, material);
    expect(answer).toMatchObject({ ok: true, target: { value, unit } });
    expect(granted(answer).target.working.inputs.length).toBeGreaterThan(0);
  });
  it('comes to a pH with a first third, and adds nothing where the water is there', () => {
    const acid = measured({ by: 'toPh', targetPh: 5, reagent: 'citricAcid' });
    expect(acid.ok && acid.target.value).toBeGreaterThan(3);
    expect(acid.ok && acid.advice[0]).toMatch(/first, stir, take the pH/);
    expect(measured({ by: 'toPh', targetPh: 8.5, reagent: 'vinegar5' }, vinegar)).toMatchObject({
      ok: true,
      target: { value: 0 },
    });
  });
  it.each<[string, object, DosedMaterial, typeof bath, RegExp]>([
    [
      'an untaught spoon',
      { by: 'spoons', spoonsPer100G: 1, unit: 'tbsp', system: 'us' },
      powder,
      bath,
      /has not been taught/,
    ],
    ['a packet without facts', { by: 'packet' }, powder, bath, /how much fibre one dyes/],
    ['per cent of a liquid', { by: 'percentOwf', percentOwf: 3 }, vinegar, bath, /kept by volume/],
    ['per cent of packets', { by: 'percentOwf', percentOwf: 3 }, packets, bath, /never opened by halves/],
    [
      'a pH from a water nobody tested',
      { by: 'toPh', targetPh: 5, reagent: 'citricAcid' },
      powder,
      { ...bath, water: { ...bath.water, ph: null as unknown as number } },
      /pH of the water is not known/,
    ],
  ])('refuses %s', (_name, dose, material, at, message) => {
    const answer = measured(dose, material, at);
    expect(answer.ok ? '' : sayDoseUnknown(answer.unknown)).toMatch(message);
  });
  it('proposes a solution where the balance can’t tell, and portions where it can’t carry', () => {
    const small = measured({ by: 'percentOwf', percentOwf: 0.1 });
    expect(small.ok && small.advice[0]).toMatch(/Dissolve 5 g in 200 ml and take 24 ml of it/);
    const large = measured({ by: 'percentOwf', percentOwf: 1000 }, powder, { ...bath, wofG: 731 });
    expect(large.ok && large.advice[0]).toMatch(/Weigh it in 3 portions: 2\.437 kg, 2\.437 kg, 2\.437 kg/);
  });
  it('makes solutions that can be weighed within 1 % and measured with a cylinder', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 5, noNaN: true }), fc.constantFrom(0.01, 0.1, 1), (g, resolutionG) => {
        const { dissolveG, inMl, takeMl } = proposeStockSolution(g, { ...balance, resolutionG });
        expect(resolutionG / 2 / dissolveG).toBeLessThanOrEqual(0.0101);
        expect(takeMl).toBeGreaterThanOrEqual(19.9);
        expect((takeMl / inMl) * dissolveG).toBeCloseTo(g, 1);
      }),
      { seed: 62 },
    );
  });
  it('splits into portions that come to the whole, none over the balance', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30_001, max: 400_000 }), (tenths) => {
        const sizes = [...(weighingPortions(tenths / 10, balance)[0] ?? '').matchAll(/([\d.]+) (kg|g)/g)].map(
          ([, n, unit]) => Number(n) * (unit === 'kg' ? 1000 : 1),
        );
        expect(sizes.every((s) => s <= 3000.0001)).toBe(true);
        expect(Math.abs(sizes.reduce((a, b) => a + b, 0) - tenths / 10)).toBeLessThanOrEqual(0.5 * sizes.length);
      }),
      { seed: 63 },
    );
  });
});

describe('what a jar is worth', () => {
  const stock = { stockLotId: 'j', free: 1, receivedOn: '2026-01-01' };
  it.each<
    [string, object, Parameters<typeof equivalenceOf>[1], Parameters<typeof equivalenceOf>[2], number | undefined]
  >([
    ['tested', { strengthPercent: 80 }, 'dried', { dryFactor: null }, 0.8],
    ['untested, of one form', { form: 'dried' }, 'dried', { dryFactor: null }, 1],
    ['ground for dried', { form: 'ground' }, 'dried', { dryFactor: null }, 1],
    ['fresh for dried by this house’s drying', { form: 'fresh' }, 'dried', { dryFactor: 5 }, 0.2],
    ['dried for fresh', { form: 'dried' }, 'fresh', { dryFactor: 5 }, 5],
    ['frozen with its moisture known', { form: 'frozen', moisturePercent: 82 }, 'dried', { dryFactor: null }, 0.2],
    ['fresh, nothing known', { form: 'fresh' }, 'dried', { dryFactor: null }, undefined],
    ['an extract untested', { form: 'extract' }, 'dried', { dryFactor: 5 }, undefined],
    ['a solution twice as strong', { gPerL: 20 }, null, { dryFactor: null, provenGPerL: 10 }, 2],
    ['a solution of unknown strength', { gPerL: null }, null, { dryFactor: null, provenGPerL: 10 }, 1],
  ])('%s', (_name, facts, form, known, factor) => {
    const worth = equivalenceOf({ ...stock, ...facts }, form, known)?.factor;
    if (factor === undefined) expect(worth).toBeUndefined();
    else expect(worth).toBeCloseTo(factor, 6);
  });
});
