import { maxC } from '../bath/vessel';
import { keyOf } from '../recipe/chain';
import type { CheckInput } from './check-input';
import type { Found } from './finding';
import { stop, caution, line, bathSteps } from './finding';

/** Whether each vessel bears what the step does in it: metal, iron, caustic, heat. */
export function vesselChecks({ plan, recipe, vessels, materials }: CheckInput): Found[] {
  const irons = materials.filter((m) => m.hazards.includes('ironSalt')).map((m) => m.id);
  const recipeUsesIron = plan.steps.some((s) => s.weighings.some((w) => irons.includes(w.materialId)));
  return bathSteps(plan).flatMap((step) =>
    step.baths.flatMap((bath) => {
      const vessel = vessels.find((v) => v.id === bath.vesselId);
      const found: Found[] = [];
      const metals = recipe.steps.find((s, i) => keyOf(s, i) === step.key)?.metals ?? [];
      const allowed = metals.length > 0 ? metals : recipe.allowedMetals;
      if (!allowed.includes(bath.metal))
        found.push(
          stop(
            'potMetal',
            `${bath.vesselName} is of ${bath.metal}, which “${step.title}” doesn’t allow.`,
            'The metal of the pot joins in the colour.',
            line(recipe, step),
          ),
        );
      if (vessel?.heldIron === true && !recipeUsesIron)
        found.push(
          caution(
            'ironPot',
            `${bath.vesselName} once held iron.`,
            'What is left of it saddens whatever is dyed in it, however it was scrubbed.',
            `the card of ${bath.vesselName}`,
          ),
        );
      const caustic = step.weighings.find((w) =>
        materials.find((m) => m.id === w.materialId)?.hazards.includes('caustic'),
      );
      if (bath.metal === 'aluminium' && caustic)
        found.push(
          stop(
            'causticAluminium',
            `${caustic.materialName} goes into ${bath.vesselName}, which is aluminium.`,
            'Caustic eats aluminium and gives off gas.',
            line(recipe, step),
          ),
        );
      const max = vessel ? maxC(vessel) : null;
      if (vessel && max !== null && step.temperatureC !== undefined && step.temperatureC > max)
        found.push(
          stop(
            'vesselHeat',
            `${bath.vesselName} takes ${max} °C; “${step.title}” goes to ${step.temperatureC} °C.`,
            'Hot liquor through a sagging or cracked vessel scalds.',
            `the card of ${bath.vesselName}`,
          ),
        );
      if (
        bath.heating &&
        !bath.heating.ok &&
        step.temperatureC !== undefined &&
        step.temperatureC > bath.heating.reachesC
      )
        found.push(
          stop(
            'tooLittleHeat',
            `${bath.vesselName} never reaches ${step.temperatureC} °C for “${step.title}”.`,
            bath.heating.message,
            `the heat source of ${bath.vesselName}`,
          ),
        );
      return found;
    }),
  );
}
