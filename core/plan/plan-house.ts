import { checkPlan } from './check-plan';
import type { PlanAnswer } from './plan-answer';
import type { HousePlan, PlanFacts } from './house-plan';
import { houseProblem, planClock, planOrigin, planStepId } from './house-problem';
import type { PlanLot, PlanProblem } from './plan-problem';
import type { PlanFault } from './problem-fault';
import { problemFault } from './problem-fault';
import type { SolveAsked } from './solve-plan';
import { solvePlan } from './solve-plan';

/** A studio’s plan, with what of it couldn't be planned and what couldn't be kept to. */
export interface PlannedHouse {
  readonly problem: PlanProblem;
  readonly plan: PlanAnswer;
  /** Lots that can't be planned as they are, and why. */
  readonly faults: readonly { readonly lotId: string; readonly fault: PlanFault }[];
  /** Steps that come later after what is already done than their recipe wants. */
  readonly tooLate: readonly string[];
  /** Steps that begin when what they weigh has gone off: there is no place for them before. */
  readonly spoiled: readonly string[];
}

/** Where somebody wants a step to begin, in minutes from the problem’s beginning. */
export interface WantedPlace {
  readonly stepId: string;
  readonly startMin: number;
}

/** The problem a studio’s plan answers. Of lots that can't be planned at all only what is done and what runs is in it. */
export function housePlanProblem(
  facts: PlanFacts,
  origin: string = planOrigin(facts.now),
): Pick<PlannedHouse, 'problem' | 'faults'> {
  const whole = houseProblem(facts, origin);
  const faults = whole.lots.flatMap((lot) => {
    const fault = problemFault({ ...whole, lots: [lot] });
    return fault ? [{ lotId: lot.id, fault }] : [];
  });
  const out = new Set(faults.map((f) => f.lotId));
  return { problem: { ...whole, lots: whole.lots.map((l) => (out.has(l.id) ? factsOf(l) : l)) }, faults };
}

/** What of a lot is done or runs: a pot it stands in is no less taken where the rest can't be planned. */
function factsOf(lot: PlanLot): PlanLot {
  const steps = lot.steps.filter((s) => s.fixed);
  const stands = new Set(steps.map((s) => s.id));
  const last = steps.at(-1)?.id;
  return {
    ...lot,
    dueMin: null,
    steps: steps.map((s) => ({ ...s, after: s.after.filter((a) => stands.has(a.stepId)) })),
    holds: lot.holds.flatMap((h) => {
      if (!stands.has(h.fromStepId) || last === undefined) return [];
      return [stands.has(h.toStepId) ? h : { ...h, toStepId: h.fromStepId }];
    }),
  };
}

/**
 * Plans a studio: every open lot from where it is, staying with the accepted plan as far as that can be. Where a step
 * can't follow what is already done as soon as its recipe wants, it follows as soon as it can, and is named.
 * @param wanted steps that are to begin at a moment, or as soon after it as they can
 * @param onBetter told of each better plan while it looks on; written out when asked for
 */
export function planHouse(
  facts: PlanFacts,
  asked: SolveAsked,
  {
    origin = planOrigin(facts.now),
    wanted = [],
    onBetter,
  }: { origin?: string; wanted?: readonly WantedPlace[]; onBetter?: (best: () => PlannedHouse) => void } = {},
): PlannedHouse {
  const { problem: first, faults } = housePlanProblem(facts, origin);
  const asWanted = wanted.reduce(putAt, first);
  const plan = solvePlan(asWanted, {
    ...asked,
    onBetter: (best) => onBetter?.(() => ({ problem: asWanted, plan: best(), faults, tooLate: [], spoiled: [] })),
  });
  const stuck = new Set(plan.unplaced.map((u) => u.lotId));
  const eased = asWanted.lots.map((lot) => (stuck.has(lot.id) ? easeWaits(lot) : { lot, eased: [] }));
  const changed = new Set(eased.flatMap((e) => e.eased));
  if (changed.size === 0) return { problem: asWanted, plan, faults, tooLate: [], spoiled: [] };
  const problem = { ...asWanted, lots: eased.map((e) => e.lot) };
  const anyhow = solvePlan(problem, asked);
  const broken = checkPlan(asWanted, anyhow);
  const of = (code: 'order' | 'spoiled'): string[] => [
    ...new Set(broken.flatMap((b) => (b.code === code && changed.has(b.stepId) ? [b.stepId] : []))),
  ];
  return { problem, plan: anyhow, faults, tooLate: of('order'), spoiled: of('spoiled') };
}

/** It begins no earlier than that; it and what follows it leave the place they had. */
function putAt(problem: PlanProblem, { stepId, startMin }: WantedPlace): PlanProblem {
  const lot = problem.lots.find((l) => l.steps.some((s) => s.id === stepId && !s.fixed));
  if (!lot) return problem;
  const leave = new Set([stepId]);
  // Steps stand behind those they follow, so one look over them finds all that come after.
  for (const s of lot.steps) if (s.after.some((a) => leave.has(a.stepId))) leave.add(s.id);
  const steps = lot.steps.map((s) =>
    s.id === stepId ? { ...s, notBeforeMin: Math.max(startMin, s.notBeforeMin) } : s,
  );
  return {
    ...problem,
    previous: problem.previous.filter((p) => !leave.has(p.stepId)),
    lots: problem.lots.map((l) => (l === lot ? { ...l, steps } : l)),
  };
}

/**
 * What has waited too long already goes on all the same, and so does what has gone off before there was a place: the
 * longest wait after a fact, and the last good day, are no rules any more.
 */
export function easeWaits(lot: PlanLot): { lot: PlanLot; eased: string[] } {
  const facts = new Set(lot.steps.flatMap((s) => (s.fixed ? [s.id] : [])));
  const eased: string[] = [];
  const steps = lot.steps.map((s) => {
    const waits = s.after.some((a) => a.maxMin !== null && facts.has(a.stepId));
    if (s.fixed || (!waits && s.notAfterMin === null)) return s;
    eased.push(s.id);
    return {
      ...s,
      notAfterMin: null,
      after: s.after.map((a) => (facts.has(a.stepId) ? { ...a, maxMin: null } : a)),
    };
  });
  return { lot: { ...lot, steps }, eased };
}

/** A step that begins at another moment than the accepted plan has it, in minutes from the problem’s beginning. */
export interface MovedStep {
  readonly stepId: string;
  readonly fromMin: number;
  readonly toMin: number;
}

/** Steps still to come that begin elsewhere than the accepted plan has them. */
export function movedSteps(accepted: HousePlan, { problem, plan }: PlannedHouse): MovedStep[] {
  const { toMin } = planClock(problem.origin);
  const before = new Map(accepted.places.map((p) => [planStepId(p.lotId, p.stepIndex), toMin(p.startAt)]));
  const begun = new Set(problem.lots.flatMap((l) => l.steps.flatMap((s) => (s.fixed ? [s.id] : []))));
  return plan.placed.flatMap((p) => {
    const fromMin = before.get(p.stepId);
    return fromMin === undefined || fromMin === p.startMin || begun.has(p.stepId)
      ? []
      : [{ stepId: p.stepId, fromMin, toMin: p.startMin }];
  });
}
