import type { Liquor } from '@vestigia/contract';
import type { BathContent, CheckedStockLot } from '@vestigia/core';
import { contentsAtVolume, formatAmount, isDrawn } from '@vestigia/core';
import { asc, desc, eq, inArray, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { liquorEntries, materials, stockLots } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import type { By } from '../shared/recorded-by';
import type { Jar } from './stock-lot-store';

/** Solutions within this share of each other are one thing on the shelf. */
const SAME_STRENGTH = 1e-3;

/** A kept liquor as its newest entry has it; `undefined` of a jar that is none. */
export async function findLiquor(db: Db, stockLotId: string): Promise<Liquor | undefined> {
  const [row] = await db
    .select({ after: liquorEntries.after })
    .from(liquorEntries)
    .where(eq(liquorEntries.stockLotId, stockLotId))
    .orderBy(desc(liquorEntries.seq))
    .limit(1);
  return row?.after;
}

/**
 * Grams to the litre of a material in a stock solution of it; `undefined` where the jar is none. Any other liquor may
 * hold it as well, and much else.
 */
export async function solutionStrength(db: Db, stockLotId: string, materialId: string): Promise<number | undefined> {
  const liquor = await findLiquor(db, stockLotId);
  const [content, ...others] = liquor?.contents ?? [];
  return liquor?.what === 'stockSolution' &&
    others.length === 0 &&
    content?.materialId === materialId &&
    liquor.volumeUl > 0
    ? (content.grams * 1_000_000) / liquor.volumeUl
    : undefined;
}

/** The material by which stock solutions of another, so strong, are kept; `undefined` where none was made yet. */
export async function solutionMaterial(db: Db, ofMaterialId: string, gPerL: number): Promise<string | undefined> {
  const made = await db
    .select({ materialId: stockLots.materialId, after: liquorEntries.after })
    .from(liquorEntries)
    .innerJoin(stockLots, eq(stockLots.id, liquorEntries.stockLotId))
    .where(
      sql`${liquorEntries.kind} = 'save' AND ${liquorEntries.after}->>'what' = 'stockSolution'
        AND ${liquorEntries.after}->'contents'->0->>'materialId' = ${ofMaterialId}`,
    )
    .orderBy(desc(liquorEntries.seq));
  return made.find(({ after }) => {
    const grams = after.contents[0]?.grams ?? 0;
    return Math.abs((grams * 1_000_000) / after.volumeUl - gPerL) <= gPerL * SAME_STRENGTH;
  })?.materialId;
}

/** What is dissolved in so much of a kept liquor; `undefined` of a jar that is none. */
export async function contentsIn(db: Db, stockLotId: string, volumeUl: number): Promise<BathContent[] | undefined> {
  const liquor = await findLiquor(db, stockLotId);
  if (!liquor) return undefined;
  const ids = liquor.contents.flatMap((c) => c.materialId ?? []);
  const kinds =
    ids.length === 0
      ? []
      : await db.select({ id: materials.id, kind: materials.kind }).from(materials).where(inArray(materials.id, ids));
  const kindOf = (id: string | null) => kinds.find((m) => m.id === id)?.kind;
  return contentsAtVolume(liquor.contents, liquor.volumeUl, Math.min(volumeUl, liquor.volumeUl)).map((c) => ({
    ...c,
    drawn: isDrawn(kindOf(c.materialId) ?? 'dyestuff'),
  }));
}

/**
 * A count of a kept liquor measures it: what is missing has steamed off, so what is dissolved stays. The entry's id, or
 * `null` of a jar that is no liquor.
 */
export async function keepContents(db: Db, stockLot: Jar, volumeUl: number, { now, byId }: By): Promise<string | null> {
  const last = await findLiquor(db, stockLot.id);
  if (!last) return null;
  const id = uuidv7(now);
  const at = now.toISOString();
  const contents = contentsAtVolume(last.contents, last.volumeUl, stockLot.onHand);
  await db.insert(liquorEntries).values({
    id,
    stockLotId: stockLot.id,
    kind: 'level',
    after: { ...last, contents, volumeUl, working: null, at },
    note: $localize`counted: ${formatAmount(volumeUl, 'volume')}, and all that was dissolved`,
    at,
    byId,
  });
  return id;
}

/** Kept liquors as checks look at them, by stock lot: what is dissolved, and of a vat how it was last seen. */
export async function readLiquors(
  db: Db,
  stockLotIds: readonly string[],
  now: Date,
): Promise<Map<string, { readonly contents: string[]; readonly vat?: CheckedStockLot['vat'] }>> {
  if (stockLotIds.length === 0) return new Map();
  const entries = await db
    .select({ stockLotId: liquorEntries.stockLotId, after: liquorEntries.after })
    .from(liquorEntries)
    .where(inArray(liquorEntries.stockLotId, [...stockLotIds]))
    .orderBy(asc(liquorEntries.seq));
  return new Map(
    entries.map(({ stockLotId, after }) => [
      stockLotId,
      {
        contents: after.contents.flatMap((c) => c.materialId ?? []),
        ...(after.vat ? { vat: seen(after.vat, now) } : {}),
      },
    ]),
  );
}

function seen({ look, at, ...vat }: NonNullable<Liquor['vat']>, now: Date): NonNullable<CheckedStockLot['vat']> {
  return look === null
    ? { reading: null, hoursAgo: null }
    : { reading: { ...vat, look }, hoursAgo: (now.getTime() - Date.parse(at)) / 3_600_000 };
}
