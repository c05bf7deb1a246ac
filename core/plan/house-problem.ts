import { addDays, dayOf, instantOf } from '../calendar/studio-calendar';
import type { ClockSpan, WeekHours } from '../calendar/week-hours';
import { hoursBetween } from '../calendar/week-hours';
import { HAZARDS } from '../safety/hazards';
import type { HousePlan, KeptPlace, PlanFacts, PlannableLot } from './house-plan';
import type { PersonTimes } from './house-times';
import type { PlacedHold, PlanAnswer } from './plan-answer';
import { houseSpaces, inTurns, stepNeeds, turnsOnHeat } from './house-needs';
import type { PlacedStep, PlanHold, PlanLot, PlanNeed, PlanProblem, PlanStep, Span } from './plan-problem';
import { PLAN_WEIGHTS } from './plan-problem';

const MINUTE = 60_000;
/** Plans begin on the five minutes. */
const GRID_MIN = 5;
const HORIZON_DAYS = 120;
/** The end of the day a lot is promised for. */
const PROMISED_BY = '18:00';

/** Names a step of a lot in a plan problem. */
export const planStepId = (lotId: string, stepIndex: number): string => `${lotId}:${stepIndex}`;

/** The lot and the step of a problem's step. */
export function ofPlanStep(stepId: string): { lotId: string; stepIndex: number } {
  const at = stepId.lastIndexOf(':');
  return { lotId: stepId.slice(0, at), stepIndex: Number(stepId.slice(at + 1)) };
}

/** Minutes of a problem as instants, and back. */
export interface PlanClock {
  readonly toMin: (at: string) => number;
  readonly toIso: (min: number) => string;
}

/** The clock of a problem that begins at that moment, ISO. */
export function planClock(origin: string): PlanClock {
  const from = Date.parse(origin);
  return {
    toMin: (at) => Math.round((Date.parse(at) - from) / MINUTE),
    toIso: (min) => new Date(from + min * MINUTE).toISOString(),
  };
}

/** The moment a plan made now begins at. */
export const planOrigin = (now: string): string =>
  new Date(Math.ceil(Date.parse(now) / (GRID_MIN * MINUTE)) * GRID_MIN * MINUTE).toISOString();

/**
 * The studio as a plan problem: what is done and what runs as facts, what is to come with its times, pots, burners and
 * hands, the accepted plan to stay with.
 * @param origin the moment it begins at, ISO; what was not begun by then begins no earlier
 */
