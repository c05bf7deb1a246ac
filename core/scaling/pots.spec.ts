import { describe, expect, it } from 'vitest';
import type { RecipeStep } from '../recipe/recipe-step';
import { recipeStep } from '../recipe/recipe-step';
import type { LotPlan } from './lot-plan';
import { sayPlanCaution } from './plan-caution';
import type { PlanInput } from './plan-input';
import {
  bathStep,
  input,
  linen,
  material,
  percent,
  planned,
  pot,
  recipe,
  refusedBy,
  stockLot,
  wool,
} from './plan-lot.fixture';

const kettle = pot('kettle', 48);
const pan = pot('pan', 20);
const SHELF = ['alum', 'weld', 'galls', 'iron', 'liquor'].map((id) => material(id, stockLot(`${id}-1`, 9000)));
const materials = SHELF.map((m) =>
  m.id === 'iron'
    ? { ...m, hazards: ['ironSalt' as const] }
    : m.id === 'liquor'
      ? { ...m, measure: 'volume' as const }
      : m,
);

const lot = (steps: readonly RecipeStep[], change: Partial<PlanInput> = {}) =>
  input({
    recipe: recipe({ fibres: ['wool', 'linen'], steps: [...steps] }),
    bases: [wool(4)],
    vessels: [kettle, pan],
    materials,
    ...change,
  });
const stepOf = (plan: LotPlan, title: string) => {
  const step = plan.steps.find((s) => s.title === title);
  if (!step) throw new Error(`no step ${title}`);
  return step;
};
const vesselsOf = (plan: LotPlan, title: string): string[] => stepOf(plan, title).baths.map((b) => b.vesselName);
const said = (plan: LotPlan): string => plan.cautions.map(sayPlanCaution).join(' ');

/** The flowers draw while the pieces are scoured and mordanted: two branches that meet in the dye bath. */
const branches = [
  bathStep('scour', [], { key: 'scour', title: 'Scour', after: [] }),
  bathStep('mordant', [percent('alum', 15)], { key: 'mordant', title: 'Mordant', after: ['scour'] }),
  bathStep('extract', [percent('weld', 50)], { key: 'draw', title: 'Draw the flowers', after: [], bath: 'dye' }),
  bathStep('dye', [], { key: 'dye', title: 'Dye', after: ['mordant', 'draw'], bath: 'dye' }),
];

describe('a pot is in one place', () => {
  it('gives what goes on at once a pot each, though one would hold it all', () => {
    const plan = planned(lot(branches));
    const dye = vesselsOf(plan, 'Dye');
    expect(vesselsOf(plan, 'Draw the flowers')).toEqual(dye);
    for (const title of ['Scour', 'Mordant']) expect(vesselsOf(plan, title)).not.toEqual(dye);
    // One after the other, they may have the same.
    expect(vesselsOf(plan, 'Scour')).toEqual(vesselsOf(plan, 'Mordant'));
    expect(said(plan)).not.toContain('waits until');
  });

  it('lets a bath wait where there is no other pot, and says so', () => {
    const plan = planned(lot(branches, { vessels: [kettle] }));
    const draw = stepOf(plan, 'Draw the flowers');
    expect(draw.after).toContain(stepOf(plan, 'Mordant').index);
    expect(draw.index).toBeGreaterThan(stepOf(plan, 'Mordant').index);
    expect(said(plan)).toContain(
      '“Draw the flowers” waits until “Scour” is over and kettle is emptied: no other vessel is free for it.',
    );
  });

  it('refuses two liquors that need each other’s pot', () => {
    const kept = [
      bathStep('mordant', [percent('alum', 15)], { key: 'in', title: 'Into alum', bath: 'alum', after: [] }),
      bathStep('dye', [percent('weld', 50)], { key: 'dye', title: 'Dye', after: ['in'] }),
      bathStep('mordant', [], { key: 'again', title: 'Into alum again', bath: 'alum', after: ['dye'] }),
    ];
    const refused = refusedBy(lot(kept, { vessels: [kettle] }));
    expect(refused.code).toBe('potTakenTwice');
    expect(vesselsOf(planned(lot(kept)), 'Dye')).not.toEqual(vesselsOf(planned(lot(kept)), 'Into alum'));
  });

  it('does in turns what comes into the same vessel', () => {
    const plan = planned(
      lot([bathStep('scour', [], { liquorRatio: 60 }), bathStep('dye', [percent('weld', 50)])], {
        bases: [wool(20)],
        vessels: [pot('a', 40), pot('b', 30)],
      }),
    );
    for (const step of plan.steps) {
      const names = step.baths.map((b) => b.vesselId);
      expect(new Set(names).size).toBe(names.length);
    }
    expect(Math.max(...stepOf(plan, 'scour').baths.map((b) => b.turns))).toBeGreaterThan(1);
  });
});

