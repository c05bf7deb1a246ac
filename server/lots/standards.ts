import type { FamilyStandards, JudgeRule } from '@vestigia/core';
import type { Db } from '../db/database';
import { readParts } from './lot-parts';
import type { LotRow } from './lots-store';
import { masterOf, zonesOf } from './master-of';

/** What the shades of a lot are held against, and what the studio passes lots by. */
export async function readStandards(
  db: Db,
  lot: Pick<LotRow, 'id' | 'master' | 'at' | 'colourwayId'>,
): Promise<{ readonly standards: FamilyStandards; readonly rule: JudgeRule }> {
  const { expected, judgeRule } = await readParts(db, lot.id, 'expected', 'judgeRule');
  return { standards: { master: await masterOf(db, lot), expected, zones: await zonesOf(db, lot) }, rule: judgeRule };
}
