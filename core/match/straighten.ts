import type { DeltaEFormula } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import { labSlopes } from './channels';
import { differenceMetric } from './difference-metric';
import type { Dyeing } from './dyeing';
import { forward } from './forward';
import { factorise, solveFactorised } from './linear-algebra';
import type { Posterior } from './posterior';
import type { Penalty } from './turn-levers';
import { WORTH_DELTA_E } from './turn-levers';

/** A plan whose shade goes straight with its levers, about where they are. */
export interface Straight {
  readonly at: readonly number[];
  /**
   * Rows of one more than there are levers: (1, x) G (1, x)ᵀ is a square of ΔE00. What is expected and what turning costs;
   * and what is unsure.
   */
  readonly expected: Float64Array;
  readonly unsure: Float64Array;
}

/** The two together, with what is unsure counted so much. */
export const gramOf = ({ expected, unsure }: Straight, risk: number): Float64Array =>
  expected.map((e, i) => e + risk * (unsure[i] ?? 0));

/** What levers are judged by. */
export interface Judged {
  readonly posterior: Posterior;
  readonly standard: Lab;
  readonly formula: DeltaEFormula;
  readonly day: string | null;
  /** The dyeing with the levers there. */
  dyeing(at: readonly number[]): Dyeing;
  readonly penalties: readonly Penalty[];
}

/** Offset from the standard, and how that turns with each number, as lengths in ΔE00. */
interface Felt {
  readonly mean: readonly number[];
  readonly rows: ReadonlyMap<number, readonly [number, number, number]>;
}

function feltOf({ posterior, standard, day }: Judged, metric: ReturnType<typeof differenceMetric>, d: Dyeing): Felt {
  const { space } = posterior;
  const said = forward(posterior, d, day);
  const lab = space.lab(said.channels);
  const slopes = labSlopes(space, said.channels);
  const toLength = metric.map((m) =>
    Float64Array.from({ length: space.count }, (_, c) => m.reduce((sum, w, i) => sum + w * (slopes[i]?.[c] ?? 0), 0)),
  );
  const off = [lab.L - standard.L, lab.a - standard.a, lab.b - standard.b];
  const along = (slope: Float64Array, k: number): number => {
    const row = toLength[k];
    let sum = 0;
    for (let c = 0; c < slope.length; c += 1) sum += (row?.[c] ?? 0) * (slope[c] ?? 0);
    return sum;
  };
  return {
    mean: metric.map((m) => m.reduce((sum, w, i) => sum + w * (off[i] ?? 0), 0)),
    rows: new Map([...said.slopes].map(([place, s]) => [place, [along(s, 0), along(s, 1), along(s, 2)] as const])),
  };
}

/** How far a lever is moved to see what it does. */
const BY = 0.05;

/** How sure these numbers are together: a row and a column for each. */
function covarianceAmong({ covariance, learnt, book }: Posterior, places: readonly number[]): Float64Array {
  const n = places.length;
  const cells = new Float64Array(n * n);
  for (let i = 0; i < n; i += 1) {
    const p = places[i] as number;
    if (p >= learnt) {
      cells[i * n + i] = book.at(p).sd ** 2;
      continue;
    }
    for (let j = 0; j < n; j += 1) {
      const q = places[j] as number;
      if (q < learnt) cells[i * n + j] = covariance.cells[p * learnt + q] as number;
    }
  }
  return cells;
}

/** Σ Jᵀ: three rows, one after another, of as many as there are numbers. */
function spreadOf(cells: Float64Array, rows: Float64Array): Float64Array {
  const n = rows.length / 3;
  const out = new Float64Array(3 * n);
  for (let j = 0; j < n; j += 1) {
    const [x, y, z] = [rows[j] as number, rows[n + j] as number, rows[2 * n + j] as number];
    // What a lever doesn’t touch adds nothing.
    if (x === 0 && y === 0 && z === 0) continue;
    for (let i = 0; i < n; i += 1) {
      const cov = cells[j * n + i] as number;
      out[i] = (out[i] as number) + cov * x;
      out[n + i] = (out[n + i] as number) + cov * y;
      out[2 * n + i] = (out[2 * n + i] as number) + cov * z;
    }
  }
  return out;
}

/** J Σ Jᵀ of three rows, its trace: each pair of numbers is gone to once. */
function squareOf(cells: Float64Array, rows: Float64Array): number {
  const n = rows.length / 3;
  let sum = 0;
  for (let j = 0; j < n; j += 1) {
    const [x, y, z] = [rows[j] as number, rows[n + j] as number, rows[2 * n + j] as number];
    let [px, py, pz] = [0, 0, 0];
    for (let i = 0; i < j; i += 1) {
      const cov = cells[j * n + i] as number;
      px += cov * (rows[i] as number);
      py += cov * (rows[n + i] as number);
      pz += cov * (rows[2 * n + i] as number);
    }
    const own = cells[j * n + j] as number;
    sum += x * (2 * px + own * x) + y * (2 * py + own * y) + z * (2 * pz + own * z);
  }
  return sum;
}

