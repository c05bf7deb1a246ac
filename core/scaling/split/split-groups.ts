import type { Vessel } from '../../bath/vessel';
import { splitBatches } from './split-batches';

/** Pieces that are alike among themselves; what they push aside, ml per g of dry fibre. */
export interface PieceGroup {
  readonly pieces: number;
  readonly pieceWeightG: number;
  readonly displacedMlPerG: number;
}

/** A vessel and how many pieces of each group it got. */
export interface GroupShare<V extends Vessel> {
  readonly vessel: V;
  /** Pieces of each group, in the order the groups were given. */
  readonly counts: readonly number[];
}

/** Room that so many grams of fibre need, ml, liquor and all they push aside. */
export type RoomOf = (wofG: number, displacedMl: number) => number;

/** Groups over vessels; or the most pieces that fit. */
export type GroupSplit<V extends Vessel> =
  { readonly ok: true; readonly shares: readonly GroupShare<V>[] } | { readonly ok: false; readonly maxPieces: number };

/** Up to this many ways to share are tried out one by one; beyond, pieces are dealt and then moved while it helps. */
const MAX_WAYS = 40_000;
const weightOf = (groups: readonly PieceGroup[], counts: readonly number[]): number =>
  groups.reduce((sum, g, i) => sum + g.pieceWeightG * (counts[i] ?? 0), 0);
const displacedBy = (groups: readonly PieceGroup[], counts: readonly number[]): number =>
  groups.reduce((sum, g, i) => sum + g.pieceWeightG * g.displacedMlPerG * (counts[i] ?? 0), 0);

/**
 * How good a split is, smaller is better, first figure first: number of batches, grams between the heaviest and the
 * lightest batch, how unlike the batches are in what they hold (the widest difference in any group's share of the
 * weight), millilitres left empty.
 */
export function splitMeasure<V extends Vessel>(
  groups: readonly PieceGroup[],
  shares: readonly GroupShare<V>[],
  roomOf: RoomOf,
): readonly [number, number, number, number] {
  const weights = shares.map((s) => weightOf(groups, s.counts));
  let unlike = 0;
  for (const [g, group] of groups.entries()) {
    const shareByBatch = shares.map((s, b) => ((s.counts[g] ?? 0) * group.pieceWeightG) / (weights[b] || 1));
    unlike = Math.max(unlike, Math.max(...shareByBatch) - Math.min(...shareByBatch));
  }
  const empty = shares.reduce(
    (sum, s, b) => sum + s.vessel.workingMl - roomOf(weights[b] ?? 0, displacedBy(groups, s.counts)),
    0,
  );
  return [shares.length, tidy(Math.max(...weights) - Math.min(...weights)), tidy(unlike), tidy(empty)];
}

/** Whether one measure of a split is better than another: the first number that differs decides, lower is better. */
export function isBetter(a: readonly number[], b: readonly number[]): boolean {
  const i = a.findIndex((value, n) => Math.abs(value - (b[n] ?? 0)) > 1e-9);
  return i !== -1 && (a[i] ?? 0) < (b[i] ?? 0);
}

/**
 * Splits groups of whole pieces over vessels, one batch to a vessel, by `splitMeasure`. Where all pieces are alike it
 * is exact (`splitBatches`). Otherwise every way is tried where there are few, over the roomiest vessels first, since
 * whatever fits a vessel fits a roomier one; with more, pieces are dealt, heaviest first, to the lightest batch with
 * room, then moved and swapped while that makes it better: good, not proven best.
 * @param groups whole pieces, 1 or more in all; @param vessels those that may be used
 */
export function splitGroups<V extends Vessel>(
  groups: readonly PieceGroup[],
  vessels: readonly V[],
  roomOf: RoomOf,
): GroupSplit<V> {
  const pieces = groups.reduce((sum, g) => sum + g.pieces, 0);
  const [first] = groups;
  if (!first || pieces < 1) throw new RangeError('a lot has one piece or more');
  if (groups.every((g) => g.pieceWeightG === first.pieceWeightG && g.displacedMlPerG === first.displacedMlPerG))
    return splitAlike(groups, first, pieces, vessels, roomOf);
  const shares = fewestBatches(groups, vessels, roomOf);
  return shares ? { ok: true, shares } : { ok: false, maxPieces: maxThatFit(groups, vessels, roomOf) };
}

