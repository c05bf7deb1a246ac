import { ciede2000 } from '../colour/ciede2000';
import type { DeltaEFormula } from '../colour/delta-e';
import { deltaEBy } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import type { ChannelSpace } from './channels';
import { labSlopes } from './channels';
import type { Dyeing } from './dyeing';
import type { Forward } from './forward';
import { forward } from './forward';
import type { Symmetric } from './linear-algebra';
import { factorise } from './linear-algebra';
import type { Posterior } from './posterior';
import { scatterOf } from './posterior';

const EVEN = { kL: 1, kC: 1, kH: 1 };

/** A shade as it is foretold. */
export interface Prediction {
  readonly lab: Lab;
  /** Of L*, a* and b* together, whatever makes it unsure: what was learnt, luck, the reader. */
  readonly covariance: Symmetric;
  /** The true shade lies no further than this four times in five, ΔE00. */
  readonly within80: number;
  readonly channels: Float64Array;
}

/** Variance of the compared values that comes from what is not known of the numbers. */
export function learntVariance(posterior: Posterior, slopes: ReadonlyMap<number, Float64Array>): Float64Array {
  const { count } = posterior.space;
  const { covariance, book, learnt } = posterior;
  const out = new Float64Array(count * count);
  const inside: (readonly [number, Float64Array])[] = [];
  for (const [place, slope] of slopes) {
    if (place < learnt) inside.push([place, slope]);
    else addProduct(out, slope, slope, book.at(place).sd ** 2);
  }
  // J Σ Jᵀ, each pair of numbers gone to once: a half here, and the other by turning it over.
  const row = new Float64Array(count);
  const half = new Float64Array(count * count);
  inside.forEach(([p, slope], i) => {
    row.fill(0);
    for (let j = 0; j <= i; j += 1) {
      const [q, other] = inside[j] as readonly [number, Float64Array];
      const cov = (covariance.cells[p * learnt + q] as number) * (i === j ? 0.5 : 1);
      if (cov !== 0) for (let c = 0; c < count; c += 1) row[c] = (row[c] as number) + cov * (other[c] as number);
    }
    addProduct(half, slope, row, 1);
  });
  for (let i = 0; i < count; i += 1)
    for (let j = 0; j < count; j += 1)
      out[i * count + j] =
        (out[i * count + j] as number) + (half[i * count + j] as number) + (half[j * count + i] as number);
  return out;
}

/** Adds so many times x yᵀ. */
function addProduct(cells: Float64Array, x: Float64Array, y: Float64Array, times: number): void {
  const n = x.length;
  for (let i = 0; i < n; i += 1) {
    const by = times * (x[i] as number);
    if (by !== 0)
      for (let j = 0; j < n; j += 1) cells[i * n + j] = (cells[i * n + j] as number) + by * (y[j] as number);
  }
}

/** What is asked of a prediction besides the dyeing itself. */
export interface PredictHow {
  /** The day whose luck it shares with strike-offs that were dyed for it. */
  readonly day?: string | null;
  /** Of the shade itself rather than of what a reader will say of it. */
  readonly withoutReader?: boolean;
}

/** What a dyeing will give in compared values, with what makes it unsure: what was learnt, and what scatters. */
export interface Foreseen {
  readonly said: Forward;
  readonly unsure: Float64Array;
  readonly scatter: Float64Array;
}

/** What a prediction and what a strike-off would tell both go out from. @param day whose luck it shares; `null`: none */
export function foresee(posterior: Posterior, dyeing: Dyeing, day: string | null): Foreseen {
  const said = forward(posterior, dyeing, day);
  return {
    said,
    unsure: learntVariance(posterior, said.slopes),
    scatter: scatterOf(posterior, said, posterior.widths, day === null).cells,
  };
}

/** The shade that a dyeing will give, with how sure that is. */
export const predict = (posterior: Posterior, dyeing: Dyeing, { day = null, ...how }: PredictHow = {}): Prediction =>
  predictFrom(posterior, foresee(posterior, dyeing, day), how);

/** The same of what was foreseen already. */
export function predictFrom(
  { space, widths }: Posterior,
  { said, unsure, scatter }: Foreseen,
  { withoutReader = true }: Omit<PredictHow, 'day'> = {},
): Prediction {
  const spread = unsure.map((v, i) => v + (scatter[i] ?? 0));
  if (withoutReader) {
    // Half of what a reading scatters is the reader’s; the rest is the piece’s own.
    const own = widths.scatter.reading ** 2 / 2;
    for (let c = 0; c < space.count; c += 1) spread[c * space.count + c] = (spread[c * space.count + c] ?? 0) - own;
  }
  const lab = space.lab(said.channels);
  const covariance = inLab(space, said.channels, spread);
  return { lab, covariance, within80: radius80(lab, covariance), channels: said.channels };
}

