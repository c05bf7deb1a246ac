export type {
  PlacedStep,
  PlanFollows,
  PlanHold,
  PlanLot,
  PlanNeed,
  PlanOption,
  PlanPerson,
  PlanProblem,
  PlanResource,
  PlanStep,
  PlanWeights,
  ResourceKind,
  Span,
} from './plan-problem';
export { PLAN_WEIGHTS, RESOURCE_KINDS } from './plan-problem';
export type { PlacedHold, PlanAnswer, PlanCost, Unplaced } from './plan-answer';
export type { PlanBreach } from './check-plan';
export { checkPlan } from './check-plan';
export type { PlanFault } from './problem-fault';
export { problemFault, sayPlanFault } from './problem-fault';
export type { SolveAsked } from './solve-plan';
export { solvePlan } from './solve-plan';
