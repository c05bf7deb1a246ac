import { sayMinutes } from '../quantity/duration';
import { HAZARD_LABELS } from '../safety/hazards';
import { leastLength } from './compile-problem';
import type { PlanHold, PlanLot, PlanPerson, PlanProblem, PlanStep } from './plan-problem';
import { longestSpan, tidySpans } from './spans';

/** Why a problem can't be planned at all, whatever was moved. Names are the problem's own. */
export type PlanFault =
  | { readonly code: 'twice' | 'unknown'; readonly id: string }
  | { readonly code: 'circle'; readonly lot: string }
  | { readonly code: 'otherLot'; readonly step: string; readonly after: string }
  | { readonly code: 'waits'; readonly step: string }
  | { readonly code: 'span' }
  | { readonly code: 'nothingFor'; readonly step: string }
  | { readonly code: 'tooMuch'; readonly step: string; readonly thing: string }
  | { readonly code: 'holdEnds'; readonly lot: string; readonly step: string }
  | { readonly code: 'nobodyMay'; readonly step: string; readonly hazards: readonly string[] }
  | {
      readonly code: 'longerThanHours' | 'longerThanOpen';
      readonly step: string;
      readonly minutes: number;
      readonly longest: number;
    };

/** The first thing that keeps a problem from being planned; nothing where it can be tried. */
export function problemFault(problem: PlanProblem): PlanFault | undefined {
  return fellTwice(problem) ?? spanFault(problem) ?? first(problem.lots, (lot) => lotFault(problem, lot));
}

/** In a sentence, and what to do. */
export function sayPlanFault(fault: PlanFault): string {
  switch (fault.code) {
    case 'twice':
      return $localize`Two things in the plan are called ${fault.id}. Give each a name of its own.`;
    case 'unknown':
      return $localize`The plan names ${fault.id}, but doesn’t have it. Add it, or take the name out.`;
    case 'circle':
      return $localize`The steps of ${fault.lot} wait for one another in a circle. Let one of them wait for none.`;
    case 'otherLot':
      return $localize`“${fault.step}” waits for “${fault.after}” of another lot. A step waits for steps of its own lot only.`;
    case 'waits':
      return $localize`“${fault.step}” may be left for less time than it takes. Make the longest time no shorter than the shortest.`;
    case 'span':
      return $localize`A span of time ends before it begins, or isn’t in whole minutes. Write each as from and to, in minutes.`;
    case 'nothingFor':
      return $localize`“${fault.step}” needs a pot, a burner or a place, and none is named that would do. Name one.`;
    case 'tooMuch':
      return $localize`“${fault.step}” needs more of ${fault.thing} than there is of it. Divide the lot, or choose another.`;
    case 'holdEnds':
      return $localize`What ${fault.lot} holds until “${fault.step}” is let go before it is taken. Let it end with a step that comes later.`;
    case 'nobodyMay':
      return $localize`Nobody may do “${fault.step}”: it asks for somebody who may handle it (${fault.hazards.map(sayHazard).join('; ')}). Say who may under Hours and equipment.`;
    case 'longerThanHours':
      return $localize`“${fault.step}” wants somebody for ${sayMinutes(fault.minutes)} without a break, and nobody is there longer than ${sayMinutes(fault.longest)} at a time. Lengthen somebody’s hours, or divide the step.`;
    case 'longerThanOpen':
      return $localize`“${fault.step}” goes on for ${sayMinutes(fault.minutes)} and may not be left in a closed house, which is never open longer than ${sayMinutes(fault.longest)}. Open longer, or let it go on overnight.`;
  }
}

/** A problem may name hazards of its own. */
const sayHazard = (hazard: string): string =>
  new Map<string, string>(Object.entries(HAZARD_LABELS)).get(hazard) ?? hazard;

function first<T>(all: readonly T[], find: (one: T) => PlanFault | undefined): PlanFault | undefined {
  for (const one of all) {
    const fault = find(one);
    if (fault) return fault;
  }
  return undefined;
}

function fellTwice({ lots, people, resources }: PlanProblem): PlanFault | undefined {
  const kinds = [
    lots.flatMap((l) => l.steps.map((s) => s.id)),
    lots.flatMap((l) => l.holds.map((h) => h.id)),
    lots.map((l) => l.id),
    people.map((p) => p.id),
    resources.map((r) => r.id),
  ];
  for (const ids of kinds) {
    const seen = new Set<string>();
    for (const id of ids) {
      if (seen.has(id)) return { code: 'twice', id };
      seen.add(id);
    }
  }
  return undefined;
}

function spanFault(problem: PlanProblem): PlanFault | undefined {
  const spans = [
    ...problem.open,
    ...problem.people.flatMap((p) => [...p.hours, ...p.evenings]),
    ...problem.resources.flatMap((r) => r.out),
  ];
  const isWrong = spans.some(([from, to]) => to < from || !Number.isInteger(from) || !Number.isInteger(to));
  return isWrong ? { code: 'span' } : undefined;
}

