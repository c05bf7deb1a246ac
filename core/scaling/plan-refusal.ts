import type { PlanRefusal, PlanResult } from './lot-plan';
import type { BathOfSteps } from './collect-baths';
import type { PlanInput } from './plan-input';
import { joinList } from '../quantity/word-list';

/** A refusal without ways out. */
export const refuse = (code: PlanRefusal['code'], message: string): PlanResult => ({
  ok: false,
  refusal: { code, message, ways: [] },
});

/** That no vessel of an allowed metal is there, and what to do about it. */
export function noVessel(bath: Pick<BathOfSteps, 'metals' | 'steps'>, { vessels }: PlanInput): PlanRefusal {
  const step = bath.steps[0];
  const message =
    bath.metals.length === 0
      ? `The steps that share the bath of “${step?.title ?? 'this recipe'}” allow no metal in common. Give one of them a bath of its own.`
      : `${step ? `“${step.title}”` : 'This recipe'} wants a vessel of ${joinList(bath.metals, 'or')}, and none was chosen or owned${vessels.length > 0 ? '' : ': there is no vessel yet'}. Add one under Studio, or choose another recipe.`;
  return { code: 'noVesselOfMetal', message, ways: [] };
}
