import type { NewStocktake, ShelfRow, Stocktake, StocktakeBooking, StocktakeEntry } from '@vestigia/contract';
import { countDifference, likelyReasons, netOfTare } from '@vestigia/core';
import { and, asc, desc, eq, isNull, lt } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { stocktakes, movements, stockLots, studio } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { Refusal, notFound } from '../shared/problem';
import { keepContents } from './liquor-level';
import { amountOf, measuring } from './materials-store';
import { readNamed, readPlace } from './shelf';
import { findStockLot } from './stock-lot-store';

const RECENT_USES = 12;

export async function startStocktake(
  db: Db,
  { id, place, chosen, blind }: NewStocktake,
  { now, byId }: By,
): Promise<{ id: string }> {
  const rows = await linesOf(db, { place, chosen, entries: {} });
  if (chosen !== null && rows.length < new Set(chosen).size) throw notFound('jar');
  if (rows.length === 0)
    throw new Refusal(
      'refused',
      place === ''
        ? $localize`Nothing is on the shelf, so there is nothing to count.`
        : $localize`Nothing stands at ${place}. Choose another place.`,
    );
  await db.insert(stocktakes).values({ id, place, chosen, blind, startedAt: now.toISOString(), byId });
  return { id };
}

export async function listStocktakes(
  db: Db,
): Promise<(Pick<Stocktake, 'id' | 'place' | 'chosen' | 'blind' | 'startedAt'> & { counted: number })[]> {
  const rows = await db.select().from(stocktakes).where(isNull(stocktakes.bookedAt)).orderBy(asc(stocktakes.startedAt));
  return rows.map((w) => ({
    id: w.id,
    place: w.place,
    chosen: w.chosen === null ? null : [...w.chosen],
    blind: w.blind,
    startedAt: new Date(w.startedAt).toISOString(),
    counted: Object.keys(w.entries).length,
  }));
}

async function findStocktake(db: Db, id: string): Promise<typeof stocktakes.$inferSelect> {
  const [stocktake] = await db.select().from(stocktakes).where(eq(stocktakes.id, id));
  if (!stocktake) throw notFound('count');
  return stocktake;
}

/** The jars a count is of: those chosen, or what stands at its place with something in it and what was counted there. */
const linesOf = (
  db: Db,
  { place, chosen, entries }: Pick<typeof stocktakes.$inferSelect, 'place' | 'chosen' | 'entries'>,
): Promise<ShelfRow[]> =>
  chosen === null ? readPlace(db, place, Object.keys(entries)) : readNamed(db, [...chosen, ...Object.keys(entries)]);

/** A count as it stands: every jar of the place, what was found, what differs and what may be behind it. */
export async function readStocktake(db: Db, id: string): Promise<Stocktake> {
  const stocktake = await findStocktake(db, id);
  const [balance] = await db.select({ resolutionG: studio.balanceResolutionG }).from(studio);
  const lines: Stocktake['lines'] = [];
  for (const row of await linesOf(db, stocktake)) {
    const entry = stocktake.entries[row.id];
    const [own] = await db.select({ facts: stockLots.facts }).from(stockLots).where(eq(stockLots.id, row.id));
    const tareMg = own?.facts.tareMg ?? null;
    const difference = entry ? countDifference(entry.seenOnHand, entry.counted) : null;
    const recent =
      difference === null || difference === 0
        ? []
        : await db
            .select({ amount: movements.amount })
            .from(movements)
            .where(and(eq(movements.stockLotId, row.id), lt(movements.amount, 0)))
            .orderBy(desc(movements.seq))
            .limit(RECENT_USES);
    lines.push({
      row,
      tareMg,
      bulkDensityGPerMl:
        row.measure === 'weight' ? ((await measuring(db, row.materialId)).bulkDensityGPerMl ?? null) : null,
      counted: entry?.counted ?? null,
      seenOnHand: entry?.seenOnHand ?? null,
      fromBalance: entry?.fromBalance ?? false,
      difference,
      movedSince: stocktake.bookedAt === null && entry !== undefined && entry.seenOnHand !== row.onHand,
      reasons:
        entry && difference !== 0
          ? likelyReasons({
              measure: row.measure,
              expected: entry.seenOnHand,
              counted: entry.counted,
              tareMg,
              balanceResolutionG: balance?.resolutionG ?? 0.1,
              form: row.form,
              hygroscopic: row.hazards.includes('caustic'),
              recentUses: recent.map((m) => -m.amount),
              reserved: row.reserved,
            })
          : [],
    });
  }
  return {
    id,
    version: stocktake.version,
    place: stocktake.place,
    chosen: stocktake.chosen === null ? null : [...stocktake.chosen],
    blind: stocktake.blind,
    startedAt: new Date(stocktake.startedAt).toISOString(),
    bookedAt: stocktake.bookedAt === null ? null : new Date(stocktake.bookedAt).toISOString(),
    lines,
  };
}