function lotFault(problem: PlanProblem, lot: PlanLot): PlanFault | undefined {
  const own = new Map(lot.steps.map((s) => [s.id, s]));
  return (
    first(lot.steps, (s) => linkFault(problem, own, s)) ??
    (hasCircle(own) ? { code: 'circle', lot: lot.name } : undefined) ??
    first(lot.steps, (s) => needFault(problem, lot, s)) ??
    first(lot.steps, (s) => (s.fixed ? undefined : handsFault(problem, s))) ??
    first(lot.holds, (h) => holdFault(problem, lot, own, h))
  );
}

function linkFault(problem: PlanProblem, own: ReadonlyMap<string, PlanStep>, s: PlanStep): PlanFault | undefined {
  for (const a of s.after) {
    if (!own.has(a.stepId)) {
      const other = problem.lots.flatMap((l) => l.steps).find((o) => o.id === a.stepId);
      return other ? { code: 'otherLot', step: s.title, after: other.title } : { code: 'unknown', id: a.stepId };
    }
    if (a.maxMin !== null && a.maxMin < a.minMin) return { code: 'waits', step: s.title };
  }
  return s.aloneMaxMin !== null && s.aloneMaxMin < s.aloneMin ? { code: 'waits', step: s.title } : undefined;
}

function hasCircle(own: ReadonlyMap<string, PlanStep>): boolean {
  const left = new Map(own);
  for (;;) {
    const free = [...left.values()].filter((s) => s.after.every((a) => !left.has(a.stepId)));
    if (free.length === 0) return left.size > 0;
    for (const s of free) left.delete(s.id);
  }
}

function needFault({ resources }: PlanProblem, lot: PlanLot, s: PlanStep): PlanFault | undefined {
  const begun = lot.holds.filter((h) => h.fromStepId === s.id).flatMap((h) => h.resourceIds);
  const named = new Set(begun);
  for (const need of s.needs) {
    if (need.options.length === 0) return { code: 'nothingFor', step: s.title };
    for (const { resourceId } of need.options) {
      const thing = resources.find((r) => r.id === resourceId);
      if (!thing) return { code: 'unknown', id: resourceId };
      if (thing.capacity < need.amount || named.has(resourceId))
        return { code: 'tooMuch', step: s.title, thing: thing.name };
    }
    for (const { resourceId } of need.options) named.add(resourceId);
  }
  if (s.fixed && s.fixed.resourceIds.length !== s.needs.length) return { code: 'nothingFor', step: s.title };
  const unknown = s.fixed?.resourceIds.find((id) => !resources.some((r) => r.id === id));
  return unknown === undefined ? undefined : { code: 'unknown', id: unknown };
}

function handsFault(problem: PlanProblem, s: PlanStep): PlanFault | undefined {
  const touch = s.watched ? leastLength(s) : Math.max(s.beginHandsMin, s.endHandsMin);
  if (touch > 0) {
    const may = problem.people.filter((p) => s.hazards.every((h) => p.may.includes(h)));
    if (may.length === 0 && s.hazards.length > 0) return { code: 'nobodyMay', step: s.title, hazards: s.hazards };
    const longest = Math.max(0, ...may.map(longestHours));
    if (touch > longest) return { code: 'longerThanHours', step: s.title, minutes: touch, longest };
  }
  const longest = longestSpan(tidySpans(problem.open));
  if (!s.watched && !s.overnight && s.aloneMin > longest)
    return { code: 'longerThanOpen', step: s.title, minutes: s.aloneMin, longest };
  return undefined;
}

const longestHours = (p: PlanPerson): number => longestSpan(tidySpans([...p.hours, ...p.evenings]));

function holdFault(
  { resources }: PlanProblem,
  lot: PlanLot,
  own: ReadonlyMap<string, PlanStep>,
  hold: PlanHold,
): PlanFault | undefined {
  const from = own.get(hold.fromStepId);
  const to = own.get(hold.toStepId);
  if (!from || !to) return { code: 'unknown', id: from ? hold.toStepId : hold.fromStepId };
  if (hold.resourceIds.length === 0) return { code: 'nothingFor', step: from.title };
  for (const id of [...hold.resourceIds, ...(hold.fixedTo === null ? [] : [hold.fixedTo])]) {
    const thing = resources.find((r) => r.id === id);
    if (!thing) return { code: 'unknown', id };
    if (thing.capacity < hold.amount) return { code: 'tooMuch', step: from.title, thing: thing.name };
  }
  return from === to || comesBefore(own, from, to) ? undefined : { code: 'holdEnds', lot: lot.name, step: to.title };
}

function comesBefore(own: ReadonlyMap<string, PlanStep>, from: PlanStep, to: PlanStep): boolean {
  const seen = new Set<string>();
  const open = [to];
  for (let s = open.pop(); s; s = open.pop())
    for (const a of s.after) {
      if (a.stepId === from.id) return true;
      const before = own.get(a.stepId);
      if (!before || seen.has(before.id)) continue;
      seen.add(before.id);
      open.push(before);
    }
  return false;
}
