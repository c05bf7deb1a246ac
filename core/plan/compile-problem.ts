import type { PlacedStep, PlanHold, PlanProblem, PlanStep, Span } from './plan-problem';
import { tidySpans } from './spans';

/** One way to meet all that a step takes up: what of each need and each hold it begins, by number. */
export interface Way {
  readonly needs: readonly number[];
  readonly holds: readonly number[];
  readonly extraMin: number;
  readonly heatWh: number;
}

/** A hold by numbers. */
export interface CompiledHold {
  readonly hold: PlanHold;
  readonly from: number;
  readonly to: number;
  /** Steps that lie within it, its last one among them. */
  readonly through: ReadonlySet<number>;
  /** From its beginning to its end at the least. */
  readonly leastMin: number;
}

/** A step by numbers: what it follows, who may do it, in which ways. */
export interface CompiledStep {
  readonly step: PlanStep;
  readonly lot: number;
  readonly after: readonly { readonly step: number; readonly minMin: number; readonly maxMin: number }[];
  readonly people: readonly number[];
  readonly ways: readonly Way[];
  /** Holds it begins, in the order its ways name them. */
  readonly begins: readonly number[];
  /** Holds it lies within. */
  readonly within: readonly number[];
  readonly previous: PlacedStep | undefined;
  /** What the holds it begins had in the accepted plan, in their order; -1 where it doesn't say. */
  readonly previousHolds: readonly number[];
}

/** A problem with names made numbers and spans made tidy: what placing works on. */
export interface Compiled {
  readonly problem: PlanProblem;
  readonly steps: readonly CompiledStep[];
  readonly holds: readonly CompiledHold[];
  /** Steps of each lot that are still to be placed, each behind all that it follows. */
  readonly queues: readonly (readonly number[])[];
  readonly lotSteps: readonly (readonly number[])[];
  readonly open: readonly Span[];
  readonly hours: readonly (readonly Span[])[];
  /** Hours and evenings together. */
  readonly anyHours: readonly (readonly Span[])[];
}

/** Minutes of hands and waiting at the least. */
export const leastLength = (s: PlanStep): number => s.beginHandsMin + s.aloneMin + s.endHandsMin;

/**
 * Makes numbers of a problem's names.
 * @param problem one that `problemFault` finds nothing wrong with
 */
export function compileProblem(problem: PlanProblem): Compiled {
  const resourceAt = numbers(problem.resources.map((r) => r.id));
  const all = problem.lots.flatMap((lot, lotNumber) => lot.steps.map((step) => ({ step, lotNumber })));
  const stepAt = numbers(all.map(({ step }) => step.id));
  const followers = followersOf(
    all.map(({ step }) => step),
    stepAt,
  );
  const lotSteps = problem.lots.map((lot) => lot.steps.map((s) => at(stepAt, s.id)));
  const order = lotSteps.map((own) => inOrder(own, (n) => all[n]?.step.after.map((a) => at(stepAt, a.stepId)) ?? []));
  const holds = problem.lots.flatMap((lot, lotNumber) =>
    lot.holds.map((hold): CompiledHold => {
      const from = at(stepAt, hold.fromStepId);
      const to = at(stepAt, hold.toStepId);
      const behind = reach(from, followers);
      const through = new Set([...behind].filter((n) => n === to || reach(n, followers).has(to)));
      const leastMin = leastBetween(from, to, order[lotNumber] ?? [], all, stepAt);
      return { hold, from, to, through, leastMin };
    }),
  );
  // Of two with free hands the one who can be spared elsewhere goes first.
  const byVersatility = problem.people
    .map((p, i) => ({ i, may: p.may.length }))
    .sort((a, b) => a.may - b.may || a.i - b.i)
    .map(({ i }) => i);
  const begun: number[][] = all.map(() => []);
  const lain: number[][] = all.map(() => []);
  holds.forEach((h, i) => {
    begun[h.from]?.push(i);
    for (const n of h.through) if (n !== h.from) lain[n]?.push(i);
  });
  const had = new Map(problem.previousHolds.map((h) => [h.holdId, h.resourceId]));
  const previous = new Map(problem.previous.map((p) => [p.stepId, p]));
  const steps = all.map(({ step, lotNumber }, n): CompiledStep => {
    const begins = begun[n] ?? [];
    return {
      step,
      lot: lotNumber,
      after: step.after.map((a) => ({
        step: at(stepAt, a.stepId),
        minMin: a.minMin,
        maxMin: a.maxMin ?? Infinity,
      })),
      people: byVersatility.filter((i) => step.hazards.every((h) => problem.people[i]?.may.includes(h))),
      ways: waysOf(
        step,
        begins.map((i) => holds[i]?.hold.resourceIds ?? []),
        resourceAt,
      ),
      begins,
      within: lain[n] ?? [],
      previous: previous.get(step.id),
      previousHolds: begins.map((i) => resourceAt.get(had.get(holds[i]?.hold.id ?? '') ?? '') ?? -1),
    };
  });
  return {
    problem,
    steps,
    holds,
    queues: order.map((own) => own.filter((n) => !steps[n]?.step.fixed)),
    lotSteps,
    open: tidySpans(problem.open),
    hours: problem.people.map((p) => tidySpans(p.hours)),
    anyHours: problem.people.map((p) => tidySpans([...p.hours, ...p.evenings])),
  };
}

