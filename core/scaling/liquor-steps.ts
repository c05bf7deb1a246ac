import { takesPieces } from '../recipe/step-kind';
import type { LotPlan, PlannedStep } from './lot-plan';

/**
 * The steps of one liquor up to and with this one, in their order: those before it that share its bath, and those it
 * follows as long as they are of the bath alone, whose liquor goes on into it.
 */
export function liquorSteps(plan: Pick<LotPlan, 'steps'>, step: PlannedStep): PlannedStep[] {
  const sharing = step.liquor === '' ? [] : plan.steps.filter((s) => s.index < step.index && s.liquor === step.liquor);
  const seen = new Set([...sharing, step].map((s) => s.index));
  const before = (s: PlannedStep): PlannedStep[] =>
    s.after.flatMap((i) => {
      const earlier = plan.steps[i];
      if (!earlier || seen.has(i) || takesPieces(earlier)) return [];
      seen.add(i);
      return [...before(earlier), earlier];
    });
  const ledHere = [...sharing, step].flatMap(before);
  return [...ledHere, ...sharing, step].sort((a, b) => a.index - b.index);
}
