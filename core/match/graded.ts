import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import type { BathCourse, Dyeing, KnownStrength } from './dyeing';
import type { TooFew } from './enough-read';
import { tooFewRead } from './enough-read';
import { shadeFor } from './forward';
import type { Observation, Posterior } from './posterior';
import { learntOf } from './learnt';

/** A family of shades that is asked for: between the palest and what the recipe gives. */
export interface GradedAsk {
  readonly readings: readonly Observation[];
  readonly strengths: readonly KnownStrength[];
  /** The deepest: the recipe as it stands. */
  readonly dyeing: Dyeing;
  /** How many shades, 2 to 24. */
  readonly shades: number;
  /** The palest, as a share of the way by eye from undyed to deepest: 0 to below 1. */
  readonly palestShare: number;
}

/** One shade of a family. */
export interface GradedShade {
  readonly lab: Lab;
  /** From the shade before it, ΔE00; from the palest on. */
  readonly stepDeltaE: number | null;
  /** What makes it: a share of the recipe’s dyestuffs, minutes in the dye, or which dip it is. */
  readonly by: number;
}

/** One way to dye a family. */
export interface GradedWay {
  readonly how: 'dose' | 'minutes' | 'dips';
  /** Palest first. */
  readonly shades: readonly GradedShade[];
  /** The largest step against the mean one; 1: all alike. */
  readonly unevenness: number;
  /** It comes as pale as was asked for, and as deep. */
  readonly reaches: boolean;
  /** Dyestuff for one piece of each, as a share of what every piece at the recipe’s dose would take. */
  readonly dyeShare: number;
}

/** The ways to dye a family of shades. */
export type GradedAnswer =
  | TooFew
  | {
      readonly state: 'told';
      /** Those that reach both ends first, and of them the one that takes least dye. */
      readonly ways: readonly GradedWay[];
      /** Enough of its dyestuffs was dyed clearly shorter and read: how fast they go on is known. */
      readonly isPaceKnown: boolean;
    };

const EVEN = { kL: 1, kC: 1, kH: 1 };
/** The finest that a share, or a minute, is looked at. */
const POINTS = 80;
/** So much paler or deeper than asked still counts as reached, ΔE00. */
const NEAR_ENOUGH = 2;
const MOST_SHADES = 24;

const between = (x: Lab, y: Lab): number => ciede2000(x, y, EVEN).deltaE;

/** Ways to dye shades that are evenly spaced to the eye; of masters alone nothing is told. */
export function gradedFamily(ask: GradedAsk): GradedAnswer {
  const tooFew = tooFewRead(ask.readings);
  if (tooFew) return tooFew;
  return gradedWith(learntOf(ask.readings, ask.strengths), ask);
}

/**
 * The same for whoever has learnt already. @throws RangeError where fewer than 2 or more than 24 shades are asked for, or
 * the palest is no share below 1
 */
export function gradedWith(posterior: Posterior, ask: GradedAsk): Extract<GradedAnswer, { state: 'told' }> {
  const { dyeing, shades: count, palestShare } = ask;
  if (!Number.isInteger(count) || count < 2 || count > MOST_SHADES)
    throw new RangeError(`a family has 2 to ${MOST_SHADES} shades, not ${count}`);
  if (!(palestShare >= 0 && palestShare < 1))
    throw new RangeError(`the palest is a share from 0 to below 1, not ${palestShare}`);
  const deepest = shadeFor(posterior, dyeing);
  const curve = sampled((share) => shadeFor(posterior, dosedBy(dyeing, share)), 1);
  const palest = shadeAt(curve, palestShare * arcOf(curve));
  const minutes = minutesIn(dyeing);
  const ways = [spaced('dose', curve, palestShare, count, mean)];
  const isPaceKnown = minutes > 0 && knowsPace(ask, minutes);
  if (isPaceKnown) {
    const timed = sampled((share) => shadeFor(posterior, stoppedAt(dyeing, share * minutes)), 1);
    const byTime = spaced('minutes', timed, palestShare, count, () => 1);
    ways.push({ ...byTime, shades: byTime.shades.map((s) => ({ ...s, by: s.by * minutes })) });
  }
  ways.push(dipped(posterior, dyeing, count));
  return {
    state: 'told',
    isPaceKnown,
    ways: ways
      .map((way) => ({ ...way, reaches: reachesBoth(way, palest, deepest) }))
      .sort((x, y) => Number(y.reaches) - Number(x.reaches) || x.dyeShare - y.dyeShare),
  };
}

const mean = (all: readonly number[]): number => all.reduce((sum, v) => sum + v, 0) / all.length;

interface Point {
  readonly at: number;
  readonly lab: Lab;
  /** How far along the curve by eye, ΔE00 summed up. */
  readonly arc: number;
}

/** Shades from nothing to the whole, with how far each lies along the way. Finer near nothing, where most happens. */
function sampled(shade: (share: number) => Lab, to: number): Point[] {
  const points: Point[] = [];
  for (let i = 0; i <= POINTS; i += 1) {
    const at = to * (i / POINTS) ** 2;
    const lab = shade(at);
    const before = points.at(-1);
    points.push({ at, lab, arc: before ? before.arc + between(before.lab, lab) : 0 });
  }
  return points;
}