function fewestBatches<V extends Vessel>(
  groups: readonly PieceGroup[],
  vessels: readonly V[],
  roomOf: RoomOf,
): GroupShare<V>[] | undefined {
  const roomiest = [...vessels].sort((a, b) => b.workingMl - a.workingMl);
  for (let k = 1; k <= roomiest.length; k += 1) {
    const best = bestOver(groups, roomiest.slice(0, k), roomOf);
    if (best) return inSmallestVessels(groups, best, roomiest, roomOf);
  }
  return undefined;
}

function splitAlike<V extends Vessel>(
  groups: readonly PieceGroup[],
  first: PieceGroup,
  pieces: number,
  vessels: readonly V[],
  roomOf: RoomOf,
): GroupSplit<V> {
  const rooms = vessels.map((vessel) => ({ vessel, roomForPieces: fitting(vessel.workingMl, first, roomOf) }));
  const split = splitBatches(pieces, rooms);
  if (!split.ok) return split;
  const left = groups.map((g) => g.pieces);
  let toGive = pieces;
  const shares = split.shares.map((share) => {
    const counts = apportion(share.pieces, left, toGive);
    counts.forEach((n, i) => (left[i] = (left[i] ?? 0) - n));
    toGive -= share.pieces;
    return { vessel: share.vessel as V, counts };
  });
  return { ok: true, shares };
}

/** Shares `seats` over groups in proportion to what each has left, to whole pieces, by largest remainder. */
function apportion(seats: number, left: readonly number[], all: number): number[] {
  const exact = left.map((n) => (n * seats) / all);
  const counts = exact.map(Math.floor);
  const byRemainder = exact.map((e, i) => ({ i, r: e - Math.floor(e) })).sort((a, b) => b.r - a.r || a.i - b.i);
  let rest = seats - counts.reduce((sum, n) => sum + n, 0);
  for (const { i } of byRemainder) {
    if (rest === 0) break;
    if ((counts[i] ?? 0) < (left[i] ?? 0)) {
      counts[i] = (counts[i] ?? 0) + 1;
      rest -= 1;
    }
  }
  return counts;
}

function fitting(workingMl: number, g: PieceGroup, roomOf: RoomOf): number {
  const needs = (n: number): number => roomOf(n * g.pieceWeightG, n * g.pieceWeightG * g.displacedMlPerG);
  // Rounding the liquor up to the jug makes room stepwise, so start above the smooth answer and step down.
  let n = Math.floor(workingMl / (needs(1000) / 1000)) + 1;
  while (n > 0 && needs(n) > workingMl) n -= 1;
  return n;
}

const fits = (groups: readonly PieceGroup[], counts: readonly number[], workingMl: number, roomOf: RoomOf): boolean =>
  roomOf(weightOf(groups, counts), displacedBy(groups, counts)) <= workingMl;

function bestOver<V extends Vessel>(
  groups: readonly PieceGroup[],
  vessels: readonly V[],
  roomOf: RoomOf,
): GroupShare<V>[] | undefined {
  const ways = groups.reduce((product, g) => product * binomial(g.pieces + vessels.length - 1, vessels.length - 1), 1);
  return ways <= MAX_WAYS ? tryEveryWay(groups, vessels, roomOf) : deal(groups, vessels, roomOf);
}

function tryEveryWay<V extends Vessel>(
  groups: readonly PieceGroup[],
  vessels: readonly V[],
  roomOf: RoomOf,
): GroupShare<V>[] | undefined {
  let best: GroupShare<V>[] | undefined;
  let measure: readonly number[] = [];
  const counts = vessels.map(() => groups.map(() => 0));
  const place = (g: number, b: number, left: number): void => {
    const row = counts[b] as number[];
    if (b === vessels.length - 1) {
      row[g] = left;
      if (fits(groups, row, (vessels[b] as V).workingMl, roomOf)) next(g);
      row[g] = 0;
      return;
    }
    for (let n = left; n >= 0; n -= 1) {
      row[g] = n;
      if (fits(groups, row, (vessels[b] as V).workingMl, roomOf)) place(g, b + 1, left - n);
    }
    row[g] = 0;
  };
  const next = (g: number): void => {
    if (g + 1 < groups.length) return place(g + 1, 0, (groups[g + 1] as PieceGroup).pieces);
    if (counts.some((row) => row.every((n) => n === 0))) return;
    const shares = vessels.map((vessel, b) => ({ vessel, counts: [...(counts[b] as number[])] }));
    const candidate = splitMeasure(groups, shares, roomOf);
    if (!best || isBetter(candidate, measure)) {
      best = shares;
      measure = candidate;
    }
  };
  place(0, 0, (groups[0] as PieceGroup).pieces);
  return best;
}

