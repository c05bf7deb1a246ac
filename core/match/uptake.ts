import { depthOfLightness } from '../colour/depth';
import type { Lab } from '../colour/lab';

/** Depth of a sample at a minute; 1 is the depth wanted. */
export interface DepthAt {
  readonly minute: number;
  readonly depth: number;
}

/** How depth grows in a bath, fitted to samples: `atLast · (1 − e^(−ratePerMin · minutes))`. */
export interface Uptake {
  /** Depth it would come to at last, and how fast, per minute. */
  readonly atLast: number;
  readonly ratePerMin: number;
  /** Scatter of the samples about the curve. */
  readonly scatter: number;
  readonly samples: number;
}

/** When to lift, or why that can't be said yet. Minutes from the start of the bath. */
export type UptakeAdvice =
  | { readonly state: 'tooFew'; readonly message: string }
  | {
      readonly state: 'liftNow' | 'wait' | 'neverReaches';
      readonly fit: Uptake;
      /** Minute at which the depth wanted is reached, with the span it may lie in. */ readonly minute: number | null;
      readonly fromMinute: number | null;
      readonly toMinute: number | null;
      readonly message: string;
    };

const MIN_SAMPLES = 3;
const RATES = 120;
const SLOWEST_PER_MIN = 0.0005;
const FASTEST_PER_MIN = 0.6;
/** An eye-match is worth about this much of the depth wanted, whatever few samples seem to say. */
const MIN_SCATTER = 0.03;
/**
 * Two-sided 95 % of Student's t by degrees of freedom, from 1; with one, the scatter itself is as good as unknown and
 * the eye's own is taken with it.
 */
const T_95 = [4.3, 4.3, 3.18, 2.78, 2.57, 2.45, 2.36, 2.31, 2.26, 2.23];
const NORMAL_95 = 1.96;
const LONGEST_MIN = 1440;

/**
 * The best height for one rate, and what it leaves: depth = atLast × (1 − e^(−rate × minute)), which is linear in
 * `atLast`.
 */
function atRate(samples: readonly DepthAt[], ratePerMin: number): { atLast: number; rest: number } {
  let [sxy, sxx] = [0, 0];
  for (const { minute, depth } of samples) {
    const x = 1 - Math.exp(-ratePerMin * minute);
    sxy += x * depth;
    sxx += x * x;
  }
  const atLast = sxx > 0 ? Math.max(0, sxy / sxx) : 0;
  return {
    atLast,
    rest: samples.reduce(
      (sum, { minute, depth }) => sum + (depth - atLast * (1 - Math.exp(-ratePerMin * minute))) ** 2,
      0,
    ),
  };
}

/**
 * Minutes at which the wanted depth may be reached: for each, the best of all curves that are there at that minute is
 * looked at.
 */
function minutesPossible(
  samples: readonly DepthAt[],
  rates: readonly number[],
  allowed: number,
): { from: number | null; to: number | null; mayNever: boolean } {
  let [from, to]: [number | null, number | null] = [null, null];
  for (let minute = 1; minute <= LONGEST_MIN; minute *= 1.02) {
    const fits = rates.some((rate) => {
      const atLast = 1 / (1 - Math.exp(-rate * minute));
      return samples.reduce((sum, s) => sum + (s.depth - atLast * (1 - Math.exp(-rate * s.minute))) ** 2, 0) <= allowed;
    });
    if (fits) {
      from ??= minute;
      to = minute;
    }
  }
  return {
    from,
    to,
    mayNever: rates.some((rate) => {
      const f = atRate(samples, rate);
      return f.atLast <= 1 && f.rest <= allowed;
    }),
  };
}

/**
 * Fits first-order uptake to samples taken as a pot goes, and says when the depth wanted is reached, with the span it
 * may lie in: every minute at which a curve through the wanted depth fits no worse than scatter explains (profile
 * likelihood, Bates & Watts, Nonlinear Regression, 1988, ch. 6); the earliest and latest are the span.
 * @param samples minutes from when the fibre went in, depth as a share of the wanted one; any order @param nowMinute
 * the present
 */
