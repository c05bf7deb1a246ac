import type { StoresDocument, TransferKind } from '@vestigia/contract';
import { storesDocument } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import { z } from 'zod';
import type { Db } from '../../db/database';
import { lotTag } from '../../lot-tag';
import { oneValue } from '../shelf';
import type { Separator } from './csv-table';
import { writeTable } from './csv-table';
import { MATERIAL_COLUMNS, MOVEMENT_COLUMNS, STOCK_LOT_COLUMNS, materialCells, movementCells, stockLotCells } from './records';

type RawMovement = StoresDocument['movements'][number] & { lotNumber: number | null; lotRef: string | null };
const iso = (at: string): string => new Date(at).toISOString();

/** Stores alone: what they hold and every movement, in an order that the same stores always give. */
export async function exportStores(db: Db): Promise<StoresDocument> {
  const materials = await oneValue<StoresDocument['materials']>(db, sql`(SELECT coalesce(json_agg(json_build_object('id', id, 'name', name, 'kind', kind, 'measure', measure, 'hazards', hazards, 'note', note, 'base', base, 'facts', facts) ORDER BY name), '[]') FROM materials)`);
  const stockLots = await oneValue<StoresDocument['stockLots']>(db, sql`(SELECT coalesce(json_agg(json_build_object('id', id, 'materialId', material_id, 'tag', tag, 'receivedOn', received_on, 'bestBefore', best_before, 'place', place, 'source', source, 'note', note, 'costMinor', cost_minor, 'facts', facts,
    'liquor', (SELECT e.after FROM liquor_entries e WHERE e.stock_lot_id = stock_lots.id ORDER BY e.seq DESC LIMIT 1)) ORDER BY tag), '[]') FROM stock_lots)`);
  const conversions = await oneValue<StoresDocument['conversions']>(db, sql`(SELECT coalesce(json_agg(json_build_object('id', c.id, 'kind', c.kind, 'note', c.note, 'lossMg', c.loss_mg, 'by', p.name, 'at', to_json(c.at)) ORDER BY c.at, c.id), '[]') FROM conversions c JOIN people p ON p.id = c.by_id)`);
  const movements = await oneValue<RawMovement[]>(db, sql`(SELECT coalesce(json_agg(json_build_object('id', m.id, 'stockLotId', m.stock_lot_id, 'kind', m.kind, 'amount', m.amount, 'at', to_json(m.at), 'recordedAt', to_json(m.recorded_at), 'by', p.name, 'lotNumber', l.number, 'lotRef', m.lot_ref,
    'conversion', m.conversion_id, 'reversesId', m.reverses_id, 'note', m.note) ORDER BY m.at, m.id), '[]') FROM movements m JOIN people p ON p.id = m.by_id LEFT JOIN lots l ON l.id = m.lot_id)`);
  return {
    format: 'vestigia-stores', formatVersion: 1, materials, stockLots, conversions: conversions.map((c) => ({ ...c, at: iso(c.at) })),
    movements: movements.map(({ lotNumber, lotRef, ...m }) => ({ ...m, at: iso(m.at), recordedAt: m.recordedAt === null ? null : iso(m.recordedAt), lot: lotNumber === null ? (lotRef ?? '') : lotTag(lotNumber) })),
  };
}

/** The stores as a file: one table, or all of it as JSON. */
export async function exportFile(db: Db, kind: TransferKind, separator: Separator): Promise<{ name: string; type: string; content: string }> {
  const stores = await exportStores(db);
  const table = (name: string, header: readonly string[], rows: (string | number | null)[][]) => ({ name: `${name}.csv`, type: 'text/csv; charset=utf-8', content: writeTable(header, rows, separator) });
  const material = new Map(stores.materials.map((m) => [m.id, m]));
  const jar = new Map(stores.stockLots.map((s) => [s.id, s]));
  const conversion = new Map(stores.conversions.map((c) => [c.id, c]));
  switch (kind) {
    case 'document': return { name: 'stores.json', type: 'application/json', content: JSON.stringify(stores, null, 1) };
    case 'materials': return table('materials', MATERIAL_COLUMNS, stores.materials.map(materialCells));
    case 'stockLots': return table('stock-lots', STOCK_LOT_COLUMNS, stores.stockLots.map((s) => stockLotCells(s, material.get(s.materialId)?.name ?? '')));
    case 'movements': return table('movements', MOVEMENT_COLUMNS, stores.movements.map((m) => {
      const from = jar.get(m.stockLotId);
      return movementCells(m, from?.tag ?? '', material.get(from?.materialId ?? '')?.measure ?? 'weight', m.conversion === null ? undefined : conversion.get(m.conversion));
    }));
  }
}

/** The published JSON Schema of the stores file, made from the contract. */
export function storesSchema(): Record<string, unknown> {
  const { $defs = {}, ...schema } = z.toJSONSchema(storesDocument, { io: 'input' });
  const { StoresDocument: root = schema, ...rest } = $defs;
  return { $schema: schema.$schema, $id: 'urn:vestigia:stores:1', title: 'Vestigia stores file', ...root, $defs: rest };
}
