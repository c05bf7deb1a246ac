import type { PlanBreach } from './check-plan';
import { checkPlan } from './check-plan';
import type { PlanAnswer } from './plan-answer';
import type { PlacedStep, PlanProblem } from './plan-problem';

/** Why a plan can't be so, in a sentence with the problem’s own names. */
export function sayPlanBreach(problem: PlanProblem, breach: PlanBreach): string {
  const steps = problem.lots.flatMap((l) => l.steps.map((s) => ({ id: s.id, called: `${l.name}, ${s.title}` })));
  const step = (id: string): string => steps.find((s) => s.id === id)?.called ?? id;
  const person = (id: string): string => problem.people.find((p) => p.id === id)?.name ?? id;
  const thing = (id: string): string => problem.resources.find((r) => r.id === id)?.name ?? id;
  switch (breach.code) {
    case 'missing':
      return $localize`“${step(breach.stepId)}” has no place in this plan.`;
    case 'twice':
      return $localize`“${step(breach.stepId)}” stands in this plan twice.`;
    case 'unknown':
      return $localize`This plan has a step that no open lot has any more.`;
    case 'length':
      return $localize`“${step(breach.stepId)}” would be shorter or longer than it takes.`;
    case 'beforeItsTime':
      return $localize`“${step(breach.stepId)}” would begin before it can.`;
    case 'spoiled':
      return $localize`“${step(breach.stepId)}” would begin when what it needs has gone off.`;
    case 'closed':
      return $localize`“${step(breach.stepId)}” would be hot while nobody is in the house.`;
    case 'horizon':
      return $localize`“${step(breach.stepId)}” would lie further ahead than plans reach.`;
    case 'factMoved':
      return $localize`“${step(breach.stepId)}” is begun or locked: it stays where it is.`;
    case 'handsMissing':
      return $localize`Nobody would be at “${step(breach.stepId)}”.`;
    case 'order':
      return $localize`“${step(breach.stepId)}” would not follow “${step(breach.afterId)}” as soon, or as late, as it has to.`;
    case 'hours':
      return $localize`${person(breach.personId)} isn’t here then for “${step(breach.stepId)}”.`;
    case 'mayNot':
      return $localize`${person(breach.personId)} leaves “${step(breach.stepId)}” to others, because of what goes in.`;
    case 'twoHands':
      return $localize`${person(breach.personId)} would be at “${step(breach.stepIds[0])}” and “${step(breach.stepIds[1])}” at once.`;
    case 'noSuchOption':
      return $localize`${thing(breach.resourceId)} won’t do for “${step(breach.stepId)}”.`;
    case 'hold':
      return $localize`A pot would be let go before what is in it is done.`;
    case 'capacity':
      return $localize`${thing(breach.resourceId)} would be wanted for more than it can take at once.`;
  }
}

/**
 * Why a step can't simply begin at another moment, everything else staying where it is: nothing where it can.
 * @param startMin when it would begin
 */
export function whyNotAt(problem: PlanProblem, plan: PlanAnswer, stepId: string, startMin: number): PlanBreach[] {
  const there = plan.placed.find((p) => p.stepId === stepId);
  if (!there) return [];
  const by = startMin - there.startMin;
  const moved: PlacedStep = {
    ...there,
    startMin,
    aloneFromMin: there.aloneFromMin + by,
    aloneToMin: there.aloneToMin + by,
    endMin: there.endMin + by,
  };
  const holdsOf = new Map(problem.lots.flatMap((l) => l.holds.map((h) => [h.id, [h.fromStepId, h.toStepId] as const])));
  const changed: PlanAnswer = {
    ...plan,
    placed: plan.placed.map((p) => (p.stepId === stepId ? moved : p)),
    holds: plan.holds.map((h) => {
      const [from, to] = holdsOf.get(h.holdId) ?? [];
      return {
        ...h,
        fromMin: from === stepId ? startMin : h.fromMin,
        toMin: to === stepId ? moved.endMin : Math.max(h.toMin, from === stepId ? moved.endMin : 0),
      };
    }),
  };
  return checkPlan(problem, changed);
}
