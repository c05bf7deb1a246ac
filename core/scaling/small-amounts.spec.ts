import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Dose } from '../recipe/dose';
import type { RecipeStep } from '../recipe/recipe-step';
import type { PlanMaterial } from './plan-input';
import { bathStep, input, linen, material, percent, planned, recipe, stockLot, wool } from './plan-lot.fixture';

const COARSE = { name: 'kitchen scale', resolutionG: 1, capacityG: 5000 };
const dosed = (materialId: string, of: number) =>
  recipe({ steps: [bathStep('mordant', [percent('alum', 15)]), bathStep('modify', [percent(materialId, of)])] });

describe('a dose below half a step of the balance', () => {
  const plan = planned(
    input({
      recipe: dosed('iron', 1.5),
      bases: [wool(1, 25)],
      materials: [material('alum', stockLot('ALU-1', 500)), material('iron', stockLot('FER-1', 100))],
      balance: COARSE,
    }),
  );
  const weighing = plan.steps.find((s) => s.kind === 'modify')?.weighings[0];

  it('stands in the plan as it is, from its jar, not short', () => {
    expect(weighing?.target.value).toBe(0.375);
    expect(weighing?.picks).toEqual([{ stockLotId: 'FER-1', amount: 375 }]);
    expect(plan.materials.find((m) => m.materialId === 'iron')).toMatchObject({ short: 0, total: { value: 0.375 } });
  });
  it('comes with the solution to take it from, and a tolerance that a solution can keep', () => {
    expect(weighing?.advice.join()).toMatch(/Too little for the balance. Dissolve 50 g in .* and take .* ml of it/);
    expect(weighing?.tolerance).toBeCloseTo(0.0375, 6);
  });
});

describe('two balances', () => {
  const fine = { name: 'fine balance', resolutionG: 0.01, capacityG: 50 };
  const on = (percentOwf: number, balance: typeof COARSE & { fine?: typeof fine }) =>
    planned(
      input({
        recipe: dosed('iron', percentOwf),
        bases: [wool(1, 25)],
        materials: [material('alum', stockLot('ALU-1', 500)), material('iron', stockLot('FER-1', 100))],
        balance,
      }),
    ).steps.find((s) => s.kind === 'modify')?.weighings[0];

  it('a dose the bench one can’t show well is weighed on the fine one, to its step, and says so', () => {
    const w = on(1.5, { ...COARSE, fine });
    expect([w?.target.value, w?.picks, w?.solution, w?.tolerance]).toEqual([
      0.38,
      [{ stockLotId: 'FER-1', amount: 380 }],
      null,
      0.01,
    ]);
    expect(w?.advice).toEqual(['On the fine balance.']);
    expect(w?.target.working.notes.join()).toContain('of the fine balance');
  });
  it('what the bench one weighs well stays on it, and so does what the fine one can’t carry', () => {
    expect(on(100, { ...COARSE, fine })?.advice).toEqual([]);
    expect(on(1.5, { ...COARSE, fine: { ...fine, capacityG: 0.2 } })?.solution).not.toBeNull();
  });
  it('a dose below the fine one’s step too is taken from a solution', () =>
    expect(on(0.01, { ...COARSE, fine })?.solution).toMatchObject({ dissolveG: 0.5 }));
});

describe('a small dose of what doesn’t dissolve', () =>
  it('is never made into a solution', () => {
    const chalk: PlanMaterial = { ...material('chalk', stockLot('CHA-1', 100)), catalogueKey: 'chalk' };
    const plan = planned(
      input({
        recipe: dosed('chalk', 2),
        bases: [wool(1, 25)],
        materials: [material('alum', stockLot('ALU-1', 500)), chalk],
        balance: COARSE,
      }),
    );
    const advice = plan.steps.find((s) => s.kind === 'modify')?.weighings[0]?.advice.join();
    expect(advice).toMatch(/doesn’t dissolve: weigh more of it/);
    expect(advice).not.toMatch(/Dissolve/);
  }));

