import type { PlacedPlan } from '../recipe/placed';
import type { RecipeStep } from '../recipe/recipe-step';
import type { LotPlan } from '../scaling/lot-plan';
import { placedAsDone } from './placed-as-done';
import type { AsDoneChange } from './recipe-as-done';
import { recipeAsDone } from './recipe-as-done';
import type { StepRecord } from './step-record';

/** What a recipe says of what is done: its chain, and where colour is placed. */
export interface WrittenRecipe {
  readonly steps: readonly RecipeStep[];
  readonly placed: PlacedPlan | null;
}

/** A recipe as a lot was really dyed by it, and what is otherwise in it. */
export function asReallyDone(
  written: WrittenRecipe,
  plan: LotPlan,
  records: readonly StepRecord[],
): WrittenRecipe & { readonly changes: readonly AsDoneChange[] } {
  const chain = recipeAsDone(written.steps, plan, records);
  if (written.placed === null) return { ...chain, placed: null };
  const colour = placedAsDone(written.placed, plan, records);
  return { steps: chain.steps, placed: colour.placed, changes: [...chain.changes, ...colour.changes] };
}
