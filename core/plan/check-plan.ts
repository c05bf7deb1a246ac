import type { PlanAnswer } from './plan-answer';
import { leastLength } from './compile-problem';
import type { PlacedStep, PlanHold, PlanProblem, PlanStep, Span } from './plan-problem';
import { neededUntil } from './plan-problem';
import { liesWithin, tidySpans } from './spans';

/** A rule a plan breaks, and where. */
export type PlanBreach =
  | {
      readonly code: 'missing' | 'twice' | 'unknown' | 'length' | 'beforeItsTime' | 'spoiled' | 'closed';
      readonly stepId: string;
    }
  | { readonly code: 'horizon' | 'factMoved' | 'handsMissing'; readonly stepId: string }
  | { readonly code: 'order'; readonly stepId: string; readonly afterId: string }
  | { readonly code: 'hours' | 'mayNot'; readonly stepId: string; readonly personId: string }
  | { readonly code: 'twoHands'; readonly personId: string; readonly stepIds: readonly [string, string] }
  | { readonly code: 'noSuchOption'; readonly stepId: string; readonly resourceId: string }
  | { readonly code: 'hold'; readonly holdId: string }
  | { readonly code: 'capacity'; readonly resourceId: string; readonly atMin: number };

/** A stretch of use, and whether it is a fact that asked nobody. */
interface Use {
  readonly from: number;
  readonly to: number;
  readonly amount: number;
  readonly fact: boolean;
}

/**
 * Every rule of the problem that an answer breaks; none where it may be worked by. Knows nothing of how plans are made.
 * What is fixed is a fact: it may lie over other facts, never over what was planned.
 */
export function checkPlan(problem: PlanProblem, answer: PlanAnswer): PlanBreach[] {
  const steps = problem.lots.flatMap((lot) => lot.steps);
  const byId = new Map(steps.map((s) => [s.id, s]));
  const placed = new Map(answer.placed.map((p) => [p.stepId, p]));
  const unplaced = new Set(answer.unplaced.map((u) => u.lotId));
  const breaches: PlanBreach[] = [];
  const seen = new Set<string>();
  for (const { stepId } of answer.placed) {
    if (!byId.has(stepId)) breaches.push({ code: 'unknown', stepId });
    if (seen.has(stepId)) breaches.push({ code: 'twice', stepId });
    seen.add(stepId);
  }
  for (const lot of problem.lots)
    for (const s of lot.steps) {
      const p = placed.get(s.id);
      if (!p && (!unplaced.has(lot.id) || s.fixed)) breaches.push({ code: 'missing', stepId: s.id });
      if (p) breaches.push(...breachesOfStep(problem, s, p, placed));
    }
  return [...breaches, ...breachesOfHands(problem, byId, answer), ...breachesOfThings(problem, byId, placed, answer)];
}

function breachesOfStep(
  problem: PlanProblem,
  s: PlanStep,
  p: PlacedStep,
  placed: ReadonlyMap<string, PlacedStep>,
): PlanBreach[] {
  const stepId = s.id;
  if (s.fixed) return isSame(s.fixed, p) ? [] : [{ code: 'factMoved', stepId }];
  const found: PlanBreach[] = [];
  const options = s.needs.map((need, i) => need.options.find((o) => o.resourceId === p.resourceIds[i]));
  options.forEach((o, i) => {
    if (!o) found.push({ code: 'noSuchOption', stepId, resourceId: p.resourceIds[i] ?? '' });
  });
  const extra = Math.max(0, ...options.map((o) => o?.extraMin ?? 0));
  const alone = p.aloneToMin - p.aloneFromMin;
  const most = s.watched ? s.aloneMin : Math.max(s.aloneMin, s.aloneMaxMin ?? Infinity);
  const isLong =
    p.aloneFromMin - p.startMin === s.beginHandsMin &&
    p.endMin - p.aloneToMin === s.endHandsMin &&
    alone >= s.aloneMin + extra &&
    alone <= most + extra;
  if (!isLong) found.push({ code: 'length', stepId });
  if (p.startMin < Math.max(0, s.notBeforeMin)) found.push({ code: 'beforeItsTime', stepId });
  if (s.notAfterMin !== null && p.startMin > s.notAfterMin) found.push({ code: 'spoiled', stepId });
  if (p.endMin > problem.horizonMin) found.push({ code: 'horizon', stepId });
  if (!s.watched && !s.overnight && alone > 0 && !liesWithin(tidySpans(problem.open), p.aloneFromMin, p.aloneToMin))
    found.push({ code: 'closed', stepId });
  for (const a of s.after) {
    const before = placed.get(a.stepId);
    const waits = p.startMin - (before?.endMin ?? Infinity);
    if (waits < a.minMin || waits > (a.maxMin ?? Infinity)) found.push({ code: 'order', stepId, afterId: a.stepId });
  }
  for (const touch of handsAt(s, p)) {
    const person = problem.people.find((who) => who.id === touch.by);
    if (!person) {
      found.push({ code: 'handsMissing', stepId });
      continue;
    }
    const hours = tidySpans([...person.hours, ...person.evenings]);
    if (!liesWithin(hours, touch.from, touch.to)) found.push({ code: 'hours', stepId, personId: person.id });
    if (s.hazards.some((h) => !person.may.includes(h))) found.push({ code: 'mayNot', stepId, personId: person.id });
  }
  return found;
}

