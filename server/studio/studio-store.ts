import { dayOf } from '@vestigia/core';
import type { Studio } from '@vestigia/contract';
import type { Role } from '@vestigia/core';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { heatSources, lotProgress, lots, people, studio, vessels, waters } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';

export async function readStudio(db: Db): Promise<Studio> {
  const [row] = await db.select().from(studio);
  if (!row) throw notFound('studio');
  const { only: _only, ...settings } = row;
  return {
    ...settings,
    people: await db
      .select({ id: people.id, name: people.name, role: people.role })
      .from(people)
      .orderBy(asc(people.name)),
    vessels: await db.select().from(vessels).orderBy(asc(vessels.workingMl)),
    heatSources: await db.select().from(heatSources).orderBy(asc(heatSources.name)),
    waters: await db.select().from(waters).orderBy(asc(waters.name)),
  };
}

/** The studio's date, for best-before and what is due: the day it is where the pots stand. */
export async function studioToday(db: Db, now: Date): Promise<string> {
  return dayOf(now.getTime(), await studioZone(db));
}

/** Where the pots stand: days and clock times are meant there. UTC before there is a studio. */
export async function studioZone(db: Db): Promise<string> {
  const [row] = await db.select({ zone: studio.zone }).from(studio);
  return row?.zone ?? 'UTC';
}

type Settings = Omit<Studio, 'people' | 'vessels' | 'waters' | 'heatSources'>;

export async function updateSettings(db: Db, { version, ...fields }: Settings): Promise<void> {
  const updated = await db
    .update(studio)
    .set({ ...fields, version: sql`${studio.version} + 1` })
    .where(eq(studio.version, version))
    .returning();
  assertFresh(updated, fields, updated.length === 0 ? await readStudio(db) : undefined);
}

export async function updateVessel(
  db: Db,
  id: string,
  { version, ...fields }: Omit<Studio['vessels'][number], 'id'>,
): Promise<void> {
  const [before] = await db.select().from(vessels).where(eq(vessels.id, id));
  if (!before) throw notFound('vessel');
  const updated = await db
    .update(vessels)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(vessels.id, id), eq(vessels.version, version)))
    .returning();
  assertFresh(updated, fields, before);
}

export async function updateWater(
  db: Db,
  id: string,
  { version, ...fields }: Omit<Studio['waters'][number], 'id'>,
): Promise<void> {
  const [before] = await db.select().from(waters).where(eq(waters.id, id));
  if (!before) throw notFound($localize`water source`);
  const updated = await db
    .update(waters)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(waters.id, id), eq(waters.version, version)))
    .returning();
  assertFresh(updated, fields, before);
}

export async function updateHeatSource(
  db: Db,
  id: string,
  { version, ...fields }: Omit<Studio['heatSources'][number], 'id'>,
): Promise<void> {
  const [before] = await db.select().from(heatSources).where(eq(heatSources.id, id));
  if (!before) throw notFound($localize`heat source`);
  const updated = await db
    .update(heatSources)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(heatSources.id, id), eq(heatSources.version, version)))
    .returning();
  assertFresh(updated, fields, before);
}

/**
 * Changes what a person may do. Somebody must be left who decides.
 * @throws {Refusal} where that would leave no owner
 */
export async function setRole(db: Db, id: string, role: Role): Promise<void> {
  const all = await db.select({ id: people.id, name: people.name, role: people.role }).from(people);
  const person = all.find((p) => p.id === id);
  if (!person) throw notFound('person');
  if (role !== 'owner' && !all.some((p) => p.id !== id && p.role === 'owner'))
    throw new Refusal('refused', $localize`${person.name} is the only owner here. Make somebody else one first.`, {
      reason: 'lastOwner',
    });
  await db.update(people).set({ role }).where(eq(people.id, id));
}

/** Takes a vessel out, unless a lot that is not done yet is planned in it. What was dyed in it keeps its name. */
export async function removeVessel(db: Db, id: string): Promise<void> {
  const [vessel] = await db.select().from(vessels).where(eq(vessels.id, id));
  if (!vessel) throw notFound('vessel');
  const planned = await db
    .select({ number: lots.number })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .where(and(inArray(lotProgress.state, ['planned', 'inWork']), sql`${lots.plan}::text LIKE ${`%${id}%`}`))
    .orderBy(asc(lots.number));
  if (planned.length > 0) {
    const tags = planned
      .slice(0, 4)
      .map((l) => lotTag(l.number))
      .join(', ');
    throw new Refusal(
      'refused',
      $localize`${vessel.name} is planned for ${tags}${planned.length > 4 ? $localize` and ${planned.length - 4} more` : ''}. Dye or call off ${planned.length === 1 ? $localize`that lot` : $localize`those lots`} first.`,
      { reason: 'vesselInUse' },
    );
  }
  await db.delete(vessels).where(eq(vessels.id, id));
}
