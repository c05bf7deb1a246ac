import { createHash, randomBytes } from 'node:crypto';
import type { CalendarEvent } from '@vestigia/core';
import { sayTouch, touchesAhead, writeCalendar } from '@vestigia/core';
import { eq, like, and } from 'drizzle-orm';
import type { Db } from '../db/database';
import { secrets, studio } from '../db/schema';
import { notFound } from '../shared/problem';
import { readPlanFacts } from './plan-store';

const KEY_BYTES = 24;
const nameOf = (personId: string): string => `calendar ${personId}`;
const hashed = (key: string): string => createHash('sha256').update(key).digest('hex');

/** Gives somebody a new address for their calendar; the one before is worth nothing any more. Only its hash is kept. */
export async function newCalendarKey(db: Db, personId: string): Promise<string> {
  const key = randomBytes(KEY_BYTES).toString('base64url');
  const value = hashed(key);
  await db
    .insert(secrets)
    .values({ name: nameOf(personId), value })
    .onConflictDoUpdate({ target: secrets.name, set: { value } });
  return key;
}

/** Takes somebody’s address away. */
export async function revokeCalendarKey(db: Db, personId: string): Promise<void> {
  await db.delete(secrets).where(eq(secrets.name, nameOf(personId)));
}

/** Whether somebody has an address. */
export async function hasCalendarKey(db: Db, personId: string): Promise<boolean> {
  const found = await db
    .select({ name: secrets.name })
    .from(secrets)
    .where(eq(secrets.name, nameOf(personId)));
  return found.length > 0;
}

/**
 * What whoever holds a key has to do by the accepted plan, as a calendar.
 * @throws {Refusal} where the key is nobody’s, or was taken away
 */
export async function calendarByKey(db: Db, key: string, now: Date): Promise<string> {
  const [held] = await db
    .select({ name: secrets.name })
    .from(secrets)
    .where(and(like(secrets.name, 'calendar %'), eq(secrets.value, hashed(key))));
  if (!held) throw notFound($localize`calendar`);
  return calendarOf(db, held.name.slice(nameOf('').length), now);
}

/** What somebody has to do by the accepted plan, as a calendar; empty while nobody goes by one. */
export async function calendarOf(db: Db, personId: string, now: Date): Promise<string> {
  const [house] = await db.select({ name: studio.name }).from(studio);
  const facts = await readPlanFacts(db, now, personId);
  const events = touchesAhead(facts)
    .filter((t) => t.personId === personId)
    .map((t): CalendarEvent => ({
      uid: `${t.lotId}-${t.stepIndex}-${t.kind}@vestigia`,
      startAt: t.startAt,
      endAt: t.endAt,
      title: `${t.lotTag}, ${sayTouch(t)}`,
      note: facts.lots.find((l) => l.id === t.lotId)?.colourway ?? '',
    }));
  return writeCalendar(house?.name ?? '', events, facts.accepted?.at ?? now.toISOString());
}