/** Deals pieces to the lightest batch with room, heaviest first, then moves single pieces while the measure falls. */
function deal<V extends Vessel>(
  groups: readonly PieceGroup[],
  vessels: readonly V[],
  roomOf: RoomOf,
): GroupShare<V>[] | undefined {
  const counts = vessels.map(() => groups.map(() => 0));
  const heaviestFirst = groups.map((g, i) => ({ g, i })).sort((a, b) => b.g.pieceWeightG - a.g.pieceWeightG);
  for (const { g, i } of heaviestFirst) {
    for (let n = 0; n < g.pieces; n += 1) {
      const lightest = counts
        .map((row, b) => ({ b, weight: weightOf(groups, row) }))
        .sort((x, y) => x.weight - y.weight);
      const home = lightest.find(({ b }) => {
        const row = counts[b] as number[];
        return fits(
          groups,
          row.map((count, k) => (k === i ? count + 1 : count)),
          (vessels[b] as V).workingMl,
          roomOf,
        );
      });
      if (!home) return undefined;
      const row = counts[home.b] as number[];
      row[i] = (row[i] ?? 0) + 1;
    }
  }
  const shares = (): GroupShare<V>[] => vessels.map((vessel, b) => ({ vessel, counts: [...(counts[b] as number[])] }));
  let measure = splitMeasure(groups, shares(), roomOf);
  for (let round = 0; round < 20; round += 1) {
    let moved = false;
    for (let from = 0; from < vessels.length; from += 1)
      for (let to = 0; to < vessels.length; to += 1)
        for (let g = 0; g < groups.length; g += 1) {
          const [a, b] = [counts[from] as number[], counts[to] as number[]];
          if (from === to || (a[g] ?? 0) === 0) continue;
          a[g] = (a[g] ?? 0) - 1;
          b[g] = (b[g] ?? 0) + 1;
          const after =
            fits(groups, b, (vessels[to] as V).workingMl, roomOf) && a.some((n) => n > 0)
              ? splitMeasure(groups, shares(), roomOf)
              : undefined;
          if (after && isBetter(after, measure)) {
            measure = after;
            moved = true;
          } else {
            a[g] = (a[g] ?? 0) + 1;
            b[g] = (b[g] ?? 0) - 1;
          }
        }
    if (!moved) break;
  }
  return shares();
}

/** Gives each batch, largest first, the smallest vessel that still takes it. */
function inSmallestVessels<V extends Vessel>(
  groups: readonly PieceGroup[],
  shares: readonly GroupShare<V>[],
  vessels: readonly V[],
  roomOf: RoomOf,
): GroupShare<V>[] {
  const free = [...vessels].sort((a, b) => a.workingMl - b.workingMl);
  const room = (s: GroupShare<V>): number => roomOf(weightOf(groups, s.counts), displacedBy(groups, s.counts));
  return [...shares]
    .sort((a, b) => room(b) - room(a))
    .map((share) => {
      const at = free.findIndex((v) => v.workingMl >= room(share));
      const [vessel] = free.splice(at, 1);
      return { ...share, vessel: vessel ?? share.vessel };
    });
}

/** The most pieces, in the lot's own mix, that a way was found for: what a refusal names. */
function maxThatFit<V extends Vessel>(groups: readonly PieceGroup[], vessels: readonly V[], roomOf: RoomOf): number {
  const all = groups.reduce((sum, g) => sum + g.pieces, 0);
  const goes = (pieces: number): boolean => {
    const counts = apportion(
      pieces,
      groups.map((g) => g.pieces),
      all,
    );
    return (
      fewestBatches(
        groups.map((g, i) => ({ ...g, pieces: counts[i] ?? 0 })).filter((g) => g.pieces > 0),
        vessels,
        roomOf,
      ) !== undefined
    );
  };
  let [max, tooMany] = [0, all];
  while (tooMany - max > 1) {
    const middle = Math.floor((max + tooMany) / 2);
    if (goes(middle)) max = middle;
    else tooMany = middle;
  }
  return max;
}

function binomial(n: number, k: number): number {
  let result = 1;
  for (let i = 1; i <= k; i += 1) result = (result * (n - k + i)) / i;
  return result;
}

const tidy = (value: number): number => Math.round(value * 1e6) / 1e6;
