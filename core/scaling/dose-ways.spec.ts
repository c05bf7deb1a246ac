import { describe, expect, it } from 'vitest';
import { sayDose } from '../recipe/compare-versions';
import type { Dose } from '../recipe/dose';
import { chooseDoses, findChoiceOutside, rangedDoses } from '../recipe/ranged-doses';
import { sayDoseUnknown } from './dose-unknown';
import type { LotPlan } from './lot-plan';
import { planLot } from './plan-lot';
import { sayPlanRefusal } from './plan-refusal';
import type { PlanInput, PlanMaterial } from './plan-input';
import { bathStep, input, material, planned, pot, recipe, stockLot, wool } from './plan-lot.fixture';

const volume = (id: string, litres: number): PlanMaterial => ({
  ...material(id, stockLot(id, litres * 1000)),
  measure: 'volume',
});
const materials: PlanMaterial[] = [
  {
    ...material('alum', stockLot('alum', 900)),
    spoons: [
      { unit: 'tbsp', system: 'metric', meanG: 14, spreadG: 0.4, weighings: 5 } as PlanMaterial['spoons'][number],
    ],
  },
  material('weld', stockLot('weld', 250)),
  volume('tea', 3),
  volume('kept bath', 8),
  {
    ...material('stones', { stockLotId: 'stones', tag: 'stones', free: 30, receivedOn: '2026-01-01' }),
    measure: 'pieces',
  },
];
const lot = (doses: readonly Dose[], change: Partial<PlanInput> = {}): PlanInput =>
  input({
    recipe: recipe({ steps: [bathStep('dye', doses)] }),
    bases: [wool(4)],
    vessels: [pot('kettle', 40)],
    materials,
    ...change,
  });
const taken = (plan: LotPlan): number[] =>
  plan.steps.flatMap((s) => (s.kind === 'fibre' ? [] : s.weighings.map((w) => w.target.value)));
const bathOf = (plan: LotPlan) => plan.steps[1]?.baths[0];
const ofBath = (amount: number, unit: Extract<Dose, { by: 'perBath' }>['unit'], materialId: string): Dose => ({
  materialId,
  by: 'perBath',
  amount,
  unit,
  system: 'metric',
});

describe('a dose as people give it', () => {
  it.each<[string, Dose, number]>([
    ['so many grams for the bath, whatever is in it', ofBath(30, 'g', 'alum'), 30],
    ['a tablespoon that was taught', ofBath(2, 'tbsp', 'alum'), 28],
    ['a cup of tea', ofBath(2, 'cup', 'tea'), 500],
    ['three stones a pot', ofBath(3, 'pieces', 'stones'), 3],
    ['so many stones to the weight of cloth, whole ones', { materialId: 'stones', by: 'count', piecesPer100G: 1.6 }, 7],
    [
      'a spoon of vinegar that nobody has to teach',
      { materialId: 'tea', by: 'spoons', spoonsPer100G: 2, unit: 'tbsp', system: 'metric' },
      120,
    ],
    ['as much as there is', { materialId: 'weld', by: 'allThere' }, 250],
    [
      'a strong tea of which nobody knows how strong',
      { materialId: 'tea', by: 'solution', mlPer100G: 250, gPerL: null },
      1000,
    ],
    ['a kept bath, as far as it goes', { materialId: 'kept bath', by: 'liquor' }, 8000],
  ])('%s', (_, dose, amount) => expect(taken(planned(lot([dose])))).toEqual([amount]));

  it('shares what there is over the batches by their fibre, and each bath gets its own fixed amount', () => {
    const two = { bases: [wool(6)] as PlanInput['bases'], vessels: [pot('a', 16), pot('b', 8)] };
    const plan = planned(lot([{ materialId: 'weld', by: 'allThere' }, ofBath(30, 'g', 'alum')], two));
    expect(plan.batches.map((b) => b.pieces).sort()).toEqual([2, 4]);
    const weld = plan.steps[1]?.weighings.filter((w) => w.materialId === 'weld').map((w) => w.target.value) ?? [];
    expect(weld.reduce((sum, n) => sum + n, 0)).toBeCloseTo(250, 0);
    expect(plan.materials.find((m) => m.materialId === 'alum')?.total.value).toBe(60);
    expect(plan.cautions.map((c) => c.code)).not.toContain('short');
  });

  it('says what it can’t measure', () => {
    const refused = (dose: Dose): string => {
      const result = planLot(lot([dose]));
      return result.ok ? '' : sayPlanRefusal(result.refusal);
    };
    expect(refused(ofBath(1, 'ml', 'alum'))).toMatch(/alum is kept by weight, and the dose for the bath/);
    expect(refused(ofBath(1, 'cup', 'alum'))).toMatch(/that spoon has not been taught/);
    expect(refused({ materialId: 'weld', by: 'liquor' })).toMatch(/not kept by volume/);
    expect(refused({ materialId: 'weld', by: 'solution', mlPer100G: 5, gPerL: null })).toMatch(/Write how many grams/);
    expect(sayDoseUnknown({ code: 'countedInPackets', materialName: 'Stones' })).toMatch(/by the piece/);
  });
});

describe('a kept bath', () => {
  it('is the liquor, not an addition beside it: water makes up what is missing', () => {
    const short = bathOf(planned(lot([{ materialId: 'kept bath', by: 'liquor' }])));
    expect([short?.liquor.value, short?.water?.value]).toEqual([12_000, 4000]);
    const enough = planned(lot([{ materialId: 'kept bath', by: 'liquor' }], { bases: [wool(2)] }));
    expect([taken(enough), bathOf(enough)?.liquor.value, bathOf(enough)?.water?.value]).toEqual([[6000], 6000, 0]);
  });
});

describe('a range', () => {
  const steps = [
    bathStep('dye', [{ materialId: 'weld', by: 'percentOwf', percentOwf: 25, toPercentOwf: 50 }], { key: 'dye' }),
  ];
  it('takes the least where nothing is chosen, and says that it is a range', () => {
    const plan = planned(lot(steps[0]?.doses ?? []));
    expect(taken(plan)).toEqual([100]);
    expect(plan.steps[1]?.weighings[0]?.advice[0]).toBe(
      'The recipe gives a range: 25 % was taken, up to 50 % is meant.',
    );
    expect(sayDose({ materialId: 'weld', by: 'percentOwf', percentOwf: 25, toPercentOwf: 50 })).toBe('25 to 50 % WOF');
  });
  it('takes what was chosen within it, and names what was chosen outside', () => {
    const choice = (percentOwf: number) => [{ stepKey: 'dye', materialId: 'weld', percentOwf }];
    expect(rangedDoses(chooseDoses(steps, choice(40)))[0]?.fromPercentOwf).toBe(40);
    expect(findChoiceOutside(steps, choice(40))).toBeUndefined();
    expect(findChoiceOutside(steps, choice(60))?.stepTitle).toBe('dye');
    expect(rangedDoses(chooseDoses(steps, choice(60)))[0]?.fromPercentOwf).toBe(25);
  });
});
