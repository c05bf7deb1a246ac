import { sayPlanRefusal } from './plan-refusal';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readLotSize } from '../quantity/lot-size';
import {
  bathStep,
  input,
  stockLot,
  linen,
  material,
  percent,
  planned,
  pot,
  recipe,
  refusedBy,
  total,
  wool,
} from './plan-lot.fixture';
import type { PlanInput } from './plan-input';
import { sayPlanCaution } from './plan-caution';
import { planLot } from './plan-lot';
import { sayStepCaution } from './step-caution';
import { sharePicks } from './share-picks';
import { recipeStep } from '../recipe/recipe-step';

describe('planLot', () => {
  it('splits, doses, fills and picks', () => {
    const plan = planned(input());
    expect(plan.batches.map((b) => [b.vesselName, b.pieces, b.wof.value, b.liquor.value])).toEqual([
      ['pan', 6, 600, 18_000],
      ['kettle', 6, 600, 18_000],
    ]);
    expect([total(plan, 'alum'), total(plan, 'weld'), total(plan, 'hanks')]).toEqual([180, 1200, 1200]);
    expect(plan.steps.map((s) => s.kind)).toEqual(['fibre', 'mordant', 'extract', 'dye']);
    expect(plan.steps[1]?.cautions.map(sayStepCaution).join(' ')).toMatch(/dust mask.*safety data sheet.*Steam/s);
    expect(plan.materials.every((m) => m.short === 0)).toBe(true);
  });

  it.each<[string, Partial<PlanInput>, string, RegExp]>([
    [
      'no vessel of the metal',
      { vessels: [pot('cauldron', 60, { metal: 'iron' })] },
      'noVesselOfMetal',
      /wants a vessel of stainless/,
    ],
    ['no vessel at all', { vessels: [] }, 'noVesselOfMetal', /there is no vessel yet/],
    ['a piece too big for any', { bases: [wool(12, 5000)] }, 'pieceTooBig', /kettle, the biggest, holds \(30 l\)/],
    ['a lot too big for all', { bases: [wool(40)] }, 'lotTooBig', /15 is the most/],
    ['the wrong fibre', { bases: [linen(3)] }, 'fibreNotSuited', /for wool; scrim is linen/],
    [
      'a chain that goes round',
      {
        recipe: recipe({
          steps: [bathStep('mordant', [], { key: 'a', after: ['b'] }), bathStep('dye', [], { key: 'b', after: ['a'] })],
        }),
      },
      'chainFault',
      /goes round in a circle/,
    ],
    ['a bath shorter than its limit', { liquorRatio: 10 }, 'ratioOutside', /1:10 is outside/],
    [
      'a spoon nobody taught',
      {
        recipe: recipe({
          steps: [
            bathStep('dye', [{ materialId: 'weld', by: 'spoons', spoonsPer100G: 2, unit: 'tsp', system: 'metric' }]),
          ],
        }),
      },
      'doseUnknown',
      /has not been taught/,
    ],
    [
      'baths that share no metal',
      {
        recipe: recipe({
          steps: [
            bathStep('dye', [], { bath: 'one', metals: ['iron'] }),
            bathStep('modify', [], { bath: 'one', metals: ['enamel'] }),
          ],
        }),
      },
      'noVesselOfMetal',
      /no metal in common/,
    ],
  ])('refuses %s', (_name, change, code, message) => {
    const refusal = refusedBy(input(change));
    expect(refusal.code).toBe(code);
    expect(sayPlanRefusal(refusal)).toMatch(message);
  });

  it('names the ways out of a lot that fits no way, each of which works', () => {
    const big = input({ bases: [wool(18)], recipe: recipe({ minLiquorRatio: 20 }) });
    const { ways } = refusedBy(big);
    const maxPieces = ways.find((w) => w.code === 'smaller')?.pieces;
    expect(ways.map((w) => w.code)).toEqual(['smaller', 'ratio', 'fills', 'vessel']);
    expect(planned({ ...big, bases: [wool(maxPieces ?? 0)] }).pieces).toBe(15);
    expect(refusedBy({ ...big, bases: [wool((maxPieces ?? 0) + 1)] }).code).toBe('lotTooBig');
    const shorter = ways.find((w) => w.code === 'ratio')?.liquorRatio;
    expect(planned({ ...big, liquorRatio: shorter }).liquorRatio).toBe(shorter);
    expect(refusedBy({ ...big, liquorRatio: (shorter ?? 0) + 1 }).code).toBe('lotTooBig');
    const twoFills = planned({ ...big, fills: 2 });
    expect(twoFills.batches.map((b) => b.fill)).toContain(2);
    expect(twoFills.cautions.map(sayPlanCaution).join(' ')).toContain('Two runs');
  });

  it('names what is short and takes no more than there is', () => {
    const plan = planned(input({ materials: [material('alum', stockLot('ALU-1', 100)), material('weld')] }));
    expect(plan.materials.map((m) => [m.name, m.short])).toEqual([
      ['hanks', 0],
      ['alum', 80_000],
      ['weld', 1_200_000],
    ]);
    expect(plan.cautions.map(sayPlanCaution)).toContain('alum is short by 80 g.');
    const picks = plan.steps[1]?.weighings.flatMap((w) => w.picks) ?? [];
    expect(picks.filter((p) => p.stockLotId === 'ALU-1').reduce((sum, p) => sum + p.amount, 0)).toBe(100_000);
    expect(picks.filter((p) => p.stockLotId === null).reduce((sum, p) => sum + p.amount, 0)).toBe(80_000);
  });

  it('keeps pieces to one base lot where one can give them all', () => {
    const bases: PlanInput['bases'] = [
      wool(12, 100, { stock: [stockLot('OLD', 500, { receivedOn: '2025-01-01' }), stockLot('NEW', 2000)] }),
    ];
    expect(planned(input({ bases })).materials[0]?.picks).toEqual([{ stockLotId: 'NEW', amount: 1_200_000 }]);
  });

  it('throws on a dose of something it was not given', () =>
    expect(() => planLot(input({ materials: [] }))).toThrow(RangeError));

  it('takes more of a weaker jar and less of a stronger, by its strength, in the same mix for every batch', () => {
    const plan = planned(
      input({
        materials: [
          material('alum', stockLot('ALU-1', 1000)),
          material(
            'weld',
            stockLot('WEAK', 500, { strengthPercent: 50 }),
            stockLot('STRONG', 5000, { strengthPercent: 125, receivedOn: '2026-02-01' }),
          ),
        ],
      }),
    );
    const weld = plan.materials.find((m) => m.materialId === 'weld');
    // 1,200 g wanted: 500 g of WEAK are worth 250 g, the other 950 g are 760 g of STRONG.
    expect(weld?.picks).toEqual([
      { stockLotId: 'WEAK', amount: 500_000 },
      { stockLotId: 'STRONG', amount: 760_000 },
    ]);
    expect(weld?.total.value).toBe(1260);
    const [a, b] = plan.steps[2]?.weighings ?? [];
    expect(a?.picks).toEqual(b?.picks);
    expect(a?.target.value).toBe(630);
    expect(a?.target.working.inputs.find((i) => i.name === 'WEAK')?.source).toContain('strength 50 %');
  });

  it('converts fresh for dried by dry matter, and leaves out what can’t be bridged', () => {
    const dose = [{ materialId: 'weld', by: 'percentOwf' as const, percentOwf: 100, form: 'dried' as const }];
    const withFresh = (stock: Parameters<typeof stockLot>[2], dryFactor: number | null) =>
      planned(
        input({
          recipe: recipe({ steps: [bathStep('extract', dose), bathStep('dye')] }),
          materials: [{ ...material('weld', stockLot('FRESH', 20_000, stock)), dryFactor }],
        }),
      );
    expect(total(withFresh({ form: 'fresh' }, 5), 'weld')).toBe(6000);
    expect(total(withFresh({ form: 'fresh', moisturePercent: 70 }, null), 'weld')).toBe(3600);
    const none = withFresh({ form: 'fresh' }, null).materials.find((m) => m.materialId === 'weld');
    expect(none?.short).toBe(1_200_000);
    expect(none?.notes[0]).toMatch(/FRESH is of another form/);
    expect(withFresh({ form: 'extract' }, 5).materials.find((m) => m.materialId === 'weld')?.short).toBe(1_200_000);
    expect(total(withFresh({ form: 'extract', strengthPercent: 800 }, 5), 'weld')).toBe(150);
  });

  it('adds up, whatever the lot: batches to the whole, picks to the doses, nothing over a pot', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 15 }),
        fc.double({ min: 5, max: 100, noNaN: true }),
        fc.array(fc.tuple(fc.integer({ min: 0, max: 900 }), fc.option(fc.integer({ min: 30, max: 300 }))), {
          maxLength: 4,
        }),
        (pieces, pieceWeightG, stockLots) => {
          const plan = planned(
            input({
              bases: [wool(pieces, pieceWeightG)],
              materials: [
                material('alum', stockLot('A', 1000)),
                material(
                  'weld',
                  ...stockLots.map(([g, strengthPercent], n) => stockLot(`W${n}`, g, { strengthPercent })),
                ),
              ],
            }),
          );
          expect(plan.batches.reduce((sum, b) => sum + b.pieces, 0)).toBe(pieces);
          for (const b of plan.batches) expect(b.fillLevel.value).toBeLessThanOrEqual(100);
          for (const bath of plan.steps.flatMap((s) => s.baths)) expect(bath.fillLevel.value).toBeLessThanOrEqual(100);
          for (const m of plan.materials) {
            const weighings = plan.steps.flatMap((s) => s.weighings).filter((w) => w.materialId === m.materialId);
            for (const w of weighings)
              expect(w.picks.reduce((sum, p) => sum + p.amount, 0)).toBe(Math.round(w.target.value * 1000));
            expect(weighings.reduce((sum, w) => sum + Math.round(w.target.value * 1000), 0)).toBe(
              Math.round(m.total.value * 1000),
            );
            for (const p of m.picks) {
              expect(
                weighings
                  .flatMap((w) => w.picks)
                  .filter((q) => q.stockLotId === p.stockLotId)
                  .reduce((sum, q) => sum + q.amount, 0),
              ).toBe(p.amount);
              const has =
                m.materialId === 'weld' ? (stockLots[Number(p.stockLotId?.slice(1))]?.[0] ?? 0) * 1000 : Infinity;
              expect(p.amount).toBeLessThanOrEqual(has);
            }
          }
          // All of it dry and its alum: to the balance's rounding of each bath.
          expect(Math.abs(total(plan, 'alum') - pieces * pieceWeightG * 0.15)).toBeLessThanOrEqual(
            0.05 * plan.batches.length + 1e-6,
          );
        },
      ),
      { seed: 33 },
    );
  });

  it('doubles every dose when the fibre doubles, to the rounding of the balance', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.double({ min: 10, max: 100, noNaN: true }), (pieces, g) => {
        const [once, twice] = [
          planned(input({ bases: [wool(pieces, g)] })),
          planned(input({ bases: [wool(pieces, 2 * g)] })),
        ];
        const rounding = 0.05 * (2 * once.batches.length + twice.batches.length) + 1e-6;
        for (const id of ['alum', 'weld'])
          expect(Math.abs(total(twice, id) - 2 * total(once, id))).toBeLessThanOrEqual(rounding);
      }),
      { seed: 34 },
    );
  });
  it('weighs the same grams whatever unit the lot was written in', () => {
    const hank = { usualPieceWeightG: 100, pieceWord: 'hank' };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 12 }), (pieces, ounces) => {
        const writtenText = [
          `${pieces} hanks of ${ounces} oz`,
          `${pieces} x ${ounces * 28.349523125} g`,
          `${pieces} hanks of ${ounces / 16} lb`,
          `${pieces} hanks of ${(ounces * 28.349523125) / 1000} kg`,
        ];
        const plans = writtenText.map((text) => {
          const size = readLotSize(text, hank);
          if (!size.ok) throw new Error(size.message);
          return planned(
            input({
              bases: [wool(size.size.pieces, size.size.pieceWeightG)],
              vessels: [pot('vat', 40), pot('tub', 60)],
            }),
          );
        });
        for (const plan of plans)
          expect(plan.materials.map((m) => m.picks)).toEqual(plans[0]?.materials.map((m) => m.picks));
      }),
      { seed: 35, numRuns: 40 },
    );
  });

  it('never fills a pot over, in any step, of whatever metals and pots', () => {
    const metal = fc.constantFrom('stainless' as const, 'enamel' as const, 'iron' as const);
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 30 }),
        fc.integer({ min: 20, max: 400 }),
        fc.array(fc.tuple(fc.integer({ min: 2, max: 50 }), metal), { minLength: 1, maxLength: 5 }),
        metal,
        metal,
        fc.integer({ min: 1, max: 12 }),
        (pieces, g, pots, dyeMetal, otherMetal, reels) => {
          const vessels = pots.map(([litres, m], i) => pot(`v${i}`, litres, { metal: m }));
          const steps = [
            bathStep('mordant', [percent('alum', 15)], { metals: [otherMetal] }),
            bathStep('extract', [percent('weld', 300)], { metals: [otherMetal], strain: 'leaveIn' }),
            bathStep('dye', [], { metals: [dyeMetal] }),
          ];
          const result = planLot(
            input({
              vessels,
              bases: [wool(pieces, g), { ...linen(reels, 25), fibre: 'silk' }],
              recipe: recipe({ fibres: ['wool', 'silk'], steps }),
            }),
          );
          if (!result.ok) return;
          for (const bath of [...result.plan.batches, ...result.plan.steps.flatMap((s) => s.baths)])
            expect(bath.fillLevel.value).toBeLessThanOrEqual(100);
          for (const step of result.plan.steps.filter((s) => s.baths.length > 0))
            expect(step.baths.flatMap((b) => b.batches).sort()).toEqual(
              result.plan.batches.map((b) => b.number).sort(),
            );
        },
      ),
      { seed: 36, numRuns: 300 },
    );
  });
  it('opens whole packets, each with what goes with it', () => {
    const black = {
      ...material('black', stockLot('BLA-1', 0)),
      measure: 'pieces' as const,
      stock: [{ ...stockLot('BLA-1', 0), free: 12 }],
      packet: { contentsG: 20, fibreG: 250, auxiliaries: [{ materialId: 'salt', amount: 30_000 }] },
    };
    const plan = planned(
      input({
        bases: [wool(6)],
        recipe: recipe({ steps: [bathStep('dye', [{ materialId: 'black', by: 'packet' }])] }),
        materials: [black, material('salt', stockLot('SAL-1', 900))],
        vessels: [pot('kettle', 40)],
      }),
    );
    expect([total(plan, 'black'), total(plan, 'salt')]).toEqual([3, 90]);
    expect(plan.materials.find((m) => m.materialId === 'black')?.picks).toEqual([{ stockLotId: 'BLA-1', amount: 3 }]);
  });
  it('measures out what placed colour sprays on each piece', () => {
    const zone = {
      title: 'edge',
      way: 'spray' as const,
      fromPercent: 0,
      toPercent: 20,
      order: 1,
      minutes: 1,
      waitMin: 0,
      mlPerPiece: 6,
      gPerPiece: null,
      materialId: 'liquor',
      spacingCm: null,
    };
    const plan = planned(
      input({
        recipe: recipe({
          placed: {
            lengthCm: 80,
            piece: 'skein',
            bleedPercent: 3,
            zones: [
              { ...zone, mlPerPiece: 4 },
              { ...zone, title: 'other edge', fromPercent: 80, toPercent: 100, mlPerPiece: 2 },
            ],
          },
        }),
        materials: [...input().materials, { ...material('liquor', stockLot('IRL-1', 500)), measure: 'volume' }],
      }),
    );
    expect(plan.steps[3]?.weighings.map((w) => [w.batch, w.target.value, w.measure])).toEqual([
      [1, 36, 'volume'],
      [2, 36, 'volume'],
    ]);
    expect(total(plan, 'liquor')).toBe(72);
    const layout = planned(
      input({
        recipe: recipe({
          steps: [bathStep('mordant', [percent('alum', 15)]), bathStep('dye')],
          placed: {
            lengthCm: 80,
            piece: 'length',
            bleedPercent: 3,
            zones: [{ ...zone, way: 'layOn', mlPerPiece: null, gPerPiece: 2.5, materialId: 'weld' }],
          },
        }),
      }),
    );
    expect(layout.steps[2]?.weighings.map((w) => [w.materialId, w.target.value])).toEqual([
      ['weld', 15],
      ['weld', 15],
    ]);
  });
  it('says how unlike batches of a mixed lot are, and what it risks', () => {
    const plan = planned(
      input({
        bases: [wool(5), { ...linen(1, 400), fibre: 'silk' }],
        recipe: recipe({ fibres: ['wool', 'silk'] }),
        vessels: [pot('a', 17), pot('b', 17)],
      }),
    );
    expect(plan.cautions.map(sayPlanCaution).join(' ')).toMatch(/is 0 to \d+ % of the fibre, batch by batch/);
  });
});

