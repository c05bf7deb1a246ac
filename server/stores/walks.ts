import type { Walk, WalkBooking, WalkEntry } from '@vestigia/contract';
import { countDifference, likelyReasons, netOfTare } from '@vestigia/core';
import { and, asc, desc, eq, isNull, lt } from 'drizzle-orm';
import type { By } from '../by';
import type { Db } from '../db/database';
import { countWalks, movements, stockLots, studio } from '../db/schema';
import { uuidv7 } from '../ids';
import { Refusal, notFound } from '../problem';
import { amountOf, measuring } from './materials-store';
import { readPlace } from './shelf';
import { findJar } from './stock-lot-store';

const RECENT_USES = 12;

export async function startWalk(
  db: Db,
  { id, place, blind }: { id: string; place: string; blind: boolean },
  { now, byId }: By,
): Promise<{ id: string }> {
  const rows = await readPlace(db, place);
  if (rows.length === 0)
    throw new Refusal(
      'refused',
      place === ''
        ? 'Nothing is on the shelf, so there is nothing to count.'
        : `Nothing stands at ${place}. Choose another place.`,
    );
  await db.insert(countWalks).values({ id, place, blind, startedAt: now.toISOString(), byId });
  return { id };
}

export async function listWalks(
  db: Db,
): Promise<{ id: string; place: string; blind: boolean; startedAt: string; counted: number }[]> {
  const rows = await db.select().from(countWalks).where(isNull(countWalks.bookedAt)).orderBy(asc(countWalks.startedAt));
  return rows.map((w) => ({
    id: w.id,
    place: w.place,
    blind: w.blind,
    startedAt: new Date(w.startedAt).toISOString(),
    counted: Object.keys(w.entries).length,
  }));
}

async function findWalk(db: Db, id: string): Promise<typeof countWalks.$inferSelect> {
  const [walk] = await db.select().from(countWalks).where(eq(countWalks.id, id));
  if (!walk) throw notFound('count');
  return walk;
}

/** A count as it stands: every jar of the place, what was found, what differs and what may be behind it. */
export async function readWalk(db: Db, id: string): Promise<Walk> {
  const walk = await findWalk(db, id);
  const [balance] = await db.select({ resolutionG: studio.balanceResolutionG }).from(studio);
  const lines: Walk['lines'] = [];
  for (const row of await readPlace(db, walk.place, Object.keys(walk.entries))) {
    const entry = walk.entries[row.id];
    const [own] = await db.select({ facts: stockLots.facts }).from(stockLots).where(eq(stockLots.id, row.id));
    const tareMg = own?.facts.tareMg ?? null;
    const difference = entry ? countDifference(entry.seenOnHand, entry.counted) : null;
    const recent =
      difference === null || difference === 0
        ? []
        : await db
            .select({ amount: movements.amount })
            .from(movements)
            .where(and(eq(movements.stockLotId, row.id), lt(movements.amount, 0)))
            .orderBy(desc(movements.seq))
            .limit(RECENT_USES);
    lines.push({
      row,
      tareMg,
      bulkDensityGPerMl:
        row.measure === 'weight' ? ((await measuring(db, row.materialId)).bulkDensityGPerMl ?? null) : null,
      counted: entry?.counted ?? null,
      seenOnHand: entry?.seenOnHand ?? null,
      fromBalance: entry?.fromBalance ?? false,
      difference,
      movedSince: walk.bookedAt === null && entry !== undefined && entry.seenOnHand !== row.onHand,
      reasons:
        entry && difference !== 0
          ? likelyReasons({
              measure: row.measure,
              expected: entry.seenOnHand,
              counted: entry.counted,
              tareMg,
              balanceResolutionG: balance?.resolutionG ?? 0.1,
              form: row.form,
              hygroscopic: row.hazards.includes('caustic'),
              recentUses: recent.map((m) => -m.amount),
              promised: row.promised,
            })
          : [],
    });
  }
  return {
    id,
    version: walk.version,
    place: walk.place,
    blind: walk.blind,
    startedAt: new Date(walk.startedAt).toISOString(),
    bookedAt: walk.bookedAt === null ? null : new Date(walk.bookedAt).toISOString(),
    lines,
  };
}

/** Keeps what one jar was found to hold. Nothing is booked yet. */
export async function enterWalk(db: Db, id: string, entry: WalkEntry, { now, byId }: By): Promise<{ id: string }> {
  const walk = await findWalk(db, id);
  if (walk.bookedAt !== null) throw new Refusal('refused', 'This count is booked already. Begin a new one.');
  const jar = await findJar(db, entry.stockLotId);
  if (jar.onHand !== entry.seenOnHand)
    throw new Refusal(
      'changedMeanwhile',
      `${jar.tag} was weighed out or filled while you counted it. Weigh it again.`,
      { theirs: jar.onHand },
    );
  const written = await amountOf(db, entry.written, jar.material, { allowNothing: true });
  const net = entry.gross ? netOfTare(written, jar.facts.tareMg ?? 0) : { ok: true as const, netMg: written };
  if (!net.ok) throw new Refusal('refused', net.sentence, { reason: 'tare' });
  const entries = {
    ...walk.entries,
    [jar.id]: {
      counted: net.netMg,
      seenOnHand: entry.seenOnHand,
      fromBalance: entry.fromBalance,
      at: now.toISOString(),
      byId,
    },
  };
  await db
    .update(countWalks)
    .set({ entries, version: walk.version + 1 })
    .where(eq(countWalks.id, id));
  return { id: entry.id };
}

/** Books every difference of a count together, or none: a jar that moved since is named, and has to be counted again. */
export async function bookWalk(
  db: Db,
  id: string,
  booking: WalkBooking,
  { now, byId }: By,
): Promise<{ booked: number }> {
  const walk = await findWalk(db, id);
  if (walk.bookedAt !== null) throw new Refusal('alreadyDone', 'This count is booked already.');
  const at = now.toISOString();
  const moved: string[] = [];
  const rows: (typeof movements.$inferInsert)[] = [];
  for (const [stockLotId, entry] of Object.entries(walk.entries)) {
    const jar = await findJar(db, stockLotId);
    if (jar.onHand !== entry.seenOnHand) moved.push(jar.tag);
    const amount = countDifference(jar.onHand, entry.counted);
    const note = booking.reasons.find((r) => r.stockLotId === stockLotId)?.note ?? '';
    if (amount !== 0)
      rows.push({
        id: uuidv7(now),
        stockLotId,
        kind: 'count',
        amount,
        note: note === '' ? 'counted on a walk' : note,
        at,
        byId,
      });
  }
  if (moved.length > 0)
    throw new Refusal(
      'changedMeanwhile',
      `${moved.join(', ')} moved since ${moved.length === 1 ? 'it was' : 'they were'} counted. Count ${moved.length === 1 ? 'it' : 'them'} again, then book. Nothing is booked yet.`,
      { theirs: moved },
    );
  if (rows.length > 0) await db.insert(movements).values(rows);
  await db
    .update(countWalks)
    .set({ bookedAt: at, version: walk.version + 1 })
    .where(eq(countWalks.id, id));
  return { booked: rows.length };
}
