import type { PlanAnswer } from './plan-answer';
import type { PlacedStep, PlanProblem } from './plan-problem';

/**
 * A problem as it is at a moment of its plan: what began is a fact, what is to come keeps its place where it can.
 * @param facts what became of a step, where that isn’t as it was planned
 */
export function asOf(
  problem: PlanProblem,
  plan: PlanAnswer,
  nowMin: number,
  facts: ReadonlyMap<string, PlacedStep> = new Map(),
): PlanProblem {
  const byId = new Map(plan.placed.map((p) => [p.stepId, p]));
  const held = new Map(plan.holds.map((h) => [h.holdId, h.resourceId]));
  const began = (id: string): boolean => (byId.get(id)?.startMin ?? Infinity) < nowMin;
  return {
    ...problem,
    previous: plan.placed,
    previousHolds: plan.holds,
    lots: problem.lots.map((lot) => ({
      ...lot,
      steps: lot.steps.map((s) =>
        began(s.id)
          ? { ...s, fixed: facts.get(s.id) ?? byId.get(s.id) ?? null }
          : { ...s, notBeforeMin: Math.max(s.notBeforeMin, nowMin) },
      ),
      holds: lot.holds.map((h) => ({ ...h, fixedTo: began(h.fromStepId) ? (held.get(h.id) ?? null) : null })),
    })),
  };
}

/** The same where a step ran on by so long, and nobody has taken it up yet. */
export function asSlipped(problem: PlanProblem, plan: PlanAnswer, running: PlacedStep, byMin: number): PlanProblem {
  const endMin = running.aloneToMin + byMin;
  const late = { ...running, endBy: null, aloneToMin: endMin, endMin };
  return asOf(problem, plan, running.endMin, new Map([[running.stepId, late]]));
}
