import type { RecipeStep } from '../recipe/recipe-step';
import type { BathOfSteps } from './collect-baths';
import type { PlannedBatch, PlannedGroup } from './lot-plan';
import type { DescribedBath } from './plan-baths';
import { planBath } from './plan-baths';
import { goesThrough } from './plan-groups';
import type { PlanInput } from './plan-input';
import type { PlanRefusal } from './plan-refusal';
import { refusal } from './plan-refusal';
import { noVessel } from './refuse-input';

/** The fillings of every step's bath, or why one can't be filled. */
export type AllBaths =
  | { readonly ok: true; readonly bathsOf: (step: RecipeStep) => readonly DescribedBath[] }
  | { readonly ok: false; readonly refusal: PlanRefusal };

/** Fills every bath of the chain. @param mainOf keys of the baths that decided the batches */
export function planAllBaths(
  baths: readonly BathOfSteps[],
  { batches, mainOf }: { readonly batches: readonly PlannedBatch[]; readonly mainOf: ReadonlySet<string> },
  groups: readonly PlannedGroup[],
  input: PlanInput,
): AllBaths {
  const planned = new Map<RecipeStep, readonly DescribedBath[]>();
  for (const bath of baths) {
    const fillings = planBath(bath, batches, groups, mainOf.has(bath.key), input);
    if (fillings.length === 0 && bath.steps.some((s) => groups.some((g) => goesThrough(s, g))))
      return { ok: false, refusal: noVessel(bath, input) };
    const over = fillings.find(({ bath: filled }) => filled.fillLevel.value > 100)?.bath;
    if (over) {
      const stepTitle = bath.steps[0]?.title ?? '';
      const { metals } = bath;
      return { ok: false, refusal: refusal({ code: 'bathTooBig', stepTitle, vesselName: over.vesselName, metals }) };
    }
    for (const step of bath.steps) planned.set(step, fillings);
  }
  return { ok: true, bathsOf: (step) => planned.get(step) ?? [] };
}