export function adviseLift(samples: readonly DepthAt[], nowMinute: number): UptakeAdvice {
  const usable = samples.filter((s) => s.minute > 0 && Number.isFinite(s.depth));
  if (usable.length < MIN_SAMPLES || new Set(usable.map((s) => s.minute)).size < MIN_SAMPLES) {
    return {
      state: 'tooFew',
      message: $localize`${usable.length === 0 ? $localize`No sample yet` : usable.length === 1 ? $localize`One sample` : $localize`Two samples`}:fewSamples:: three at different times say when it will be there.`,
    };
  }
  const rates = Array.from(
    { length: RATES },
    (_, i) => SLOWEST_PER_MIN * (FASTEST_PER_MIN / SLOWEST_PER_MIN) ** (i / (RATES - 1)),
  );
  const fits = rates.map((ratePerMin) => ({ ratePerMin, ...atRate(usable, ratePerMin) }));
  const best = fits.reduce((a, b) => (b.rest < a.rest ? b : a));
  const measured = Math.sqrt(best.rest / Math.max(1, usable.length - 2));
  const scatter = Math.max(MIN_SCATTER, measured);
  const allowed =
    best.rest +
    Math.max(
      (NORMAL_95 * MIN_SCATTER) ** 2,
      ((T_95[Math.min(T_95.length, usable.length - 2) - 1] ?? NORMAL_95) * measured) ** 2,
    );
  const minute = best.atLast <= 1 ? null : -Math.log(1 - 1 / best.atLast) / best.ratePerMin;
  const possible = minutesPossible(usable, rates, allowed);
  const fromMinute = minute !== null && possible.from !== null ? Math.min(possible.from, minute) : possible.from;
  const toMinute = possible.mayNever || possible.to === null ? null : Math.max(possible.to, minute ?? 0);
  const fit = { atLast: best.atLast, ratePerMin: best.ratePerMin, scatter, samples: usable.length };
  const span =
    fromMinute === null
      ? ''
      : toMinute === null
        ? $localize`, not before ${Math.round(fromMinute)} min`
        : $localize`, between ${Math.round(fromMinute)} and ${Math.round(toMinute)} min`;
  if (minute === null)
    return {
      state: 'neverReaches',
      fit,
      minute,
      fromMinute,
      toMinute,
      message: $localize`By these samples it levels off at ${Math.round(best.atLast * 100)} % of the depth wanted${span === '' ? '' : span}. More dye, more heat within the ceiling, or a longer dip in a fresh bath.`,
    };
  if (nowMinute >= minute)
    return {
      state: 'liftNow',
      fit,
      minute,
      fromMinute,
      toMinute,
      message: $localize`Lift now: by the curve it was there at ${Math.round(minute)} min${span}. Look at it wet and remember that wet is darker.`,
    };
  return {
    state: 'wait',
    fit,
    minute,
    fromMinute,
    toMinute,
    message: $localize`By the curve it is there at ${Math.round(minute)} min${span}.`,
  };
}

/** Depth on a fitted curve. */
export const depthAt = (fit: Pick<Uptake, 'atLast' | 'ratePerMin'>, minute: number): number =>
  fit.atLast * (1 - Math.exp(-fit.ratePerMin * minute));

/**
 * How far a colour has come from the undyed base to the one wanted, as a share. Where the two differ in lightness by
 * K/S of L*; where they are nearly alike in it (a clear yellow on cream), by chroma.
 */
export function depthShare(now: Lab, undyed: Lab, wanted: Lab): number {
  const k = (c: Lab): number => depthOfLightness(c.L);
  const chromaOf = (c: Lab): number => Math.hypot(c.a - undyed.a, c.b - undyed.b);
  if (Math.abs(wanted.L - undyed.L) >= 15) return (k(now) - k(undyed)) / (k(wanted) - k(undyed));
  const whole = chromaOf(wanted);
  return whole < 1 ? 0 : chromaOf(now) / whole;
}

/**
 * Colours from undyed to deeper than wanted, to hold a sample against: each with the share of the depth it stands
 * for.
 */
export function matchSteps(
  undyed: Lab,
  wanted: Lab,
  shares: readonly number[] = [0.15, 0.3, 0.5, 0.7, 0.85, 1, 1.2],
): readonly { readonly depth: number; readonly lab: Lab }[] {
  const mix = (from: number, to: number, share: number): number => from + (to - from) * share;
  const clamp = (value: number, low: number, high: number): number => Math.min(high, Math.max(low, value));
  return shares.map((depth) => ({
    depth,
    lab: {
      L: clamp(mix(undyed.L, wanted.L, depth), 0, 100),
      a: clamp(mix(undyed.a, wanted.a, depth), -128, 128),
      b: clamp(mix(undyed.b, wanted.b, depth), -128, 128),
    },
  }));
}

/**
 * Minutes at which to pull pieces one by one so that their depths are evenly spaced, the last at `lastMinute`: from
 * the curve where there is one, else from a usual rate. @param pieces 2 to 60
 */
export function gradedPulls(pieces: number, lastMinute: number, ratePerMin = 0.03): number[] {
  if (!Number.isInteger(pieces) || pieces < 1 || pieces > 60)
    throw new RangeError(`pieces must be a whole number from 1 to 60, got ${pieces}`);
  if (!(lastMinute > 0)) throw new RangeError('lastMinute must be above zero');
  const whole = 1 - Math.exp(-ratePerMin * lastMinute);
  // No two are due at once: whole minutes where there are enough of them, else finer steps.
  const stepMin = PULL_STEPS_MIN.find((step) => pieces * step <= lastMinute) ?? lastMinute / pieces;
  const lastStep = Math.max(pieces, Math.round(lastMinute / stepMin));
  const steps: number[] = [];
  for (let i = 0; i < pieces; i += 1) {
    const exact = -Math.log(1 - (whole * (i + 1)) / pieces) / ratePerMin / stepMin;
    const earliest = (steps.at(-1) ?? 0) + 1;
    steps.push(Math.min(lastStep - (pieces - 1 - i), Math.max(earliest, Math.round(exact))));
  }
  return steps.map((n) => Math.round(n * stepMin * 100) / 100);
}

/** How finely pulls are timed, minutes: as finely as keeps them apart. */
const PULL_STEPS_MIN = [1, 0.5, 0.25, 0.1];
