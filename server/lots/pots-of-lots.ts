import type { PotInUse } from '@vestigia/core';
import { foldRun, potsInUse } from '@vestigia/core';
import { and, eq, ne } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lotProgress } from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { findLot, readEntries } from './lots-store';

/** Pots that lots in work hold, but for one lot's own. */
export async function potsOfOtherLots(db: Db, lotId: string): Promise<PotInUse[]> {
  const inWork = await db
    .select({ id: lotProgress.lotId })
    .from(lotProgress)
    .where(and(eq(lotProgress.state, 'inWork'), ne(lotProgress.lotId, lotId)));
  const pots: PotInUse[] = [];
  for (const { id } of inWork) {
    const { plan, number } = await findLot(db, id);
    pots.push(...potsInUse(plan, foldRun(await readEntries(db, id), plan.steps.length), lotTag(number)));
  }
  return pots;
}
