import type { EyeReadingView, LabUnder, LotDetail, ReadingView, RunEntryView } from '@vestigia/contract';
import type { DeltaEFormula } from '@vestigia/core';
import type { SQL } from 'drizzle-orm';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import type { masters } from '../db/schema';
import type { LotRow } from './lots-store';

/**
 * The parts of a lot, each as one JSON value. Every question put to PGlite costs milliseconds whatever its answer,
 * so a page that wants many parts asks for them in one.
 */
interface Parts {
  readonly named: Pick<LotDetail, 'toleranceDeltaE' | 'formula' | 'recipe' | 'base'>;
  readonly entries: RunEntryView[];
  readonly readings: ReadingView[];
  readonly eyes: EyeReadingView[];
  readonly verdicts: LotDetail['verdicts'];
  readonly stockLots: LotDetail['stockLots'];
  readonly moved: (Omit<LotDetail['madeFrom'][number], 'amount'> & {
    readonly lotId: string;
    readonly amount: number;
  })[];
  readonly again: { readonly id: string; readonly number: number }[];
  readonly expected: LotDetail['expected'];
  readonly judgeRule: LotDetail['judgeRule'];
  readonly lot: Pick<LotRow, 'id' | 'at' | 'master' | 'colourwayId' | 'plan'>;
  readonly standing: Standing;
}

/** What the shades of a lot may be held against, before it is said which of them holds. */
export interface Standing {
  readonly formula: DeltaEFormula;
  readonly colourwayMaster: LabUnder | null;
  /** Those its colourway got, in their order. */
  readonly masters: readonly Pick<typeof masters.$inferSelect, 'lab' | 'zones' | 'at'>[];
}

const by = sql`json_build_object('id', p.id, 'name', p.name)`;
const list = (row: SQL, rest: SQL, order: SQL): SQL =>
  sql`(SELECT coalesce(json_agg(${row} ORDER BY ${order}), '[]') ${rest})`;

/** A lot, by its id or as a column. */
type LotId = string | SQL;

const plannedIds = (lotId: LotId): SQL =>
  sql`(SELECT (m->>'materialId')::uuid FROM lots l, jsonb_array_elements(l.plan->'materials') m WHERE l.id = ${lotId})`;

const PARTS: { readonly [P in keyof Parts]: (lotId: LotId) => SQL } = {
  named: (
    lotId,
  ) => sql`(SELECT json_build_object('toleranceDeltaE', c.tolerance_delta_e, 'formula', c.formula, 'recipe', json_build_object('versionId', v.id, 'name', r.name, 'number', v.number), 'base', json_build_object('id', m.id, 'name', m.name))
    FROM lots l JOIN colourways c ON c.id = l.colourway_id
      JOIN recipe_versions v ON v.id = l.recipe_version_id JOIN recipes r ON r.id = v.recipe_id
      JOIN materials m ON m.id = l.base_material_id WHERE l.id = ${lotId})`,
  entries: (lotId) =>
    list(
      sql`json_build_object('id', e.id, 'stepIndex', e.step_index, 'kind', e.kind, 'at', e.at, 'recordedAt', e.recorded_at, 'by', ${by}, 'replacesId', e.replaces_id, 'temperatureC', e.temperature_c, 'text', e.text, 'weighing', e.weighing, 'detail', e.detail,
      'photos', (SELECT coalesce(json_agg(a.id ORDER BY a.seq), '[]') FROM attachments a WHERE a.run_entry_id = e.id))`,
      sql`FROM run_entries e JOIN people p ON p.id = e.by_id WHERE e.lot_id = ${lotId}`,
      sql`e.seq`,
    ),
  readings: (lotId) =>
    list(
      sql`json_build_object('id', r.id, 'batch', r.batch, 'group', r.group_key, 'zone', r.zone, 'piece', r.piece, 'dip', r.dip, 'state', r.state, 'lab', r.lab, 'illuminant', r.conditions->>'illuminant', 'observer', r.conditions->>'observer', 'taken', CASE WHEN r.taken IS NOT NULL THEN '{"spots": [], "reader": "", "offset": null, "spectrum": null}'::jsonb || r.taken END, 'note', r.note, 'at', r.at, 'by', ${by}, 'replacesId', r.replaces_id)`,
      sql`FROM readings r JOIN people p ON p.id = r.by_id WHERE r.lot_id = ${lotId}`,
      sql`r.seq`,
    ),
  eyes: (lotId) =>
    list(
      sql`json_build_object('id', r.id, 'batch', r.batch, 'group', r.group_key, 'zone', r.zone, 'piece', r.piece, 'dip', r.dip, 'state', r.state, 'seen', r.seen, 'note', r.note, 'at', r.at, 'by', ${by}, 'replacesId', r.replaces_id,
      'photos', (SELECT coalesce(json_agg(a.id ORDER BY a.seq), '[]') FROM attachments a WHERE a.eye_reading_id = r.id))`,
      sql`FROM eye_readings r JOIN people p ON p.id = r.by_id WHERE r.lot_id = ${lotId}`,
      sql`r.seq`,
    ),
  verdicts: (lotId) =>
    list(
      sql`json_build_object('id', v.id, 'verdict', v.verdict, 'of', CASE WHEN v.of IS NOT NULL THEN '{"dip": null}'::jsonb || v.of END, 'reason', v.reason, 'at', v.at, 'by', ${by}, 'toMaster', v.to_master, 'toFirst', v.to_first, 'betweenBatches', v.between_batches, 'restsOn', v.rests_on,
      'takenBack', (SELECT json_build_object('at', t.at, 'by', json_build_object('id', q.id, 'name', q.name)) FROM verdict_take_backs t JOIN people q ON q.id = t.by_id WHERE t.verdict_id = v.id))`,
      sql`FROM verdicts v JOIN people p ON p.id = v.by_id WHERE v.lot_id = ${lotId}`,
      sql`v.seq`,
    ),
  stockLots: (lotId) =>
    list(
      sql`json_build_object('id', s.id, 'tag', s.tag, 'materialId', s.material_id, 'place', s.place, 'measure', m.measure, 'onHand', b.on_hand, 'reservedHere', coalesce(h.amount, 0),
        'solutionOf', CASE WHEN b.on_hand > 0 AND e.after->>'what' = 'stockSolution' AND jsonb_array_length(e.after->'contents') = 1
          THEN json_build_object('materialId', e.after->'contents'->0->>'materialId',
            'gPerL', round((e.after->'contents'->0->>'grams')::numeric / ((e.after->>'volumeUl')::numeric / 1000000), 3)) END)`,
      sql`FROM stock_lots s JOIN stock_balances b ON b.stock_lot_id = s.id JOIN materials m ON m.id = s.material_id
      LEFT JOIN (SELECT stock_lot_id, greatest(0, sum(amount)) AS amount FROM reservations
        WHERE lot_id = ${lotId} GROUP BY stock_lot_id) h ON h.stock_lot_id = s.id
      LEFT JOIN LATERAL (SELECT after FROM liquor_entries q WHERE q.stock_lot_id = s.id ORDER BY q.seq DESC LIMIT 1) e ON true
      WHERE s.material_id IN ${plannedIds(lotId)} OR (b.on_hand > 0 AND e.after->>'what' = 'stockSolution'
        AND (e.after->'contents'->0->>'materialId')::uuid IN ${plannedIds(lotId)})`,
      sql`s.received_on, s.tag`,
    ),
  moved: (lotId) =>
    list(
      sql`json_build_object('stockLotId', s.id, 'lotId', v.lot_id, 'amount', v.amount, 'tag', s.tag, 'materialId', m.id, 'material', m.name, 'measure', m.measure)`,
      sql`FROM movements v JOIN stock_lots s ON s.id = v.stock_lot_id JOIN materials m ON m.id = s.material_id WHERE v.lot_id = ${lotId}`,
      sql`m.name, s.tag`,
    ),
  expected: (lotId) =>
    sql`(SELECT coalesce(v.body->'expectedShades', '[]') FROM lots l JOIN recipe_versions v ON v.id = l.recipe_version_id WHERE l.id = ${lotId})`,
  judgeRule: () => sql`(SELECT to_json(judge_rule) FROM studio)`,
  again: (lotId) =>
    list(
      sql`json_build_object('id', l.id, 'number', l.number)`,
      sql`FROM lots l WHERE l.reorder_of_id = ${lotId}`,
      sql`l.number`,
    ),
  lot: (lotId) =>
    sql`(SELECT json_build_object('id', l.id, 'at', l.at, 'master', l.master, 'colourwayId', l.colourway_id, 'plan', l.plan) FROM lots l WHERE l.id = ${lotId})`,
  standing: (lotId) =>
    sql`(SELECT json_build_object('formula', c.formula, 'colourwayMaster', c.master,
      'masters', (SELECT coalesce(json_agg(json_build_object('lab', m.lab, 'zones', m.zones, 'at', m.at) ORDER BY m.seq), '[]') FROM masters m WHERE m.colourway_id = c.id))
    FROM lots l JOIN colourways c ON c.id = l.colourway_id WHERE l.id = ${lotId})`,
};

