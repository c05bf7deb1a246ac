import type { RecipeStep } from '../recipe/recipe';
import type { Hazard } from './hazards';
import { HAZARD_WORDS } from './hazards';

const SHEET = 'The supplier’s safety data sheet says what protection each material needs.';
const STEAM_FROM_C = 50;
const WASTE_KINDS: readonly RecipeStep['kind'][] = ['rinse', 'mordant', 'modify', 'wash', 'scour'];
/** Where skipping is unsafe, a caution is shown every time, whoever saw it today. */
const EVERY_TIME: readonly Hazard[] = [
  'caustic',
  'acid',
  'poisonous',
  'ironSalt',
  'copperSalt',
  'chlorineBleach',
  'ammonia',
  'oxidiser',
];

const sentence = (hazard: Hazard): string =>
  `${HAZARD_WORDS[hazard][0]?.toUpperCase()}${HAZARD_WORDS[hazard].slice(1)}.`;

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
  for (const hazard of named) cautions.push(sentence(hazard));
  if (named.length > 0) cautions.push(SHEET);
  if ((step.temperatureC ?? 0) >= STEAM_FROM_C)
    cautions.push('Steam and hot liquor: lid away from you, long gloves, window open, two people for a full pot.');
  if (step.usesBath) cautions.push('Dye pots and spoons are never used for food again.');
  if (WASTE_KINDS.includes(step.kind))
    cautions.push('What goes down the drain or onto soil is for your local rules to say.');
  return cautions;
}

/** Whether a caution is shown every time: those of materials that burn, poison or set free gas. All others can be put away for the day. */
export function standsEveryTime(caution: string): boolean {
  return EVERY_TIME.some((hazard) => caution === sentence(hazard));
}
