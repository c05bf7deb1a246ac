import type { FamilyStandards, JudgeRule } from '@vestigia/core';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways } from '../db/schema';
import { readParts } from './lot-parts';
import type { LotRow } from './lots-store';
import { masterOf, zonesOf } from './master-of';

/** What the shades of a lot are held against, and what the studio passes lots by. */
export async function readStandards(
  db: Db,
  lot: Pick<LotRow, 'id' | 'master' | 'at' | 'colourwayId'>,
): Promise<{ readonly standards: FamilyStandards; readonly rule: JudgeRule }> {
  const { expected, judgeRule } = await readParts(db, lot.id, 'expected', 'judgeRule');
  const [colourway] = await db
    .select({ formula: colourways.formula })
    .from(colourways)
    .where(eq(colourways.id, lot.colourwayId));
  const { formula } = colourway ?? {};
  const [master, zones] = [await masterOf(db, lot), await zonesOf(db, lot)];
  return { standards: { master, expected, zones, formula }, rule: judgeRule };
}
