import type { Material, ShelfRow, StockLot } from '@vestigia/contract';
import type { AvailableStock } from '@vestigia/core';
import { ledgerLines, lotsFromStockLot } from '@vestigia/core';
import { and, asc, desc, eq, gt, inArray, like, sql } from 'drizzle-orm';
import { lotTag } from '../lot-tag';
import type { Db } from '../db/database';
import { colourways, lots, materials, movements, people, promises, stockBalances, stockLots } from '../db/schema';
import { notFound } from '../problem';

const shelfColumns = {
  id: stockLots.id, tag: stockLots.tag, materialId: stockLots.materialId, material: materials.name, kind: materials.kind, measure: materials.measure,
  hazards: materials.hazards, place: stockLots.place, source: stockLots.source, receivedOn: stockLots.receivedOn, bestBefore: stockLots.bestBefore,
  onHand: stockBalances.onHand, promised: stockBalances.promised,
};

type ShelfColumns = Omit<ShelfRow, 'free'>;
const withFree = (row: ShelfColumns): ShelfRow => ({ ...row, free: row.onHand - row.promised });

const shelf = (db: Db) => db.select(shelfColumns).from(stockLots)
  .innerJoin(materials, eq(materials.id, stockLots.materialId))
  .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id)).$dynamic();

/**
 * Every jar, by material and age. One JSON value instead of rows: reading hundreds of rows field by field out of PGlite
 * costs several times what finding them does.
 */
export async function readShelf(db: Db): Promise<ShelfRow[]> {
  const result = await db.execute<{ rows: ShelfRow[] }>(sql`
    SELECT coalesce(json_agg(json_build_object(
      'id', s.id, 'tag', s.tag, 'materialId', s.material_id, 'material', m.name, 'kind', m.kind, 'measure', m.measure, 'hazards', m.hazards,
      'place', s.place, 'source', s.source, 'receivedOn', s.received_on, 'bestBefore', s.best_before,
      'onHand', b.on_hand, 'promised', b.promised, 'free', b.on_hand - b.promised) ORDER BY m.name, s.received_on, s.tag), '[]') AS rows
    FROM stock_lots s JOIN materials m ON m.id = s.material_id JOIN stock_balances b ON b.stock_lot_id = s.id`);
  return (result as unknown as { rows: { rows: ShelfRow[] }[] }).rows[0]?.rows ?? [];
}

export async function readShort(db: Db): Promise<ShelfRow[]> {
  return (await shelf(db).where(gt(stockBalances.promised, stockBalances.onHand)).orderBy(asc(materials.name))).map(withFree);
}

/** Jars with something left whose best before is on or before the date, soonest first. */
export async function readGoingOff(db: Db, by: string): Promise<ShelfRow[]> {
  const rows = await shelf(db).where(and(gt(stockBalances.onHand, 0), sql`${stockLots.bestBefore} <= ${by}`)).orderBy(asc(stockLots.bestBefore));
  return rows.map(withFree);
}

export async function findMaterial(db: Db, id: string): Promise<Material> {
  const [row] = await db.select().from(materials).where(eq(materials.id, id));
  if (!row) throw notFound('material');
  return row;
}

/** What is free of these materials, by material, for planning. */
export async function readAvailable(db: Db, materialIds: readonly string[]): Promise<Map<string, AvailableStock[]>> {
  const available = new Map<string, AvailableStock[]>(materialIds.map((id) => [id, []]));
  if (materialIds.length === 0) return available;
  for (const row of await shelf(db).where(inArray(stockLots.materialId, [...materialIds]))) {
    available.get(row.materialId)?.push({ stockLotId: row.id, free: row.onHand - row.promised, receivedOn: row.receivedOn, ...(row.bestBefore === null ? {} : { bestBefore: row.bestBefore }) });
  }
  return available;
}

/** A tag nobody wrote: the material's first letters and the next number, like `WEL-3`. */
export async function nextTag(db: Db, material: string): Promise<string> {
  const stem = (material.normalize('NFD').replace(/[^A-Za-z]/g, '').slice(0, 3) || 'JAR').toUpperCase();
  const rows = await db.select({ tag: stockLots.tag }).from(stockLots).where(like(stockLots.tag, `${stem}-%`));
  const numbers = rows.map((r) => Number(r.tag.slice(stem.length + 1))).filter((n) => Number.isInteger(n));
  return `${stem}-${Math.max(0, ...numbers) + 1}`;
}

export async function readStockLot(db: Db, id: string): Promise<StockLot> {
  const [row] = await shelf(db).where(eq(stockLots.id, id));
  const [own] = await db.select({ version: stockLots.version, note: stockLots.note }).from(stockLots).where(eq(stockLots.id, id));
  if (!row || !own) throw notFound('jar');
  const moved = await db.select({
    id: movements.id, stockLotId: movements.stockLotId, kind: movements.kind, amount: movements.amount, at: movements.at, note: movements.note,
    lotId: movements.lotId, reversesId: movements.reversesId, byId: people.id, byName: people.name, lotNumber: lots.number, colourway: colourways.name,
  }).from(movements)
    .innerJoin(people, eq(people.id, movements.byId))
    .leftJoin(lots, eq(lots.id, movements.lotId))
    .leftJoin(colourways, eq(colourways.id, lots.colourwayId))
    .where(eq(movements.stockLotId, id)).orderBy(asc(movements.seq));
  const reversed = new Set(moved.map((m) => m.reversesId));
  const lines = ledgerLines(moved).map(({ movement: m, balance }) => ({
    id: m.id, kind: m.kind, amount: m.amount, balance, at: new Date(m.at).toISOString(), by: { id: m.byId, name: m.byName }, note: m.note,
    lot: m.lotId !== null && m.lotNumber !== null ? { id: m.lotId, tag: lotTag(m.lotNumber) } : null, reversesId: m.reversesId, reversed: reversed.has(m.id),
  }));
  const lotOf = new Map(moved.flatMap((m) => (m.lotId !== null && m.lotNumber !== null ? [[m.lotId, { number: m.lotNumber, colourway: m.colourway ?? '' }] as const] : [])));
  const wentInto = [...lotsFromStockLot(moved, id)]
    .map(([lotId, taken]) => ({ lotId, taken, ...(lotOf.get(lotId) ?? { number: 0, colourway: '' }) }))
    .sort((a, b) => b.number - a.number)
    .map(({ lotId, taken, number, colourway }) => ({ lot: { id: lotId, tag: lotTag(number), colourway }, amount: taken }));
  const promised = await db.select({ id: lots.id, number: lots.number, amount: sql<number>`sum(${promises.amount})::float8` }).from(promises)
    .innerJoin(lots, eq(lots.id, promises.lotId)).where(eq(promises.stockLotId, id)).groupBy(lots.id, lots.number).orderBy(desc(lots.number));
  return {
    row: withFree(row), ...own, lines, wentInto,
    promises: promised.filter((p) => p.amount > 0).map((p) => ({ lot: { id: p.id, tag: lotTag(p.number) }, amount: p.amount })),
  };
}
