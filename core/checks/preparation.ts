import { practiceOf } from '../scaling/house-practice';
import type { CheckedMaterial, CheckInput } from './check-input';
import type { Found } from './finding';
import { caution, named, fibresOf } from './finding';

/** Whether each fibre is scoured and mordanted before it is dyed. */
export function preparationChecks({ plan, recipe, materials, intake, house }: CheckInput): Found[] {
  const found: Found[] = [];
  const dyes = recipe.steps
    .flatMap((s) => s.doses.map((d) => materials.find((m) => m.id === d.materialId)))
    .filter((m): m is CheckedMaterial => m?.kind === 'dyestuff' || m?.kind === 'tannin');
  if (dyes.length === 0) return found;
  for (const fibre of fibresOf(plan)) {
    const fibreSteps = recipe.steps.filter((s) => s.fibres.length === 0 || s.fibres.includes(fibre));
    if (!fibreSteps.some((s) => s.kind === 'scour') && !intake.flags.includes('scoured'))
      found.push(
        caution(
          'noScour',
          `Nothing in the chain scours the ${fibre}.`,
          'Oil, size and finish keep dye out in patches. Say at intake that it is scoured, or add the step.',
          named(recipe),
        ),
      );
    const tannin =
      dyes.some((m) => m.bringsTannin || m.kind === 'tannin') || fibreSteps.some((s) => s.kind === 'tannin');
    const mordanted = fibreSteps.some((s) => s.kind === 'mordant') || intake.flags.includes('mordanted');
    if (!mordanted && !tannin)
      found.push(
        caution(
          'noMordant',
          `Nothing in the chain mordants the ${fibre}.`,
          `${dyes.map((d) => d.name).join(' and ')} brings no tannin of its own: without a mordant the colour is fugitive.`,
          named(recipe),
        ),
      );
    else if (!mordanted && practiceOf(recipe.practice, house, 'mordantOnTannin') === 'always')
      found.push(
        caution(
          'schoolMordant',
          `The ${fibre} is not mordanted, and the house always mordants.`,
          'House practice says: always mordant, also on what brings tannin.',
          'house practice',
        ),
      );
  }
  return found;
}
