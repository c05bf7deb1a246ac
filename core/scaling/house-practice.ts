import { fibreFamily } from '../bath/fibre';
import type { FibreKind } from '../bath/fibre';
import type { HouseHint } from './house-hint';
import type { Practice } from '../recipe/practice-questions';
import type { RecipeStep } from '../recipe/recipe-step';

/** What holds for a recipe: its own answer, or the house's. */
export const practiceOf = (recipe: Practice, house: Practice, key: string): string => recipe[key] ?? house[key] ?? '';

/** What the house does at a step and a recipe doesn't say, to be read with its cautions. */
export function houseHints(
  step: Pick<RecipeStep, 'kind'>,
  fibres: readonly FibreKind[],
  answer: (key: string) => string,
): HouseHint[] {
  if (step.kind === 'dry' && answer('sun') === 'never') return ['outOfSun'];
  if (step.kind !== 'extract') return [];
  if (answer('fibreInExtraction') === 'never') return ['noFibreInExtraction'];
  if (answer('fibreInExtraction') !== 'cellulose') return [];
  return [fibres.every((f) => fibreFamily(f) === 'cellulose') ? 'clothWithDyestuff' : 'proteinOnceCool'];
}
