import { eq, inArray } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { reservations, stockLots, stockBalances } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { readReserved } from './lots-store';

/** Lets go of everything still promised to a lot, or only of some materials. */
export async function releaseReservations(
  db: Db,
  lotId: string,
  { now, byId }: By,
  materialIds?: readonly string[],
): Promise<void> {
  const reserved = await readReserved(db, lotId);
  if (reserved.size === 0) return;
  const held = await db
    .select({ id: stockLots.id, materialId: stockLots.materialId })
    .from(stockLots)
    .where(inArray(stockLots.id, [...reserved.keys()]));
  const freed = held.filter((j) => materialIds === undefined || materialIds.includes(j.materialId));
  await release(
    db,
    lotId,
    freed.map((j) => [j.id, reserved.get(j.id) ?? 0]),
    { now, byId },
  );
}

/**
 * What was weighed out is promised no longer: from the jar it came from first, then from the other jars of that
 * material, since the need is met whichever jar met it.
 */
export async function consumeReservation(
  db: Db,
  lotId: string,
  stockLotId: string,
  materialId: string,
  amount: number,
  by: By,
): Promise<void> {
  const reserved = await readReserved(db, lotId);
  const held = await db.select({ id: stockLots.id }).from(stockLots).where(eq(stockLots.materialId, materialId));
  let left = amount;
  const freed: [string, number][] = [];
  for (const id of [stockLotId, ...held.map((j) => j.id).filter((other) => other !== stockLotId)]) {
    const taken = Math.min(left, reserved.get(id) ?? 0);
    if (taken > 0) freed.push([id, taken]);
    left -= taken;
  }
  await release(db, lotId, freed, by);
}

/**
 * Promises a lot again what was taken for it and went back into its jar: no more than it still wants of that, and
 * nothing of a jar that holds another stuff, as a solution's does.
 * @param wanted smallest units that its step still wants
 */
export async function promiseAgain(
  db: Db,
  lotId: string,
  { stockLotId, materialId, amount: back }: { stockLotId: string | null; materialId: string; amount: number },
  wanted: number,
  { now, byId }: By,
): Promise<void> {
  if (stockLotId === null) return;
  const [jar] = await db
    .select({
      materialId: stockLots.materialId,
      onHand: stockBalances.onHand,
      reserved: stockBalances.reserved,
    })
    .from(stockLots)
    .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id))
    .where(eq(stockLots.id, stockLotId));
  if (jar?.materialId !== materialId) return;
  // What others were promised meanwhile is theirs: a slip must not be kept standing by it.
  const amount = Math.min(back, wanted, jar.onHand - jar.reserved);
  if (amount <= 0) return;
  await db.insert(reservations).values({ id: uuidv7(now), lotId, stockLotId, amount, at: now.toISOString(), byId });
}

async function release(
  db: Db,
  lotId: string,
  freed: readonly (readonly [string, number])[],
  { now, byId }: By,
): Promise<void> {
  const rows = freed
    .filter(([, amount]) => amount > 0)
    .map(([stockLotId, amount]) => ({
      id: uuidv7(now),
      lotId,
      stockLotId,
      amount: -amount,
      at: now.toISOString(),
      byId,
    }));
  if (rows.length > 0) await db.insert(reservations).values(rows);
}
