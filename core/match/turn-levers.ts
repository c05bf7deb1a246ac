import type { Lab } from '../colour/lab';
import { differenceMetric } from './difference-metric';
import { factorise, solveFactorised } from './linear-algebra';

/** What holds levers back: a sum over them, what it would rather be, and how much it may stray. */
export interface Penalty {
  readonly weights: readonly number[];
  readonly wanted: number;
  readonly sd: number;
}

/** Levers to turn until a shade lies nearest to a standard. */
export interface Turning {
  readonly standard: Lab;
  /** Where each begins, and the least and the most it may be. */
  readonly from: readonly number[];
  readonly low: readonly number[];
  readonly high: readonly number[];
  readonly penalties: readonly Penalty[];
  /** The shade with the levers there. */
  shade(at: readonly number[]): Lab;
}

/** A difference of this much is worth one standard turn of a lever, ΔE00. */
export const WORTH_DELTA_E = 0.2;
const STEPS = 7;
const BY = 0.04;

/**
 * Turns levers until the shade lies nearest: Gauss and Newton’s steps, damped by Levenberg and Marquardt, in a metric that
 * is ΔE00 about the standard; no lever beyond its bounds. The same levers give the same answer.
 */
export function turnLevers({ standard, from, low, high, penalties, shade }: Turning): number[] {
  const metric = differenceMetric(standard);
  const off = (at: readonly number[]): number[] => {
    const lab = shade(at);
    const d = [lab.L - standard.L, lab.a - standard.a, lab.b - standard.b];
    return metric.map((m) => m.reduce((sum, w, i) => sum + w * (d[i] ?? 0), 0) / WORTH_DELTA_E);
  };
  const strain = (at: readonly number[]): number[] =>
    penalties.map(
      ({ weights, wanted, sd }) => (weights.reduce((sum, w, i) => sum + w * (at[i] ?? 0), 0) - wanted) / sd,
    );
  const bounded = (value: number, i: number): number => Math.min(high[i] ?? value, Math.max(low[i] ?? value, value));
  let at = [...from];
  let residual = [...off(at), ...strain(at)];
  let cost = residual.reduce((sum, r) => sum + r * r, 0);
  let damping = 1e-3;
  for (let step = 0; step < STEPS && from.length > 0; step += 1) {
    const own = residual.slice(0, 3);
    const columns = from.map((_, i) => [
      ...off(at.map((v, k) => (k === i ? v + BY : v))).map((r, k) => (r - (own[k] ?? 0)) / BY),
      ...penalties.map(({ weights, sd }) => (weights[i] ?? 0) / sd),
    ]);
    const gradient = columns.map((column) => column.reduce((sum, c, k) => sum - c * (residual[k] ?? 0), 0));
    // What stands at a bound and would go beyond it is left there.
    const free = from.flatMap((_, i) => {
      const [value, wants] = [at[i] ?? 0, gradient[i] ?? 0];
      const isHeld = (value <= (low[i] ?? value) && wants < 0) || (value >= (high[i] ?? value) && wants > 0);
      return isHeld ? [] : [i];
    });
    let gained = 0;
    for (let tries = 0; tries < 4; tries += 1) {
      const cells = new Float64Array(free.length ** 2);
      free.forEach((p, i) =>
        free.forEach((q, j) => {
          const sum = (columns[p] ?? []).reduce((all, c, k) => all + c * (columns[q]?.[k] ?? 0), 0);
          cells[i * free.length + j] = p === q ? sum * (1 + damping) + 1e-9 : sum;
        }),
      );
      const move = solveFactorised(
        factorise({ n: free.length, cells }),
        Float64Array.from(free, (p) => gradient[p] ?? 0),
      );
      const next = at.map((v, i) => {
        const place = free.indexOf(i);
        return place < 0 ? v : bounded(v + (move[place] ?? 0), i);
      });
      const moved = [...off(next), ...strain(next)];
      const worth = moved.reduce((sum, r) => sum + r * r, 0);
      if (worth < cost) {
        gained = cost - worth;
        [at, residual, cost] = [next, moved, worth];
        damping = Math.max(1e-5, damping / 5);
        break;
      }
      damping *= 8;
    }
    if (gained < 1e-3) break;
  }
  return at;
}
