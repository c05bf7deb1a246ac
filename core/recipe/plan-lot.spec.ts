import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { LotPlan } from './lot-plan';
import type { PlanInput, PlanMaterial } from './plan-lot';
import { planLot } from './plan-lot';
import type { RecipeStep } from './recipe';
import { scaleDose } from './scale-dose';
import { sharePicks } from './share-picks';

const step = (kind: RecipeStep['kind'], doses: RecipeStep['doses'], rest: Partial<RecipeStep> = {}): RecipeStep => ({ kind, title: kind, instruction: '', durationMin: 60, attended: false, lookFor: '', usesBath: true, doses, ...rest });
const jar = (stockLotId: string, freeG: number, receivedOn = '2026-01-01', bestBefore?: string) => ({ stockLotId, free: freeG * 1000, receivedOn, ...(bestBefore ? { bestBefore } : {}) });
const material = (id: string, ...stock: PlanMaterial['stock']): PlanMaterial => ({ id, name: id, hazards: [], stock });
const pot = (id: string, litres: number, metal: 'stainless' | 'iron' = 'stainless') => ({ id, name: id, metal, workingMl: litres * 1000 });

const input = (change: Partial<PlanInput> = {}): PlanInput => ({
  pieces: 12, pieceWeightG: 100, today: '2026-06-01',
  recipe: { id: 'r', recipeName: 'Weld on alum', number: 2, fibres: ['wool'], liquorRatio: 30, allowedMetals: ['stainless'], steps: [step('mordant', [{ materialId: 'alum', percentOwf: 15 }], { temperatureC: 85 }), step('extract', [{ materialId: 'weld', percentOwf: 100 }]), step('dye', [])] },
  base: { ...material('hanks', jar('RUG-1', 5000)), fibre: 'wool', pieceWord: 'hank' },
  materials: [{ ...material('alum', jar('ALU-1', 1000)), hazards: ['dust'] }, material('weld', jar('WEL-1', 2000))],
  vessels: [pot('kettle', 30), pot('pan', 20), pot('cauldron', 60, 'iron')],
  balance: { name: 'balance', resolutionG: 0.1, capacityG: 3000 },
  ...change,
});
const planned = (i: PlanInput): LotPlan => {
  const result = planLot(i);
  if (!result.ok) throw new Error(result.refusal.sentence);
  return result.plan;
};
const total = (plan: LotPlan, id: string): number => plan.materials.find((m) => m.materialId === id)?.total.value ?? NaN;

describe('scaleDose', () => {
  it.each<[number, number, number]>([[15, 1200, 180], [5, 100, 5], [1.5, 226.796, 3.4], [150, 250, 375], [0.8, 12, 0.1]])('%f %% of %f g is %f g', (percent, wofG, g) => {
    const dose = scaleDose(percent, wofG, input().balance);
    expect(dose.value).toBe(g);
    expect(dose.working.formula).toBe('per cent of fibre × weight of fibre ÷ 100');
    expect(dose.working.inputs.map((i) => i.value)).toEqual([percent, wofG]);
  });
});

