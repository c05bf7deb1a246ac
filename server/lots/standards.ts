import type { LotDetail } from '@vestigia/contract';
import type { FamilyStandards, JudgeRule } from '@vestigia/core';
import type { Db } from '../db/database';
import { studio } from '../db/schema';
import { findVersion } from '../recipes/recipes-store';
import type { LotRow } from './lots-store';
import { masterOf } from './master-of';

/** What each base is expected to come out, by a recipe version. */
export async function readExpected(db: Db, recipeVersionId: string): Promise<LotDetail['expected']> {
  const { body } = await findVersion(db, recipeVersionId);
  return body.expectedShades.map(({ baseMaterialId, L, a, b, illuminant, observer }) => ({
    baseMaterialId,
    L,
    a,
    b,
    illuminant,
    observer,
  }));
}

/** What the studio passes lots by. */
export async function readJudgeRule(db: Db): Promise<JudgeRule> {
  const [row] = await db.select({ rule: studio.judgeRule }).from(studio);
  return row?.rule ?? 'eye';
}

/** What the shades of a lot are held against. */
export const readStandards = async (
  db: Db,
  lot: Pick<LotRow, 'master' | 'colourwayId' | 'recipeVersionId'>,
): Promise<FamilyStandards> => ({
  master: await masterOf(db, lot),
  expected: await readExpected(db, lot.recipeVersionId),
});
