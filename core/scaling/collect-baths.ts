import type { VesselMetal } from '../bath/vessel';
import { kitchenUnitMl } from '../quantity/volume';
import { orderChain } from '../recipe/chain';
import type { Dose } from '../recipe/dose';
import type { RecipeVersion } from '../recipe/recipe';
import type { RecipeStep } from '../recipe/recipe-step';
import { takesPieces } from '../recipe/step-kind';
import type { PlannedGroup } from './lot-plan';
import { goesThrough, matterMlPerG, soakedMlPerG } from './plan-groups';
import type { PlanInput } from './plan-input';
import { freeOf, materialById } from './plan-input';

/** Steps that share one filling of a liquor, and what all of them allow. */
export interface BathOfSteps {
  /** Names this filling. */
  readonly key: string;
  /** Names the liquor: dips that follow one another in it share it. */
  readonly liquor: string;
  /** The filling whose liquor it goes on with; `null` where it is made up afresh. */
  readonly follows: string | null;
  readonly steps: readonly RecipeStep[];
  /** Places in the recipe of all steps of the liquor: from the first to the last of them its vessels are taken. */
  readonly liquorIndexes: readonly number[];
  readonly metals: readonly VesselMetal[];
  readonly liquorRatio: number;
  /** What dyestuff left in the pot pushes aside, ml per g of fibre. */
  readonly matterMlPerG: number;
  /** Solutions and liquors dosed into it, ml per g of fibre, and ml for the whole bath. */
  readonly pouredMlPerG: number;
  readonly pouredMl: number;
  /** What is kept of a bath that is to be its liquor, ml per g of fibre. */
  readonly keptMlPerG: number;
  /** Liquor that strained dyestuff keeps, ml per g of fibre. */
  readonly soakedMlPerG: number;
  readonly withPieces: boolean;
}

/** Ways of straining in which plant matter takes up room in the dye bath. */
export const LEFT_IN = ['leaveIn', 'bag'];

interface PlacedStep {
  readonly step: RecipeStep;
  readonly index: number;
}

/**
 * Gathers the steps of a recipe by the bath they share; a step with a bath of its own is its own. Where other pieces
 * go into a liquor after the first are out of it, that is a dip of its own: a bath that follows in the same liquor.
 */
export function collectBaths(input: PlanInput, liquorRatio: number, groups: readonly PlannedGroup[]): BathOfSteps[] {
  const { recipe } = input;
  const chain = orderChain(recipe.steps);
  const order = chain.ok ? chain.order : recipe.steps.map((_, i) => i);
  const byLiquor = new Map<string, PlacedStep[]>();
  recipe.steps.forEach((step, i) => {
    if (step.usesBath) byLiquor.set(liquorOf(step, i), []);
  });
  for (const index of order) {
    const step = recipe.steps[index];
    if (step?.usesBath) byLiquor.get(liquorOf(step, index))?.push({ step, index });
  }
  const leftIn = stepsLeftIn(recipe);
  return [...byLiquor].flatMap(([liquor, steps]) => {
    const dips = divideIntoDips(steps, groups);
    return dips.map((dip, n) => ({
      key: dipKey(liquor, n),
      liquor,
      follows: n === 0 ? null : dipKey(liquor, n - 1),
      liquorIndexes: steps.map((s) => s.index),
      ...describeBath(dip, { input, liquorRatio, groups, leftIn: n === 0 ? leftIn : [] }),
    }));
  });
}

const liquorOf = (step: RecipeStep, index: number): string =>
  step.bath === '' ? $localize`of step ${index + 1}` : step.bath;

const dipKey = (liquor: string, dip: number): string => (dip === 0 ? liquor : $localize`${liquor}, dip ${dip + 1}`);

/** A new dip begins where none of the pieces of the step before goes on. */
function divideIntoDips(steps: readonly PlacedStep[], groups: readonly PlannedGroup[]): PlacedStep[][] {
  const dips: PlacedStep[][] = [[]];
  let inside: readonly PlannedGroup[] = [];
  for (const placed of steps) {
    const through = takesPieces(placed.step) ? groups.filter((g) => goesThrough(placed.step, g)) : [];
    if (through.length > 0) {
      if (inside.length > 0 && !through.some((g) => inside.includes(g))) dips.push([]);
      inside = through;
    }
    dips.at(-1)?.push(placed);
  }
  return dips;
}

