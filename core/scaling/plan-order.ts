import { keyOf, orderChain } from '../recipe/chain';
import type { RecipeVersion } from '../recipe/recipe';
import type { RecipeStep } from '../recipe/recipe-step';
import type { ExtraWaits } from './bath-order';
import type { PlannedGroup } from './lot-plan';
import { goesThrough } from './plan-groups';
import type { PlanRefusal } from './plan-refusal';
import { refusal } from './plan-refusal';

/** A step of the recipe with its place in the lot: number, key and the numbers of the steps it follows. */
export interface OrderedStep {
  readonly step: RecipeStep;
  /** Its place in the recipe. */
  readonly stepIndex: number;
  /** Its place in the plan, where 0 is the weighing of the fibre. */
  readonly index: number;
  readonly key: string;
  readonly after: readonly number[];
}

/**
 * The steps of a lot in an order that follows the chain, and waits for pots where it has to. A branch that none of its pieces go through is left out;
 * whoever followed it follows what it followed.
 */
export function orderSteps(
  recipe: RecipeVersion,
  groups: readonly PlannedGroup[],
  waits: ExtraWaits = new Map(),
):
  | { readonly ok: true; readonly steps: readonly OrderedStep[] }
  | { readonly ok: false; readonly refusal: PlanRefusal } {
  const keys = recipe.steps.map(keyOf);
  const chain = orderChain(
    recipe.steps.map((step, i) => {
      const extra = (waits.get(i) ?? []).flatMap((w) => keys[w] ?? []);
      const own = step.after ?? keys.slice(Math.max(0, i - 1), i);
      return extra.length === 0 ? step : { ...step, after: [...new Set([...own, ...extra])] };
    }),
  );
  if (!chain.ok) return { ok: false, refusal: refusal({ code: 'chainFault', fault: chain.fault }) };
  const taken = chain.order.flatMap((stepIndex) => {
    const step = recipe.steps[stepIndex];
    return step && groups.some((g) => goesThrough(step, g)) ? [{ step, stepIndex }] : [];
  });
  const place = new Map(taken.map(({ stepIndex }, n) => [stepIndex, n + 1]));
  const follows = (stepIndex: number): number[] => [
    ...new Set(
      (chain.after[stepIndex] ?? []).flatMap((before) => {
        const at = place.get(before);
        return at === undefined ? follows(before) : [at];
      }),
    ),
  ];
  return {
    ok: true,
    steps: taken.map(({ step, stepIndex }) => {
      const after = follows(stepIndex);
      return {
        step,
        stepIndex,
        index: place.get(stepIndex) ?? 0,
        key: keyOf(step, stepIndex),
        after: after.length > 0 ? after : [0],
      };
    }),
  };
}
