import type { StockFacts, StockLedgerLine, StockLot } from '@vestigia/contract';
import { contentsAtVolume } from '@vestigia/core';
import type { SQL } from 'drizzle-orm';
import { eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { materials, stockBalances, stockLots } from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { notFound } from '../shared/problem';
import type { SpoonRow } from './materials-store';
import { attachmentsWhere, spoonsFrom } from './materials-store';
import { oneValue, shelfRowOf } from './shelf';

/** Lines shown with a jar; the rest of a long ledger is asked for by itself. */
const LINES_SHOWN = 120;

/** A line as it comes out of the database: short, because objects with their names cost twice as long to write. */
type RawLine = [
  id: string,
  kind: StockLedgerLine['kind'],
  amount: number,
  balance: number,
  reserved: number,
  at: string,
  byId: string,
  note: string,
  lotId: string | null,
  lotNumber: number | null,
  lotRef: string | null,
  conversionId: string | null,
  reversesId: string | null,
  ofLiquor: boolean,
  broughtById: string | null,
];
type Names = Readonly<Record<string, string>>;

const NAMES = sql`(SELECT coalesce(json_object_agg(id, name), '{}') FROM people)`;

/** Movements and promises of one jar as one line of time, with both balances after each. */
const linesOf = (stockLotId: string, newest: number | null): SQL => sql`(
  WITH line AS (
    SELECT id, kind, amount, amount AS moved, 0::bigint AS bound, at, seq, 0 AS ledger, by_id, note, lot_id,
      lot_ref, conversion_id, reverses_id, liquor_entry_id IS NOT NULL AS of_liquor, brought_by_id FROM movements WHERE stock_lot_id = ${stockLotId}
    UNION ALL
    SELECT id, CASE WHEN amount > 0 THEN 'reservation' ELSE 'release' END, amount, 0, amount, at, seq, 1,
      by_id, '', lot_id, NULL, NULL, NULL, false, NULL FROM reservations WHERE stock_lot_id = ${stockLotId}
  ), run AS (
    SELECT *, sum(moved) OVER w AS balance, sum(bound) OVER w AS reserved, row_number() OVER w AS n
      FROM line WINDOW w AS (ORDER BY at, ledger, seq)
  )
  SELECT coalesce(json_agg(json_build_array(r.id, r.kind, r.amount, r.balance, r.reserved, r.at, r.by_id,
    r.note, r.lot_id, (SELECT l.number FROM lots l WHERE l.id = r.lot_id), r.lot_ref, r.conversion_id,
    r.reverses_id, r.of_liquor, r.brought_by_id) ORDER BY r.n), '[]')
  FROM run r ${newest === null ? sql`` : sql`WHERE r.n > (SELECT count(*) FROM line) - ${newest}`})`;

/** A reversal stands after what it reverses, so the newest lines tell of each whether it was reversed. */
function toLines(raw: readonly RawLine[], names: Names): StockLedgerLine[] {
  const reversed = new Set(raw.map((r) => r[12]));
  return raw.map(
    ([
      id,
      kind,
      amount,
      balance,
      reserved,
      at,
      byId,
      note,
      lotId,
      lotNumber,
      lotRef,
      conversionId,
      reversesId,
      ofLiquor,
      broughtById,
    ]) => ({
      id,
      kind,
      amount,
      balance,
      reserved,
      at: new Date(at).toISOString(),
      by: { id: byId, name: names[byId] ?? '' },
      broughtBy: broughtById === null ? null : { id: broughtById, name: names[broughtById] ?? '' },
      note,
      conversionId,
      reversesId,
      ofLiquor,
      reversed: reversed.has(id),
      lot:
        lotId !== null && lotNumber !== null
          ? { id: lotId, tag: lotTag(lotNumber) }
          : lotRef === null
            ? null
            : { id: null, tag: lotRef },
    }),
  );
}

export async function readLedger(db: Db, stockLotId: string): Promise<StockLedgerLine[]> {
  const { lines, names } = await oneValue<{ lines: RawLine[]; names: Names }>(
    db,
    sql`json_build_object('lines', ${linesOf(stockLotId, null)}, 'names', ${NAMES})`,
  );
  if (lines.length === 0) await findStockLot(db, stockLotId);
  return toLines(lines, names);
}

/** The jars on the other side of this jar's conversions: what it was made of, or what was made of it. */
const kinOf = (stockLotId: string, side: 'parents' | 'children'): SQL => {
  const [own, other] =
    side === 'parents' ? [sql`own.amount > 0`, sql`kin.amount < 0`] : [sql`own.amount < 0`, sql`kin.amount > 0`];
  return sql`(SELECT coalesce(json_agg(json_build_object('id', s.id, 'tag', s.tag, 'material', m.name, 'kind', c.kind, 'amount', abs(kin.amount), 'measure', m.measure, 'share', abs(own.amount), 'note', c.note) ORDER BY c.seq, s.tag), '[]')
    FROM movements own JOIN conversions c ON c.id = own.conversion_id
      JOIN movements kin ON kin.conversion_id = c.id AND kin.kind = 'convert' AND kin.stock_lot_id <> own.stock_lot_id
    JOIN stock_lots s ON s.id = kin.stock_lot_id JOIN materials m ON m.id = s.material_id
    WHERE own.stock_lot_id = ${stockLotId} AND own.kind = 'convert' AND ${own} AND ${other}
      AND NOT EXISTS (SELECT 1 FROM movements x WHERE x.reverses_id = own.id))`;
};

const readKin = (db: Db, id: string): Promise<Pick<StockLot, 'parents' | 'children'>> =>
  oneValue(db, sql`json_build_object('parents', ${kinOf(id, 'parents')}, 'children', ${kinOf(id, 'children')})`);

interface Parts {
  row: StockLot['row'] | null;
  spoonfuls: SpoonRow[];
  own: { version: number; note: string; facts: StockFacts; costMinor: number | null; currency: string };
  lines: RawLine[];
  names: Names;
  total: number;
  reservations: { id: string; number: number; amount: number }[];
  wentInto: {
    id: string;
    number: number;
    colourway: string;
    amount: number;
    colour: StockLot['wentInto'][number]['colour'];
  }[];
  otherwise: StockLot['otherwise'];
  converted: boolean;
  liquor: (StockLot['liquorLog'][number] & { after: NonNullable<StockLot['liquor']> })[];
  pickings: StockLot['pickings'];
  attachments: StockLot['attachments'];
}

/**
 * One jar, whole, in one question: each costs PGlite milliseconds whatever its answer. Kin are asked for only where
 * there are any.
 */
export async function readStockLot(db: Db, id: string): Promise<StockLot> {
  const parts = await oneValue<Parts>(
    db,
    sql`json_build_object(
    'row', ${shelfRowOf(id)},
    'spoonfuls',
      (SELECT coalesce(json_agg(json_build_object('unit', w.unit, 'system', w.system, 'weightMg', w.weight_mg)
      ORDER BY w.seq), '[]') FROM spoon_weighings w JOIN stock_lots s ON s.material_id = w.material_id
      WHERE s.id = ${id}),
    'own', (SELECT json_build_object('version', s.version, 'note', s.note, 'facts', s.facts, 'costMinor',
      s.cost_minor, 'currency', (SELECT currency FROM studio)) FROM stock_lots s WHERE s.id = ${id}),
    'lines', ${linesOf(id, LINES_SHOWN)}, 'names', ${NAMES},
    'total', (SELECT count(*) FROM movements WHERE stock_lot_id = ${id}) + (SELECT count(*) FROM reservations
      WHERE stock_lot_id = ${id}),
    'reservations',
      (SELECT coalesce(json_agg(json_build_object('id', l.id, 'number', l.number, 'amount', x.amount)
      ORDER BY l.number DESC), '[]')
      FROM (SELECT lot_id, sum(amount)::bigint AS amount FROM reservations WHERE stock_lot_id = ${id}
        GROUP BY lot_id HAVING sum(amount) > 0) x JOIN lots l ON l.id = x.lot_id),
    'wentInto',
      (SELECT coalesce(json_agg(json_build_object('id', l.id, 'number', l.number, 'colourway', c.name,
      'amount', x.amount, 'colour', g.result) ORDER BY l.number DESC), '[]')
      FROM (SELECT lot_id, -sum(amount)::bigint AS amount FROM movements
        WHERE stock_lot_id = ${id} AND lot_id IS NOT NULL GROUP BY lot_id HAVING sum(amount) <> 0) x
      JOIN lots l ON l.id = x.lot_id JOIN colourways c ON c.id = l.colourway_id LEFT
        JOIN lot_progress g ON g.lot_id = l.id),
    'otherwise', (SELECT coalesce(json_agg(json_build_object('kind', x.kind, 'amount', x.amount)
      ORDER BY x.kind), '[]') FROM (
      SELECT kind, -sum(amount)::bigint AS amount FROM movements
        WHERE stock_lot_id = ${id} AND lot_id IS NULL AND lot_ref IS NULL AND kind IN ('use', 'spoil', 'give')
        AND id NOT IN (SELECT reverses_id FROM movements
          WHERE stock_lot_id = ${id} AND reverses_id IS NOT NULL) GROUP BY kind) x),
    'converted', EXISTS (SELECT 1 FROM movements WHERE stock_lot_id = ${id} AND conversion_id IS NOT NULL),
    'liquor',
      (SELECT coalesce(json_agg(json_build_object('id', e.id, 'kind', e.kind, 'note', e.note, 'working',
      e.after->'working', 'takenBack', EXISTS (SELECT 1 FROM liquor_entries x WHERE x.takes_back_id = e.id), 'at', to_json(e.at), 'by', json_build_object('id', p.id, 'name', p.name), 'after',
      e.after) ORDER BY e.seq), '[]')
      FROM liquor_entries e JOIN people p ON p.id = e.by_id WHERE e.stock_lot_id = ${id}),
    'pickings', (SELECT coalesce(json_agg(json_build_object('id', p.id, 'stockLotId', p.stock_lot_id, 'movementId',
      p.movement_id, 'pickers', p.pickers, 'minutesEach', p.minutes_each, 'portions', p.portions, 'tareMg', p.tare_mg,
      'guessed', p.guessed, 'pickedWith', p.picked_with, 'note', p.note, 'pickedAt', to_json(m.at), 'amount', m.amount,
      'reversed', EXISTS (SELECT 1 FROM movements x WHERE x.reverses_id = m.id),
      'by', json_build_object('id', b.id, 'name', b.name)) ORDER BY m.at DESC, p.seq DESC), '[]')
      FROM pickings p JOIN movements m ON m.id = p.movement_id JOIN people b ON b.id = p.by_id
      WHERE p.stock_lot_id = ${id}),
    'attachments', ${attachmentsWhere(sql`a.stock_lot_id = ${id}`)})`,
  );
  const { row } = parts;
  if (!row) throw notFound('jar');
  const liquor = parts.liquor.at(-1)?.after ?? null;
  const utc = (at: string): string => new Date(at).toISOString();
  return {
    row,
    ...parts.own,
    bulkDensityGPerMl: row.measure === 'weight' ? (spoonsFrom(parts.spoonfuls)[0]?.bulkDensity.value ?? null) : null,
    lines: toLines(parts.lines, parts.names),
    earlier: Math.max(0, parts.total - parts.lines.length),
    reservations: parts.reservations.map((p) => ({ lot: { id: p.id, tag: lotTag(p.number) }, amount: p.amount })),
    wentInto: parts.wentInto.map((w) => ({
      lot: { id: w.id, tag: lotTag(w.number), colourway: w.colourway },
      amount: w.amount,
      colour: w.colour,
    })),
    otherwise: parts.otherwise,
    ...(parts.converted ? await readKin(db, id) : { parents: [], children: [] }),
    liquor,
    liquorNow: liquor === null ? [] : contentsAtVolume(liquor.contents, liquor.volumeUl, row.onHand),
    liquorLog: parts.liquor.map(({ after: _after, ...entry }) => ({ ...entry, at: utc(entry.at) })),
    pickings: parts.pickings.map((p) => ({ ...p, pickedAt: utc(p.pickedAt) })),
    attachments: parts.attachments.map((a) => ({ ...a, at: utc(a.at) })),
  };
}

export interface Jar {
  readonly id: string;
  readonly tag: string;
  readonly place: string;
  readonly receivedOn: string;
  readonly bestBefore: string | null;
  readonly costMinor: number | null;
  readonly facts: StockFacts;
  readonly material: typeof materials.$inferSelect;
  readonly onHand: number;
  readonly reserved: number;
}

/** A jar as the rules see it. */
export async function findStockLot(db: Db, id: string): Promise<Jar> {
  const [found] = await db
    .select({
      stockLot: stockLots,
      material: materials,
      onHand: stockBalances.onHand,
      reserved: stockBalances.reserved,
    })
    .from(stockLots)
    .innerJoin(materials, eq(materials.id, stockLots.materialId))
    .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id))
    .where(eq(stockLots.id, id));
  if (!found) throw notFound('jar');
  const { id: stockLotId, tag, place, receivedOn, bestBefore, costMinor, facts } = found.stockLot;
  return {
    id: stockLotId,
    tag,
    place,
    receivedOn,
    bestBefore,
    costMinor,
    facts,
    material: found.material,
    onHand: found.onHand,
    reserved: found.reserved,
  };
}
