import { worded } from '../words/worded';

/** What can be done with heat, one leg at a time. */
export const HEAT_LEGS = ['raise', 'hold', 'coast', 'cool', 'steep', 'air'] as const;

/** One of `HEAT_LEGS`. */
export type HeatLegKind = (typeof HEAT_LEGS)[number];

/** How each leg is said on screen. */
export const HEAT_LEG_LABELS: Readonly<Record<HeatLegKind, string>> = worded(() => ({
  raise: $localize`raise to`,
  hold: $localize`hold at`,
  coast: $localize`lid on, heat off`,
  cool: $localize`cool in the bath`,
  steep: $localize`steep off the heat`,
  air: $localize`lift and air`,
}));

/** One leg of a temperature course. */
export interface HeatLeg {
  readonly do: HeatLegKind;
  /** Temperature at its end, °C; absent where it goes where it goes. */
  readonly toC?: number | undefined;
  readonly minutes: number;
}

/** How plant matter is kept out of the bath, or not. */
export const STRAIN_WAYS = ['bag', 'sieve', 'muslin', 'muslinTwice', 'leaveIn'] as const;

/** One of `STRAIN_WAYS`. */
export type StrainWay = (typeof STRAIN_WAYS)[number];

/** How each way is said on screen. */
export const STRAIN_LABELS: Readonly<Record<StrainWay, string>> = worded(() => ({
  bag: $localize`dyestuff in a bag, lifted out`,
  sieve: $localize`through a sieve`,
  muslin: $localize`through muslin`,
  muslinTwice: $localize`twice through muslin`,
  leaveIn: $localize`plant matter left in`,
}));

/** What says that a step is over. */
export const FINISHED_BY = ['clock', 'eye', 'both'] as const;

/** One of `FINISHED_BY`. */
export type FinishedBy = (typeof FINISHED_BY)[number];

/** The hottest it gets, °C: by its course where it has one. */
export function hottestC(step: {
  readonly course: readonly HeatLeg[];
  readonly temperatureC?: number | undefined;
}): number | undefined {
  const legs = step.course.flatMap((leg) =>
    leg.toC !== undefined && (leg.do === 'raise' || leg.do === 'hold') ? [leg.toC] : [],
  );
  return legs.length > 0 ? Math.max(...legs) : step.temperatureC;
}

/** Minutes a step takes in all: the sum of its course where it has one, as many times as it is repeated. */
export function stepMinutes(step: {
  readonly course: readonly HeatLeg[];
  readonly durationMin: number;
  readonly repeats: number;
}): number {
  const once = step.course.length > 0 ? step.course.reduce((sum, leg) => sum + leg.minutes, 0) : step.durationMin;
  return once * step.repeats;
}

/** A course with its repeats written out: the legs of every pass, one after the other. */
export const wholeCourse = (step: { readonly course: readonly HeatLeg[]; readonly repeats: number }): HeatLeg[] =>
  Array.from({ length: Math.max(1, step.repeats) }, () => step.course).flat();

/** Which leg of its course a step is in. Minutes. */
export interface LegNow {
  readonly leg: HeatLeg;
  /** 1, 2, 3 … of `passes`. */
  readonly pass: number;
  readonly passes: number;
  readonly leftMin: number;
  readonly next: HeatLeg | undefined;
}

/**
 * The leg that is due so many minutes into a step; `undefined` without a course, and once it is over.
 * @param minutes in work, its pauses left out
 */
export function legNow(
  step: { readonly course: readonly HeatLeg[]; readonly repeats: number },
  minutes: number,
): LegNow | undefined {
  const legs = wholeCourse(step);
  let endsMin = 0;
  for (const [i, leg] of legs.entries()) {
    endsMin += leg.minutes;
    if (minutes < endsMin)
      return {
        leg,
        pass: Math.floor(i / step.course.length) + 1,
        passes: Math.max(1, step.repeats),
        leftMin: endsMin - minutes,
        next: legs[i + 1],
      };
  }
  return undefined;
}
