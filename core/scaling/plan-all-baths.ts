import { joinList } from '../quantity/word-list';
import type { RecipeStep } from '../recipe/recipe-step';
import type { BathOfSteps } from './collect-baths';
import type { PlannedBatch, PlannedGroup, PlanRefusal } from './lot-plan';
import type { DescribedBath } from './plan-baths';
import { planBath } from './plan-baths';
import { goesThrough } from './plan-groups';
import type { PlanInput } from './plan-input';
import { noVessel, refusal } from './plan-refusal';

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
    if (over) return { ok: false, refusal: pieceTooBig(bath, over.vesselName) };
    for (const step of bath.steps) planned.set(step, fillings);
  }
  return { ok: true, bathsOf: (step) => planned.get(step) ?? [] };
}

const pieceTooBig = (bath: BathOfSteps, vesselName: string): PlanRefusal =>
  refusal(
    'pieceTooBig',
    `A single piece is more than ${vesselName} holds for “${bath.steps[0]?.title ?? ''}”, and no other vessel of ${joinList(bath.metals, 'or')} is bigger. Divide the pieces, or add a bigger vessel.`,
  );
