import type { DeltaEFormula } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import type { Dyeing } from './dyeing';
import type { Lever, ShelfMaterial } from './levers';
import { addedLever, ownLevers, pulled } from './levers';
import type { Posterior } from './posterior';
import type { Prediction } from './predict';
import { expectedDifference, predict } from './predict';
import { afterStrikeOff } from './strike-off-worth';
import type { Judged } from './straighten';
import { gramOf, leastSquare, straighten } from './straighten';
import type { Penalty } from './turn-levers';

/** What may be turned to come nearer to a standard. */
export interface CorrectWithin {
  readonly shelf: readonly ShelfMaterial[];
  readonly waters: readonly Dyeing['water'][];
  /** The most of a material that may go in, as a share of the recipe’s dose. */
  readonly mostShare?: number;
  /** The most that each jar holds, % of the fibre; no bound where a jar isn’t named. */
  readonly mostPercent?: ReadonlyMap<string, number>;
  /** Materials that are taken as they are: counted packets, a vat that stands there. */
  readonly fixed?: readonly string[];
  /** What the colourway is judged by; CIEDE2000 where nothing is said. */
  readonly formula?: DeltaEFormula;
  readonly day?: string | null;
  /** A strike-off of the plan was read: what is changed now is small, and known to be needed. */
  readonly isStruckOff?: boolean;
}

