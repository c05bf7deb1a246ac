/** Pieces put into sets that match: positions of the pieces, and the worst pair in any set. */
export interface Sets {
  readonly sets: readonly (readonly number[])[];
  /** Pieces that are in none, since they don't fill one. */
  readonly leftOver: readonly number[];
  /** Difference of the worst pair in any set, ΔE; 0 where a set has one piece. */
  readonly worst: number;
}

/** How different two pieces are, by their positions. */
export type Apart = (one: number, two: number) => number;

/** Pieces up to which every way of sorting is tried. */
const TRIED_ALL_UP_TO = 10;
const STARTS = 12;

/**
 * Sorts pieces into sets of a size so that the worst pair in any set is as near as can be: every way up to ten pieces;
 * beyond, from several beginnings, pieces are put to what they lie nearest, then exchanged between sets and what is left
 * over while that helps the worst set. Steady: the same pieces give the same sets. What fills no set is left over.
 * Throws RangeError on a size below 1.
 */
export function sortIntoSets(pieces: number, size: number, apart: Apart): Sets {
  if (!Number.isInteger(size) || size < 1) throw new RangeError('a set has one piece or more');
  const full = Math.floor(pieces / size);
  if (full === 0) return { sets: [], leftOver: range(pieces), worst: 0 };
  const table = distances(pieces, apart);
  const at: Apart = (one, two) => table[one * pieces + two] ?? 0;
  if (pieces <= TRIED_ALL_UP_TO) return tryAll(pieces, size, full, at);
  let best: Sets | undefined;
  for (let start = 0; start < STARTS; start += 1) {
    const found = improve(greedy(pieces, size, full, at, start), at);
    if (!best || found.worst < best.worst) best = found;
  }
  return best ?? tryAll(pieces, size, full, at);
}

const range = (n: number): number[] => Array.from({ length: n }, (_, i) => i);

function distances(pieces: number, apart: Apart): Float64Array {
  const table = new Float64Array(pieces * pieces);
  for (let i = 0; i < pieces; i += 1)
    for (let j = i + 1; j < pieces; j += 1) {
      const far = apart(i, j);
      table[i * pieces + j] = far;
      table[j * pieces + i] = far;
    }
  return table;
}

/** The worst pair of a set. */
function spreadOf(set: readonly number[], at: Apart): number {
  let worst = 0;
  for (let i = 0; i < set.length; i += 1)
    for (let j = i + 1; j < set.length; j += 1) worst = Math.max(worst, at(set[i] ?? 0, set[j] ?? 0));
  return worst;
}

const worstOf = (sets: readonly (readonly number[])[], at: Apart): number =>
  sets.reduce((worst, set) => Math.max(worst, spreadOf(set, at)), 0);

/** Every way: the first piece not yet placed is left over, or opens a set with each choice of the others. */
function tryAll(pieces: number, size: number, full: number, at: Apart): Sets {
  let best: Sets | undefined;
  const walk = (
    left: readonly number[],
    sets: readonly (readonly number[])[],
    over: readonly number[],
    worst: number,
  ) => {
    if (best && worst >= best.worst) return;
    if (sets.length === full) {
      best = { sets, leftOver: [...over, ...left], worst };
      return;
    }
    const [first, ...rest] = left;
    if (first === undefined) return;
    const fill = (set: readonly number[], from: number, spread: number): void => {
      if (best && Math.max(worst, spread) >= best.worst) return;
      if (set.length === size) {
        walk(
          rest.filter((p) => !set.includes(p)),
          [...sets, set],
          over,
          Math.max(worst, spread),
        );
        return;
      }
      for (let i = from; i < rest.length; i += 1) {
        const piece = rest[i] ?? 0;
        fill(
          [...set, piece],
          i + 1,
          set.reduce((far, p) => Math.max(far, at(p, piece)), spread),
        );
      }
    };
    fill([first], 0, 0);
    if (rest.length >= (full - sets.length) * size) walk(rest, sets, [...over, first], worst);
  };
  walk(range(pieces), [], [], 0);
  return best ?? { sets: [], leftOver: range(pieces), worst: 0 };
}

/** Opens sets one after another from the piece furthest from all, or another, and fills each with what lies nearest. */
function greedy(
  pieces: number,
  size: number,
  full: number,
  at: Apart,
  start: number,
): { sets: number[][]; over: number[] } {
  const loneliness = range(pieces).map((p) => range(pieces).reduce((sum, q) => sum + at(p, q), 0));
  const order = range(pieces).sort((x, y) => (loneliness[y] ?? 0) - (loneliness[x] ?? 0) || x - y);
  // What lies furthest out is left over first; later beginnings leave more of it, or open elsewhere.
  const shifted = start === 0 ? order : [...order.slice(start), ...order.slice(0, start)];
  const free = new Set(shifted);
  const spare = pieces - full * size;
  const over = start % 2 === 0 ? [] : shifted.slice(0, spare);
  for (const p of over) free.delete(p);
  const sets: number[][] = [];
  for (const first of shifted) {
    if (sets.length === full) break;
    if (!free.delete(first)) continue;
    const set = [first];
    while (set.length < size && free.size > 0) {
      let nearest = -1;
      let far = Infinity;
      for (const p of free) {
        const spread = set.reduce((worst, q) => Math.max(worst, at(p, q)), 0);
        if (spread < far) [nearest, far] = [p, spread];
      }
      free.delete(nearest);
      set.push(nearest);
    }
    sets.push(set);
  }
  return { sets, over: [...over, ...free] };
}

/** Exchanges pieces of the worst set for others, while the worse of the two sets then is better than the worst was. */
function improve({ sets, over }: { sets: number[][]; over: number[] }, at: Apart): Sets {
  const spreads = sets.map((set) => spreadOf(set, at));
  for (let moved = true; moved;) {
    moved = false;
    const worst = spreads.indexOf(Math.max(...spreads));
    const from = sets[worst];
    const limit = spreads[worst] ?? 0;
    if (!from || limit === 0) break;
    let best: { readonly i: number; readonly set: number; readonly j: number; readonly cost: number } | undefined;
    for (let i = 0; i < from.length; i += 1) {
      const own = from[i] ?? 0;
      for (let set = -1; set < sets.length; set += 1) {
        if (set === worst) continue;
        const other = set === -1 ? over : (sets[set] ?? []);
        for (let j = 0; j < other.length; j += 1) {
          const taken = other[j] ?? 0;
          const here = spreadWith(from, i, taken, at);
          if (here >= limit) continue;
          const there = set === -1 ? 0 : spreadWith(other, j, own, at);
          const cost = Math.max(here, there);
          if (cost < limit && (!best || cost < best.cost)) best = { i, set, j, cost };
        }
      }
    }
    if (!best) break;
    const other = best.set === -1 ? over : sets[best.set];
    if (!other) break;
    [from[best.i], other[best.j]] = [other[best.j] ?? 0, from[best.i] ?? 0];
    spreads[worst] = spreadOf(from, at);
    if (best.set >= 0) spreads[best.set] = spreadOf(other, at);
  }
  return { sets, leftOver: over, worst: worstOf(sets, at) };
}

/** The worst pair of a set, with one of its places taken by another piece. */
function spreadWith(set: readonly number[], place: number, piece: number, at: Apart): number {
  let worst = 0;
  for (let i = 0; i < set.length; i += 1) {
    if (i === place) continue;
    worst = Math.max(worst, at(set[i] ?? 0, piece));
    for (let j = i + 1; j < set.length; j += 1) if (j !== place) worst = Math.max(worst, at(set[i] ?? 0, set[j] ?? 0));
  }
  return worst;
}
