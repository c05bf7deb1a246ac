import { findChainFault } from '../recipe/chain';
import type { PlanRefusal } from './lot-plan';
import type { BathOfSteps } from './collect-baths';
import type { PlanInput } from './plan-input';
import { joinList } from '../quantity/word-list';

/** A refusal without ways out. */
export const refusal = (code: PlanRefusal['code'], message: string): PlanRefusal => ({ code, message, ways: [] });

/** Why a lot can't be planned whatever vessels there are: its chain, its fibre, its liquor ratio. */
export function refuseInput({ recipe, bases }: PlanInput, liquorRatio: number): PlanRefusal | undefined {
  const fault = findChainFault(recipe.steps, recipe.parts);
  if (fault) return refusal('chainFault', fault.message);
  const unsuited = bases.find((b) => !recipe.fibres.includes(b.fibre));
  if (unsuited)
    return refusal(
      'fibreNotSuited',
      `${recipe.recipeName} is a recipe for ${joinList(recipe.fibres)}; ${unsuited.name} is ${unsuited.fibre}. Choose a recipe proven on ${unsuited.fibre}.`,
    );
  const min = recipe.minLiquorRatio ?? recipe.liquorRatio;
  if (liquorRatio < min || liquorRatio > Math.max(recipe.liquorRatio, min) * 2)
    return refusal(
      'ratioOutside',
      `1:${liquorRatio} is outside what ${recipe.recipeName} allows: 1:${min} to 1:${recipe.liquorRatio * 2}. Choose one within.`,
    );
  return undefined;
}

/** That no vessel of an allowed metal is there, and what to do about it. */
export function noVessel(bath: Pick<BathOfSteps, 'metals' | 'steps'>, { vessels }: PlanInput): PlanRefusal {
  const step = bath.steps[0];
  const message =
    bath.metals.length === 0
      ? `The steps that share the bath of “${step?.title ?? 'this recipe'}” allow no metal in common. Give one of them a bath of its own.`
      : `${step ? `“${step.title}”` : 'This recipe'} wants a vessel of ${joinList(bath.metals, 'or')}, and none was chosen or owned${vessels.length > 0 ? '' : ': there is no vessel yet'}. Add one under Studio, or choose another recipe.`;
  return refusal('noVesselOfMetal', message);
}
