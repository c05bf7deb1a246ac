import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { catalogueEntry } from '../catalogue/catalogue';
import type { CheckedMaterial } from '../checks/check-input';
import { checkLot } from '../checks/check-lot';
import { findChainFault } from '../recipe/chain';
import type { Dose } from '../recipe/dose';
import type { RecipePart } from '../recipe/recipe';
import type { RecipeStep } from '../recipe/recipe-step';
import { recipeStep } from '../recipe/recipe-step';
import type { StepKind } from '../recipe/step-kind';
import { takesPieces } from '../recipe/step-kind';
import type { LotPlan } from './lot-plan';
import { groupPieces, goesThrough } from './plan-groups';
import type { PlanInput } from './plan-input';
import { input, linen, material, pot, recipe, stockLot, wool } from './plan-lot.fixture';
import { planLot } from './plan-lot';
import { sayPlanRefusal } from './plan-refusal';

const KEYS = [
  'potassium-alum',
  'weld',
  'oak-galls',
  'iron-sulphate',
  'soda-ash',
  'citric-acid',
  'chalk',
  'sodium-dithionite',
] as const;
const KINDS: readonly StepKind[] = [
  'scour',
  'tannin',
  'mordant',
  'extract',
  'makeUp',
  'dye',
  'exhaust',
  'modify',
  'rinse',
];
const METALS = ['stainless', 'enamel', 'iron'] as const;

/** Every way to write a dose of what is weighed, for a figure from 0.1 to 80. */
const WAYS: readonly ((of: number, materialId: string) => Dose)[] = [
  (of, materialId) => ({ materialId, by: 'percentOwf', percentOwf: of }),
  (of, materialId) => ({ materialId, by: 'percentOwf', percentOwf: of, toPercentOwf: of * 2 }),
  (of, materialId) => ({ materialId, by: 'gPerLitre', gPerL: of / 20 }),
  (of, materialId) => ({ materialId, by: 'perPiece', gPerPiece: of }),
  (of, materialId) => ({ materialId, by: 'solution', mlPer100G: of * 3, gPerL: 10 }),
  (of, materialId) => ({ materialId, by: 'perBath', amount: of, unit: 'g', system: 'metric' }),
  (_, materialId) => ({ materialId, by: 'allThere' }),
];
const dose: fc.Arbitrary<Dose> = fc
  .tuple(fc.constantFrom(...WAYS), fc.double({ min: 0.1, max: 80, noNaN: true }), fc.constantFrom(...KEYS))
  .map(([way, of, materialId]) => way(of, materialId));

interface DrawnStep {
  readonly kind: StepKind;
  readonly after: readonly number[] | null;
  readonly bath: string;
  readonly parts: readonly string[];
  readonly repeats: number;
  readonly ratio: number | null;
  readonly doses: readonly Dose[];
}
const drawnStep: fc.Arbitrary<DrawnStep> = fc.record({
  kind: fc.constantFrom(...KINDS),
  after: fc.option(fc.uniqueArray(fc.nat(11), { maxLength: 2 }), { nil: null }),
  bath: fc.constantFrom('', '', 'a', 'b'),
  parts: fc.subarray(['p', 'q']),
  repeats: fc.integer({ min: 1, max: 3 }),
  ratio: fc.option(fc.integer({ min: 5, max: 40 }), { nil: null }),
  doses: fc.array(dose, { maxLength: 2 }),
});

const PARTS: readonly RecipePart[] = [
  { key: 'p', name: 'plain', sharePercent: 60 },
  { key: 'q', name: 'modified', sharePercent: 40 },
];
/** Drawn steps as a chain without circles: a step follows earlier ones only. */
const chainOf = (drawn: readonly DrawnStep[], hasParts: boolean): RecipeStep[] =>
  drawn.map((d, i) =>
    recipeStep({
      kind: d.kind,
      title: `${d.kind} ${i + 1}`,
      key: `s${i}`,
      after: d.after && i > 0 ? [...new Set(d.after.map((n) => `s${n % i}`))] : null,
      usesBath: true,
      bath: d.bath,
      parts: hasParts ? d.parts : [],
      repeats: d.repeats,
      liquorRatio: d.ratio,
      doses: d.doses,
    }),
  );

