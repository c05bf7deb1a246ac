import type { Lab } from '../colour/lab';
import { differenceMetric } from './difference-metric';
import type { Dyeing } from './dyeing';
import type { Lever, ShelfMaterial } from './levers';
import { addedLever, ownLevers, pulled } from './levers';
import { shadeFor } from './forward';
import type { Posterior } from './posterior';
import type { Prediction } from './predict';
import { expectedDifference, predict } from './predict';
import type { Penalty } from './turn-levers';
import { turnLevers } from './turn-levers';

/** What may be turned to come nearer to a standard. */
export interface CorrectWithin {
  readonly shelf: readonly ShelfMaterial[];
  readonly waters: readonly Dyeing['water'][];
  /** The most of a material that may go in, as a share of the recipe’s dose. */
  readonly mostShare?: number;
  readonly day?: string | null;
}

/** One way to dye it, with what it is to come to. */
export interface Correction {
  readonly dyeing: Dyeing;
  readonly prediction: Prediction;
  /** The difference from the standard that is to be expected with everything that is unsure, ΔE00. */
  readonly expectedDeltaE: number;
  /** How much is turned: what a dyer would rather leave alone. */
  readonly effort: number;
  readonly how: 'unchanged' | 'doses' | 'jars' | 'time' | 'addition' | 'water';
}

const [LEAST_SHARE, MOST_SHARE] = [0.25, 2];
/** To shade with another dyestuff takes a little of it; of more nobody knows what it does there. A share of its usual dose. */
const MOST_ADDED = 0.1;
/** Logarithms of the stay in the dye against what is planned. */
const [SHORTEST_TIME, LONGEST_TIME] = [-0.4, 0.5];
const TURN = { dose: 0.45, mordant: 0.25, otherJar: 0.8, addition: 0.5, time: 0.4 } as const;

function penaltiesOf(levers: readonly Lever[]): Penalty[] {
  const groups = new Map<string, number[]>();
  const penalties: Penalty[] = [];
  levers.forEach((lever, i) => {
    const only = levers.map((_, k) => (k === i ? 1 : 0));
    if (lever.kind === 'time') penalties.push({ weights: only, wanted: 0, sd: TURN.time });
    else if (!lever.isOwn) penalties.push({ weights: only, wanted: 0, sd: TURN.addition });
    else {
      const key = `${lever.stage}/${lever.materialId}`;
      groups.set(key, [...(groups.get(key) ?? []), i]);
      if (lever.from === 0) penalties.push({ weights: only, wanted: 0, sd: TURN.otherJar });
    }
  });
  for (const own of groups.values()) {
    const [first] = own.map((i) => levers[i]);
    const sd = first?.kind === 'dose' && first.role === 'mordant' ? TURN.mordant : TURN.dose;
    penalties.push({ weights: levers.map((_, k) => (own.includes(k) ? 1 : 0)), wanted: 1, sd });
  }
  return penalties;
}

/** How a set of levers is turned. */
function turn(
  posterior: Posterior,
  plan: Dyeing,
  levers: readonly Lever[],
  standard: Lab,
  { mostShare = MOST_SHARE, day = null }: CorrectWithin,
): number[] {
  const low = levers.map((lever) => {
    if (lever.kind === 'time') return SHORTEST_TIME;
    const isOnly = (l: Lever): boolean => l === lever || l.kind === 'time' || l.materialId !== lever.materialId;
    return lever.isOwn && levers.every(isOnly) ? LEAST_SHARE : 0;
  });
  const high = levers.map((l) => (l.kind === 'time' ? LONGEST_TIME : l.isOwn ? mostShare : MOST_ADDED));
  return turnLevers({
    standard,
    from: levers.map((l) => l.from),
    low,
    high,
    penalties: penaltiesOf(levers),
    shade: (at) => shadeFor(posterior, pulled(plan, levers, at), day),
  });
}

function told(
  posterior: Posterior,
  plan: Dyeing,
  levers: readonly Lever[],
  at: readonly number[],
  standard: Lab,
  how: Correction['how'],
  day: string | null,
): Correction {
  const dyeing = how === 'unchanged' ? plan : pulled(plan, levers, at);
  const prediction = predict(posterior, dyeing, { day });
  const effort = Math.sqrt(
    penaltiesOf(levers).reduce(
      (sum, { weights, wanted, sd }) =>
        sum + ((weights.reduce((s, w, i) => s + w * (at[i] ?? 0), 0) - wanted) / sd) ** 2,
      0,
    ),
  );
  return {
    dyeing,
    prediction,
    effort: how === 'unchanged' ? 0 : effort,
    how,
    expectedDeltaE: expectedDifference(standard, prediction.lab, prediction.covariance),
  };
}