const inner = (x: ArrayLike<number>, y: ArrayLike<number>): number => {
  let sum = 0;
  for (let i = 0; i < x.length; i += 1) sum += (x[i] as number) * (y[i] as number);
  return sum;
};

/** Makes a plan straight about where some of its levers are; the others stay. Looks once for each, and once for all. */
export function straighten(judged: Judged, at: readonly number[], levers: readonly number[]): Straight {
  const { posterior, penalties } = judged;
  const metric = differenceMetric(judged.standard, judged.formula);
  const base = feltOf(judged, metric, judged.dyeing(at));
  const moved = levers.map((i) => feltOf(judged, metric, judged.dyeing(at.map((v, k) => (k === i ? v + BY : v)))));
  const places = [...new Set([base, ...moved].flatMap((f) => [...f.rows.keys()]))];
  const n = places.length;
  const rowOf = new Map(places.map((p, i) => [p, i]));
  const rowsOf = (f: Felt): Float64Array => {
    const rows = new Float64Array(3 * n);
    for (const [p, [x, y, z]] of f.rows) {
      const i = rowOf.get(p) ?? 0;
      [rows[i], rows[n + i], rows[2 * n + i]] = [x, y, z];
    }
    return rows;
  };
  const first = { mean: base.mean, rows: rowsOf(base) };
  const vectors = [
    first,
    ...moved.map((f) => ({
      mean: f.mean.map((m, i) => (m - (base.mean[i] ?? 0)) / BY),
      rows: rowsOf(f).map((value, i) => (value - (first.rows[i] ?? 0)) / BY),
    })),
  ];
  const cells = covarianceAmong(posterior, places);
  const size = vectors.length;
  const [expected, unsure] = [new Float64Array(size * size), new Float64Array(size * size)];
  [expected[0], unsure[0]] = [inner(first.mean, first.mean), squareOf(cells, first.rows)];
  vectors.forEach((own, v) => {
    if (v === 0) return;
    // What a lever touches is little beside what a plan rests on.
    const spread = spreadOf(cells, own.rows);
    vectors.slice(0, v + 1).forEach((other, w) => {
      const [mean, sum] = [inner(own.mean, other.mean), inner(spread, other.rows)];
      for (const place of [v * size + w, w * size + v]) [expected[place], unsure[place]] = [mean, sum];
    });
  });
  for (const { weights, wanted, sd } of penalties) {
    const share = WORTH_DELTA_E / sd;
    const line = [
      (weights.reduce((sum, w, i) => sum + w * (at[i] ?? 0), 0) - wanted) * share,
      ...levers.map((i) => (weights[i] ?? 0) * share),
    ];
    for (let v = 0; v < size; v += 1)
      for (let w = 0; w < size; w += 1)
        expected[v * size + w] = (expected[v * size + w] ?? 0) + (line[v] ?? 0) * (line[w] ?? 0);
  }
  return { at, expected, unsure };
}

/** How far some levers are best moved, by their places among those that were made straight, within bounds; and what that comes to. */
export function leastSquare(
  gram: Float64Array,
  chosen: readonly number[],
  low: readonly number[],
  high: readonly number[],
): { readonly move: readonly number[]; readonly square: number } {
  const size = Math.sqrt(gram.length);
  const cell = (v: number, w: number): number => gram[v * size + w] ?? 0;
  const move = new Array<number>(size - 1).fill(0);
  let free = [...chosen];
  // What would go beyond its bound is left at it, and the rest is turned again.
  for (let pass = 0; pass <= chosen.length && free.length > 0; pass += 1) {
    const n = free.length;
    const cells = new Float64Array(n * n);
    free.forEach((i, r) => free.forEach((j, c) => (cells[r * n + c] = cell(i + 1, j + 1) + (r === c ? 1e-9 : 0))));
    const held = chosen.filter((i) => !free.includes(i));
    const wants = Float64Array.from(
      free,
      (i) => -held.reduce((s, h) => s + cell(i + 1, h + 1) * (move[h] ?? 0), cell(i + 1, 0)),
    );
    const found = solveFactorised(factorise({ n, cells }), wants);
    free.forEach((i, r) => (move[i] = found[r] ?? 0));
    const beyond = free.filter((i) => (move[i] ?? 0) < (low[i] ?? 0) || (move[i] ?? 0) > (high[i] ?? 0));
    for (const i of beyond) move[i] = Math.min(high[i] ?? 0, Math.max(low[i] ?? 0, move[i] ?? 0));
    if (beyond.length === 0) break;
    free = free.filter((i) => !beyond.includes(i));
  }
  let square = cell(0, 0);
  for (const i of chosen) {
    square += 2 * cell(0, i + 1) * (move[i] ?? 0);
    for (const j of chosen) square += cell(i + 1, j + 1) * (move[i] ?? 0) * (move[j] ?? 0);
  }
  return { move, square: Math.max(0, square) };
}
