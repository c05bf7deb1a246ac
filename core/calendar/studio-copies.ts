import { addDays, clockOf, dayOf, instantOf } from './studio-calendar';

/** So many days, weeks and months back the newest copy of each is kept. */
export const COPIES_KEPT = { days: 7, weeks: 5, months: 12 } as const;

/** A working day is over at this time on the studio’s clock. */
export const DAY_ENDS = '19:00';

/** The Monday of a day’s week. @param day `2026-06-01` */
function mondayOf(day: string): string {
  const weekday = new Date(`${day}T12:00:00Z`).getUTCDay();
  return addDays(day, -((weekday + 6) % 7));
}

/**
 * Which copies of a studio are kept: the newest of each of the last seven days that have one, of the last five weeks, of
 * the last twelve months. The newest of all is always among them.
 * @param madeMs when each was made, ms; in any order @param zone the studio’s
 * @returns those of `madeMs` that are kept, newest first
 */
export function copiesToKeep(madeMs: readonly number[], zone: string): number[] {
  const newestFirst = [...madeMs].sort((x, y) => y - x);
  const newestOf = (spanOf: (day: string) => string, most: number): number[] => {
    const spans = new Map<string, number>();
    for (const ms of newestFirst) {
      const span = spanOf(dayOf(ms, zone));
      if (!spans.has(span) && spans.size < most) spans.set(span, ms);
    }
    return [...spans.values()];
  };
  const kept = new Set([
    ...newestOf((day) => day, COPIES_KEPT.days),
    ...newestOf(mondayOf, COPIES_KEPT.weeks),
    ...newestOf((day) => day.slice(0, 7), COPIES_KEPT.months),
  ]);
  return newestFirst.filter((ms) => kept.has(ms));
}

/** The latest end of a working day that has passed. */
function lastDayEndMs(nowMs: number, zone: string): number {
  const today = dayOf(nowMs, zone);
  return instantOf(clockOf(nowMs, zone) >= DAY_ENDS ? today : addDays(today, -1), DAY_ENDS, zone);
}

/**
 * Whether a copy of the studio is due: something was recorded since the last one, and a working day has ended since.
 * A studio that is switched off before its day ends gets its copy the next morning.
 * @param lastCopyMs `null`: there is none @param lastRecordMs `null`: nothing was ever recorded
 */
export const isCopyDue = (
  nowMs: number,
  lastCopyMs: number | null,
  lastRecordMs: number | null,
  zone: string,
): boolean => lastRecordMs !== null && (lastCopyMs ?? -Infinity) < Math.min(lastRecordMs, lastDayEndMs(nowMs, zone));

/** A last good copy of so many days ago is told as old, where something was recorded since. */
export const OLD_COPY_DAYS = 3;

/**
 * Whether the last good copy is too old to be quiet about. @param lastCopyMs `null`: there is none @param lastRecordMs `null`:
 * nothing was ever recorded
 */
export const isCopyOld = (nowMs: number, lastCopyMs: number | null, lastRecordMs: number | null): boolean =>
  lastRecordMs !== null &&
  (lastCopyMs ?? -Infinity) < lastRecordMs &&
  nowMs - (lastCopyMs ?? -Infinity) > OLD_COPY_DAYS * 86_400_000;
