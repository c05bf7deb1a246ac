import type { PatchCard } from '@vestigia/contract';
import type { Lab } from '@vestigia/core';
import { desc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { patchCards, people } from '../db/schema';
import type { By } from '../shared/recorded-by';

/** The card as it was measured last. */
export async function readPatchCard(db: Db): Promise<PatchCard> {
  const [row] = await db
    .select({ card: patchCards, by: { id: people.id, name: people.name } })
    .from(patchCards)
    .innerJoin(people, eq(people.id, patchCards.byId))
    .orderBy(desc(patchCards.seq))
    .limit(1);
  return row ? { labs: row.card.labs, note: row.card.note, at: new Date(row.card.at).toISOString(), by: row.by } : null;
}

export async function measurePatchCard(
  db: Db,
  card: { readonly id: string; readonly labs: Lab[]; readonly note: string },
  { now, byId }: By,
): Promise<{ id: string }> {
  await db.insert(patchCards).values({ ...card, at: now.toISOString(), byId });
  return { id: card.id };
}