describe('iron', () => {
  const saddened = [
    bathStep('dye', [percent('weld', 50)], { title: 'Dye' }),
    bathStep('modify', [percent('iron', 2)], { title: 'Iron' }),
  ];
  it('goes into the pot that held it, and nothing else does', () => {
    const vessels = [kettle, pan, pot('iron pot', 30, { heldIron: true })];
    const plan = planned(lot(saddened, { vessels }));
    expect(vesselsOf(plan, 'Iron')).toEqual(['iron pot']);
    expect(vesselsOf(plan, 'Dye')).not.toEqual(['iron pot']);
    expect(said(plan)).not.toContain('Iron goes into');
  });
  it('is said to mark a pot that never held it', () =>
    expect(said(planned(lot(saddened)))).toMatch(/Iron goes into (kettle|pan): what is dyed in it after/));
});

describe('what is poured in', () => {
  it('counts in the pot: eight and a half litres are not half of a six litre pan', () => {
    const pourIn = [bathStep('dye', [{ materialId: 'liquor', by: 'solution', mlPer100G: 2125, gPerL: 1 }])];
    const plan = planned(lot(pourIn, { vessels: [pot('pan', 6), kettle] }));
    const [bath] = stepOf(plan, 'dye').baths;
    // 400 g at 1:30 are 12 l of liquor, of which 8.5 l are the solution.
    expect([bath?.vesselName, bath?.liquor.value, bath?.water?.value]).toEqual(['kettle', 12_000, 3500]);
    const thick = planned(
      lot([bathStep('dye', [{ materialId: 'liquor', by: 'solution', mlPer100G: 4000, gPerL: 1 }])]),
    );
    const [full] = stepOf(thick, 'dye').baths;
    expect([full?.liquor.value, full?.water?.value]).toEqual([16_000, 0]);
  });

  it('tops up what strained dyestuff keeps, and not for fresh plants', () => {
    const draw = (form: 'dried' | 'fresh') =>
      planned(
        lot([
          bathStep('extract', [{ materialId: 'weld', by: 'percentOwf', percentOwf: 100, form }], {
            bath: 'dye',
            strain: 'muslin',
          }),
          bathStep('dye', [], { bath: 'dye' }),
        ]),
      );
    expect(stepOf(draw('dried'), 'extract').baths[0]?.water?.value).toBe(13_000);
    expect(stepOf(draw('fresh'), 'extract').baths[0]?.water?.value).toBe(12_000);
  });

  it('plans the pot of all the liquor where the dyestuff is drawn several times', () => {
    const twice = planned(
      lot([
        bathStep('extract', [percent('weld', 50)], { bath: 'dye', liquorRatio: 20, repeats: 2 }),
        bathStep('dye', [], { bath: 'dye' }),
      ]),
    );
    expect(stepOf(twice, 'dye').baths[0]?.liquor.value).toBe(16_000);
  });
});

