import { dayOf, instantOf } from '@vestigia/core';

/** When something dated happened: noon of an earlier day in the studio, or now. */
export function momentOf(day: string, now: Date, zone: string): { at: string; recordedAt: string | null } {
  return day < dayOf(now.getTime(), zone)
    ? { at: new Date(instantOf(day, '12:00', zone)).toISOString(), recordedAt: now.toISOString() }
    : { at: now.toISOString(), recordedAt: null };
}
