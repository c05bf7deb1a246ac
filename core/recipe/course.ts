/** What can be done with heat, one leg at a time. */
export const HEAT_LEGS = ['raise', 'hold', 'coast', 'cool', 'steep'] as const;

/** One of `HEAT_LEGS`. */
export type HeatLegKind = (typeof HEAT_LEGS)[number];

/** How each leg is said on screen. */
export const HEAT_LEG_LABELS: Readonly<Record<HeatLegKind, string>> = {
  raise: 'raise to',
  hold: 'hold at',
  coast: 'lid on, heat off',
  cool: 'cool in the bath',
  steep: 'steep off the heat',
};

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
export const STRAIN_LABELS: Readonly<Record<StrainWay, string>> = {
  bag: 'dyestuff in a bag, lifted out',
  sieve: 'through a sieve',
  muslin: 'through muslin',
  muslinTwice: 'twice through muslin',
  leaveIn: 'plant matter left in',
};

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
