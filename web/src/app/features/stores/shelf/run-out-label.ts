import type { RunOut } from '@vestigia/core';

const far = (days: number | null): string =>
  days === null
    ? 'years'
    : days < 14
      ? `${Math.round(days)} days`
      : days < 120
        ? `${Math.round(days / 7)} weeks`
        : days < 730
          ? `${Math.round(days / 30.4)} months`
          : `${Math.round(days / 365)} years`;

/** When something runs out, with how sure that is. */
export function sayRunOut(out: RunOut | null): string {
  if (out === null) return 'too little use to say';
  if (out.likelyDays === 0) return 'now: nothing is free';
  if (out.likelyDays === null)
    return out.earlyDays === null ? 'not in ten years' : `in ${far(out.earlyDays)} at the earliest`;
  return `in ${far(out.likelyDays)} (${far(out.earlyDays)} to ${far(out.lateDays)})`;
}