const arcOf = (curve: readonly Point[]): number => curve.at(-1)?.arc ?? 0;

/** Where a curve is a given way along: what makes that shade, and the shade. */
function pointAt(curve: readonly Point[], arc: number): Point {
  const next = curve.findIndex((p) => p.arc >= arc - 1e-9);
  const [before, after] = [curve[Math.max(0, next - 1)], curve[next < 0 ? curve.length - 1 : next]];
  if (!before || !after) throw new RangeError('a curve of shades has no points');
  const part = after.arc > before.arc ? (arc - before.arc) / (after.arc - before.arc) : 0;
  const mix = (x: number, y: number): number => x + (y - x) * Math.min(1, Math.max(0, part));
  return {
    at: mix(before.at, after.at),
    arc,
    lab: { L: mix(before.lab.L, after.lab.L), a: mix(before.lab.a, after.lab.a), b: mix(before.lab.b, after.lab.b) },
  };
}

const shadeAt = (curve: readonly Point[], arc: number): Lab => pointAt(curve, arc).lab;

/** Points of a curve as far from one another by eye, from the palest to its end. */
function spaced(
  how: GradedWay['how'],
  curve: readonly Point[],
  palestShare: number,
  count: number,
  dye: (shares: readonly number[]) => number,
): GradedWay {
  const arc = arcOf(curve);
  const all = Array.from({ length: count }, (_, i) =>
    pointAt(curve, arc * (palestShare + ((1 - palestShare) * i) / (count - 1))),
  );
  return wayOf(how, all, dye(all.map((p) => p.at)));
}

function wayOf(how: GradedWay['how'], all: readonly Pick<Point, 'at' | 'lab'>[], dyeShare: number): GradedWay {
  const shades = all.map(({ at, lab }, i): GradedShade => {
    const before = all[i - 1];
    return { lab, by: at, stepDeltaE: before ? between(before.lab, lab) : null };
  });
  const steps = shades.flatMap((s) => (s.stepDeltaE === null ? [] : [s.stepDeltaE]));
  return { how, shades, dyeShare, unevenness: Math.max(...steps) / Math.max(1e-6, mean(steps)), reaches: false };
}

/** One piece after another out of the same bath: what each leaves is for the next. */
function dipped(posterior: Posterior, dyeing: Dyeing, count: number): GradedWay {
  const dips = Array.from({ length: count }, (_, i) => ({
    at: dyeing.dip + i,
    lab: shadeFor(posterior, { ...dyeing, dip: dyeing.dip + i }),
  }));
  return wayOf('dips', dips.reverse(), 1 / count);
}

const reachesBoth = ({ shades }: GradedWay, palest: Lab, deepest: Lab): boolean => {
  const [first, last] = [shades[0], shades.at(-1)];
  return (
    first !== undefined &&
    last !== undefined &&
    between(first.lab, palest) <= NEAR_ENOUGH &&
    between(last.lab, deepest) <= NEAR_ENOUGH
  );
};

/** Readings of a dyestuff taken out clearly sooner that tell how fast it goes on, and what clearly sooner is, as a share. */
const [LEAST_SHORTER, SHORTER] = [3, 0.6];

/** Whether every dyestuff of the recipe was dyed shorter often enough, and read. */
function knowsPace({ readings, dyeing }: GradedAsk, minutes: number): boolean {
  const dyestuffs = new Set(dyeing.doses.filter((d) => d.role === 'dyestuff').map((d) => d.materialId));
  return [...dyestuffs].every((id) => {
    const shorter = readings.filter(
      (r) => minutesIn(r.dyeing) <= SHORTER * minutes && r.dyeing.doses.some((d) => d.materialId === id),
    );
    return shorter.length >= LEAST_SHORTER;
  });
}

const minutesIn = (dyeing: Dyeing): number => dyeing.courses.find((c) => c.stage === 'dye')?.points.at(-1)?.minute ?? 0;

/** The recipe with a share of its dyestuffs. */
const dosedBy = (dyeing: Dyeing, share: number): Dyeing => ({
  ...dyeing,
  doses: dyeing.doses.map((d) => (d.role === 'dyestuff' ? { ...d, percentOwf: d.percentOwf * share } : d)),
});

/** The same, lifted out of the dye after so many minutes. */
const stoppedAt = (dyeing: Dyeing, minute: number): Dyeing => ({
  ...dyeing,
  courses: dyeing.courses.map((c) => (c.stage === 'dye' ? cutOff(c, minute) : c)),
});

function cutOff(course: BathCourse, minute: number): BathCourse {
  const [before, after] = [
    course.points.filter((p) => p.minute <= minute),
    course.points.find((p) => p.minute > minute),
  ];
  const last = before.at(-1);
  if (!last || !after) return course;
  const part = (minute - last.minute) / (after.minute - last.minute);
  return { ...course, points: [...before, { minute, celsius: last.celsius + part * (after.celsius - last.celsius) }] };
}