describe('exhaust dips', () => {
  const parts = [
    { key: 'first', name: 'first dip', sharePercent: 50 },
    { key: 'second', name: 'second dip', sharePercent: 25 },
    { key: 'second iron', name: 'second dip, iron', sharePercent: 25 },
  ];
  const dips = [
    bathStep('mordant', [percent('alum', 15)], { title: 'Mordant' }),
    bathStep('dye', [percent('weld', 50)], { title: 'First dip', bath: 'dye', parts: ['first'] }),
    bathStep('exhaust', [], { title: 'Second dip', bath: 'dye', parts: ['second', 'second iron'] }),
    bathStep('modify', [percent('iron', 2)], { title: 'Iron', parts: ['second iron'] }),
    recipeStep({ kind: 'rinse', title: 'Rinse' }),
  ];
  const plan = planned(
    input({
      recipe: recipe({ fibres: ['linen'], steps: dips, parts }),
      bases: [linen(8, 100)],
      vessels: [kettle, pan],
      materials,
    }),
  );

  it('are dyeing: the pieces of a dip are a batch, in the pot where the liquor stands', () => {
    expect(plan.batches.map((b) => [b.vesselName, b.pieces])).toEqual([
      ['pan', 4],
      ['pan', 4],
    ]);
    expect(vesselsOf(plan, 'Second dip')).toEqual(vesselsOf(plan, 'First dip'));
    expect(stepOf(plan, 'Second dip').liquor).toBe(stepOf(plan, 'First dip').liquor);
  });

  it('are sized for what is in the pot then, with the liquor that the dip before left', () => {
    const [first, second] = ['First dip', 'Second dip'].map((title) => stepOf(plan, title).baths[0]);
    expect([first?.pieces, first?.wof.value, first?.liquor.value]).toEqual([4, 400, 12_000]);
    // 400 g of wet linen carry off 0.6 l.
    expect([second?.pieces, second?.wof.value, second?.liquor.value, second?.water?.value]).toEqual([
      4, 400, 12_000, 600,
    ]);
  });

  it('dose each dip for its own pieces, and pieces that skip dips go their own way', () => {
    const [weld] = stepOf(plan, 'First dip').weighings;
    expect([weld?.target.value, stepOf(plan, 'Second dip').weighings]).toEqual([200, []]);
    expect(stepOf(plan, 'Iron').weighings.map((w) => w.target.value)).toEqual([4]);
    expect(stepOf(plan, 'Iron').baths.map((b) => b.pieces)).toEqual([2]);
    expect(stepOf(plan, 'Mordant').baths.map((b) => b.pieces)).toEqual([8]);
  });

  it('leave the pot to no other bath between them', () => {
    const between = planned(
      input({
        recipe: recipe({
          fibres: ['linen'],
          parts: parts.map((p) => (p.key === 'second iron' ? { ...p, sharePercent: 0 } : { ...p, sharePercent: 50 })),
          steps: [
            bathStep('dye', [percent('weld', 50)], { title: 'First dip', bath: 'dye', parts: ['first'] }),
            bathStep('scour', [], { title: 'Scour the rest' }),
            bathStep('exhaust', [], { title: 'Second dip', bath: 'dye', parts: ['second'] }),
          ],
        }),
        bases: [linen(4, 100)],
        vessels: [kettle, pan],
        materials,
      }),
    );
    expect(vesselsOf(between, 'Scour the rest')).not.toEqual(vesselsOf(between, 'First dip'));
  });

  it('take a few pieces after the others where the pot doesn’t hold them at once', () => {
    const many = planned(
      input({
        recipe: recipe({
          fibres: ['linen'],
          steps: dips.filter((s) => s.title !== 'Iron'),
          parts: [
            { key: 'first', name: 'first dip', sharePercent: 25 },
            { key: 'second', name: 'second dip', sharePercent: 75 },
          ].concat({ key: 'second iron', name: 'none', sharePercent: 0 }),
        }),
        bases: [linen(12, 100)],
        vessels: [pot('pan', 11)],
        materials,
      }),
    );
    expect(many.batches.map((b) => [b.pieces, b.fill])).toEqual([
      [3, 1],
      [3, 1],
      [3, 2],
      [3, 3],
    ]);
  });
});