export function houseProblem(facts: PlanFacts, origin: string = planOrigin(facts.now)): PlanProblem {
  const clock = planClock(origin);
  const fromDay = addDays(dayOf(Date.parse(origin), facts.zone), -1);
  const toDay = addDays(fromDay, HORIZON_DAYS);
  const { times } = facts;
  const spans = (week: WeekHours, away: PersonTimes['away'] = []): Span[] =>
    hoursBetween(week, { fromDay, toDay, zone: facts.zone, away: [...times.closed, ...away] }).map(
      ([from, to]): Span => [clock.toMin(new Date(from).toISOString()), clock.toMin(new Date(to).toISOString())],
    );
  /** Out of order until the end of a day. */
  const out = (until: string | null | undefined): Span[] => {
    const back = until ? instantOf(addDays(until, 1), '00:00', facts.zone) : undefined;
    const toMin = back === undefined ? 0 : clock.toMin(new Date(back).toISOString());
    return toMin > 0 ? [[0, toMin]] : [];
  };
  const kept = new Map((facts.accepted?.places ?? []).map((p) => [planStepId(p.lotId, p.stepIndex), p]));
  const toMin = (stepId: string): PlacedStep | undefined => {
    const p = kept.get(stepId);
    return p && placeInMinutes(p, clock);
  };
  const lots = facts.lots.map((lot) =>
    houseLot(facts, lot, clock, (stepId) => {
      const at = kept.get(stepId)?.locked ? toMin(stepId) : undefined;
      // Locked to a moment that went by without it: it is still to be done.
      return at && at.startMin >= 0 ? at : undefined;
    }),
  );
  const open = new Set(lots.flatMap((l) => l.steps.filter((s) => !s.fixed).map((s) => s.id)));
  return {
    format: 'vestigia-plan-problem',
    version: 1,
    origin,
    horizonMin: HORIZON_DAYS * 1440,
    open: spans(times.week),
    people: facts.people.map(({ id, name }) => {
      const own = times.people.find((p) => p.personId === id);
      const week = own?.week ?? times.week;
      const until = own?.eveningsUntil ?? null;
      return {
        id,
        name,
        hours: spans(week, own?.away),
        evenings:
          until === null
            ? []
            : spans(
                week.map((day) => eveningOf(day, until)),
                own?.away,
              ),
        may: HAZARDS.filter((h) => own?.leaves.includes(h) !== true),
      };
    }),
    resources: [
      ...facts.vessels.map(({ id, name }) => ({
        id,
        name,
        kind: 'vessel' as const,
        capacity: 1,
        out: out(times.pots.find((p) => p.vesselId === id)?.outUntil),
      })),
      ...facts.heatSources.map(({ id, name }) => {
        const own = times.heat.find((h) => h.heatSourceId === id);
        return { id, name, kind: 'heat' as const, capacity: own?.potsAtOnce ?? 1, out: out(own?.outUntil) };
      }),
      ...houseSpaces(times.room),
    ],
    lots,
    weights: PLAN_WEIGHTS,
    previous: [...open].flatMap((id) => toMin(id) ?? []),
    previousHolds: facts.accepted?.holds ?? [],
  };
}

/** From the end of a day's work until so late. */
function eveningOf(day: readonly ClockSpan[], until: string): ClockSpan[] {
  const ends = day.at(-1)?.[1];
  return ends !== undefined && ends < until ? [[ends, until]] : [];
}

function houseLot(
  facts: PlanFacts,
  lot: PlannableLot,
  clock: PlanClock,
  lockedAt: (stepId: string) => PlacedStep | undefined,
): PlanLot {
  const ends = new Map<number, number>();
  const startOf = (day: string | null): number | null =>
    day === null ? null : clock.toMin(new Date(instantOf(day, '00:00', facts.zone)).toISOString());
  /** What has gone off already is looked at by whoever agreed to it: a plan can't mend it. */
  const goodUntil = (day: string | null): number | null => {
    const until = startOf(day === null ? null : addDays(day, 1));
    return until === null || until <= 0 ? null : until - 1;
  };
  const steps = lot.steps.map((step): PlanStep => {
    const id = planStepId(lot.id, step.index);
    const record = lot.records[step.index];
    const before = Math.max(...step.after.map((i) => ends.get(i) ?? -Infinity));
    const times = inTurns(step.times, turnsOnHeat(facts, step));
    const needs = stepNeeds(facts, lot, step, times.aloneMin);
    const stood = (startMin: number, endMin: number, held: readonly PlanNeed[]): PlacedStep => ({
      stepId: id,
      startMin,
      aloneFromMin: startMin,
      aloneToMin: endMin,
      endMin,
      beginBy: null,
      endBy: null,
      resourceIds: held.map((n) => n.options[0]?.resourceId ?? ''),
    });
    const fact = ((): { fixed: PlacedStep; needs: readonly PlanNeed[] } | undefined => {
      if (record?.skippedReason !== undefined) {
        const at = Number.isFinite(before) ? before : 0;
        return { fixed: stood(at, at, []), needs: [] };
      }
      if (record?.startedAt === undefined) return undefined;
      const startMin = clock.toMin(record.startedAt);
      if (record.finishedAt !== undefined)
        return { fixed: stood(startMin, clock.toMin(record.finishedAt), []), needs: [] };
      const meant = startMin + times.beginHandsMin + times.aloneMin + times.endHandsMin;
      return { fixed: stood(startMin, Math.max(meant, GRID_MIN), needs), needs };
    })();
    if (fact) ends.set(step.index, fact.fixed.endMin);
    return {
      id,
      title: step.title,
      beginHandsMin: times.beginHandsMin,
      aloneMin: times.aloneMin,
      aloneMaxMin: times.aloneMaxMin,
      endHandsMin: times.endHandsMin,
      watched: times.watched,
      overnight: !times.isHot,
      hazards: step.hazards,
      needs: fact?.needs ?? needs,
      after: step.after.map((i) => ({
        stepId: planStepId(lot.id, i),
        minMin: step.wait?.minMinutes ?? 0,
        maxMin: step.wait?.maxMinutes ?? null,
      })),
      notBeforeMin: Math.max(0, startOf(step.beginFromOn) ?? 0),
      notAfterMin: goodUntil(step.beginByOn),
      fixed: fact?.fixed ?? lockedAt(id) ?? null,
    };
  });
  const due = lot.wantedOn === null ? null : instantOf(lot.wantedOn, PROMISED_BY, facts.zone);
  return {
    id: lot.id,
    name: lot.tag,
    dueMin: due === null ? null : clock.toMin(new Date(due).toISOString()),
    steps,
    holds: potHolds(lot, steps),
  };
}

