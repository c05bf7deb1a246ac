import type { ColourwayEdit } from '@vestigia/contract';
import { eq } from 'drizzle-orm';
import { editColourway, findColourway } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { lots } from '../db/schema';
import { refoldProgress } from './lot-progress';

/** What a colourway promises from now on. Judged by another formula, its lots lie otherwise from what was wanted. */
export async function changePromise(db: Db, id: string, edit: ColourwayEdit): Promise<void> {
  const { formula } = await findColourway(db, id);
  await editColourway(db, id, edit);
  if (edit.formula === undefined || edit.formula === formula) return;
  for (const lot of await db.select({ id: lots.id }).from(lots).where(eq(lots.colourwayId, id)))
    await refoldProgress(db, lot.id);
}