const numbers = (ids: readonly string[]): Map<string, number> => new Map(ids.map((id, i) => [id, i]));

function at(numbers: ReadonlyMap<string, number>, id: string): number {
  const number = numbers.get(id);
  if (number === undefined) throw new RangeError(`the problem names ${id}, and doesn't have it`);
  return number;
}

function followersOf(steps: readonly PlanStep[], stepAt: ReadonlyMap<string, number>): number[][] {
  const followers: number[][] = steps.map(() => []);
  steps.forEach((s, n) => {
    for (const a of s.after) followers[at(stepAt, a.stepId)]?.push(n);
  });
  return followers;
}

/** All that comes after a step. */
function reach(from: number, followers: readonly (readonly number[])[]): Set<number> {
  const seen = new Set<number>();
  const open = [...(followers[from] ?? [])];
  for (let n = open.pop(); n !== undefined; n = open.pop()) {
    if (seen.has(n)) continue;
    seen.add(n);
    open.push(...(followers[n] ?? []));
  }
  return seen;
}

/** Steps in an order in which each comes after those it follows; as written where that leaves a choice. */
function inOrder(own: readonly number[], follows: (step: number) => readonly number[]): number[] {
  const ordered: number[] = [];
  const done = new Set<number>();
  while (ordered.length < own.length) {
    const next = own.find((n) => !done.has(n) && follows(n).every((f) => done.has(f)));
    if (next === undefined) throw new RangeError('steps follow one another in a circle');
    ordered.push(next);
    done.add(next);
  }
  return ordered;
}

/** The longest way from the beginning of one step to the end of another, with nothing ever late. */
function leastBetween(
  from: number,
  to: number,
  order: readonly number[],
  all: readonly { readonly step: PlanStep }[],
  stepAt: ReadonlyMap<string, number>,
): number {
  const ends = new Map<number, number>();
  for (const n of order) {
    const step = all[n]?.step;
    if (!step) continue;
    const start =
      n === from ? 0 : Math.max(...step.after.map((a) => (ends.get(at(stepAt, a.stepId)) ?? -Infinity) + a.minMin));
    if (start > -Infinity) ends.set(n, start + leastLength(step));
  }
  return Math.max(0, ends.get(to) ?? 0);
}

/** Every combination of what its needs and the holds it begins can be met with. */
function waysOf(
  step: PlanStep,
  holds: readonly (readonly string[])[],
  resourceAt: ReadonlyMap<string, number>,
): readonly Way[] {
  let ways: Way[] = [{ needs: [], holds: [], extraMin: 0, heatWh: 0 }];
  for (const need of step.needs)
    ways = ways.flatMap((w) =>
      need.options.map((o) => ({
        ...w,
        needs: [...w.needs, at(resourceAt, o.resourceId)],
        extraMin: Math.max(w.extraMin, o.extraMin),
        heatWh: w.heatWh + o.heatWh,
      })),
    );
  for (const ids of holds)
    ways = ways.flatMap((w) => ids.map((id) => ({ ...w, holds: [...w.holds, at(resourceAt, id)] })));
  return ways;
}
