import { eq, inArray } from 'drizzle-orm';
import type { By } from '../by';
import type { Db } from '../db/database';
import { promises, stockLots } from '../db/schema';
import { uuidv7 } from '../ids';
import { readPromised } from './lots-store';

/** Lets go of everything still promised to a lot, or only of some materials. */
export async function releasePromises(
  db: Db,
  lotId: string,
  { now, byId }: By,
  materialIds?: readonly string[],
): Promise<void> {
  const promised = await readPromised(db, lotId);
  if (promised.size === 0) return;
  const jars = await db
    .select({ id: stockLots.id, materialId: stockLots.materialId })
    .from(stockLots)
    .where(inArray(stockLots.id, [...promised.keys()]));
  const freed = jars.filter((j) => materialIds === undefined || materialIds.includes(j.materialId));
  await release(
    db,
    lotId,
    freed.map((j) => [j.id, promised.get(j.id) ?? 0]),
    { now, byId },
  );
}

/**
 * What was weighed out is promised no longer: from the jar it came from first, then from the other jars of that material,
 * since the need is met whichever jar met it.
 */
export async function consumePromise(
  db: Db,
  lotId: string,
  jarId: string,
  materialId: string,
  amount: number,
  by: By,
): Promise<void> {
  const promised = await readPromised(db, lotId);
  const jars = await db.select({ id: stockLots.id }).from(stockLots).where(eq(stockLots.materialId, materialId));
  let left = amount;
  const freed: [string, number][] = [];
  for (const id of [jarId, ...jars.map((j) => j.id).filter((other) => other !== jarId)]) {
    const taken = Math.min(left, promised.get(id) ?? 0);
    if (taken > 0) freed.push([id, taken]);
    left -= taken;
  }
  await release(db, lotId, freed, by);
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
  if (rows.length > 0) await db.insert(promises).values(rows);
}
