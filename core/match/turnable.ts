import type { DeltaEFormula } from '../colour/delta-e';
import type { Dyeing } from './dyeing';
import type { Lever, ShelfMaterial } from './levers';
import { addedLever, ownLevers } from './levers';
import type { Penalty } from './turn-levers';

/** What may be turned to come nearer to a standard. */
export interface CorrectWithin {
  readonly shelf: readonly ShelfMaterial[];
  readonly waters: readonly Dyeing['water'][];
  /** Lots of the base that hold enough for it. */
  readonly baseLots?: readonly BaseLot[];
  /** In how many dips it is dyed; 1: it stays in. */
  readonly dips?: number;
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

/** A lot of the base, with what it looks like before anything is done to it. */
export type BaseLot = Pick<Dyeing, 'baseLotId' | 'undyed'>;

/** What kind of way it is: by what of it is the most trouble. */
export type WayKind = 'unchanged' | 'doses' | 'jars' | 'time' | 'addition' | 'water' | 'baseLot';

/** The least and the most of a material, as a share of the recipe’s dose, where nothing else is said. */
export const [LEAST_SHARE, MOST_SHARE] = [0.25, 2];
/** To shade with another dyestuff takes a little of it; of more nobody knows what it does there. A share of its usual dose. */
const MOST_ADDED = 0.1;
/** Logarithms of the stay in the dye against what is planned. */
const [SHORTEST_TIME, LONGEST_TIME] = [-0.4, 0.5];
const TURN = { dose: 0.45, mordant: 0.25, otherJar: 0.8, addition: 0.5, time: 0.4 } as const;

/** What holds each lever back. */
export function penaltiesOf(levers: readonly Lever[]): Penalty[] {
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

/** In which water, and on which lot of the base; how that is called where it isn’t as planned. */
interface Surroundings extends BaseLot {
  readonly water: Dyeing['water'];
  readonly other: 'water' | 'baseLot' | null;
}

/** As planned, in each other water, and on each other lot of the base. */
export function surroundingsOf(
  plan: Dyeing,
  { waters, baseLots = [], isStruckOff = false }: CorrectWithin,
): Surroundings[] {
  const { water, baseLotId, undyed } = plan;
  const asPlanned: Surroundings = { water, baseLotId, undyed, other: null };
  return [
    asPlanned,
    ...waters.filter((w) => w.id !== water.id).map((w) => ({ ...asPlanned, water: w, other: 'water' as const })),
    // Another lot of the base would need a strike-off of its own.
    ...(isStruckOff ? [] : baseLots)
      .filter((b) => b.baseLotId !== baseLotId)
      .map((b) => ({ ...asPlanned, ...b, other: 'baseLot' as const })),
  ];
}

/** A plan, somewhere, with everything that can be turned about it. */
export interface Turnable {
  readonly plan: Dyeing;
  readonly other: Surroundings['other'];
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

/** Everything that can be turned about a plan there. */
export function turnable(plan: Dyeing, { other, ...around }: Surroundings, within: CorrectWithin): Turnable {
  const { shelf, mostShare = MOST_SHARE, fixed = [], dips = 1, isStruckOff = false } = within;
  const taken = new Set(plan.doses.map((d) => d.materialId));
  // What wasn’t in the strike-off would need one of its own.
  const added = (isStruckOff ? [] : shelf)
    .filter((m) => ![...taken, ...fixed].includes(m.materialId) && m.role !== 'mordant' && m.role !== 'assistant')
    .flatMap((m) => {
      const jar = m.jars.at(-1);
      return jar ? [addedLever(m.role === 'modifier' ? 'modifier' : 'dye', m, jar)] : [];
    });
  const own = ownLevers(plan, shelf, true).filter((l) => l.kind === 'time' || !fixed.includes(l.materialId));
  const levers: Lever[] = [...own, { kind: 'time', from: 0, dips }, ...added];
  return {
    plan: { ...plan, ...around },
    other,
    levers,
    low: levers.map((l) => (l.kind === 'time' ? SHORTEST_TIME : isAlone(l, own) ? LEAST_SHARE : 0)),
    high: levers.map((l) =>
      l.kind === 'time' ? LONGEST_TIME : Math.min(l.isOwn ? mostShare : MOST_ADDED, heldShare(l, within.mostPercent)),
    ),
  };
}

/** A material of the recipe is never left out, nor taken more than may go in, out of however many jars. */
export function isWithin({ levers }: Turnable, at: readonly number[], mostShare: number): boolean {
  const sums = new Map<string, number>();
  levers.forEach((l, i) => {
    if (l.kind === 'dose' && l.isOwn) sums.set(materialOf(l), (sums.get(materialOf(l)) ?? 0) + (at[i] ?? 0));
  });
  return [...sums.values()].every((sum) => sum >= LEAST_SHARE - HARDLY && sum <= mostShare + HARDLY);
}

const isOtherJar = (l: Lever): boolean => l.kind === 'dose' && l.isOwn && l.from === 0;

/** What kind of way it is with these levers turned. */
export function howOf({ other, levers }: Turnable, chosen: readonly number[]): WayKind {
  const some = chosen.flatMap((i) => levers[i] ?? []);
  if (other) return other;
  if (some.some((l) => l.kind === 'dose' && !l.isOwn)) return 'addition';
  if (some.some((l) => l.kind === 'time')) return 'time';
  if (some.some(isOtherJar)) return 'jars';
  return some.length === 0 ? 'unchanged' : 'doses';
}

const WORTH_TAKING = { own: 0.12, added: 0.015 } as const;
const HAIR = 0.03;
/** Small shares of a jar are no use to anybody, and a dose turned by a hair is left as the recipe has it. */
export function isWorthTurning(lever: Lever, at: number): boolean {
  if (lever.kind === 'time') return Math.abs(at) >= HAIR;
  if (lever.from === 0) return at >= (lever.isOwn ? WORTH_TAKING.own : WORTH_TAKING.added);
  return at === 0 || (at >= WORTH_TAKING.own && Math.abs(at - lever.from) >= HAIR);
}

/** Where a lever is held that can’t stand everywhere: at whole dips, and at nothing of a jar that is nearly emptied. */
export function heldAt(lever: Lever, at: number, low: number): number | null {
  if (lever.kind === 'time') {
    const { dips = 1 } = lever;
    return dips === 1 ? null : Math.log(Math.max(1, Math.round(dips * Math.exp(at))) / dips);
  }
  return lever.isOwn && lever.from > 0 && low === 0 && at < WORTH_TAKING.own ? 0 : null;
}

/** One thing to turn: a lever by itself, or how much of a material comes out of which of two jars. */
function thingsOf({ levers }: Turnable): number[][] {
  const jarsOf = (own: Lever): number[] =>
    own.kind === 'dose' && own.isOwn && own.from > 0
      ? levers.flatMap((l, k) => (l.kind === 'dose' && isOtherJar(l) && materialOf(l) === materialOf(own) ? [k] : []))
      : [];
  return [...levers.map((_, i) => [i]), ...levers.flatMap((l, i) => jarsOf(l).map((k) => [i, k]))];
}

/** All sets of levers that are up to so many things, with no two dyestuffs added. */
export function setsOf(t: Turnable, most: number): number[][] {
  const things = thingsOf(t);
  const sets = new Map<string, number[]>();
  const grow = (set: readonly number[], from: number, count: number, hasAdded: boolean): void => {
    for (let i = from; i < things.length; i += 1) {
      const thing = things[i] ?? [];
      const isAdded = thing.some((k) => {
        const l = t.levers[k];
        return l?.kind === 'dose' && !l.isOwn;
      });
      if ((isAdded && hasAdded) || thing.some((k) => set.includes(k))) continue;
      const next = [...set, ...thing].sort((x, y) => x - y);
      sets.set(next.join(), next);
      if (count + 1 < most) grow(next, i + 1, count + 1, hasAdded || isAdded);
    }
  };
  grow([], 0, 0, false);
  return [...sets.values()];
}