/** A variance of compared values as one of L*, a* and b*. */
export function inLab(space: ChannelSpace, values: Float64Array, spread: Float64Array): Symmetric {
  const slopes = labSlopes(space, values);
  const cells = new Float64Array(9);
  for (let i = 0; i < 3; i += 1)
    for (let j = 0; j < 3; j += 1) {
      let sum = 0;
      for (let c = 0; c < space.count; c += 1)
        for (let d = 0; d < space.count; d += 1)
          sum += (slopes[i]?.[c] ?? 0) * (spread[c * space.count + d] ?? 0) * (slopes[j]?.[d] ?? 0);
      cells[i * 3 + j] = sum;
    }
  return { n: 3, cells };
}

/** What one thing done otherwise does to a shade, and how sure that is. */
export interface Effect {
  readonly from: Lab;
  readonly to: Lab;
  readonly deltaE00: number;
  /** It is this, give or take this, four times in five, ΔE00. */
  readonly within80: number;
}

/** How what lies between two dyeings turns with each number. */
export function slopesBetween(before: Forward, after: Forward): Map<number, Float64Array> {
  const slopes = new Map([...after.slopes].map(([place, slope]) => [place, Float64Array.from(slope)]));
  for (const [place, slope] of before.slopes) {
    const own = slopes.get(place) ?? new Float64Array(slope.length);
    slopes.set(
      place,
      own.map((s, c) => s - (slope[c] ?? 0)),
    );
  }
  return slopes;
}

/** What lies between two dyeings: what both share is sure, however unsure each is. */
export function effectBetween(posterior: Posterior, before: Dyeing, after: Dyeing): Effect {
  const [one, two] = [forward(posterior, before), forward(posterior, after)];
  const { space } = posterior;
  const [from, to] = [space.lab(one.channels), space.lab(two.channels)];
  const covariance = inLab(space, two.channels, learntVariance(posterior, slopesBetween(one, two)));
  return { from, to, deltaE00: ciede2000(from, to, EVEN).deltaE, within80: radius80(to, covariance) };
}

/** Points spread evenly over a normal’s body: the same every time (Halton’s sequence through Box and Muller). */
const halton = (index: number, base: number): number => {
  let [result, fraction, i] = [0, 1 / base, index];
  while (i > 0) {
    result += fraction * (i % base);
    i = Math.floor(i / base);
    fraction /= base;
  }
  return result;
};
const POINTS = Array.from({ length: 96 }, (_, i) => {
  const [u, v, w, x] = [2, 3, 5, 7].map((b) => halton(i + 11, b));
  const [r, s] = [Math.sqrt(-2 * Math.log(u ?? 0.5)), Math.sqrt(-2 * Math.log(w ?? 0.5))];
  return [
    r * Math.cos(2 * Math.PI * (v ?? 0)),
    r * Math.sin(2 * Math.PI * (v ?? 0)),
    s * Math.cos(2 * Math.PI * (x ?? 0)),
  ] as const;
});

/** Shades that a normal about one might be. */
export function drawnShades(lab: Lab, covariance: Symmetric): Lab[] {
  const { cells: l } = factorise(covariance);
  return POINTS.map(([x, y, z]) => ({
    L: lab.L + (l[0] ?? 0) * x,
    a: lab.a + (l[3] ?? 0) * x + (l[4] ?? 0) * y,
    b: lab.b + (l[6] ?? 0) * x + (l[7] ?? 0) * y + (l[8] ?? 0) * z,
  }));
}

/** The ΔE00 within which four in five of those lie. */
export function radius80(lab: Lab, covariance: Symmetric): number {
  const far = drawnShades(lab, covariance)
    .map((shade) => ciede2000(lab, shade, EVEN).deltaE)
    .sort((x, y) => x - y);
  return far[Math.floor(0.8 * far.length)] ?? 0;
}

/** The difference from a standard that is to be expected: the mean of what it might be, by its formula. */
export function expectedDifference(
  standard: Lab,
  lab: Lab,
  covariance: Symmetric,
  formula: DeltaEFormula = 'de00',
): number {
  const all = drawnShades(lab, covariance);
  return all.reduce((sum, shade) => sum + deltaEBy(formula, standard, shade), 0) / all.length;
}
