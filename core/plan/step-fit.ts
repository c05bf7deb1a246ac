import type { Compiled, CompiledStep, Way } from './compile-problem';
import { neededUntil } from './plan-problem';
import { earliestWithin, liesWithin } from './spans';
import type { Timeline } from './timeline';

/** Where a step fits: its moments, and whose hands. */
export interface StepFit {
  readonly startMin: number;
  readonly aloneFromMin: number;
  readonly aloneToMin: number;
  readonly endMin: number;
  readonly beginBy: number | undefined;
  readonly endBy: number | undefined;
  readonly outOfHours: number;
}

/** What is in use while a step looks for its place. */
export interface InUse {
  readonly resources: readonly Timeline[];
  readonly people: readonly Timeline[];
}

/** Of no hands, of those that begin a step, of those that end it, or both, as bits. */
export type Evenings = number;
/** Of those that begin it. */
export const EVENING_BEGINS = 1;
/** Of those that end it. */
export const EVENING_ENDS = 2;

/** What a step is asked to keep to beside its own rules. */
export interface FitAsked {
  /** It begins no earlier. */
  readonly fromMin: number;
  /** It ends no earlier. */
  readonly endFromMin: number;
  /** Which hands may be asked for out of hours. */
  readonly evenings: Evenings;
  /** Whose hands alone begin and end it, by number; -1: whoever is free first. */
  readonly beginBy: number;
  readonly endBy: number;
}

interface Hands {
  readonly person: number;
  readonly at: number;
}

/**
 * The earliest place a step fits in one of its ways, given all that stands already; nothing where there is none before
 * the horizon. Each refusal moves the beginning on to when what refused it ends, so none is passed over.
 */
export function fitStep(c: Compiled, s: CompiledStep, way: Way, use: InUse, asked: FitAsked): StepFit | undefined {
  const { step } = s;
  const alone = step.aloneMin + way.extraMin;
  const longest = step.aloneMaxMin === null ? Infinity : Math.max(step.aloneMaxMin, step.aloneMin) + way.extraMin;
  let at = asked.fromMin;
  for (;;) {
    if (at + step.beginHandsMin + alone + step.endHandsMin > c.problem.horizonMin) return undefined;
    const fit = step.watched
      ? fitWatched(c, s, alone, use, asked, at)
      : fitLeftAlone(c, s, alone, longest, use, asked, at);
    if (typeof fit === 'number') {
      if (!(fit > at)) throw new RangeError('a step looks for its place at one moment twice');
      at = fit;
      continue;
    }
    if (fit.endMin > c.problem.horizonMin) return undefined;
    const until = blockedUntil(c, s, way, use, fit);
    if (until === undefined) return fit;
    at = until;
  }
}

/** Same hands from its beginning to its end. A number: no place before that moment. */
function fitWatched(
  c: Compiled,
  s: CompiledStep,
  alone: number,
  use: InUse,
  asked: FitAsked,
  at: number,
): StepFit | number {
  const { step } = s;
  const length = step.beginHandsMin + alone + step.endHandsMin;
  const hands = earliestHands(c, s, use, asked, EVENING_BEGINS, at, length);
  const startMin = hands?.at ?? Infinity;
  const endMin = startMin + length;
  if (endMin < asked.endFromMin) return startMin + (asked.endFromMin - endMin);
  return {
    startMin,
    aloneFromMin: startMin + step.beginHandsMin,
    aloneToMin: endMin - step.endHandsMin,
    endMin,
    beginBy: hands?.person,
    endBy: hands?.person,
    outOfHours: hands && !liesWithin(c.hours[hands.person] ?? [], startMin, endMin) ? 1 : 0,
  };
}