/** One way to dye it, with what it is to come to. */
export interface Correction {
  readonly dyeing: Dyeing;
  readonly prediction: Prediction;
  /** The difference from the standard that is to be expected with everything that is unsure, by its formula. */
  readonly expectedDeltaE: number;
  /** The same once a strike-off of it was dyed and read, and what it showed was made up for. */
  readonly afterStrikeOffDeltaE: number;
  /** How many things are turned: what a dyer would rather leave alone. */
  readonly turns: number;
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
      groups.set(materialOf(lever), [...(groups.get(materialOf(lever)) ?? []), i]);
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

const HARDLY = 1e-9;
const materialOf = (l: Lever & { kind: 'dose' }): string => `${l.stage}/${l.materialId}`;

/** A plan, in one water, with everything that can be turned about it. */
interface Turnable {
  readonly plan: Dyeing;
  readonly isOtherWater: boolean;
  readonly levers: readonly Lever[];
  readonly low: readonly number[];
  readonly high: readonly number[];
}

/** Whether nothing else gives of the same material. */
const isAlone = (lever: Lever & { kind: 'dose' }, own: readonly Lever[]): boolean =>
  lever.isOwn && own.every((l) => l === lever || l.kind === 'time' || materialOf(l) !== materialOf(lever));

/** How far a dose may go by what its jar holds; what is planned out of it can be weighed anyway. */
function heldShare(l: Lever & { kind: 'dose' }, mostPercent: CorrectWithin['mostPercent']): number {
  const [jar] = l.jars;
  const most = jar && mostPercent?.get(jar.stockLotId);
  return most === undefined ? Infinity : Math.max(l.from, most / l.unitPercent);
}

function turnable(plan: Dyeing, water: Dyeing['water'], within: CorrectWithin): Turnable {
  const { shelf, mostShare = MOST_SHARE, fixed = [], isStruckOff = false } = within;
  const taken = new Set(plan.doses.map((d) => d.materialId));
  // What wasn’t in the strike-off would need one of its own.
  const added = (isStruckOff ? [] : shelf)
    .filter((m) => ![...taken, ...fixed].includes(m.materialId) && m.role !== 'mordant' && m.role !== 'assistant')
    .flatMap((m) => {
      const jar = m.jars.at(-1);
      return jar ? [addedLever(m.role === 'modifier' ? 'modifier' : 'dye', m, jar)] : [];
    });
  const own = ownLevers(plan, shelf, true).filter((l) => l.kind === 'time' || !fixed.includes(l.materialId));
  const levers: Lever[] = [...own, { kind: 'time', from: 0 }, ...added];
  return {
    plan: { ...plan, water },
    isOtherWater: water.id !== plan.water.id,
    levers,
    low: levers.map((l) => (l.kind === 'time' ? SHORTEST_TIME : isAlone(l, own) ? LEAST_SHARE : 0)),
    high: levers.map((l) =>
      l.kind === 'time' ? LONGEST_TIME : Math.min(l.isOwn ? mostShare : MOST_ADDED, heldShare(l, within.mostPercent)),
    ),
  };
}

/** A material of the recipe is never left out, nor taken more than may go in, out of however many jars. */
function isWithin({ levers }: Turnable, at: readonly number[], mostShare: number): boolean {
  const sums = new Map<string, number>();
  levers.forEach((l, i) => {
    if (l.kind === 'dose' && l.isOwn) sums.set(materialOf(l), (sums.get(materialOf(l)) ?? 0) + (at[i] ?? 0));
  });
  return [...sums.values()].every((sum) => sum >= LEAST_SHARE - HARDLY && sum <= mostShare + HARDLY);
}

const isOtherJar = (l: Lever): boolean => l.kind === 'dose' && l.isOwn && l.from === 0;

function howOf({ isOtherWater, levers }: Turnable, chosen: readonly number[]): Correction['how'] {
  const some = chosen.flatMap((i) => levers[i] ?? []);
  if (isOtherWater) return 'water';
  if (some.some((l) => l.kind === 'dose' && !l.isOwn)) return 'addition';
  if (some.some((l) => l.kind === 'time')) return 'time';
  if (some.some(isOtherJar)) return 'jars';
  return some.length === 0 ? 'unchanged' : 'doses';
}

/** A way with more to it has to be better by this, ΔE00: for the kind it is, and for each thing that is turned. */
const EXTRA: Readonly<Record<Correction['how'], number>> = {
  unchanged: 0,
  doses: 0.05,
  jars: 0.1,
  time: 0.1,
  addition: 0.14,
  water: 0.15,
};
const EACH = 0.04;
/** Whatever is changed has to promise clearly more than the recipe as it is: a share of what that is expected to miss by. */
const CLEARLY = 0.15;
/** After a strike-off trouble counts so much less. */
const STRUCK_OFF_TROUBLE = 0.3;
/** So many things at the most are turned at once. */
const MOST_TURNED = 3;
/** Small shares of a jar are no use to anybody, and a dose turned by a hair is left as the recipe has it. */
const WORTH_TAKING = { own: 0.12, added: 0.015 } as const;
const HAIR = 0.03;
function isWorthTurning(lever: Lever, at: number): boolean {
  if (lever.kind === 'time') return Math.abs(at) >= HAIR;
  if (lever.from === 0) return at >= (lever.isOwn ? WORTH_TAKING.own : WORTH_TAKING.added);
  return at === 0 || (at >= WORTH_TAKING.own && Math.abs(at - lever.from) >= HAIR);
}

/** All sets of up to so many things, with no two dyestuffs added. */
function setsOf({ levers }: Turnable, most: number): number[][] {
  const sets: number[][] = [];
  const grow = (set: readonly number[], from: number, hasAdded: boolean): void => {
    for (let i = from; i < levers.length; i += 1) {
      const l = levers[i];
      const isAdded = l?.kind === 'dose' && !l.isOwn;
      if (isAdded && hasAdded) continue;
      const next = [...set, i];
      sets.push(next);
      if (next.length < most) grow(next, i + 1, hasAdded || isAdded);
    }
  };
  grow([], 0, false);
  return sets;
}

/** What is unsure counts as it is; and a little, where a strike-off is to tell. */
const [AS_IT_IS, TO_BE_STRUCK_OFF] = [1, 0.15];
/** So many ways of each kind are told, and so many tried closely for them. */
const [LOOKED_AT, MOST_TRIED] = [2, 3];
const PASSES = 2;
const SETTLED = 0.01;

/** One set of things turned as far as is best: straight steps, each from where the one before came to. */
function turned(
  judged: Judged,
  t: Turnable,
  chosen: readonly number[],
  begin: readonly number[],
  risk: number,
): readonly number[] {
  let at = begin;
  let best: { at: readonly number[]; square: number } | undefined;
  for (let pass = 0; pass < PASSES; pass += 1) {
    const gram = gramOf(straighten(judged, at, chosen), risk);
    const square = gram[0] ?? 0;
    if (best && square >= best.square) {
      // Too far: half of the way.
      const { at: was } = best;
      return was.map((v, i) => (v + (at[i] ?? 0)) / 2);
    }
    best = { at, square };
    const from = at;
    const { move } = leastSquare(
      gram,
      chosen.map((_, i) => i),
      chosen.map((i) => (t.low[i] ?? 0) - (from[i] ?? 0)),
      chosen.map((i) => (t.high[i] ?? 0) - (from[i] ?? 0)),
    );
    if (move.every((m) => Math.abs(m) < SETTLED)) break;
    at = from.map((v, i) => v + (move[chosen.indexOf(i)] ?? 0));
  }
  return at;
}

/** Ways about one plan that look best when it is made straight, turned as far as is best. */
function waysAbout(
  posterior: Posterior,
  t: Turnable,
  standard: Lab,
  { day = null, mostShare = MOST_SHARE, formula = 'de00', isStruckOff = false }: CorrectWithin,
): { chosen: readonly number[]; at: readonly number[] }[] {
  const judged: Judged = {
    posterior,
    standard,
    formula,
    day,
    penalties: penaltiesOf(t.levers),
    dyeing: (at) => pulled(t.plan, t.levers, at),
  };
  const from = t.levers.map((l) => l.from);
  const straight = straighten(
    judged,
    from,
    t.levers.map((_, i) => i),
  );
  const low = t.low.map((v, i) => v - (from[i] ?? 0));
  const high = t.high.map((v, i) => v - (from[i] ?? 0));
  const sets = setsOf(t, MOST_TURNED).map((chosen) => ({ chosen, how: howOf(t, chosen) }));
  const lookedAt = new Set<string>();
  return (isStruckOff ? [AS_IT_IS] : [AS_IT_IS, TO_BE_STRUCK_OFF]).flatMap((risk) => {
    const gram = gramOf(straight, risk);
    const ranked = sets
      .map(({ chosen, how }) => {
        const { move, square } = leastSquare(gram, chosen, low, high);
        return { chosen, how, move, worth: Math.sqrt(square) + EXTRA[how] + EACH * chosen.length };
      })
      .sort((x, y) => x.worth - y.worth);
    const ofKind = new Map<string, { tried: number; kept: number }>();
    return ranked.flatMap(({ chosen, how, move }) => {
      const seen = ofKind.get(how) ?? { tried: 0, kept: 0 };
      if (seen.kept >= LOOKED_AT || seen.tried >= MOST_TRIED) return [];
      const key = chosen.join();
      const count = (isKept: boolean): void =>
        void ofKind.set(how, { tried: seen.tried + 1, kept: seen.kept + (isKept ? 1 : 0) });
      if (lookedAt.has(key)) {
        count(true);
        return [];
      }
      lookedAt.add(key);
      const begin = from.map((v, i) => v + (move[i] ?? 0));
      const at = turned(judged, t, chosen, begin, risk);
      const isWorth =
        isWithin(t, at, mostShare) && chosen.every((i) => isWorthTurning(t.levers[i] as Lever, at[i] ?? 0));
      count(isWorth);
      return isWorth ? [{ chosen, at }] : [];
    });
  });
}

/**
 * Ways to come nearest to a standard with what is on the shelf, best first; the recipe unchanged is always among them.
 * Each is judged by the difference to be expected with everything that is unsure, so that what nobody has tried is not
 * preferred for looking good on paper.
 */
export function correct(posterior: Posterior, plan: Dyeing, standard: Lab, within: CorrectWithin): Correction[] {
  const { day = null, formula = 'de00' } = within;
  const told = (dyeing: Dyeing, how: Correction['how'], turns: number): Correction => {
    const prediction = predict(posterior, dyeing, { day });
    return {
      dyeing,
      prediction,
      how,
      turns,
      expectedDeltaE: expectedDifference(standard, prediction.lab, prediction.covariance, formula),
      afterStrikeOffDeltaE: afterStrikeOff(posterior, dyeing, standard, day, formula),
    };
  };
  const unchanged = told(plan, 'unchanged', 0);
  const found: Correction[] = [unchanged];
  const waters = [plan.water, ...within.waters.filter((w) => w.id !== plan.water.id)];
  for (const water of waters) {
    const t = turnable(plan, water, within);
    if (t.isOtherWater) found.push(told(t.plan, 'water', 0));
    for (const { chosen, at } of waysAbout(posterior, t, standard, within))
      found.push(told(pulled(t.plan, t.levers, at), howOf(t, chosen), chosen.length));
  }
  // What a strike-off showed needs no more reason than what it costs to turn.
  const [trouble, clearly] = within.isStruckOff ? [STRUCK_OFF_TROUBLE, 0] : [1, CLEARLY];
  const worth = (way: Correction): number =>
    way.how === 'unchanged'
      ? way.expectedDeltaE
      : way.expectedDeltaE + trouble * (EXTRA[way.how] + EACH * way.turns) + clearly * unchanged.expectedDeltaE;
  return found.sort((x, y) => worth(x) - worth(y));
}

/** Of ways, the one to dye a strike-off of: what it comes to once that was read, and what is more trouble counted. */
export function wayToStrikeOff(ways: readonly Correction[]): Correction | undefined {
  const worth = (way: Correction): number => way.afterStrikeOffDeltaE + EXTRA[way.how] / 2 + (EACH / 2) * way.turns;
  return [...ways].sort((x, y) => worth(x) - worth(y))[0];
}
