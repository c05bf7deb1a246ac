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
export { checkPlan, handsAt } from './check-plan';
export type { PlanFault } from './problem-fault';
export { problemFault, sayPlanFault } from './problem-fault';
export type { SolveAsked } from './solve-plan';
export { solvePlan } from './solve-plan';
export type { HeatTimes, HouseRoom, HouseTimes, PersonTimes, PotTimes } from './house-times';
export { TIMES_AT_FIRST } from './house-times';
export type { HousePlan, KeptPlace, PlanFacts, PlannableLot, PlannableRecord, PlannableStep } from './house-plan';
export type { PlanClock } from './house-problem';
export { houseProblem, keepPlan, ofPlanStep, placeInMinutes, planClock, planOrigin, planStepId } from './house-problem';
export type { MovedStep, PlannedHouse, WantedPlace } from './plan-house';
export { easeWaits, housePlanProblem, movedSteps, planHouse } from './plan-house';
export { sayPlanBreach, whyNotAt } from './say-breach';
export type { StepTimes } from './step-times';
export { plannable } from './step-times';
export type { Hindcast, LotsTook } from './hindcast';
export { fourInFiveBy, hindcast, lotsTook } from './hindcast';
export type { LearntTime, LearntTimes, StepTook } from './learnt-times';
export { learnTimes, learntKey, stepsTook, withLearnt } from './learnt-times';
export type { HelpTried, PlanHelp } from './make-it';
export type { LateLot } from './make-it';
export { sayPlanHelp, whatWouldMakeIt } from './make-it';
export type { DoneByPlan, PlansKept } from './plans-kept';
export { plansKept, sayPlansKept } from './plans-kept';
export { HOUSE_SPACES } from './house-needs';
export type { CalendarEvent } from './write-calendar';
export { writeCalendar } from './write-calendar';
export type { ReadClosed } from './read-closed-days';
export { MOST_CLOSED, readClosedDays, sayClosedFault } from './read-closed-days';
export type { TouchAhead } from './touches-ahead';
export { sayTouch, touchesAhead } from './touches-ahead';
