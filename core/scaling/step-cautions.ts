import type { Hazard } from '../safety/hazards';
import type { RecipeStep } from '../recipe/recipe-step';
import { hazardCaution } from '../safety/cautions';

const SHEET = 'The supplier’s safety data sheet says what protection each material needs.';
const STEAM_FROM_C = 50;
const WASTE_KINDS: readonly RecipeStep['kind'][] = ['rinse', 'mordant', 'modify', 'wash', 'scour'];

/**
 * The usual cautions at a step, most pressing first. They name protection and point to the supplier's sheet
 * and local rules; they never say that something is safe.
 */
export function cautionsForStep(
  step: Pick<RecipeStep, 'kind' | 'temperatureC' | 'usesBath'>,
  hazards: readonly Hazard[],
): string[] {
  const cautions: string[] = [];
  const named = [...new Set(hazards)];
  for (const hazard of named) cautions.push(hazardCaution(hazard));
  if (named.length > 0) cautions.push(SHEET);
  if ((step.temperatureC ?? 0) >= STEAM_FROM_C)
    cautions.push('Steam and hot liquor: lid away from you, long gloves, window open, two people for a full pot.');
  if (step.usesBath) cautions.push('Dye pots and spoons are never used for food again.');
  if (WASTE_KINDS.includes(step.kind))
    cautions.push('What goes down the drain or onto soil is for your local rules to say.');
  return cautions;
}
