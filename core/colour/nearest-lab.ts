import { ciede2000 } from './ciede2000';
import type { Lab } from './lab';
import { chroma, hueDegrees } from './lab';

const EVEN = { kL: 1, kC: 1, kH: 1 };
/** S_L is largest at the ends of the scale: 1 + 0.015 × 50² ÷ √(20 + 50²). */
const MOST_SL = 1 + (0.015 * 2500) / Math.sqrt(2520);
/** Hues of the formula's own space lie at most so far from those of L*a*b*, degrees: a' is at most half as much again. */
const MOST_HUE_SHIFT = 12;
/**
 * Least that the rotation leaves of chroma and hue taken together, by how far the mean hue lies from the blue about
 * which the formula turns, whole degrees: 1 − sin 2Δθ, at the strongest R_C.
 */
const LEAST_ROTATED = Float64Array.from({ length: 181 }, (_, away) => {
  const theta = 30 * Math.exp(-((Math.max(0, away - MOST_HUE_SHIFT - 1) / 25) ** 2));
  return 1 - Math.sin((2 * theta * Math.PI) / 180);
});
/** S_C over chroma at most, by whole mean chroma: 0.045 (1 + G), and G only falls as chroma rises. */
const MOST_SC_SLOPE = Float64Array.from({ length: 256 }, (_, c) => {
  const c7 = c ** 7;
  return 0.045 * (1 + 0.5 * (1 - Math.sqrt(c7 / (c7 + 25 ** 7))));
});
/** What rounding may take from a bound. */
const SLACK = 1e-9;
const BLUE_DEGREES = 275;
const SAMPLED_EVERY = 128;

/** A lower bound of what rotation leaves between two hues of L*a*b*, degrees. */
function leastRotated(one: number, two: number): number {
  const apart = Math.abs(one - two);
  // Nearly opposite hues have a mean on either side.
  if (apart > 150 && apart < 210) return LEAST_ROTATED[0] ?? 0;
  const mean = (one + two) / 2 + (apart > 180 ? 180 : 0);
  const away = Math.abs(((mean - BLUE_DEGREES + 540) % 360) - 180);
  return LEAST_ROTATED[Math.floor(away)] ?? 0;
}

/** Colours to be searched by true CIEDE2000. */
export interface LabIndex {
  readonly size: number;
  /** The `count` nearest to a colour, nearest first, as positions in what was indexed; those as far in its order. */
  nearest(to: Lab, count: number): { readonly position: number; readonly deltaE: number }[];
}

/**
 * Makes colours ready to be searched. CIEDE2000 is no metric, so no tree of distances is exact; but it is never less
 * than ΔL' ÷ 1.75, nor than what chroma and hue leave at the largest S_C and the strongest rotation. Colours lie in order
 * of lightness, and a search goes outwards from the colour asked for until lightness alone is too far. Gives exactly
 * what comparing with every colour gives.
 */
export function indexLabs(labs: readonly Lab[]): LabIndex {
  const order = Uint32Array.from(labs.keys()).sort((x, y) => (labs[x]?.L ?? 0) - (labs[y]?.L ?? 0) || x - y);
  const sorted = Array.from(order, (position) => labs[position] as Lab);
  const lightness = Float64Array.from(sorted, (lab) => lab.L);
  const reds = Float64Array.from(sorted, (lab) => lab.a);
  const yellows = Float64Array.from(sorted, (lab) => lab.b);
  const chromas = Float64Array.from(sorted, chroma);
  const hues = Float64Array.from(sorted, hueDegrees);

  return {
    size: labs.length,
    nearest(to, count) {
      if (count < 1) return [];
      const best: { position: number; deltaE: number }[] = [];
      const limit = (): number => (best.length < count ? Infinity : (best.at(-1)?.deltaE ?? Infinity));
      const [own, ownHue] = [chroma(to), hueDegrees(to)];
      const isTooFar = (i: number): boolean => {
        const mean = (own + (chromas[i] ?? 0)) / 2;
        const widest = 1 + (MOST_SC_SLOPE[Math.min(255, Math.floor(mean))] ?? 0) * mean;
        const light = ((lightness[i] ?? 0) - to.L) / MOST_SL;
        const plane = (((reds[i] ?? 0) - to.a) ** 2 + ((yellows[i] ?? 0) - to.b) ** 2) / widest ** 2;
        return light ** 2 + leastRotated(ownHue, hues[i] ?? 0) * plane > limit() ** 2 + SLACK;
      };
      const look = (i: number): void => {
        if (isTooFar(i)) return;
        const { deltaE } = ciede2000(to, sorted[i] as Lab, EVEN);
        const found = { position: order[i] ?? 0, deltaE };
        const isBefore = (x: typeof found): boolean =>
          x.deltaE > deltaE || (x.deltaE === deltaE && x.position > found.position);
        if (best.length === count && !isBefore(best.at(-1) ?? found)) return;
        const at = best.findIndex(isBefore);
        best.splice(at === -1 ? best.length : at, 0, found);
        best.length = Math.min(best.length, count);
      };
      // A sample of all gives a first limit, so that a colour far from every other is found as fast.
      for (let i = 0; i < sorted.length; i += SAMPLED_EVERY) look(i);
      let up = lowerBound(lightness, to.L);
      let down = up - 1;
      for (;;) {
        const above = up < lightness.length ? (lightness[up] ?? 0) - to.L : Infinity;
        const below = down >= 0 ? to.L - (lightness[down] ?? 0) : Infinity;
        const nearer = Math.min(above, below);
        if (nearer === Infinity || nearer / MOST_SL > limit() + SLACK) return best;
        const i = above <= below ? up++ : down--;
        if (i % SAMPLED_EVERY !== 0) look(i);
      }
    },
  };
}

/** First place whose value is not below. */
function lowerBound(values: Float64Array, value: number): number {
  let [low, high] = [0, values.length];
  while (low < high) {
    const middle = (low + high) >>> 1;
    if ((values[middle] ?? 0) < value) low = middle + 1;
    else high = middle;
  }
  return low;
}
