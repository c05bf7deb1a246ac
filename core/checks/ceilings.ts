import { hottestC } from '../recipe/course';
import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { caution } from './finding';

/** Whether a dyestuff is heated past the temperature at which it dulls. */
export function ceilingChecks({ recipe, materials }: CheckInput): Found[] {
  const found: Found[] = [];
  const dyes = recipe.steps
    .flatMap((step) => step.doses.map((dose) => ({ step, material: materials.find((m) => m.id === dose.materialId) })))
    .filter(({ material }) => material?.kind === 'dyestuff' && material.ceilingC !== null);
  for (const { step: dosed, material } of dyes) {
    const from = recipe.steps.indexOf(dosed);
    // The dyestuff is in the liquor from where it is weighed in to where another is extracted, or that bath is done
    // with.
    const until = recipe.steps.findIndex((s, i) => i > from && s.kind === 'extract');
    const stepsInLiquor = recipe.steps
      .slice(from, until === -1 ? undefined : until)
      .filter(
        (s) =>
          s === dosed ||
          (['dye', 'exhaust'].includes(s.kind) && (s.bath === dosed.bath || s.bath === '' || dosed.bath === '')),
      );
    for (const step of stepsInLiquor) {
      const hot = hottestC(step);
      if (hot !== undefined && material?.ceilingC !== null && material && hot > (material.ceilingC ?? 0))
        found.push(
          caution(
            'ceiling',
            `“${step.title}” goes to ${hot} °C; ${material.name} dulls above ${material.ceilingC} °C.`,
            'Yellows brown and reds go to brick when they are boiled.',
            `${material.name} in the catalogue of Stores`,
          ),
        );
    }
  }
  return found;
}
