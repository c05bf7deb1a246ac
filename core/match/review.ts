import { median } from '../quantity/median';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import type { KnownStrength } from './dyeing';
import { dyedAndRead, tooFewRead } from './enough-read';
import { forward } from './forward';
import type { Symmetric } from './linear-algebra';
import { factorise, solveFactorised, solveLower } from './linear-algebra';
import type { Observation, Posterior } from './posterior';
import { learntOf } from './learnt';
import { scatterOf, weightOf, widthsFor } from './posterior';
import { inLab, learntVariance, radius80 } from './predict';
import { PRIORS } from './priors';

/** One reading, foretold from all the others. */
export interface Foretold {
  readonly id: string;
  readonly colourwayId: string | null;
  readonly foretold: Lab;
  readonly got: Lab;
  readonly deltaE00: number;
  /** It was said to lie no further off than this four times in five. */
  readonly within80: number;
}

/** How strong a jar is against its material’s reference, by everything dyed with it. */
export interface JarStrength {
  readonly stockLotId: string;
  readonly percent: number;
  /** Nine times in ten it lies between these. */
  readonly fromPercent: number;
  readonly toPercent: number;
  /** Readings of what was dyed with it. */
  readonly readings: number;
}

/** How good what is foretold has been, and what is known of each jar. */
export interface Review {
  readonly foretold: readonly Foretold[];
  /** Half of them came out no further off than this, ΔE00. */
  readonly median: number;
  /** Share of them inside what was said, 0-1: four in five are promised. */
  readonly inside: number;
  readonly jars: readonly JarStrength[];
}

const EVEN = { kL: 1, kC: 1, kH: 1 };
const Z_90 = 1.645;
/** Of R − J Σ Jᵀ no less than this share of R is left: a reading that everything rests on can’t be left out. */
const LEAST_LEFT = 0.02;

/**
 * Foretells each reading from all the others without learning them anew: what one observation did to a posterior can be
 * taken out of it again (Allen’s PRESS residuals, Technometrics 16, 1974, here for several values at once). Masters are
 * taken as known and not foretold. `undefined` where too few were read.
 */
export function reviewRecord(
  readings: readonly Observation[],
  strengths: readonly KnownStrength[],
  stockLotIds: readonly string[],
): Review | undefined {
  if (tooFewRead(readings)) return undefined;
  const read = dyedAndRead(readings);
  const posterior = learntOf(readings, strengths);
  const foretold = read.map((r) => withoutItself(posterior, r));
  return {
    foretold,
    median: median(foretold.map((f) => f.deltaE00)),
    inside: foretold.filter((f) => f.deltaE00 <= f.within80).length / foretold.length,
    jars: stockLotIds.map((id) => jarStrength(posterior, read, id)),
  };
}

/** How strong jars are by everything dyed with them, and how sure that is; nothing where too little was read. */
export function jarStrengths(
  readings: readonly Observation[],
  strengths: readonly KnownStrength[],
  stockLotIds: readonly string[],
): readonly JarStrength[] | undefined {
  if (tooFewRead(readings)) return undefined;
  const read = dyedAndRead(readings);
  const posterior = learntOf(readings, strengths);
  return stockLotIds.map((id) => jarStrength(posterior, read, id));
}

function withoutItself(posterior: Posterior, reading: Observation): Foretold {
  const { space } = posterior;
  const { count } = space;
  const said = forward(posterior, reading.dyeing, reading.day);
  const scatter = scatterOf(posterior, said, widthsFor(posterior.widths, reading), true);
  const seen = space.of(reading.colour);
  const off = Float64Array.from(seen, (y, c) => y - (said.channels[c] ?? 0));
  // What lies far off counted less when it was learnt: no more is taken out than went in.
  const square = solveLower(factorise(scatter), off).reduce((sum, o) => sum + o * o, 0);
  const counted = scatter.cells.map((r) => r / weightOf(square, count));
  const learnt = learntVariance(posterior, said.slopes);
  const left: Symmetric = {
    n: count,
    cells: counted.map((r, i) => {
      const isDiagonal = i % (count + 1) === 0;
      return isDiagonal ? Math.max(r - (learnt[i] ?? 0), LEAST_LEFT * r) : r - (learnt[i] ?? 0);
    }),
  };
  const low = factorise(left, LEAST_LEFT * Math.min(...counted.filter((_, i) => i % (count + 1) === 0)));
  const times = (m: Float64Array, x: Float64Array): Float64Array =>
    Float64Array.from({ length: count }, (_, i) => {
      let sum = 0;
      for (let k = 0; k < count; k += 1) sum += (m[i * count + k] ?? 0) * (x[k] ?? 0);
      return sum;
    });
  // e₋ᵢ = R′ (R′ − S)⁻¹ e with S = JΣJᵀ and R′ the scatter as it counted; its spread R + S (R′ − S)⁻¹ R′.
  const alone = times(counted, solveFactorised(low, off));
  const spread = Float64Array.from(scatter.cells);
  for (let j = 0; j < count; j += 1) {
    const column = Float64Array.from({ length: count }, (_, i) => counted[i * count + j] ?? 0);
    times(learnt, solveFactorised(low, column)).forEach(
      (v, i) => (spread[i * count + j] = (spread[i * count + j] ?? 0) + v),
    );
  }
  const values = seen.map((y, c) => y - (alone[c] ?? 0));
  const [foretold, got] = [space.lab(values), space.lab(seen)];
  return {
    id: reading.id,
    colourwayId: reading.dyeing.colourwayId,
    foretold,
    got,
    deltaE00: ciede2000(foretold, got, EVEN).deltaE,
    within80: radius80(foretold, inLab(space, values, spread)),
  };
}

function jarStrength(posterior: Posterior, read: readonly Observation[], stockLotId: string): JarStrength {
  const place = posterior.book.find(`jar/${stockLotId}`);
  const isLearnt = place !== undefined && place < posterior.learnt;
  const value = isLearnt ? (posterior.values[place] ?? 0) : 0;
  const sd = isLearnt ? Math.sqrt(posterior.covariance.cells[place * posterior.learnt + place] ?? 0) : PRIORS.jar;
  return {
    stockLotId,
    percent: 100 * Math.exp(value),
    fromPercent: 100 * Math.exp(value - Z_90 * sd),
    toPercent: 100 * Math.exp(value + Z_90 * sd),
    readings: read.filter((r) => r.dyeing.doses.some((d) => d.stockLotId === stockLotId)).length,
  };
}
