import { eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lotsWanted } from '../db/schema';
import { findLot } from '../lots/lots-store';
import type { By } from '../shared/recorded-by';
import { assertDayToCome } from '../studio/day-to-come';

/**
 * Says by which day a lot is promised, or that nobody waits any more.
 * @throws {Refusal} where there is no such lot, or the day is past
 */
export async function wantLot(db: Db, lotId: string, wantedOn: string | null, { now, byId }: By): Promise<void> {
  await findLot(db, lotId);
  if (wantedOn === null) {
    await db.delete(lotsWanted).where(eq(lotsWanted.lotId, lotId));
    return;
  }
  await assertDayToCome(db, wantedOn, { now, field: 'wantedOn' });
  const row = { wantedOn, at: now.toISOString(), byId };
  await db
    .insert(lotsWanted)
    .values({ lotId, ...row })
    .onConflictDoUpdate({ target: lotsWanted.lotId, set: row });
}