describe('chains with several fibres, parts and baths', () => {
  const both = recipe({
    fibres: ['wool', 'linen'],
    liquorRatio: 20,
    steps: [
      recipeStep({
        key: 'scourW',
        kind: 'scour',
        title: 'Scour wool',
        fibres: ['wool'],
        after: [],
        doses: [percent('soap', 1)],
      }),
      bathStep('scour', [percent('soda', 4)], {
        key: 'scourL',
        title: 'Scour linen',
        fibres: ['linen'],
        after: [],
        temperatureC: 90,
      }),
      bathStep('mordant', [percent('alum', 15)], { key: 'mordW', fibres: ['wool'], after: ['scourW'] }),
      bathStep('tannin', [percent('galls', 20)], { key: 'tanL', fibres: ['linen'], after: ['scourL'] }),
      bathStep('dye', [percent('weld', 100)], { key: 'dye', after: ['mordW', 'tanL'] }),
      bathStep('modify', [percent('iron', 2)], { key: 'sadden', parts: ['dark'], after: ['dye'] }),
      recipeStep({ key: 'rinse', kind: 'rinse', title: 'Rinse', after: ['dye', 'sadden'] }),
    ],
    parts: [
      { key: 'light', name: 'left light', sharePercent: 75 },
      { key: 'dark', name: 'saddened', sharePercent: 25 },
    ],
  });
  const stocked = ['soap', 'soda', 'alum', 'galls', 'weld', 'iron'].map((id) =>
    material(id, stockLot(`${id}-1`, 9000)),
  );
  const plan = planned(
    input({
      recipe: both,
      materials: stocked,
      bases: [wool(8), linen(4)],
      vessels: [pot('kettle', 60), pot('pan', 20)],
    }),
  );

  it('doses each branch by its own fibre, and the shared pot by all of it', () => {
    expect([
      total(plan, 'soap'),
      total(plan, 'soda'),
      total(plan, 'alum'),
      total(plan, 'galls'),
      total(plan, 'weld'),
    ]).toEqual([8, 40, 120, 200, 1800]);
    expect(plan.groups.map((g) => [g.fibre, g.part, g.pieces])).toEqual([
      ['wool', 'light', 6],
      ['wool', 'dark', 2],
      ['linen', 'light', 3],
      ['linen', 'dark', 1],
    ]);
    expect(plan.steps.find((s) => s.title === 'modify')).toMatchObject({
      forWhom: 'only the saddened (3 of 12 pieces)',
    });
    expect(total(plan, 'iron')).toBe(9);
  });
  it('keeps the order of branches and joins them', () => {
    const at = (title: string) => plan.steps.find((s) => s.title === title);
    expect(at('dye')?.after).toEqual([at('mordant')?.index, at('tannin')?.index]);
    expect(at('Scour linen')?.after).toEqual([0]);
  });
  it('leaves out a branch that none of the pieces go through', () => {
    const woolOnly = planned(
      input({ recipe: both, materials: stocked, bases: [wool(8)], vessels: [pot('kettle', 60), pot('pan', 20)] }),
    );
    expect(woolOnly.steps.map((s) => s.title)).toEqual([
      'Weigh the fibre dry',
      'Scour wool',
      'mordant',
      'dye',
      'modify',
      'Rinse',
    ]);
    expect(woolOnly.steps.map((s) => s.after)).toEqual([[], [0], [1], [2], [3], [3, 4]]);
    expect(woolOnly.materials.map((m) => m.name)).not.toContain('galls');
    const linenOnly = planned(
      input({ recipe: both, materials: stocked, bases: [linen(1)], vessels: [pot('kettle', 60)] }),
    );
    expect(linenOnly.steps.map((s) => s.title)).toEqual([
      'Weigh the fibre dry',
      'Scour linen',
      'tannin',
      'dye',
      'Rinse',
    ]);
    expect(linenOnly.steps.at(-1)?.after).toEqual([3]);
  });
  it('says what a mixed pot does', () => {
    expect(plan.cautions.map(sayPlanCaution).join(' ')).toContain('protein takes the dye first');
    const synthetic = planned(
      input({
        recipe: recipe({ fibres: ['wool', 'synthetic'] }),
        bases: [wool(2), { ...linen(1, 100), id: 'poly', fibre: 'synthetic' }],
      }),
    );
    expect(synthetic.cautions.map(sayPlanCaution).join(' ')).toContain('Synthetic fibre takes nothing');
  });
  it('shares one mordant bath between batches where it fits, and says which', () => {
    const shared = planned(
      input({
        bases: [wool(14)],
        vessels: [pot('vat', 60, { metal: 'enamel' }), pot('kettle', 30), pot('pan', 20)],
        recipe: recipe({
          steps: [
            bathStep('mordant', [percent('alum', 15)], { metals: ['enamel'] }),
            bathStep('dye', [percent('weld', 100)], { metals: ['stainless'] }),
          ],
        }),
      }),
    );
    expect(shared.batches).toHaveLength(2);
    expect(shared.steps[1]?.baths).toMatchObject([{ vesselName: 'vat', batches: [1, 2], turns: 1 }]);
    expect(shared.steps[1]?.weighings).toMatchObject([{ batch: 1, forBatches: [1, 2], target: { value: 210 } }]);
  });
  it('does in turns what no allowed vessel takes at once', () => {
    const turned = planned(
      input({
        bases: [wool(10)],
        vessels: [pot('kettle', 40), pot('cauldron', 16, { metal: 'iron', heldIron: true })],
        recipe: recipe({
          steps: [
            bathStep('dye', [percent('weld', 50)]),
            bathStep('modify', [percent('alum', 2)], { metals: ['iron'] }),
          ],
        }),
      }),
    );
    const bath = turned.steps[2]?.baths[0];
    expect(bath).toMatchObject({ vesselName: 'cauldron', turns: 2, liquor: { value: 15_000 }, pieces: 10 });
    expect(bath?.notes.join(' ')).toContain('2 turns of up to 5 pieces, one after another');
    expect(total(turned, 'alum')).toBe(20);
  });
  it('leaves a pot that held iron alone while a clean one does', () => {
    const clean = planned(
      input({ bases: [wool(4)], vessels: [pot('dented', 16, { heldIron: true }), pot('kettle', 40)] }),
    );
    expect(clean.batches.map((b) => b.vesselName)).toEqual(['kettle']);
    expect(
      planned(input({ bases: [wool(4)], vessels: [pot('dented', 16, { heldIron: true })] })).batches.map(
        (b) => b.vesselName,
      ),
    ).toEqual(['dented']);
  });
  it('makes room for dyestuff that stays in the pot', () => {
    const steps = (strain: 'leaveIn' | 'muslin') => [
      bathStep('extract', [percent('weld', 300)], { strain, bath: 'pot' }),
      bathStep('dye', [], { bath: 'pot' }),
    ];
    const left = (strain: 'leaveIn' | 'muslin') =>
      planned(input({ bases: [wool(5)], vessels: [pot('kettle', 40)], recipe: recipe({ steps: steps(strain) }) }))
        .batches[0]?.fillLevel.value ?? 0;
    expect(left('leaveIn')).toBeGreaterThan(left('muslin') - 1);
    expect(left('leaveIn')).toBe(Math.round(((15_000 + 500 / 1.3 + 500 * 2) / 40_000) * 100));
  });
  it('heats, lifts and mixes each bath, and says where it can’t', () => {
    const ring = { id: 'h', name: 'Hot plate', powerW: 600, efficiencyPercent: 50 };
    const hot = planned(input({ bases: [wool(10)], vessels: [pot('vat', 40, { heatSource: ring, emptyG: 4000 })] }))
      .steps[1]?.baths[0];
    expect(hot?.heating).toMatchObject({ ok: false });
    expect(hot?.fullWeight.value).toBe(35);
    expect(hot?.notes.join(' ')).toMatch(/no further.*over the 15 kg/s);
    const warm = planned(
      input({
        bases: [wool(2)],
        vessels: [pot('pan', 8, { heatSource: { ...ring, powerW: 3000 } })],
        recipe: recipe({
          steps: [bathStep('scour', [], { temperatureC: 40 }), bathStep('dye', [percent('weld', 10)])],
        }),
      }),
    ).steps[1]?.baths[0];
    expect(warm?.heating).toMatchObject({ ok: true });
    expect(warm?.notes.join(' ')).toMatch(/of hot and .* of cold water make 40 °C/);
  });
});

describe('sharePicks', () => {
  it('gives every batch the same mix', () => {
    expect(
      sharePicks(
        [600, 600],
        [
          { stockLotId: 'A', amount: 400 },
          { stockLotId: 'B', amount: 800 },
        ],
        { stepMg: 100, inOrder: false },
      ).map((s) => s.map((p) => p.amount)),
    ).toEqual([
      [200, 400],
      [200, 400],
    ]);
  });
  it('empties one before the next where pieces can’t be mixed', () => {
    expect(
      sharePicks(
        [600, 600],
        [
          { stockLotId: 'A', amount: 700 },
          { stockLotId: 'B', amount: 500 },
        ],
        { stepMg: 1, inOrder: true },
      ),
    ).toEqual([
      [{ stockLotId: 'A', amount: 600 }],
      [
        { stockLotId: 'A', amount: 100 },
        { stockLotId: 'B', amount: 500 },
      ],
    ]);
  });
});