const lots: fc.Arbitrary<PlanInput> = fc
  .record({
    drawn: fc.array(drawnStep, { minLength: 1, maxLength: 9 }),
    hasParts: fc.boolean(),
    pieces: fc.integer({ min: 1, max: 14 }),
    pieceWeightG: fc.double({ min: 15, max: 120, noNaN: true }),
    linens: fc.nat(3),
    litres: fc.array(fc.tuple(fc.integer({ min: 4, max: 60 }), fc.constantFrom(...METALS)), {
      minLength: 1,
      maxLength: 4,
    }),
    stockG: fc.array(fc.integer({ min: 0, max: 3000 }), { minLength: KEYS.length, maxLength: KEYS.length }),
  })
  .map(({ drawn, hasParts, pieces, pieceWeightG, linens, litres, stockG }) =>
    input({
      recipe: recipe({
        fibres: ['wool', 'linen'],
        allowedMetals: [...METALS],
        parts: hasParts ? PARTS : [],
        steps: chainOf(drawn, hasParts),
      }),
      bases: linens > 0 ? [wool(pieces, pieceWeightG), linen(linens, 80)] : [wool(pieces, pieceWeightG)],
      vessels: litres.map(([l, metal], n) => pot(`pot ${n}`, l, { metal })),
      materials: KEYS.map((key, n) => ({
        ...material(key, stockLot(`${key}-1`, stockG[n] ?? 0)),
        catalogueKey: key,
        hazards: catalogueEntry(key)?.hazards ?? [],
      })),
    }),
  );

const CHECKED: CheckedMaterial[] = KEYS.map((key) => {
  const entry = catalogueEntry(key);
  if (!entry) throw new Error(`no ${key} in the catalogue`);
  const { name, kind, hazards, bringsTannin, needs } = entry;
  return { id: key, name, kind, hazards, ceilingC: null, bringsTannin, catalogueKey: key, needs };
});

/** Plans that came out, of so many drawn lots; refusals are looked at by themselves. */
function eachPlan(look: (plan: LotPlan, lot: PlanInput) => void): void {
  let made = 0;
  fc.assert(
    fc.property(lots, (lot) => {
      const result = planLot(lot);
      if (result.ok) {
        made += 1;
        look(result.plan, lot);
      } else expect(sayPlanRefusal(result.refusal)).toMatch(/^[“A-Z0-9].*\.$/s);
    }),
    { numRuns: 400, seed: 20_261_125 },
  );
  expect(made).toBeGreaterThan(150);
}

const NEVER_TOGETHER = [
  ['sodium-dithionite', 'citric-acid'],
  ['soda-ash', 'citric-acid'],
  ['chalk', 'citric-acid'],
];

/** Where in a plan a number is none. */
const notNumbers = (value: unknown, at = ''): string[] =>
  typeof value === 'number'
    ? Number.isFinite(value)
      ? []
      : [at]
    : typeof value === 'object' && value !== null
      ? Object.entries(value).flatMap(([key, inner]) => notNumbers(inner, `${at}/${key}`))
      : [];

function beforeOf(plan: LotPlan, index: number, seen = new Set<number>()): Set<number> {
  for (const i of plan.steps[index]?.after ?? [])
    if (!seen.has(i)) {
      seen.add(i);
      beforeOf(plan, i, seen);
    }
  return seen;
}