describe('planLot', () => {
  it('splits, doses, fills and picks', () => {
    const plan = planned(input());
    expect(plan.batches.map((b) => [b.vesselName, b.pieces, b.wof.value, b.liquor.value])).toEqual([['pan', 6, 600, 18_000], ['kettle', 6, 600, 18_000]]);
    expect([total(plan, 'alum'), total(plan, 'weld'), total(plan, 'hanks')]).toEqual([180, 1200, 1200]);
    expect(plan.steps.map((s) => s.kind)).toEqual(['fibre', 'mordant', 'extract', 'dye']);
    expect(plan.steps[1]?.cautions.join(' ')).toMatch(/dust mask.*safety data sheet.*Steam/s);
    expect(plan.materials.every((m) => m.shortMg === 0)).toBe(true);
  });

  it.each<[string, Partial<PlanInput>, string, RegExp]>([
    ['no vessel of the metal', { vessels: [pot('cauldron', 60, 'iron')] }, 'noVesselOfMetal', /wants a vessel of stainless/],
    ['a piece too big for any', { pieceWeightG: 5000 }, 'pieceTooBig', /kettle, the biggest, holds \(30 l\)/],
    ['a lot too big for all', { pieces: 40 }, 'lotTooBig', /15 is the most/],
    ['the wrong fibre', { base: { ...input().base, fibre: 'linen' } }, 'fibreNotSuited', /for wool; hanks is linen/],
  ])('refuses %s', (_name, change, code, sentence) => {
    const result = planLot(input(change));
    expect(result.ok ? '' : result.refusal.code).toBe(code);
    expect(result.ok ? '' : result.refusal.sentence).toMatch(sentence);
  });

  it('names what is short and takes no more than there is', () => {
    const plan = planned(input({ materials: [material('alum', jar('ALU-1', 100)), material('weld')] }));
    expect(plan.materials.map((m) => [m.name, m.shortMg])).toEqual([['hanks', 0], ['alum', 80_000], ['weld', 1_200_000]]);
    expect(plan.cautions).toContain('alum is short by 80 g.');
    const picks = plan.steps[1]?.weighings.flatMap((w) => w.picks) ?? [];
    expect(picks.filter((p) => p.stockLotId === 'ALU-1').reduce((sum, p) => sum + p.amountMg, 0)).toBe(100_000);
    expect(picks.filter((p) => p.stockLotId === null).reduce((sum, p) => sum + p.amountMg, 0)).toBe(80_000);
  });

  it('keeps pieces to one base lot where one can give them all', () => {
    const base = { ...input().base, stock: [jar('OLD', 500, '2025-01-01'), jar('NEW', 2000, '2026-01-01')] };
    expect(planned(input({ base })).materials[0]?.picks).toEqual([{ stockLotId: 'NEW', amountMg: 1_200_000 }]);
  });

  it('throws on a dose of something it was not given', () => expect(() => planLot(input({ materials: [] }))).toThrow(RangeError));

  it('adds up, whatever the lot: batches to the whole, picks to the doses, nothing over a pot', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 15 }), fc.double({ min: 5, max: 100, noNaN: true }), fc.array(fc.integer({ min: 0, max: 900 }), { maxLength: 4 }), (pieces, pieceWeightG, jarsG) => {
      const plan = planned(input({ pieces, pieceWeightG, materials: [material('alum', jar('A', 1000)), material('weld', ...jarsG.map((g, n) => jar(`W${n}`, g)))] }));
      expect(plan.batches.reduce((sum, b) => sum + b.pieces, 0)).toBe(pieces);
      for (const b of plan.batches) expect(b.fill.value).toBeLessThanOrEqual(100);
      for (const m of plan.materials) {
        const weighings = plan.steps.flatMap((s) => s.weighings).filter((w) => w.materialId === m.materialId);
        for (const w of weighings) expect(w.picks.reduce((sum, p) => sum + p.amountMg, 0)).toBe(Math.round(w.target.value * 1000));
        for (const p of m.picks) expect(weighings.flatMap((w) => w.picks).filter((q) => q.stockLotId === p.stockLotId).reduce((sum, q) => sum + q.amountMg, 0)).toBe(p.amountMg);
      }
      const exactG = pieces * pieceWeightG;
      expect(Math.abs(total(plan, 'weld') - exactG)).toBeLessThanOrEqual(0.05 * plan.batches.length + 1e-6);
    }), { seed: 33 });
  });

  it('doubles every dose when the fibre doubles, to the rounding of the balance', () => {
    fc.assert(fc.property(fc.integer({ min: 1, max: 6 }), fc.double({ min: 10, max: 100, noNaN: true }), (pieces, g) => {
      const [once, twice] = [planned(input({ pieces, pieceWeightG: g })), planned(input({ pieces, pieceWeightG: 2 * g }))];
      const rounding = 0.05 * (2 * once.batches.length + twice.batches.length) + 1e-6;
      for (const id of ['alum', 'weld']) expect(Math.abs(total(twice, id) - 2 * total(once, id))).toBeLessThanOrEqual(rounding);
    }), { seed: 34 });
  });
});

describe('sharePicks', () => {
  it('gives every batch the same mix', () => {
    expect(sharePicks([600, 600], [{ stockLotId: 'A', amountMg: 400 }, { stockLotId: 'B', amountMg: 800 }], { stepMg: 100, inOrder: false }).map((s) => s.map((p) => p.amountMg))).toEqual([[200, 400], [200, 400]]);
  });
  it('empties one before the next where pieces can’t be mixed', () => {
    expect(sharePicks([600, 600], [{ stockLotId: 'A', amountMg: 700 }, { stockLotId: 'B', amountMg: 500 }], { stepMg: 1, inOrder: true })).toEqual([[{ stockLotId: 'A', amountMg: 600 }], [{ stockLotId: 'A', amountMg: 100 }, { stockLotId: 'B', amountMg: 500 }]]);
  });
});
