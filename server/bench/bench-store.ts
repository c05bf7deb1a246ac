import type { Bench, Container } from '@vestigia/contract';
import { and, asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { cautionsPutAway, containers, people, vessels, waters } from '../db/schema';
import { readLotSummaries } from '../lots/lots-store';
import { readLotsFor } from '../lots/veiled-lot';
import { Refusal, notFound } from '../shared/problem';
import { readRoom } from '../studio/room';
import { studioToday } from '../studio/studio-store';

/** Everything the bench needs to go on by itself for a while: the lots in work, and one that is asked for. */
export async function readBench(
  db: Db,
  { personId, now, lotId }: { personId: string; now: Date; lotId?: string | undefined },
): Promise<Bench> {
  const open = await readLotSummaries(db, { states: ['planned', 'inWork'] });
  const ids = [
    ...new Set([...(lotId === undefined ? [] : [lotId]), ...open.filter((l) => l.state === 'inWork').map((l) => l.id)]),
  ];
  const whole = new Map((await readLotsFor(db, ids, personId)).map((lot) => [lot.summary.id, lot]));
  if (lotId !== undefined && !whole.has(lotId)) throw notFound('lot');
  return {
    ...(await readAround(db, personId, now)),
    lots: ids.flatMap((id) => whole.get(id) ?? []),
    waiting: open
      .filter((l) => l.state === 'planned' && l.id !== lotId)
      .map((l) => ({ id: l.id, tag: l.tag, colourway: l.colourway.name, pieces: l.pieces })),
  };
}

/** The room around the bench: balance, pots, waters, people, containers, and what this person has put away today. */
export async function readAround(db: Db, personId: string, now: Date): Promise<Omit<Bench, 'lots' | 'waiting'>> {
  const { room, balance } = await readRoom(db);
  const on = await studioToday(db, now);
  return {
    now: now.toISOString(),
    room: {
      roomC: room.roomC,
      balanceName: balance.name,
      balanceStepG: balance.resolutionG,
      balanceCapacityG: balance.capacityG,
    },
    vessels: await db
      .select({ id: vessels.id, name: vessels.name, metal: vessels.metal })
      .from(vessels)
      .orderBy(asc(vessels.name)),
    waters: await db.select({ id: waters.id, name: waters.name }).from(waters).orderBy(asc(waters.name)),
    people: await db.select({ id: people.id, name: people.name }).from(people).orderBy(asc(people.name)),
    containers: await db.select().from(containers).orderBy(asc(containers.name)),
    putAway: (
      await db
        .select({ caution: cautionsPutAway.caution })
        .from(cautionsPutAway)
        .where(and(eq(cautionsPutAway.personId, personId), eq(cautionsPutAway.on, on)))
    ).map((r) => r.caution),
  };
}

export async function putAwayCaution(db: Db, personId: string, caution: string, now: Date): Promise<void> {
  await db
    .insert(cautionsPutAway)
    .values({ personId, on: await studioToday(db, now), caution })
    .onConflictDoNothing();
}

/** Remembers an empty container; one of that name is weighed anew. */
export async function rememberContainer(db: Db, { id, name, tareMg }: Container): Promise<{ id: string }> {
  const [same] = await db.select({ id: containers.id }).from(containers).where(eq(containers.name, name));
  if (!same) {
    await db.insert(containers).values({ id, name, tareMg });
    return { id };
  }
  const [kept] = await db
    .update(containers)
    .set({ tareMg })
    .where(eq(containers.id, same.id))
    .returning({ id: containers.id });
  if (!kept) throw new Refusal('refused', $localize`That container was taken away meanwhile. Weigh it again.`);
  return kept;
}
