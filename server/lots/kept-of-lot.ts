import type { KeptOfLot } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lotTag } from '../shared/lot-tag';
import { oneValue } from '../stores/shelf';

interface NumberedLot {
  readonly id: string;
  readonly number: number;
  readonly colourway: string;
}

/** What came of a lot and stands in Stores, and the lots it went on into. */
export async function readKept(db: Db, lotId: string): Promise<KeptOfLot[]> {
  const rows = await oneValue<(Omit<KeptOfLot, 'wentInto'> & { wentInto: NumberedLot[] })[]>(
    db,
    sql`(SELECT coalesce(json_agg(json_build_object('stockLotId', s.id, 'tag', s.tag, 'material', m.name,
      'measure', m.measure, 'treatment', s.facts->'treatment', 'form', s.facts->'form', 'light', s.facts->'light',
      'place', s.place, 'colour', s.facts->'colour', 'onHand', b.on_hand,
      'received', (SELECT coalesce(sum(v.amount), 0) FROM movements v WHERE v.stock_lot_id = s.id AND v.amount > 0
        AND v.kind IN ('receive', 'convert')),
      'wentInto', (SELECT coalesce(json_agg(json_build_object('id', l.id, 'number', l.number, 'colourway', c.name)
          ORDER BY l.number), '[]')
        FROM (SELECT v.lot_id FROM movements v WHERE v.stock_lot_id = s.id AND v.lot_id IS NOT NULL
          GROUP BY v.lot_id HAVING sum(v.amount) < 0) x
        JOIN lots l ON l.id = x.lot_id JOIN colourways c ON c.id = l.colourway_id)
      ) ORDER BY s.received_on, s.tag), '[]')
      FROM stock_lots s JOIN materials m ON m.id = s.material_id JOIN stock_balances b ON b.stock_lot_id = s.id
      WHERE s.facts->>'fromLotId' = ${lotId})`,
  );
  return rows.map(({ wentInto, ...row }) => ({
    ...row,
    // Jars written down before these were known have none of them.
    treatment: row.treatment ?? null,
    form: row.form ?? null,
    light: row.light ?? null,
    colour: row.colour ?? null,
    wentInto: wentInto.map(({ id, number, colourway }) => ({ id, tag: lotTag(number), colourway })),
  }));
}