/** Extractions whose plant matter is never taken out. */
const stepsLeftIn = (recipe: RecipeVersion): RecipeStep[] =>
  recipe.steps.filter(
    (s) =>
      s.kind === 'extract' &&
      s.strain !== null &&
      LEFT_IN.includes(s.strain) &&
      !recipe.steps.some((t) => t.kind === 'strain' && t.strain !== null && !LEFT_IN.includes(t.strain)),
  );

interface BathContext {
  readonly input: PlanInput;
  readonly liquorRatio: number;
  readonly groups: readonly PlannedGroup[];
  readonly leftIn: readonly RecipeStep[];
}

function describeBath(
  placed: readonly PlacedStep[],
  { input, liquorRatio, groups, leftIn }: BathContext,
): Omit<BathOfSteps, 'key' | 'liquor' | 'follows' | 'liquorIndexes'> {
  const { recipe } = input;
  const steps = placed.map((p) => p.step);
  const metalsOf = (s: RecipeStep): readonly VesselMetal[] => (s.metals.length > 0 ? s.metals : recipe.allowedMetals);
  const doses = steps.flatMap((s) => s.doses);
  const extracted = steps.filter((s) => s.kind === 'extract');
  return {
    steps,
    metals: steps.reduce<readonly VesselMetal[]>(
      (all, s) => all.filter((m) => metalsOf(s).includes(m)),
      [...new Set(steps.flatMap(metalsOf))],
    ),
    liquorRatio: Math.max(...steps.map((s) => ratioOf(s, liquorRatio))),
    matterMlPerG: matterMlPerG([...new Set([...extracted, ...(steps.some((s) => s.kind === 'dye') ? leftIn : [])])]),
    ...pouredBy(doses, wofOf(steps, groups), input),
    soakedMlPerG: soakedMlPerG(extracted.filter((s) => !leftIn.includes(s))),
    withPieces: steps.some(takesPieces),
  };
}

/** Dry weight of all that goes through any of some steps, g. */
const wofOf = (steps: readonly RecipeStep[], groups: readonly PlannedGroup[]): number =>
  groups.filter((g) => steps.some((s) => goesThrough(s, g))).reduce((sum, g) => sum + g.pieces * g.pieceWeightG, 0);

/** What doses pour into a bath beside its water. */
function pouredBy(
  doses: readonly Dose[],
  wofG: number,
  input: PlanInput,
): Pick<BathOfSteps, 'pouredMlPerG' | 'pouredMl' | 'keptMlPerG'> {
  let [pouredMlPerG, pouredMl, keptMlPerG] = [0, 0, 0];
  for (const dose of doses) {
    const material = materialById(input, dose.materialId);
    const freeMlPerG = material.measure === 'volume' && wofG > 0 ? freeOf(material) / 1000 / wofG : 0;
    if (dose.by === 'solution') pouredMlPerG += dose.mlPer100G / 100;
    if (dose.by === 'allThere') pouredMlPerG += freeMlPerG;
    if (dose.by === 'liquor') keptMlPerG += freeMlPerG;
    if (dose.by === 'perBath' && material.measure === 'volume') pouredMl += bathAmountMl(dose);
    if (dose.by === 'spoons' && material.measure === 'volume')
      pouredMlPerG += (dose.spoonsPer100G * (kitchenUnitMl(dose.unit, dose.system) ?? 0)) / 100;
  }
  return { pouredMlPerG, pouredMl, keptMlPerG };
}

function bathAmountMl({ amount, unit, system }: Extract<Dose, { readonly by: 'perBath' }>): number {
  if (unit === 'ml') return amount;
  return unit === 'g' || unit === 'pieces' ? 0 : amount * (kitchenUnitMl(unit, system) ?? 0);
}

/** Extractions of the same dyestuff with fresh water each come together: the pot holds the liquor of all of them. */
const ratioOf = (step: RecipeStep, liquorRatio: number): number =>
  step.liquorRatio === null ? liquorRatio : step.liquorRatio * (step.kind === 'extract' ? step.repeats : 1);