const isSame = (a: PlacedStep, b: PlacedStep): boolean =>
  a.startMin === b.startMin &&
  a.aloneFromMin === b.aloneFromMin &&
  a.aloneToMin === b.aloneToMin &&
  a.endMin === b.endMin &&
  a.beginBy === b.beginBy &&
  a.endBy === b.endBy;

/** When whose hands are at a step. */
export function handsAt(s: PlanStep, p: PlacedStep): { by: string | null; from: number; to: number }[] {
  if (s.watched) return leastLength(s) > 0 ? [{ by: p.beginBy, from: p.startMin, to: p.endMin }] : [];
  return [
    ...(p.aloneFromMin > p.startMin ? [{ by: p.beginBy, from: p.startMin, to: p.aloneFromMin }] : []),
    ...(p.endMin > p.aloneToMin ? [{ by: p.endBy, from: p.aloneToMin, to: p.endMin }] : []),
  ];
}

function breachesOfHands(problem: PlanProblem, byId: ReadonlyMap<string, PlanStep>, answer: PlanAnswer): PlanBreach[] {
  const found: PlanBreach[] = [];
  for (const person of problem.people) {
    const touches = answer.placed
      .flatMap((p) => {
        const s = byId.get(p.stepId);
        return s ? handsAt(s, p).map((t) => ({ ...t, stepId: s.id, fact: s.fixed !== null })) : [];
      })
      .filter((t) => t.by === person.id)
      .sort((a, b) => a.from - b.from);
    for (let i = 0; i < touches.length; i += 1)
      for (let j = i + 1; j < touches.length; j += 1) {
        const [a, b] = [touches[i], touches[j]];
        if (!a || !b || b.from >= a.to) break;
        if (!(a.fact && b.fact)) found.push({ code: 'twoHands', personId: person.id, stepIds: [a.stepId, b.stepId] });
      }
  }
  return found;
}

function breachesOfThings(
  problem: PlanProblem,
  byId: ReadonlyMap<string, PlanStep>,
  placed: ReadonlyMap<string, PlacedStep>,
  answer: PlanAnswer,
): PlanBreach[] {
  const found: PlanBreach[] = [];
  const uses = new Map<string, Use[]>(problem.resources.map((r) => [r.id, []]));
  for (const p of answer.placed) {
    const s = byId.get(p.stepId);
    s?.needs.forEach((need, i) =>
      uses.get(p.resourceIds[i] ?? '')?.push({
        from: p.startMin,
        to: neededUntil(need, p),
        amount: need.amount,
        fact: s.fixed !== null,
      }),
    );
  }
  const allHolds = problem.lots.flatMap((lot) => lot.holds);
  const held = new Map(answer.holds.map((h) => [h.holdId, h]));
  for (const hold of allHolds) {
    const from = placed.get(hold.fromStepId);
    const to = placed.get(hold.toStepId);
    const h = held.get(hold.id);
    if (!from) continue;
    const isRight =
      h !== undefined &&
      mayHold(hold, h.resourceId) &&
      h.fromMin <= from.startMin &&
      h.toMin >= Math.max(from.endMin, to?.endMin ?? 0);
    if (!isRight) found.push({ code: 'hold', holdId: hold.id });
    const fact = [hold.fromStepId, hold.toStepId].every((id) => byId.get(id)?.fixed);
    if (h) uses.get(h.resourceId)?.push({ from: h.fromMin, to: h.toMin, amount: hold.amount, fact });
  }
  for (const r of problem.resources)
    for (const atMin of overfull(uses.get(r.id) ?? [], r.capacity, r.out))
      found.push({ code: 'capacity', resourceId: r.id, atMin });
  return found;
}

const mayHold = (hold: PlanHold, resourceId: string): boolean =>
  hold.fixedTo === null ? hold.resourceIds.includes(resourceId) : hold.fixedTo === resourceId;

/** Moments at which planned uses, with all else, are more than there is. */
function overfull(uses: readonly Use[], capacity: number, out: readonly Span[]): number[] {
  const all = [
    ...uses.filter((u) => u.to > u.from),
    ...tidySpans(out).map(([from, to]) => ({ from, to, amount: capacity, fact: true })),
  ];
  return [...new Set(all.map((u) => u.from))].filter((moment) => {
    const now = all.filter((u) => u.from <= moment && u.to > moment);
    return now.reduce((sum, u) => sum + u.amount, 0) > capacity && now.some((u) => !u.fact);
  });
}
