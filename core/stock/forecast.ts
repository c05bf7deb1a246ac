import { studentT95OneSided } from '../quantity/student';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';

/** Use of one material week by week, oldest first, whole smallest units; weeks without use are zeros. */
export interface UseHistory {
  readonly weekly: readonly number[];
}

/** How fast a material is used a week, smallest units, and how much weeks differ. */
export interface UseRate {
  /** Mean use a week, smallest units. */
  readonly perWeek: number;
  /** Standard deviation of a single week. */
  readonly weekSpread: number;
  readonly weeks: number;
  readonly weeksWithUse: number;
}

/**
 * Days until it runs out: `likely`, and between `early` and `late` eight times in ten. `null`: not within ten years.
 */
export interface RunOut {
  readonly likelyDays: number | null;
  readonly earlyDays: number | null;
  readonly lateDays: number | null;
}

/** 80 % of a normal distribution lie within ± 1.2816 standard deviations. */
const Z_80 = 1.2816;
/** 95 % lie below + 1.6449: the service level of a reorder point. */
const FEWEST_WEEKS = 8;
const FEWEST_USES = 3;
const HORIZON_WEEKS = 520;

/**
 * Reads a rate from history, or `undefined` with too little of it: fewer than eight weeks or three weeks with any
 * use.
 */
export function rateOfUse({ weekly }: UseHistory): UseRate | undefined {
  const weeksWithUse = weekly.filter((w) => w > 0).length;
  if (weekly.length < FEWEST_WEEKS || weeksWithUse < FEWEST_USES) return undefined;
  const perWeek = weekly.reduce((sum, w) => sum + w, 0) / weekly.length;
  const weekSpread = Math.sqrt(weekly.reduce((sum, w) => sum + (w - perWeek) ** 2, 0) / (weekly.length - 1));
  return { perWeek, weekSpread, weeks: weekly.length, weeksWithUse };
}

/**
 * When what is free runs out. Weeks are taken as independent, so demand over t weeks has mean μt and variance
 * σ²t + (σ²/n)t²: the second part is that the mean itself was read from n weeks only. The band is where demand reaches
 * `free` at its upper and lower 10 %.
 * @param free smallest units; below zero counts as gone already
 */
export function runOut(free: number, rate: UseRate): RunOut {
  if (free <= 0) return { likelyDays: 0, earlyDays: 0, lateDays: 0 };
  const demandAt = (weeks: number, z: number): number =>
    rate.perWeek * weeks +
    z * Math.sqrt(rate.weekSpread ** 2 * weeks + (rate.weekSpread ** 2 / rate.weeks) * weeks ** 2);
  return {
    likelyDays: daysUntil((t) => demandAt(t, 0), free),
    earlyDays: daysUntil((t) => demandAt(t, Z_80), free),
    lateDays: daysUntil((t) => demandAt(t, -Z_80), free),
  };
}

/**
 * First time, in days, at which demand reaches what there is. The lower band is not monotone near nothing, so it is
 * walked, then halved.
 */
function daysUntil(demand: (weeks: number) => number, free: number): number | null {
  let before = 0;
  for (let weeks = 0.25; weeks <= HORIZON_WEEKS; weeks += 0.25) {
    if (demand(weeks) < free) {
      before = weeks;
      continue;
    }
    let [low, high] = [before, weeks];
    for (let i = 0; i < 24; i += 1) {
      const middle = (low + high) / 2;
      if (demand(middle) < free) low = middle;
      else high = middle;
    }
    return Math.round(high * 7 * 10) / 10;
  }
  return null;
}

/** At how much free stock to order, and how much. */
export interface Reorder {
  /** Order when free stock falls to this. Whole smallest units. */
  readonly point: Figure;
  /** Order this much. */
  readonly quantity: Figure;
}

/**
 * When to order and how much: the point covers use over the lead time nineteen times in twenty, by
 * Student's t of the weeks it was read from (mean + t σ√(L + L²/n)), where weeks are independent and much alike; the
 * quantity covers `coverWeeks` of use. A point or quantity set by the studio stands instead.
 */
export function reorder(
  rate: UseRate,
  {
    leadTimeDays,
    coverWeeks = 26,
    unit,
    setPoint = null,
    setQuantity = null,
  }: { leadTimeDays: number; coverWeeks?: number; unit: string; setPoint?: number | null; setQuantity?: number | null },
): Reorder {
  const leadWeeks = Math.max(leadTimeDays / 7, 1 / 7);
  // The weeks to come spread, and so does the mean that was read from so few.
  const spread = rate.weekSpread * Math.sqrt(leadWeeks + leadWeeks ** 2 / rate.weeks);
  const t = studentT95OneSided(rate.weeks - 1);
  const worked = Math.ceil(rate.perWeek * leadWeeks + t * spread);
  const inputs = [
    {
      name: $localize`use a week`,
      value: Math.round(rate.perWeek),
      unit,
      source: $localize`mean of ${rate.weeks} weeks`,
    },
    { name: $localize`spread of a week`, value: Math.round(rate.weekSpread), unit },
    { name: $localize`lead time`, value: leadTimeDays, unit: 'days' },
  ];
  const point =
    setPoint !== null
      ? figure(setPoint, unit, $localize`set by the studio`, [])
      : figure(
          worked,
          unit,
          $localize`use over the lead time + t × spread × √(lead time + lead time² ÷ weeks)`,
          inputs,
          [$localize`enough about 19 times in 20 where use is steady, less often where it comes in lumps`],
        );
  const quantity =
    setQuantity !== null
      ? figure(setQuantity, unit, $localize`set by the studio`, [])
      : figure(Math.ceil(rate.perWeek * coverWeeks), unit, $localize`use of ${coverWeeks} weeks`, inputs.slice(0, 1));
  return { point, quantity };
}

/** Months 1 to 12, both included; may run over new year. */
export interface Season {
  readonly fromMonth: number;
  readonly toMonth: number;
}

/** Whether an ISO date falls into a season, which may run over New Year. */
export function isInSeason(season: Season, isoDate: string): boolean {
  const month = Number(isoDate.slice(5, 7));
  return season.fromMonth <= season.toMonth
    ? month >= season.fromMonth && month <= season.toMonth
    : month >= season.fromMonth || month <= season.toMonth;
}

/**
 * Days from a date to the first day of the season's next beginning after it; a season that is on now counts from its
 * next year.
 */
export function daysToNextSeason(season: Season, isoDate: string): number {
  const from = Date.parse(`${isoDate}T00:00:00Z`);
  const year = Number(isoDate.slice(0, 4));
  for (const y of [year, year + 1, year + 2]) {
    const start = Date.UTC(y, season.fromMonth - 1, 1);
    if (start > from) return Math.round((start - from) / 86_400_000);
  }
  return 365;
}

/**
 * What to gather now so that it lasts until the season after: use until then less what is free, never below nothing.
 */
export function toGather(free: number, rate: UseRate, season: Season, isoDate: string, unit: string): Figure {
  const days = daysToNextSeason(season, isoDate);
  const need = Math.max(0, Math.ceil(rate.perWeek * (days / 7)) - Math.max(0, free));
  return figure(
    need,
    unit,
    $localize`use a week × weeks until the next season − what is free`,
    [
      { name: $localize`use a week`, value: Math.round(rate.perWeek), unit },
      { name: $localize`until the next season`, value: days, unit: 'days' },
      { name: $localize`free`, value: free, unit },
    ],
    [$localize`take only part of a stand, with permission`],
  );
}