/** Small shares of a jar are no use to anybody: what lies below this of its dose is left out, and the rest turned again. */
const WORTH_TAKING = { own: 0.12, added: 0.015 } as const;
/** A dose turned by less than this share is left as the recipe has it. */
const HAIR = 0.03;
function isWorthTurning(lever: Lever, at: number): boolean {
  if (lever.kind === 'time') return Math.abs(at) >= HAIR;
  if (lever.from === 0) return at >= (lever.isOwn ? WORTH_TAKING.own : WORTH_TAKING.added);
  return lever.from < 1 || Math.abs(at - 1) >= HAIR;
}
/** What is given up for one thing less to turn, ΔE00. */
const SIMPLER = 0.04;
/** Of what can be left alone by itself, what is turned least; none where only one thing is turned. */
function leastTurned(levers: readonly Lever[], at: readonly number[]): Lever | undefined {
  if (levers.length < 2) return undefined;
  const alone = levers.flatMap((lever, i): { lever: Lever; by: number }[] => {
    if (lever.kind === 'time') return [{ lever, by: Math.abs(at[i] ?? 0) / TURN.time }];
    const isAlone = levers.every((l) => l === lever || l.kind === 'time' || l.materialId !== lever.materialId);
    if (!lever.isOwn || !isAlone || lever.from !== 1) return [];
    return [{ lever, by: Math.abs((at[i] ?? 0) - 1) / (lever.role === 'mordant' ? TURN.mordant : TURN.dose) }];
  });
  return alone.sort((x, y) => x.by - y.by)[0]?.lever;
}
const PARTS = [1, 0.75, 0.5];
const ADDED_TRIED = 4;
/** A way with more to it has to be better by this, ΔE00. */
/** Whatever is changed has to promise clearly more than the recipe as it is: a share of what that is expected to miss by. */
const CLEARLY = 0.1;
const EXTRA: Readonly<Record<Correction['how'], number>> = {
  unchanged: 0,
  doses: 0.05,
  jars: 0.1,
  time: 0.1,
  addition: 0.14,
  water: 0.15,
};

/**
 * Ways to come nearest to a standard with what is on the shelf, best first; the recipe unchanged is always among them.
 * Each is judged by the difference to be expected with everything that is unsure, so that what nobody has tried is not
 * preferred for looking good on paper.
 */
export function correct(posterior: Posterior, plan: Dyeing, standard: Lab, within: CorrectWithin): Correction[] {
  const day = within.day ?? null;
  const found: Correction[] = [];
  /** Part of the way is often surer than all of it. */
  const surest = (from: Dyeing, levers: readonly Lever[], at: readonly number[], how: Correction['how']): Correction =>
    PARTS.map((part) => at.map((v, i) => (levers[i]?.from ?? 0) + part * (v - (levers[i]?.from ?? 0))))
      .map((some) => told(posterior, from, levers, some, standard, how, day))
      .reduce((best, way) => (way.expectedDeltaE < best.expectedDeltaE ? way : best));
  const tried = (from: Dyeing, levers: readonly Lever[], how: Correction['how']): void => {
    const first = turn(posterior, from, levers, standard, within);
    let kept = levers.filter((l, i) => isWorthTurning(l, first[i] ?? 0));
    let at = kept.length === levers.length ? first : turn(posterior, from, kept, standard, within);
    let way = surest(from, kept, at, how);
    // What does little is left as the recipe has it: a dyer would rather turn one thing than four.
    for (;;) {
      const least = leastTurned(kept, at);
      if (least === undefined) break;
      const fewer = kept.filter((l) => l !== least);
      const simpler = turn(posterior, from, fewer, standard, within);
      const next = surest(from, fewer, simpler, how);
      if (next.expectedDeltaE > way.expectedDeltaE + SIMPLER) break;
      [kept, at, way] = [fewer, simpler, next];
    }
    found.push(way);
  };
  found.push(told(posterior, plan, [], [], standard, 'unchanged', day));
  const own = ownLevers(plan, within.shelf, false);
  const jars = ownLevers(plan, within.shelf, true);
  tried(plan, own, 'doses');
  if (jars.length > own.length) tried(plan, jars, 'jars');
  const time: Lever = { kind: 'time', from: 0 };
  tried(plan, [...jars, time], 'time');
  const taken = new Set(plan.doses.map((d) => d.materialId));
  const addable = within.shelf.filter((m) => !taken.has(m.materialId) && m.role !== 'mordant' && m.jars.length > 0);
  const ranked = addable
    .map((m) => {
      const jar = m.jars.at(-1);
      const lever = jar && addedLever(m.role === 'modifier' ? 'modifier' : 'dye', m, jar);
      return lever && { lever, worth: turnedWorth(posterior, plan, [...own, lever], standard, within) };
    })
    .flatMap((r) => (r ? [r] : []))
    .sort((x, y) => x.worth - y.worth)
    .slice(0, ADDED_TRIED);
  for (const { lever } of ranked) tried(plan, [...jars, lever], 'addition');
  for (const water of within.waters) {
    if (water.id === plan.water.id) continue;
    tried({ ...plan, water }, jars, 'water');
  }
  const [unchanged] = found;
  const worth = (way: Correction): number =>
    way.how === 'unchanged' || !unchanged
      ? way.expectedDeltaE
      : way.expectedDeltaE + EXTRA[way.how] + CLEARLY * unchanged.expectedDeltaE;
  return found.sort((x, y) => worth(x) - worth(y));
}

/** How near a set of levers could come, without what is unsure: for a first choice. */
function turnedWorth(
  posterior: Posterior,
  plan: Dyeing,
  levers: readonly Lever[],
  standard: Lab,
  within: CorrectWithin,
): number {
  const at = turn(posterior, plan, levers, standard, within);
  const lab = shadeFor(posterior, pulled(plan, levers, at), within.day ?? null);
  const d = [lab.L - standard.L, lab.a - standard.a, lab.b - standard.b];
  return Math.hypot(...differenceMetric(standard).map((m) => m.reduce((sum, w, i) => sum + w * (d[i] ?? 0), 0)));
}
