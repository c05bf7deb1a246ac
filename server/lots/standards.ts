import type { FamilyStandards, JudgeRule } from '@vestigia/core';
import type { Db } from '../db/database';
import type { Standing } from './lot-parts';
import { readParts } from './lot-parts';
import type { LotRow } from './lots-store';
import { masterAmong, zonesAmong } from './master-of';

/** What the shades of a lot are held against. */
export const standardsAmong = (
  lot: Pick<LotRow, 'master' | 'at'>,
  standing: Standing,
  expected: FamilyStandards['expected'],
): FamilyStandards => ({
  master: masterAmong(lot.master, standing),
  expected,
  zones: zonesAmong(standing, lot.at),
  formula: standing.formula,
});

/** What the shades of a lot are held against, and what the studio passes lots by. */
export async function readStandards(
  db: Db,
  lot: Pick<LotRow, 'id' | 'master' | 'at'>,
): Promise<{ readonly standards: FamilyStandards; readonly rule: JudgeRule }> {
  const { standing, expected, judgeRule } = await readParts(db, lot.id, 'standing', 'expected', 'judgeRule');
  return { standards: standardsAmong(lot, standing, expected), rule: judgeRule };
}
