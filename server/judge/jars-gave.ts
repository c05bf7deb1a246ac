import type { JarGave } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lotTag } from '../shared/lot-tag';
import { oneValue } from '../stores/shelf';
import type { Veil } from '../studio/veil';

type Row = Omit<JarGave, 'tag'> & { readonly number: number };

/**
 * The shade of the last lot that took from each jar of dyestuff and was read, newest lot first. Lots that are kept
 * from whoever asks don't count: their colours would tell what went in.
 */
export async function readJarsGave(db: Db, veil: Veil | undefined): Promise<JarGave[]> {
  const rows = await oneValue<Row[]>(
    db,
    sql`(SELECT coalesce(json_agg(q.row ORDER BY q.number DESC), '[]') FROM (
      SELECT DISTINCT ON (t.stock_lot_id) l.number, json_build_object('stockLotId', t.stock_lot_id, 'materialId', t.material_id,
        'lotId', l.id, 'number', l.number, 'base', base.name, 'lab', p.result) AS row
      FROM (SELECT v.stock_lot_id, s.material_id, v.lot_id
          FROM movements v JOIN stock_lots s ON s.id = v.stock_lot_id JOIN materials d ON d.id = s.material_id
          WHERE d.kind IN ('dyestuff', 'packet') AND v.lot_id IS NOT NULL
          GROUP BY v.stock_lot_id, s.material_id, v.lot_id HAVING sum(v.amount) < 0) t
        JOIN lots l ON l.id = t.lot_id JOIN lot_progress p ON p.lot_id = l.id JOIN materials base ON base.id = l.base_material_id
      WHERE jsonb_typeof(p.result) = 'object' AND NOT l.id = ANY(${sql.param([...(veil?.lotIds ?? [])])}::uuid[])
      ORDER BY t.stock_lot_id, l.number DESC) q)`,
  );
  return rows.map(({ number, ...row }) => ({ ...row, tag: lotTag(number) }));
}
