import type { HouseTimesEdit, HouseTimesView } from '@vestigia/contract';
import { TIMES_AT_FIRST } from '@vestigia/core';
import { eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { houseTimes } from '../db/schema';
import { assertFresh } from '../http/versioned';

/** When the house is open, who works when, what works; as at first where nobody said anything. */
export async function readHouseTimes(db: Db): Promise<HouseTimesEdit> {
  const [row] = await db.select().from(houseTimes);
  // What was kept before there were pots and room in it lacks them.
  return row ? { ...asAtFirst(), ...row.times, version: row.version } : { ...asAtFirst(), version: 1 };
}

/** Keeps them whole; refused where somebody else changed them meanwhile. */
export async function editHouseTimes(db: Db, { version, ...times }: HouseTimesEdit): Promise<HouseTimesEdit> {
  await db.insert(houseTimes).values({ times: asAtFirst() }).onConflictDoNothing();
  const updated = await db
    .update(houseTimes)
    .set({ times, version: sql`${houseTimes.version} + 1` })
    .where(eq(houseTimes.version, version))
    .returning();
  assertFresh(updated, times, updated.length === 0 ? await readHouseTimes(db) : undefined);
  return readHouseTimes(db);
}

const asAtFirst = (): HouseTimesView => ({
  week: TIMES_AT_FIRST.week.map((day) => day.map(([from, to]) => [from, to])),
  closed: [],
  people: [],
  heat: [],
  pots: [],
  room: TIMES_AT_FIRST.room,
});
