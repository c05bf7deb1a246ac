import { formatTemperature } from '../quantity/temperature';
import { hottestC } from '../recipe/course';
import type { RecipeStep } from '../recipe/recipe-step';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily } from './finding';

interface CeilingFinding {
  readonly code: 'ceiling';
  readonly title: string;
  readonly toC: number;
  readonly materialName: string;
  readonly ceilingC: number;
}

function findCeilings({ recipe, materials }: CheckInput): CeilingFinding[] {
  return recipe.steps.flatMap((dosed) =>
    dosed.doses.flatMap((dose) => {
      const material = materials.find((m) => m.id === dose.materialId);
      const ceilingC = material?.kind === 'dyestuff' ? material.ceilingC : null;
      if (!material || ceilingC === null) return [];
      return stepsInLiquor(recipe.steps, dosed).flatMap((step) => {
        const toC = hottestC(step);
        return toC !== undefined && toC > ceilingC
          ? [{ code: 'ceiling' as const, title: step.title, toC, materialName: material.name, ceilingC }]
          : [];
      });
    }),
  );
}

/** The dyestuff is in the liquor from where it is weighed in to where another is extracted, or that bath is done with. */
function stepsInLiquor(steps: readonly RecipeStep[], dosed: RecipeStep): RecipeStep[] {
  const from = steps.indexOf(dosed);
  const until = steps.findIndex((s, i) => i > from && s.kind === 'extract');
  const sameBath = (s: RecipeStep): boolean => s.bath === dosed.bath || s.bath === '' || dosed.bath === '';
  return steps
    .slice(from, until === -1 ? undefined : until)
    .filter((s) => s === dosed || ((s.kind === 'dye' || s.kind === 'exhaust') && sameBath(s)));
}

const sayCeiling = (f: CeilingFinding): CheckText =>
  caution(
    $localize`“${f.title}” goes to ${formatTemperature(f.toC)}; ${f.materialName} dulls above ${formatTemperature(f.ceilingC)}.`,
    $localize`Yellows brown and reds go to brick when they are boiled.`,
    $localize`${f.materialName} in the catalogue of Stores`,
  );

/** Whether a dyestuff is heated past the temperature at which it dulls. */
export const ceilingChecks = checkFamily(findCeilings, sayCeiling);