/** A pot is held from the first step in a liquor until the last: filled once, emptied once. */
function potHolds(lot: PlannableLot, steps: readonly PlanStep[]): PlanHold[] {
  const liquors = new Map<string, number[]>();
  for (const step of lot.steps) {
    if (step.vesselIds.length === 0) continue;
    const name = step.liquor === '' ? `step ${step.index}` : step.liquor;
    liquors.set(name, [...(liquors.get(name) ?? []), step.index]);
  }
  return [...liquors].flatMap(([liquor, indexes]) => {
    const own = indexes.flatMap((i) => steps[lot.steps.findIndex((s) => s.index === i)] ?? []);
    const [from, to] = [own[0], own.at(-1)];
    // What is over holds nothing any more.
    if (!from || !to || own.every((s) => s.fixed && s.fixed.endMin <= 0)) return [];
    const pots = new Set(indexes.flatMap((i) => lot.steps.find((s) => s.index === i)?.vesselIds ?? []));
    return [...pots].map((vesselId) => ({
      id: `${lot.id}:${liquor}:${vesselId}`,
      resourceIds: [vesselId],
      amount: 1,
      fromStepId: from.id,
      toStepId: to.id,
      fixedTo: null,
    }));
  });
}

/** A kept place in minutes of a problem: what `keepPlan` made instants of. */
export const placeInMinutes = (p: KeptPlace, { toMin }: PlanClock): PlacedStep => ({
  stepId: planStepId(p.lotId, p.stepIndex),
  startMin: toMin(p.startAt),
  aloneFromMin: toMin(p.aloneFromAt),
  aloneToMin: toMin(p.aloneToAt),
  endMin: toMin(p.endAt),
  beginBy: p.beginBy,
  endBy: p.endBy,
  resourceIds: p.resourceIds,
});

/** A plan as the studio keeps it. */
export function keepPlan(problem: PlanProblem, plan: PlanAnswer, locked: ReadonlySet<string>): HousePlan {
  const clock = planClock(problem.origin);
  const facts = new Set(
    problem.lots.flatMap((l) => l.steps.filter((s) => s.fixed && !locked.has(s.id)).map((s) => s.id)),
  );
  return {
    places: plan.placed
      .filter((p) => !facts.has(p.stepId))
      .map((p) => ({
        ...ofPlanStep(p.stepId),
        startAt: clock.toIso(p.startMin),
        aloneFromAt: clock.toIso(p.aloneFromMin),
        aloneToAt: clock.toIso(p.aloneToMin),
        endAt: clock.toIso(p.endMin),
        beginBy: p.beginBy,
        endBy: p.endBy,
        resourceIds: p.resourceIds,
        locked: locked.has(p.stepId),
      })),
    holds: plan.holds.map(({ holdId, resourceId }: PlacedHold) => ({ holdId, resourceId })),
  };
}
