import type { Colourway } from '@vestigia/contract';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, masters } from '../db/schema';
import type { LotRow } from './lots-store';

/** The master a lot is judged by: its own, else the first its colourway got, which it may have made itself. */
export async function masterOf(db: Db, lot: Pick<LotRow, 'master' | 'colourwayId'>): Promise<Colourway['master']> {
  if (lot.master) return lot.master;
  const [first] = await db
    .select({ lab: masters.lab })
    .from(masters)
    .where(eq(masters.colourwayId, lot.colourwayId))
    .orderBy(asc(masters.seq))
    .limit(1);
  if (first) return first.lab;
  const [colourway] = await db
    .select({ master: colourways.master })
    .from(colourways)
    .where(eq(colourways.id, lot.colourwayId));
  return colourway?.master ?? null;
}
