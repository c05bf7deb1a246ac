import type { Db } from '../db/database';
import { Refusal } from '../shared/problem';
import { studioToday } from './studio-store';

/**
 * A day that something is to be done by is today, by the studio's own clock, or later.
 * @param field the name of the field it was written in
 * @throws {Refusal} where it is past
 */
export async function assertDayToCome(
  db: Db,
  day: string | null,
  { now, field }: { now: Date; field: string },
): Promise<void> {
  if (day !== null && day < (await studioToday(db, now)))
    throw new Refusal('refused', $localize`That day is past. Choose today or a day to come.`, {
      reason: 'dayPast',
      errors: [{ field, detail: $localize`That day is past.` }],
    });
}
