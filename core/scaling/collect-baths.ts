import type { VesselMetal } from '../bath/vessel';
import { matterMlPerG } from './plan-groups';
import type { RecipeVersion } from '../recipe/recipe';
import { takesPieces } from '../recipe/step-kind';
import type { RecipeStep } from '../recipe/recipe-step';

/** Steps that share one liquor, and what all of them allow. */
export interface BathOfSteps {
  readonly key: string;
  readonly steps: readonly RecipeStep[];
  readonly metals: readonly VesselMetal[];
  readonly liquorRatio: number;
  /** What dyestuff left in the pot pushes aside, ml per g of fibre. */
  readonly matterMlPerG: number;
  readonly withPieces: boolean;
}

/** Ways of straining in which plant matter takes up room in the dye bath. */
export const LEFT_IN = ['leaveIn', 'bag'];

/** Gathers the steps of a recipe by the bath they share; a step with a bath of its own is its own. */
export function collectBaths(recipe: RecipeVersion, liquorRatio: number): BathOfSteps[] {
  const byKey = new Map<string, RecipeStep[]>();
  recipe.steps.forEach((step, i) => {
    if (!step.usesBath) return;
    const key = step.bath === '' ? `of step ${i + 1}` : step.bath;
    byKey.set(key, [...(byKey.get(key) ?? []), step]);
  });
  const leftIn = recipe.steps.filter(
    (s) =>
      s.kind === 'extract' &&
      s.strain !== null &&
      LEFT_IN.includes(s.strain) &&
      !recipe.steps.some((t) => t.kind === 'strain' && t.strain !== null && !LEFT_IN.includes(t.strain)),
  );
  return [...byKey].map(([key, steps]) => ({
    key,
    steps,
    metals: steps.reduce<readonly VesselMetal[]>(
      (all, s) => all.filter((m) => (s.metals.length > 0 ? s.metals : recipe.allowedMetals).includes(m)),
      [...new Set(steps.flatMap((s) => (s.metals.length > 0 ? s.metals : recipe.allowedMetals)))],
    ),
    liquorRatio: Math.max(...steps.map((s) => s.liquorRatio ?? liquorRatio)),
    matterMlPerG: matterMlPerG([
      ...new Set([
        ...steps.filter((s) => s.kind === 'extract'),
        ...(steps.some((s) => s.kind === 'dye') ? leftIn : []),
      ]),
    ]),
    withPieces: steps.some(takesPieces),
  }));
}
