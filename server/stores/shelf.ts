import type { ShelfOn, ShelfRow, StockFacts } from '@vestigia/contract';
import type { GradedStock } from '@vestigia/core';
import type { SQL } from 'drizzle-orm';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { Prepared } from '../http/prepared';
import { studioToday } from '../studio/studio-store';

/**
 * One row of the shelf as JSON: reading hundreds of rows field by field out of PGlite costs several times what
 * finding them does.
 */
const ROW = sql`json_build_object(
  'id', s.id, 'tag', s.tag, 'materialId', s.material_id, 'material', m.name, 'kind', m.kind, 'measure', m.measure, 'hazards', m.hazards,
  'place', s.place, 'source', s.source, 'receivedOn', s.received_on, 'bestBefore', s.best_before, 'form', s.facts->'form', 'strengthPercent', s.facts->'strengthPercent',
  'onHand', b.on_hand, 'reserved', b.reserved, 'free', b.on_hand - b.reserved)`;
const FROM = sql`FROM stock_lots s JOIN materials m ON m.id = s.material_id JOIN stock_balances b ON b.stock_lot_id = s.id`;

async function rowsWhere(db: Db, where: SQL, order: SQL): Promise<ShelfRow[]> {
  return oneValue<ShelfRow[]>(
    db,
    sql`(SELECT coalesce(json_agg(${ROW} ORDER BY ${order}), '[]') ${FROM} WHERE ${where})`,
  );
}

/** One JSON value, asked of the database as one question. */
export async function oneValue<T>(db: Db, value: SQL): Promise<T> {
  const { rows } = await db.execute<{ value: T }>(sql`SELECT ${value} AS value`);
  return rows[0]?.value as T;
}

const BY_AGE = sql`m.name, s.received_on, s.tag`;

/**
 * The whole shelf, kept in memory as it was last read. Each reading asks only for the jars whose number says that they
 * changed since (one process holds the database, and writes follow one another, so no number is ever missed).
 */
export class ShelfMirror {
  private readonly rows = new Map<string, ShelfRow>();
  private seen = 0;
  private prepared = new Prepared<ShelfRow[]>([]);