describe('what lies within a step of the balance', () => {
  const alumOf = (...jars: readonly (readonly [string, number])[]) => {
    const stock = jars.map(([id, freeG], i) => ({ ...stockLot(id, freeG), receivedOn: `2026-01-0${i + 1}` }));
    const plan = planned(
      input({
        recipe: recipe({ steps: [bathStep('mordant', [percent('alum', 20)])] }),
        bases: [wool(4)],
        materials: [material('alum', ...stock)],
      }),
    );
    return plan.materials.find((m) => m.materialId === 'alum');
  };

  it('is equal: a jar of 79.997 g gives 80 g and is not short', () =>
    expect(alumOf(['A', 79.997])).toMatchObject({ short: 0, picks: [{ stockLotId: 'A', amount: 79_997 }] }));
  it('is not equal where a step more is missing', () => expect(alumOf(['A', 79.85])?.short).toBe(200));
  it('is never asked of a second jar', () =>
    expect(alumOf(['A', 79.993], ['B', 500])?.picks).toEqual([{ stockLotId: 'A', amount: 79_993 }]));
  it('stays in a jar that is nearly empty', () =>
    expect(alumOf(['A', 40.037], ['B', 500])?.picks).toEqual([
      { stockLotId: 'A', amount: 40_000 },
      { stockLotId: 'B', amount: 40_000 },
    ]));

  it('no jar is ever asked for less than a step, and nothing is lost, whatever the jars hold', () =>
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 90_000 }), { minLength: 1, maxLength: 5 }),
        fc.constantFrom(0.01, 0.1, 1),
        fc.integer({ min: 1, max: 40 }),
        (jars, resolutionG, percentOwf) => {
          const plan = planned(
            input({
              recipe: recipe({ steps: [bathStep('mordant', [percent('alum', percentOwf)])] }),
              bases: [wool(3)],
              materials: [material('alum', ...jars.map((mg, i) => stockLot(`J${i}`, mg / 1000)))],
              balance: { name: 'balance', resolutionG, capacityG: 3000 },
            }),
          );
          const alum = plan.materials.find((m) => m.materialId === 'alum');
          const wantedMg = Math.round((plan.wof.value * percentOwf) / 100 / resolutionG) * resolutionG * 1000;
          const given = alum?.picks.reduce((sum, p) => sum + p.amount, 0) ?? 0;
          for (const pick of alum?.picks ?? []) {
            expect(pick.amount).toBeGreaterThan(0);
            expect(pick.amount).toBeLessThanOrEqual(jars[Number(pick.stockLotId?.slice(1))] ?? 0);
          }
          expect(Math.abs(given + (alum?.short ?? 0) - wantedMg)).toBeLessThan(resolutionG * 1000);
        },
      ),
      { seed: 11 },
    ));
});

describe('a dose to a pH', () => {
  const vinegar: PlanMaterial = {
    ...material('vinegar', stockLot('VIN-1', 5000)),
    measure: 'volume',
    catalogueKey: 'white-vinegar',
  };
  const soda: PlanMaterial = { ...material('soda', stockLot('SOD-1', 500)), catalogueKey: 'soda-ash' };
  const toPh: Dose = { materialId: 'vinegar', by: 'toPh', targetPh: 7, reagent: 'vinegar5' };
  const mlOf = (steps: readonly RecipeStep[]): number =>
    planned(
      input({
        recipe: recipe({ fibres: ['linen'], steps: [...steps] }),
        bases: [linen(1, 333.4)],
        materials: [vinegar, soda],
        water: { name: 'Tap', ph: 7.5, hardnessDh: 4, ironMgPerL: null },
      }),
    ).steps.flatMap((s) => s.weighings.filter((w) => w.materialId === 'vinegar'))[0]?.target.value ?? 0;

  it('counts the soda that went into the same bath before it, and none of another bath', () => {
    const scour = (bath: string) => bathStep('scour', [percent('soda', 4.5)], { bath });
    expect(mlOf([scour('pot'), bathStep('adjustPh', [toPh], { bath: 'pot' })])).toBeGreaterThan(170);
    expect(mlOf([scour('another'), bathStep('adjustPh', [toPh], { bath: 'pot' })])).toBeLessThan(10);
  });
});