/** Keeps what one jar was found to hold. Nothing is booked yet. */
export async function enterStocktake(
  db: Db,
  id: string,
  entry: StocktakeEntry,
  { now, byId }: By,
): Promise<{ id: string }> {
  const stocktake = await findStocktake(db, id);
  if (stocktake.bookedAt !== null)
    throw new Refusal('refused', $localize`This count is booked already. Begin a new one.`);
  const stockLot = await findStockLot(db, entry.stockLotId);
  if (stockLot.onHand !== entry.seenOnHand)
    throw new Refusal(
      'changedMeanwhile',
      $localize`${stockLot.tag} was weighed out or filled while you counted it. Weigh it again.`,
      { theirs: stockLot.onHand },
    );
  const quantityText = await amountOf(db, entry.quantityText, stockLot.material, { allowNothing: true });
  const net = entry.gross
    ? netOfTare(quantityText, stockLot.facts.tareMg ?? 0)
    : { ok: true as const, netMg: quantityText };
  if (!net.ok) throw new Refusal('refused', net.message, { reason: 'tare' });
  const entries = {
    ...stocktake.entries,
    [stockLot.id]: {
      counted: net.netMg,
      seenOnHand: entry.seenOnHand,
      fromBalance: entry.fromBalance,
      at: now.toISOString(),
      byId,
    },
  };
  await db
    .update(stocktakes)
    .set({ entries, version: stocktake.version + 1 })
    .where(eq(stocktakes.id, id));
  return { id: entry.id };
}

/**
 * Books every difference of a count together, or none: a jar that moved since is named, and has to be counted again.
 */
export async function bookStocktake(
  db: Db,
  id: string,
  booking: StocktakeBooking,
  { now, byId }: By,
): Promise<{ booked: number }> {
  const stocktake = await findStocktake(db, id);
  if (stocktake.bookedAt !== null) throw new Refusal('alreadyDone', $localize`This count is booked already.`);
  const at = now.toISOString();
  const moved: string[] = [];
  const rows: (typeof movements.$inferInsert)[] = [];
  for (const [stockLotId, entry] of Object.entries(stocktake.entries)) {
    const stockLot = await findStockLot(db, stockLotId);
    if (stockLot.onHand !== entry.seenOnHand) moved.push(stockLot.tag);
    const amount = countDifference(stockLot.onHand, entry.counted);
    const note = booking.reasons.find((r) => r.stockLotId === stockLotId)?.note ?? '';
    if (amount !== 0)
      rows.push({
        id: uuidv7(now),
        stockLotId,
        kind: 'count',
        amount,
        note: note === '' ? $localize`counted on a walk` : note,
        at,
        byId,
      });
  }
  if (moved.length > 0)
    throw new Refusal(
      'changedMeanwhile',
      $localize`${moved.join(', ')} moved since ${moved.length === 1 ? $localize`it was` : $localize`they were`} counted. Count ${moved.length === 1 ? $localize`it` : $localize`them`} again, then book. Nothing is booked yet.`,
      { theirs: moved },
    );
  for (const row of rows) {
    const stockLot = await findStockLot(db, row.stockLotId);
    const liquorEntryId = await keepContents(db, stockLot, stockLot.onHand + row.amount, { now, byId });
    await db.insert(movements).values({ ...row, liquorEntryId });
  }
  await db
    .update(stocktakes)
    .set({ bookedAt: at, version: stocktake.version + 1 })
    .where(eq(stocktakes.id, id));
  return { booked: rows.length };
}
