import type { RecipeStep } from '../recipe/recipe-step';
import type { Hazard } from '../safety/hazards';
import type { StepCaution } from './step-caution';

const STEAM_FROM_C = 50;
const WASTE_KINDS: readonly RecipeStep['kind'][] = ['rinse', 'mordant', 'modify', 'wash', 'scour'];

/**
 * The usual cautions at a step, most pressing first. They name protection and point to the supplier's sheet
 * and local rules; they never say that something is safe.
 */
export function cautionsForStep(
  step: Pick<RecipeStep, 'kind' | 'temperatureC' | 'usesBath'>,
  hazards: readonly Hazard[],
): StepCaution[] {
  const named = [...new Set(hazards)].map((hazard) => ({ code: 'hazard' as const, hazard }));
  const cautions: StepCaution[] = [...named];
  if (named.length > 0) cautions.push({ code: 'safetyDataSheet' });
  if ((step.temperatureC ?? 0) >= STEAM_FROM_C) cautions.push({ code: 'hotLiquor' });
  if (step.usesBath) cautions.push({ code: 'neverForFood' });
  if (WASTE_KINDS.includes(step.kind)) cautions.push({ code: 'localDisposal' });
  return cautions;
}
