import type { Vessel } from '../bath/vessel';
import type { RecipeStep } from '../recipe/recipe-step';
import type { BathOfSteps } from './collect-baths';
import type { PlanCaution } from './plan-caution';
import type { DescribedBath } from './plan-baths';
import type { PlanInput } from './plan-input';
import { materialById } from './plan-input';

/** Whether a bath has iron dosed into it. */
export const dosesIron = (steps: readonly RecipeStep[], input: PlanInput): boolean =>
  steps.flatMap((s) => s.doses).some((d) => materialById(input, d.materialId).hazards.includes('ironSalt'));

/** Of some vessels, those fit for a bath: iron goes into pots that held it, all else into those that never did. */
export const suitedVessels = (
  vessels: readonly Vessel[],
  steps: readonly RecipeStep[],
  input: PlanInput,
): readonly Vessel[] => {
  const iron = dosesIron(steps, input);
  return vessels.filter((v) => (v.heldIron === true) === iron);
};

/** Vessels that iron goes into and that never held it: whoever plans should know before. */
export const ironMarks = (
  baths: readonly BathOfSteps[],
  bathsOf: (step: RecipeStep) => readonly DescribedBath[],
  input: PlanInput,
): PlanCaution[] =>
  baths
    .filter((b) => dosesIron(b.steps, input))
    .flatMap((b) => b.steps.flatMap(bathsOf))
    .map(({ bath }) => input.vessels.find((v) => v.id === bath.vesselId))
    .flatMap((v) =>
      v && v.heldIron !== true && v.metal !== 'iron' ? [{ code: 'ironMarksPot', vesselName: v.name }] : [],
    );