  async read(db: Db): Promise<Prepared<ShelfRow[]>> {
    const { upTo, changed } = await oneValue<{ upTo: number; changed: ShelfRow[] }>(
      db,
      sql`json_build_object(
      'upTo', (SELECT coalesce(max(touched), 0) FROM stock_balances),
      'changed', (SELECT coalesce(json_agg(${ROW}), '[]') ${FROM} WHERE b.touched > ${this.seen}))`,
    );
    if (changed.length > 0) {
      for (const row of changed) this.rows.set(row.id, row);
      this.prepared = new Prepared(
        [...this.rows.values()].sort(
          (a, b) => compare(a.material, b.material) || compare(a.receivedOn, b.receivedOn) || compare(a.tag, b.tag),
        ),
      );
    }
    this.seen = Math.max(this.seen, upTo);
    return this.prepared;
  }
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/** One jar's row, as a part of a larger question. */
export const shelfRowOf = (id: string): SQL => sql`(SELECT ${ROW} ${FROM} WHERE s.id = ${id})`;
export const readStockLotsOf = (db: Db, materialId: string): Promise<ShelfRow[]> =>
  rowsWhere(db, sql`s.material_id = ${materialId}`, BY_AGE);
/** These jars, however empty they are, place by place. */
export const readNamed = (db: Db, ids: readonly string[]): Promise<ShelfRow[]> =>
  rowsWhere(db, sql`s.id IN ${[...ids]}`, sql`s.place, s.tag`);
/**
 * Jars at one place with something in them (every place for an empty name), and those named, wherever and however
 * empty they are.
 */
export function readPlace(db: Db, place: string, named: readonly string[] = []): Promise<ShelfRow[]> {
  const here = place === '' ? sql`b.on_hand > 0` : sql`(s.place = ${place} AND b.on_hand > 0)`;
  return rowsWhere(db, named.length === 0 ? here : sql`${here} OR s.id IN ${[...named]}`, sql`s.place, s.tag`);
}
export const readShort = (db: Db): Promise<ShelfRow[]> => rowsWhere(db, sql`b.reserved > b.on_hand`, sql`m.name`);
/** Jars with something left whose best before is on or before the date, soonest first. */
export const readGoingOff = (db: Db, by: string): Promise<ShelfRow[]> =>
  rowsWhere(db, sql`b.on_hand > 0 AND s.best_before <= ${by}`, sql`s.best_before, s.tag`);

/** What is free of these materials, by material, for planning: with what is known of each jar's strength and form. */
export async function readAvailable(db: Db, materialIds: readonly string[]): Promise<Map<string, GradedStockLot[]>> {
  const available = new Map<string, GradedStockLot[]>(materialIds.map((id) => [id, []]));
  if (materialIds.length === 0) return available;
  const rows = await oneValue<
    (Omit<GradedStockLot, 'bestBefore' | 'gPerL'> & {
      materialId: string;
      bestBefore: string | null;
      contentsG: number | null;
      volumeUl: number | null;
    })[]
  >(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object(
    'stockLotId', s.id, 'tag', s.tag, 'materialId', s.material_id, 'receivedOn', s.received_on, 'bestBefore', s.best_before, 'free', b.on_hand - b.reserved,
    'form', s.facts->'form', 'strengthPercent', s.facts->'strengthPercent', 'moisturePercent', s.facts->'moisturePercent',
    'treatment', s.facts->'treatment',
    'contentsG', l.after->'contents'->0->'grams', 'volumeUl', l.after->'volumeUl') ORDER BY ${BY_AGE}), '[]') ${FROM}
    LEFT JOIN LATERAL (SELECT after FROM liquor_entries e WHERE e.stock_lot_id = s.id
      ORDER BY e.seq DESC LIMIT 1) l ON true
    WHERE s.material_id IN ${[...materialIds]})`,
  );
  for (const { materialId, bestBefore, contentsG, volumeUl, ...row } of rows) {
    const gPerL = contentsG !== null && volumeUl !== null && volumeUl > 0 ? (contentsG / volumeUl) * 1e6 : null;
    available.get(materialId)?.push({ ...row, gPerL, ...(bestBefore === null ? {} : { bestBefore }) });
  }
  return available;
}

/** A jar as planning and checking see it. */
export type GradedStockLot = Required<Pick<GradedStock, 'stockLotId' | 'free' | 'receivedOn'>> & {
  readonly tag: string;
  readonly bestBefore?: string;
  readonly form: ShelfRow['form'];
  readonly strengthPercent: number | null;
  readonly moisturePercent: number | null;
  readonly gPerL: number | null;
  readonly treatment: StockFacts['treatment'];
};

/**
 * Grams fresh that gave one gram dried, as this studio dried each material last; materials it never dried are left
 * out.
 */
export async function readDryFactors(db: Db, materialIds: readonly string[]): Promise<Map<string, number>> {
  if (materialIds.length === 0) return new Map();
  const rows = await oneValue<{ materialId: string; fresh: number; dried: number }[]>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('materialId', d.material_id, 'fresh', d.fresh, 'dried', d.dried)), '[]') FROM (
    SELECT DISTINCT ON (o.material_id) o.material_id, f.fresh, f.dried FROM conversions c
    JOIN LATERAL (SELECT sum(CASE WHEN m.amount < 0 THEN -m.amount ELSE 0 END)::bigint AS fresh,
      sum(CASE WHEN m.amount > 0 THEN m.amount ELSE 0 END)::bigint AS dried FROM movements m
      WHERE m.conversion_id = c.id AND m.kind = 'convert') f ON true
    JOIN LATERAL (SELECT DISTINCT s.material_id FROM movements m JOIN stock_lots s ON s.id = m.stock_lot_id
      WHERE m.conversion_id = c.id) o ON true
    WHERE c.kind = 'dry' AND o.material_id IN ${[...materialIds]} AND NOT EXISTS (SELECT 1 FROM movements r
      JOIN movements m ON m.id = r.reverses_id WHERE m.conversion_id = c.id)
    ORDER BY o.material_id, c.seq DESC) d)`,
  );
  return new Map(rows.filter((r) => r.dried > 0 && r.fresh >= r.dried).map((r) => [r.materialId, r.fresh / r.dried]));
}

/**
 * The shelf at the end of another day. In the past: what the ledgers sum to by then. Ahead: what is on hand now, with
 * what is promised taken out and what will be past its best before marked; use without a promise is told by the
 * forecast.
 */
export async function readShelfOn(db: Db, on: string, now: Date): Promise<ShelfOn> {
  const today = await studioToday(db, now);
  const when = on < today ? 'past' : on > today ? 'forecast' : 'today';
  const sums = (table: SQL): SQL =>
    sql`(SELECT stock_lot_id, sum(amount)::bigint AS amount FROM ${table} WHERE at < (${on}::date + 1)::timestamp AT TIME ZONE (SELECT zone FROM studio) GROUP BY stock_lot_id)`;
  const onHand =
    when === 'past'
      ? sql`coalesce(v.amount, 0)`
      : when === 'forecast'
        ? sql`greatest(0, b.on_hand - b.reserved)`
        : sql`b.on_hand`;
  const reserved = when === 'past' ? sql`coalesce(p.amount, 0)` : when === 'forecast' ? sql`0` : sql`b.reserved`;
  const past =
    when === 'past'
      ? sql`LEFT JOIN ${sums(sql`movements`)} v ON v.stock_lot_id = s.id LEFT JOIN ${sums(sql`reservations`)} p ON p.stock_lot_id = s.id`
      : sql``;
  const rows = await oneValue<ShelfOn['rows']>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object(
    'id', s.id, 'tag', s.tag, 'material', m.name, 'measure', m.measure, 'place', s.place, 'onHand', ${onHand}, 'reserved', ${reserved}, 'free', ${onHand} - ${reserved},
    'expired', coalesce(s.best_before < ${on}::date, false)) ORDER BY ${BY_AGE}), '[]') ${FROM} ${past}
    WHERE ${when === 'past' ? sql`v.amount IS NOT NULL` : sql`true`})`,
  );
  return { on, when, rows };
}
