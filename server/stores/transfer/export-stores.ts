import type { StoresDocument, TransferKind } from '@vestigia/contract';
import type { StockMeasure } from '@vestigia/core';
import type { SQL } from 'drizzle-orm';
import { sql } from 'drizzle-orm';
import type { Db } from '../../db/database';
import type { FileReply } from '../../http/routes';
import { lotInFile } from '../../shared/lot-tag';
import { oneValue } from '../shelf';
import type { Separator } from '../../shared/csv-table';
import { writeTable } from '../../shared/csv-table';
import { MATERIAL_COLUMNS, STOCK_LOT_COLUMNS, materialCells, stockLotCells } from './records';
import { MOVEMENT_COLUMNS, movementCells } from './movement-records';

type RawMovement = StoresDocument['movements'][number] & { lotNumber: number | null; lotRef: string | null };
const iso = (at: string): string => new Date(at).toISOString();
/** Movements read at a time: a long history goes out piece by piece, whatever its length. */
const PIECE = 1000;

export const readMaterialRecords = (db: Db): Promise<StoresDocument['materials']> =>
  oneValue(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('id', id, 'name', name, 'kind', kind, 'measure', measure, 'hazards', hazards, 'note', note, 'base', base, 'facts', facts) ORDER BY name), '[]') FROM materials)`,
  );

export const readStockLotRecords = (db: Db): Promise<StoresDocument['stockLots']> =>
  oneValue(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('id', id, 'materialId', material_id, 'tag', tag, 'receivedOn', received_on, 'bestBefore', best_before, 'place', place, 'source', source, 'note', note, 'costMinor', cost_minor, 'facts', facts,
    'liquor', (SELECT e.after FROM liquor_entries e WHERE e.stock_lot_id = stock_lots.id
      ORDER BY e.seq DESC LIMIT 1)) ORDER BY tag), '[]') FROM stock_lots)`,
  );

export async function readConversionRecords(db: Db): Promise<StoresDocument['conversions']> {
  const rows = await oneValue<StoresDocument['conversions']>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('id', c.id, 'kind', c.kind, 'note', c.note, 'lossMg', c.loss_mg, 'by', p.name, 'at', to_json(c.at)) ORDER BY c.at, c.id), '[]') FROM conversions c JOIN people p ON p.id = c.by_id)`,
  );
  return rows.map((c) => ({ ...c, at: iso(c.at) }));
}

/** Movements as they stand in a file, those that `where` names, in order of time. */
export async function readMovementRecords(db: Db, where: SQL, limit?: number): Promise<StoresDocument['movements']> {
  const rows = await oneValue<RawMovement[]>(
    db,
    sql`(SELECT coalesce(json_agg(x.row ORDER BY x.at, x.id), '[]') FROM (
    SELECT m.at, m.id, json_build_object('id', m.id, 'stockLotId', m.stock_lot_id, 'kind', m.kind, 'amount',
      m.amount, 'at', to_json(m.at), 'recordedAt', to_json(m.recorded_at), 'by', p.name, 'lotNumber',
      l.number, 'lotRef', m.lot_ref,
      'conversion', m.conversion_id, 'reversesId', m.reverses_id, 'note', m.note) AS row
    FROM movements m JOIN people p ON p.id = m.by_id LEFT JOIN lots l ON l.id = m.lot_id WHERE ${where} ORDER BY m.at, m.id ${limit === undefined ? sql`` : sql`LIMIT ${limit}`}) x)`,
  );
  return rows.map(({ lotNumber, lotRef, ...m }) => ({
    ...m,
    at: iso(m.at),
    recordedAt: m.recordedAt === null ? null : iso(m.recordedAt),
    lot: lotNumber === null ? (lotRef ?? '') : lotInFile(lotNumber),
  }));
}

/** Every movement there is now, piece by piece; what is added meanwhile is left for the next export. */
async function* movementPieces(db: Db): AsyncGenerator<StoresDocument['movements']> {
  const last = await oneValue<number | null>(db, sql`(SELECT max(seq) FROM movements)`);
  let after: SQL = sql`true`;
  for (;;) {
    const piece = await readMovementRecords(db, sql`m.seq <= ${last ?? 0} AND ${after}`, PIECE);
    if (piece.length > 0) yield piece;
    const end = piece.at(-1);
    if (!end || piece.length < PIECE) return;
    after = sql`(m.at, m.id) > (${end.at}::timestamptz, ${end.id}::uuid)`;
  }
}

async function* documentText(db: Db): AsyncGenerator<string> {
  const head = {
    format: 'vestigia-stores',
    formatVersion: 1,
    materials: await readMaterialRecords(db),
    stockLots: await readStockLotRecords(db),
    conversions: await readConversionRecords(db),
  };
  yield `${JSON.stringify(head).slice(0, -1)},"movements":[`;
  let first = true;
  for await (const piece of movementPieces(db)) {
    yield `${first ? '\n' : ',\n'}${piece.map((m) => JSON.stringify(m)).join(',\n')}`;
    first = false;
  }
  yield '\n]}\n';
}

async function* movementsText(db: Db, separator: Separator): AsyncGenerator<string> {
  const measure = new Map((await readMaterialRecords(db)).map((m) => [m.id, m.measure]));
  const stockLot = new Map(
    (await readStockLotRecords(db)).map((s) => [
      s.id,
      { tag: s.tag, measure: measure.get(s.materialId) ?? ('weight' as StockMeasure) },
    ]),
  );
  const conversion = new Map((await readConversionRecords(db)).map((c) => [c.id, c]));
  yield writeTable(MOVEMENT_COLUMNS, [], separator);
  for await (const piece of movementPieces(db)) {
    yield writeTable(
      undefined,
      piece.map((m) =>
        movementCells(
          m,
          stockLot.get(m.stockLotId)?.tag ?? '',
          stockLot.get(m.stockLotId)?.measure ?? 'weight',
          m.conversion === null ? undefined : conversion.get(m.conversion),
        ),
      ),
      separator,
    );
  }
}

/** The stores as a file: one table, or all of it as JSON. */
export async function exportFile(db: Db, kind: TransferKind, separator: Separator): Promise<FileReply> {
  const table = (name: string, content: FileReply['content']): FileReply => ({
    name: `${name}.csv`,
    type: 'text/csv; charset=utf-8',
    content,
  });
  switch (kind) {
    case 'document':
      return { name: 'stores.json', type: 'application/json', content: documentText(db) };
    case 'materials':
      return table(
        'materials',
        writeTable(MATERIAL_COLUMNS, (await readMaterialRecords(db)).map(materialCells), separator),
      );
    case 'stockLots': {
      const name = new Map((await readMaterialRecords(db)).map((m) => [m.id, m.name]));
      return table(
        'stock-lots',
        writeTable(
          STOCK_LOT_COLUMNS,
          (await readStockLotRecords(db)).map((s) => stockLotCells(s, name.get(s.materialId) ?? '')),
          separator,
        ),
      );
    }
    case 'movements':
      return table('movements', movementsText(db, separator));
  }
}