/** Hands at its beginning, hands at its end. A number: no place before that moment. */
function fitLeftAlone(
  c: Compiled,
  s: CompiledStep,
  alone: number,
  longest: number,
  use: InUse,
  asked: FitAsked,
  at: number,
): StepFit | number {
  const { step } = s;
  const none = { person: undefined, at };
  const begin = step.beginHandsMin > 0 ? earliestHands(c, s, use, asked, EVENING_BEGINS, at, step.beginHandsMin) : none;
  if (!begin) return Infinity;
  const aloneFromMin = begin.at + step.beginHandsMin;
  const mustBeOpen = !step.overnight && alone > 0;
  if (mustBeOpen) {
    const opens = earliestWithin(c.open, aloneFromMin, alone);
    if (opens > aloneFromMin) return Math.max(opens - step.beginHandsMin, at + 1);
  }
  const ready = Math.max(aloneFromMin + alone, asked.endFromMin - step.endHandsMin);
  const end =
    step.endHandsMin > 0
      ? earliestHands(c, s, use, asked, EVENING_ENDS, ready, step.endHandsMin)
      : { person: undefined, at: ready };
  if (!end) return Infinity;
  if (end.at - aloneFromMin > longest) return Math.max(end.at - longest - step.beginHandsMin, at + 1);
  if (mustBeOpen && !liesWithin(c.open, aloneFromMin, end.at)) {
    const closes = c.open.find(([, to]) => to > aloneFromMin)?.[1] ?? Infinity;
    return Math.max(earliestWithin(c.open, closes, alone) - step.beginHandsMin, at + 1);
  }
  const isOut = (hands: { person: number | undefined; at: number }, length: number): number =>
    hands.person !== undefined && !liesWithin(c.hours[hands.person] ?? [], hands.at, hands.at + length) ? 1 : 0;
  return {
    startMin: begin.at,
    aloneFromMin,
    aloneToMin: end.at,
    endMin: end.at + step.endHandsMin,
    beginBy: begin.person,
    endBy: end.person,
    outOfHours: isOut(begin, step.beginHandsMin) + isOut(end, step.endHandsMin),
  };
}

/**
 * Whoever of those who may has both hands free first, in their hours. Of several at the same moment whoever can be
 * spared elsewhere, and of those whoever has least to do.
 */
function earliestHands(
  c: Compiled,
  s: CompiledStep,
  use: InUse,
  asked: FitAsked,
  which: Evenings,
  at: number,
  length: number,
): Hands | undefined {
  const only = which === EVENING_BEGINS ? asked.beginBy : asked.endBy;
  let best: Hands | undefined;
  for (const person of s.people) {
    if (only >= 0 && only !== person) continue;
    const spans = ((asked.evenings & which) > 0 ? c.anyHours : c.hours)[person] ?? [];
    const busy = use.people[person];
    for (let moment = at; ;) {
      const there = earliestWithin(spans, moment, length);
      if (there === Infinity || (best && (there > best.at || (there === best.at && !isSpared(c, use, person, best)))))
        break;
      const free = busy?.earliestFree(there, length) ?? there;
      if (free === there) {
        best = { person, at: there };
        break;
      }
      moment = free;
    }
  }
  return best;
}

/** Whether somebody goes before another who is free at the same moment. */
function isSpared(c: Compiled, use: InUse, person: number, { person: other }: Hands): boolean {
  const may = (who: number): number => c.problem.people[who]?.may.length ?? 0;
  return may(person) === may(other) && (use.people[person]?.many ?? 0) < (use.people[other]?.many ?? 0);
}

/** When the first thing it needs, and doesn't get, is free again. A hold wants its thing for as long as it lasts at least. */
function blockedUntil(c: Compiled, s: CompiledStep, way: Way, use: InUse, fit: StepFit): number | undefined {
  for (let i = 0; i < way.needs.length; i += 1) {
    const need = s.step.needs[i];
    const until = use.resources[way.needs[i] ?? -1]?.blockedUntil(
      fit.startMin,
      neededUntil(need, fit),
      need?.amount ?? 1,
    );
    if (until !== undefined) return until;
  }
  for (let i = 0; i < way.holds.length; i += 1) {
    const hold = c.holds[s.begins[i] ?? -1];
    const to = Math.max(fit.endMin, fit.startMin + (hold?.leastMin ?? 0));
    const until = use.resources[way.holds[i] ?? -1]?.blockedUntil(fit.startMin, to, hold?.hold.amount ?? 1);
    if (until !== undefined) return until;
  }
  return undefined;
}
