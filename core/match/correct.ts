import type { Lab } from '../colour/lab';
import type { Dyeing } from './dyeing';
import type { Lever } from './levers';
import { pulled } from './levers';
import type { Posterior } from './posterior';
import type { Prediction } from './predict';
import { expectedDifference, foresee, predictFrom } from './predict';
import { afterStrikeOff } from './strike-off-worth';
import type { Judged } from './straighten';
import { gramOf, leastSquare, straighten } from './straighten';
import type { CorrectWithin, Turnable, WayKind } from './turnable';
import {
  MOST_SHARE,
  heldAt,
  howOf,
  isWithin,
  isWorthTurning,
  penaltiesOf,
  setsOf,
  surroundingsOf,
  turnable,
} from './turnable';

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
  readonly how: WayKind;
}

/** A way with more to it has to be better by this, ΔE00: for the kind it is, and for each thing that is turned. */
const EXTRA: Readonly<Record<WayKind, number>> = {
  unchanged: 0,
  doses: 0.05,
  jars: 0.1,
  time: 0.1,
  addition: 0.14,
  water: 0.15,
  baseLot: 0.15,
};
const EACH = 0.04;
/** Whatever is changed has to promise clearly more than the recipe as it is: a share of what that is expected to miss by. */
const CLEARLY = 0.1;
/** After a strike-off trouble counts so much less. */
const STRUCK_OFF_TROUBLE = 0.3;
/** So many things at the most are turned at once. */
const MOST_TURNED = 3;
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

/**
 * The same as it can be weighed and dyed: whole dips where it is dyed in dips, and of a jar that hardly anything is left of
 * nothing. The rest is turned anew.
 */
function asItCanBeDyed(
  judged: Judged,
  t: Turnable,
  chosen: readonly number[],
  at: readonly number[],
  risk: number,
): readonly number[] {
  const held = new Map(
    chosen.flatMap((i) => {
      const lever = t.levers[i];
      const value = lever && heldAt(lever, at[i] ?? 0, t.low[i] ?? 0);
      return value === null || value === undefined ? [] : [[i, value] as const];
    }),
  );
  if (held.size === 0) return at;
  const begin = at.map((v, i) => held.get(i) ?? v);
  const rest = chosen.filter((i) => !held.has(i));
  return rest.length === 0 ? begin : turned(judged, t, rest, begin, risk);
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
    const asPlanned = Math.sqrt(gram[0] ?? 0);
    const ranked = sets
      .map(({ chosen, how }) => {
        const { move, square } = leastSquare(gram, chosen, low, high);
        return { chosen, how, move, worth: Math.sqrt(square) + EXTRA[how] + EACH * chosen.length };
      })
      // What promises no more than is lost by the trouble isn’t looked at closely.
      .filter(({ worth }) => worth < asPlanned)
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
      const at = asItCanBeDyed(judged, t, chosen, turned(judged, t, chosen, begin, risk), risk);
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
    const foreseen = foresee(posterior, dyeing, day);
    const prediction = predictFrom(posterior, foreseen);
    return {
      dyeing,
      prediction,
      how,
      turns,
      expectedDeltaE: expectedDifference(standard, prediction.lab, prediction.covariance, formula),
      afterStrikeOffDeltaE: afterStrikeOff(posterior, foreseen, standard, formula),
    };
  };
  const unchanged = told(plan, 'unchanged', 0);
  const found: Correction[] = [unchanged];
  for (const around of surroundingsOf(plan, within)) {
    const t = turnable(plan, around, within);
    if (t.other) found.push(told(t.plan, t.other, 0));
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

/** What a strike-off is to show is only nearly straight: the further off it may lie, the less is sure of what comes after. */
const BOLD = 0.1;

/** Of ways, the one to dye a strike-off of: what it comes to once that was read, and what is more trouble counted. */
export function wayToStrikeOff(ways: readonly Correction[]): Correction | undefined {
  const worth = (way: Correction): number =>
    way.afterStrikeOffDeltaE + BOLD * way.expectedDeltaE + EXTRA[way.how] / 2 + (EACH / 2) * way.turns;
  return [...ways].sort((x, y) => worth(x) - worth(y))[0];
}