describe('any legal recipe, scaled to any lot', () => {
  it('is legal as drawn', () =>
    fc.assert(
      fc.property(lots, ({ recipe: drawn }) => {
        expect(findChainFault(drawn.steps, drawn.parts)).toBeUndefined();
      }),
      { numRuns: 100, seed: 1 },
    ));

  it('never has a vessel in two places at once', () =>
    eachPlan((plan) => {
      const liquors = new Map<string, Map<string, number[]>>();
      for (const step of plan.steps)
        for (const bath of step.baths) {
          const held = liquors.get(bath.vesselId) ?? new Map<string, number[]>();
          held.set(step.liquor, [...(held.get(step.liquor) ?? []), step.index]);
          liquors.set(bath.vesselId, held);
        }
      const isOver = (first: readonly number[], then: readonly number[]): boolean =>
        then.every((i) => first.every((j) => beforeOf(plan, i).has(j)));
      for (const held of liquors.values())
        for (const [a, first] of held)
          for (const [b, second] of held) if (a < b) expect(isOver(first, second) || isOver(second, first)).toBe(true);
    }));

  it('loses no dose, and has no number that is none', () =>
    eachPlan((plan, lot) => {
      const groups = groupPieces(lot);
      for (const [i, step] of lot.recipe.steps.entries()) {
        if (!groups.some((g) => goesThrough(step, g))) continue;
        const planned = plan.steps.find((s) => s.key === `s${i}`);
        const weighed = planned?.weighings.map((w) => w.materialId) ?? [];
        for (const { materialId } of step.doses) expect(weighed).toContain(materialId);
        for (const w of planned?.weighings ?? []) expect(w.target.value).toBeGreaterThan(0);
      }
      expect(notNumbers(plan)).toEqual([]);
    }));

  it('takes no more than there is, and says what is short', () =>
    eachPlan((plan, lot) => {
      const free = new Map(lot.materials.flatMap((m) => m.stock.map((s) => [s.stockLotId, s.free] as const)));
      for (const m of plan.materials.filter((one) => lot.materials.some((o) => o.id === one.materialId))) {
        const taken = m.picks.reduce((sum, p) => sum + p.amount, 0);
        for (const p of m.picks) expect(p.amount).toBeLessThanOrEqual(free.get(p.stockLotId ?? '') ?? 0);
        expect(taken + m.short).toBeGreaterThanOrEqual(Math.floor(m.total.value * 1000) - 100 * plan.batches.length);
        expect(m.short > 0).toBe(plan.cautions.some((c) => c.code === 'short' && c.materialName === m.name));
      }
    }));

  it('fills no vessel over its brim, and puts every piece into one batch', () =>
    eachPlan((plan, lot) => {
      for (const bath of plan.steps.flatMap((s) => s.baths)) {
        expect(bath.fillLevel.value).toBeLessThanOrEqual(100);
        expect(bath.water?.value).toBeGreaterThanOrEqual(0);
      }
      const pieces = lot.bases.reduce((sum, b) => sum + b.pieces, 0);
      expect(plan.batches.reduce((sum, b) => sum + b.pieces, 0)).toBe(pieces);
    }));

  it('is stopped where two things that may not meet are in one liquor', () =>
    eachPlan((plan, lot) => {
      const checks = checkLot({
        plan,
        recipe: lot.recipe,
        status: 'proven',
        materials: CHECKED,
        vessels: lot.vessels,
        stockLots: [],
        intake: { flags: [], syntheticPercent: null },
        house: {},
        water: null,
        otherWaters: [],
        today: '2026-06-01',
      });
      const stops = checks.filter((c) => c.severity === 'stop').map((c) => c.message);
      for (const step of plan.steps.filter((s) => s.kind !== 'adjustPh')) {
        const inIt = step.weighings.map((w) => w.materialId);
        const bad = NEVER_TOGETHER.some((pair) => pair.every((key) => inIt.includes(key)));
        if (bad) expect(stops.join()).toContain(`“${step.title}”`);
      }
    }));

  it('lets pieces through the steps that are for them, and no others', () =>
    eachPlan((plan, lot) => {
      const groups = groupPieces(lot);
      for (const [i, step] of lot.recipe.steps.entries()) {
        const planned = plan.steps.find((s) => s.key === `s${i}`);
        const through = groups.filter((g) => goesThrough(step, g)).reduce((sum, g) => sum + g.pieces, 0);
        expect(planned === undefined).toBe(through === 0);
        const inBaths = (planned?.baths ?? []).reduce((sum, b) => sum + b.pieces, 0);
        if (planned && takesPieces(step) && step.bath === '') expect(inBaths).toBe(through);
      }
    }));
});
