import { contentsAtVolume, formatAmount } from '@vestigia/core';
import { asc, desc, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { liquorEntries } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import type { By } from '../shared/recorded-by';
import type { Jar } from './stock-lot-store';

/** Grams to the litre of a material in a kept liquor; `undefined` where the jar is none, or holds none of it. */
export async function concentrationOf(db: Db, stockLotId: string, materialId: string): Promise<number | undefined> {
  const [row] = await db
    .select({ after: liquorEntries.after })
    .from(liquorEntries)
    .where(eq(liquorEntries.stockLotId, stockLotId))
    .orderBy(desc(liquorEntries.seq))
    .limit(1);
  const content = row?.after.contents.find((c) => c.materialId === materialId);
  return row && content && content.grams > 0 && row.after.volumeUl > 0
    ? (content.grams * 1_000_000) / row.after.volumeUl
    : undefined;
}

/** A count of a kept liquor measures it: what is missing has steamed off, so what is dissolved stays. */
export async function keepContents(db: Db, stockLot: Jar, volumeUl: number, { now, byId }: By): Promise<void> {
  const [last] = await db
    .select({ after: liquorEntries.after })
    .from(liquorEntries)
    .where(eq(liquorEntries.stockLotId, stockLot.id))
    .orderBy(desc(liquorEntries.seq))
    .limit(1);
  if (!last) return;
  const at = now.toISOString();
  const contents = contentsAtVolume(last.after.contents, last.after.volumeUl, stockLot.onHand);
  await db.insert(liquorEntries).values({
    id: uuidv7(now),
    stockLotId: stockLot.id,
    kind: 'level',
    after: { ...last.after, contents, volumeUl, working: null, at },
    note: `counted: ${formatAmount(volumeUl, 'volume')}, and all that was dissolved`,
    at,
    byId,
  });
}

/** What is dissolved in kept liquors, by stock lot: ids of materials. */
export async function readLiquorContents(db: Db, stockLotIds: readonly string[]): Promise<Map<string, string[]>> {
  if (stockLotIds.length === 0) return new Map();
  const entries = await db
    .select({ stockLotId: liquorEntries.stockLotId, after: liquorEntries.after })
    .from(liquorEntries)
    .where(inArray(liquorEntries.stockLotId, [...stockLotIds]))
    .orderBy(asc(liquorEntries.seq));
  return new Map(
    entries.map(({ stockLotId, after }) => [stockLotId, after.contents.flatMap((c) => c.materialId ?? [])] as const),
  );
}
