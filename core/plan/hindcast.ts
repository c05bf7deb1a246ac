import { atMost } from '../quantity/at-most';
import type { PlanFacts, PlannableLot } from './house-plan';
import { houseProblem, planOrigin } from './house-problem';
import type { PlannedHouse } from './plan-house';
import { problemFault } from './problem-fault';
import { solvePlan } from './solve-plan';

/** A lot that is done: how long a plan would have given it by itself, from where it began, and how long it took. */
export interface Hindcast {
  readonly lotId: string;
  readonly plannedMin: number;
  readonly tookMin: number;
}

const MINUTE_MS = 60_000;

/**
 * Plans a lot that is done as if it were to begin when it began, by today’s hours and with nothing else in the house,
 * and holds that against how long it took. `undefined` where it was never begun or finished, or can't be planned.
 */
export function hindcast(facts: Omit<PlanFacts, 'lots' | 'accepted'>, lot: PlannableLot): Hindcast | undefined {
  const begun = lot.records.flatMap((r) => (r.startedAt === undefined ? [] : [r.startedAt])).sort();
  const finished = lot.records.flatMap((r) => (r.finishedAt === undefined ? [] : [r.finishedAt])).sort();
  const [startedAt, finishedAt] = [begun[0], finished.at(-1)];
  if (startedAt === undefined || finishedAt === undefined) return undefined;
  const done = lot.steps.filter((s) => lot.records[s.index]?.skippedReason === undefined);
  const there = new Set(done.map((s) => s.index));
  const afresh: PlannableLot = {
    ...lot,
    wantedOn: null,
    steps: done.map((s) => ({ ...s, after: s.after.filter((i) => there.has(i)) })),
    records: lot.records.map(() => ({})),
  };
  // What was broken or closed since is no matter of that day.
  const heat = facts.times.heat.map((h) => ({ ...h, outUntil: null }));
  const times = { ...facts.times, closed: [], heat, pots: [] };
  const then = { ...facts, times, now: startedAt, lots: [afresh], accepted: null };
  const problem = houseProblem(then, planOrigin(startedAt));
  if (problemFault(problem)) return undefined;
  const { placed, unplaced } = solvePlan(problem, { seed: 1, rounds: 1 });
  if (unplaced.length > 0 || placed.length === 0) return undefined;
  return {
    lotId: lot.id,
    plannedMin: Math.max(...placed.map((p) => p.endMin)),
    tookMin: (Date.parse(finishedAt) - Date.parse(startedAt)) / MINUTE_MS,
  };
}

/** A share of lots that were done by then. */
const SURE = 0.8;
/** Fewer lots say nothing of four in five. */
export const LEAST_HINDCASTS = 4;

/** How much longer than planned lots take, as shares of the plan: one in two, and four in five, took no longer. */
export interface LotsTook {
  readonly middle: number;
  readonly fourInFive: number;
  readonly lots: number;
  /** How many were done by when the rest of them would have said four in five are; `null` of too few. */
  readonly within: number | null;
}

/**
 * What earlier lots say of the next: the share of its plan that four in five take at most. `null` of fewer than
 * `LEAST_HINDCASTS`.
 */
export function lotsTook(hindcasts: readonly Hindcast[]): LotsTook | null {
  if (hindcasts.length < LEAST_HINDCASTS) return null;
  const shares = hindcasts.map((h) => h.tookMin / Math.max(1, h.plannedMin));
  const rest = (i: number): number[] => shares.filter((_, other) => other !== i);
  const within =
    shares.length > LEAST_HINDCASTS ? shares.filter((share, i) => share <= atMost(rest(i), SURE)).length : null;
  return { middle: atMost(shares, 0.5), fourInFive: atMost(shares, SURE), lots: shares.length, within };
}

/**
 * By when four lots in five like it would be done, in minutes from the problem’s beginning; never before its plan.
 * `undefined` where too few lots say anything, or the lot has no place.
 */
export function fourInFiveBy(
  { problem, plan }: Pick<PlannedHouse, 'problem' | 'plan'>,
  lotId: string,
  took: LotsTook | null,
): number | undefined {
  const lot = problem.lots.find((l) => l.id === lotId);
  if (!lot || !took) return undefined;
  const own = new Set(lot.steps.map((s) => s.id));
  const open = new Set(lot.steps.flatMap((s) => (s.fixed ? [] : [s.id])));
  const placed = plan.placed.filter((p) => own.has(p.stepId));
  const ahead = placed.filter((p) => open.has(p.stepId));
  if (ahead.length < open.size || placed.length === 0) return undefined;
  const endMin = Math.max(...placed.map((p) => p.endMin));
  const fromMin = Math.max(0, Math.min(endMin, ...ahead.map((p) => p.startMin)));
  return endMin + Math.max(0, Math.round((took.fourInFive - 1) * (endMin - fromMin)));
}
