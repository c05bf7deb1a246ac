import { answerWater } from '../bath/water';
import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { caution, named } from './finding';

/** Whether the water of the lot is what the recipe asks. */
export function waterChecks({ plan, recipe, water, otherWaters }: CheckInput): Found[] {
  const litres = [...new Set(plan.steps.flatMap((s) => s.baths))].reduce(
    (sum, b) => sum + (b.liquor.value * b.turns) / 1000,
    0,
  );
  return answerWater(recipe.water, water, litres, otherWaters).lines.map((message) =>
    caution('water', message, 'Hardness and iron in the water shift the shade of the very same recipe.', named(recipe)),
  );
}

/** Whether the bath is shorter than it was proven with. */
export function ratioCheck({ plan, recipe }: CheckInput): Found[] {
  return plan.liquorRatio < recipe.liquorRatio
    ? [
        caution(
          'ratio',
          `The bath is 1:${plan.liquorRatio}, shorter than the 1:${recipe.liquorRatio} it was proven with.`,
          'A shorter bath gives deeper colour and less room to turn.',
          named(recipe),
        ),
      ]
    : [];
}
