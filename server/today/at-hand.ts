import type { KeepAtHand, PageAtHand } from '@vestigia/contract';
import { and, desc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { atHand } from '../db/schema';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';

/** More would be a list to look through again. */
const MOST = 30;

/** The pages somebody wants at hand, newest first. */
export const readAtHand = (db: Db, personId: string): Promise<PageAtHand[]> =>
  db
    .select({ path: atHand.path, title: atHand.title })
    .from(atHand)
    .where(eq(atHand.personId, personId))
    .orderBy(desc(atHand.at), atHand.path);

/** Keeps a page at hand for whoever asks, under the name it has now, or no longer. */
export async function changeAtHand(
  db: Db,
  { path, title, keep }: KeepAtHand,
  { now, byId }: By,
): Promise<PageAtHand[]> {
  if (!keep) await db.delete(atHand).where(and(eq(atHand.personId, byId), eq(atHand.path, path)));
  else {
    const kept = await readAtHand(db, byId);
    if (kept.length >= MOST && !kept.some((p) => p.path === path))
      throw new Refusal('refused', $localize`${MOST} pages are at hand already. Take one away on Today first.`, {
        reason: 'tooMany',
      });
    await db
      .insert(atHand)
      .values({ personId: byId, path, title, at: now.toISOString() })
      .onConflictDoUpdate({ target: [atHand.personId, atHand.path], set: { title } });
  }
  return readAtHand(db, byId);
}
