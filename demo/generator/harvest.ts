import { DAY_MS } from './dyehouse';

/** Months in which a plant is taken, from and to, 1 to 12; it may go round the year's end. */
export interface HarvestMonths {
  readonly fromMonth: number;
  readonly toMonth: number;
}

/** Whether a day lies in a season. */
export function isInSeason(atMs: number, { fromMonth, toMonth }: HarvestMonths): boolean {
  const month = new Date(atMs).getUTCMonth() + 1;
  return fromMonth <= toMonth ? month >= fromMonth && month <= toMonth : month >= fromMonth || month <= toMonth;
}

/** The day in season that is nearest to one: within a year there always is one. */
export function nearestInSeason(atMs: number, season: HarvestMonths): number {
  for (let days = 0; days <= 366; days += 1)
    for (const candidate of [atMs - days * DAY_MS, atMs + days * DAY_MS])
      if (isInSeason(candidate, season)) return candidate;
  return atMs;
}
