import type { RunOut } from '@vestigia/core';
import { countLabel } from '@vestigia/core';

const far = (days: number): string => {
  if (days < 14) return countLabel(Math.round(days), 'day');
  if (days < 120) return countLabel(Math.round(days / 7), 'week');
  return days < 730 ? countLabel(Math.round(days / 30.4), 'month') : countLabel(Math.round(days / 365), 'year');
};

/** When something runs out, with how sure that is. */
export function sayRunOut(out: RunOut | null): string {
  if (out === null) return $localize`too little use to say`;
  if (out.likelyDays === 0) return $localize`now: nothing is free`;
  if (out.likelyDays === null)
    return out.earlyDays === null ? $localize`not in ten years` : $localize`in ${far(out.earlyDays)} at the earliest`;
  const likely = far(out.likelyDays);
  const early = out.earlyDays === null ? likely : far(out.earlyDays);
  if (out.lateDays === null)
    return early === likely ? $localize`in ${likely} or more` : $localize`in ${likely} (${early} or more)`;
  const late = far(out.lateDays);
  return early === late ? $localize`in ${likely}` : $localize`in ${likely} (${early} to ${late})`;
}
