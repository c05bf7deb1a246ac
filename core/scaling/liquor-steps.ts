import { takesPieces } from '../recipe/step-kind';
import type { LotPlan, PlannedStep } from './lot-plan';

/**
 * The steps of one liquor up to and with this one: those before it that it follows, as long as they are of the bath
 * alone.
 */
export function liquorSteps(plan: Pick<LotPlan, 'steps'>, step: PlannedStep): PlannedStep[] {
  const seen = new Set<number>();
  const before = (s: PlannedStep): PlannedStep[] =>
    s.after.flatMap((i) => {
      const earlier = plan.steps[i];
      if (!earlier || seen.has(i) || takesPieces(earlier)) return [];
      seen.add(i);
      return [...before(earlier), earlier];
    });
  return [...before(step), step];
}