const utc = (at: string): string => new Date(at).toISOString();
const inUtc = <T extends { at: string }>(rows: readonly T[]): T[] => rows.map((row) => ({ ...row, at: utc(row.at) }));

const columnsOf = (lotId: LotId, wanted: readonly (keyof Parts)[]): SQL =>
  sql.join(
    wanted.map((part) => sql`${PARTS[part](lotId)} AS ${sql.identifier(part)}`),
    sql`, `,
  );

const told = <P extends keyof Parts>(parts: Partial<Parts>): Pick<Parts, P> =>
  ({
    ...parts,
    ...(parts.entries ? { entries: inUtc(parts.entries).map((e) => ({ ...e, recordedAt: utc(e.recordedAt) })) } : {}),
    ...(parts.readings ? { readings: inUtc(parts.readings) } : {}),
    ...(parts.eyes ? { eyes: inUtc(parts.eyes) } : {}),
    ...(parts.verdicts
      ? {
          verdicts: inUtc(parts.verdicts).map((v) => ({
            ...v,
            takenBack: v.takenBack && { ...v.takenBack, at: utc(v.takenBack.at) },
          })),
        }
      : {}),
    ...(parts.lot ? { lot: { ...parts.lot, at: utc(parts.lot.at) } } : {}),
  }) as Pick<Parts, P>;

/** Reads the parts asked for, in one question. */
export async function readParts<P extends keyof Parts>(
  db: Db,
  lotId: string,
  ...wanted: readonly P[]
): Promise<Pick<Parts, P>> {
  const { rows } = await db.execute<Partial<Parts>>(sql`SELECT ${columnsOf(lotId, wanted)}`);
  return told(rows[0] ?? {});
}

/** The same of several lots, in the order of their numbers. */
export async function readPartsOfLots<P extends keyof Parts>(
  db: Db,
  lotIds: readonly string[],
  ...wanted: readonly P[]
): Promise<Pick<Parts, P>[]> {
  const { rows } = await db.execute<Partial<Parts>>(
    sql`SELECT ${columnsOf(sql`of_lot.id`, wanted)} FROM lots of_lot WHERE of_lot.id = ANY(${sql.param(lotIds)}::uuid[]) ORDER BY of_lot.number`,
  );
  return rows.map(told<P>);
}
