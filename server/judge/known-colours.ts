import type { KnownColour, LabUnder, NearColour } from '@vestigia/contract';
import type { LabIndex } from '@vestigia/core';
import { indexLabs } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lotTag } from '../shared/lot-tag';
import { oneValue } from '../stores/shelf';
import type { Veil } from '../studio/veil';

/** What is asked: everything, or what a material, a jar or a recipe version gave. */
export interface ColoursOf {
  readonly materialId?: string | undefined;
  readonly stockLotId?: string | undefined;
  readonly recipeVersionId?: string | undefined;
}

/** A colour, and what it may be kept from somebody by. */
type Row = KnownColour & {
  readonly lotId: string | null;
  readonly lotNumber: number | null;
  readonly versionId: string | null;
};

/**
 * Every colour the record knows, and where it is told. What a material, jar or recipe gave leaves out lots that are
 * kept from whoever asks: their colours would tell what went in.
 */
export async function readColours(db: Db, of: ColoursOf, veil: Veil | undefined): Promise<KnownColour[]> {
  const isOne = Object.values(of).some((id) => id !== undefined);
  const rows = await readRows(db, of, isOne);
  return rows.filter((r) => isShown(r, isOne, veil)).map(told);
}

/** A trial is of its recipe; what a private lot gave is told by its own name alone, never by what went in. */
const isShown = ({ lotId, versionId }: Row, isOne: boolean, veil: Veil | undefined): boolean =>
  (versionId === null || !veil?.versionIds.has(versionId)) && (!isOne || lotId === null || !veil?.lotIds.has(lotId));

const told = ({ lotId: _lotId, versionId: _versionId, lotNumber, ...r }: Row): KnownColour => ({
  ...r,
  title: lotNumber === null ? r.title : lotTag(lotNumber),
});

async function readRows(db: Db, of: ColoursOf, isOne: boolean): Promise<Row[]> {
  const withMaterial = of.materialId
    ? sql`AND l.plan->'materials' @> ${JSON.stringify([{ materialId: of.materialId }])}::jsonb`
    : sql``;
  const fromJar = of.stockLotId
    ? sql`AND l.id IN (SELECT v.lot_id FROM movements v WHERE v.stock_lot_id = ${of.stockLotId} AND v.lot_id IS NOT NULL
        GROUP BY v.lot_id HAVING sum(v.amount) < 0)`
    : sql``;
  const byRecipe = of.recipeVersionId ? sql`AND l.recipe_version_id = ${of.recipeVersionId}` : sql``;
  const lotsAsked = sql`SELECT l.id FROM lots l WHERE true ${withMaterial} ${fromJar} ${byRecipe}`;
  return oneValue<Row[]>(
    db,
    sql`(SELECT coalesce(json_agg(q.row ORDER BY q.at DESC), '[]') FROM (
      SELECT l.at, json_build_object('kind', 'lot', 'id', l.id, 'lotId', l.id, 'versionId', null, 'lotNumber', l.number, 'title', '',
        'detail', concat_ws(', ', c.name, nullif(f->>'label', ''), m.name), 'lab', f->'lab') AS row
      FROM lots l JOIN lot_progress p ON p.lot_id = l.id JOIN colourways c ON c.id = l.colourway_id
        JOIN materials m ON m.id = l.base_material_id
        CROSS JOIN LATERAL jsonb_array_elements(CASE WHEN p.family IS NOT NULL THEN p.family
          ELSE jsonb_build_array(jsonb_build_object('label', '', 'lab', p.result)) END) f
      WHERE jsonb_typeof(f->'lab') = 'object' AND l.id IN (${lotsAsked})
      UNION ALL
      SELECT w.at, json_build_object('kind', 'swatch', 'id', w.id, 'lotId', w.lot_id, 'versionId', null, 'lotNumber', null, 'title', w.name,
        'detail', concat('page ', w.page, ', place ', w.slot), 'lab', w.lab)
      FROM swatches w WHERE w.taken_out_at IS NULL AND w.lab IS NOT NULL
        AND (${!isOne} OR w.lot_id IN (${lotsAsked})
          ${of.materialId ? sql`OR w.made_with->'materialIds' @> ${JSON.stringify([of.materialId])}::jsonb` : sql``})
      UNION ALL
      SELECT r.at, json_build_object('kind', 'strip', 'id', t.id, 'lotId', null,
        'versionId', t.recipe_version_id, 'lotNumber', null,
        'title', concat(t.name, ', strip ', r.number), 'detail', coalesce(t.layout->(r.number - 1)->>'label', ''),
        'lab', r.lab || r.conditions)
      FROM strip_readings r JOIN strip_trials t ON t.id = r.trial_id
      WHERE NOT EXISTS (SELECT 1 FROM strip_readings later WHERE later.replaces_id = r.id)
        AND (${!isOne}
          ${of.materialId ? sql`OR t.material_id = ${of.materialId} OR t.base_material_id = ${of.materialId}` : sql``}
          ${of.recipeVersionId ? sql`OR t.recipe_version_id = ${of.recipeVersionId}` : sql``})
      ${
        isOne
          ? sql``
          : sql`UNION ALL
      SELECT now(), json_build_object('kind', 'colourway', 'id', c.id, 'lotId', null, 'versionId', null, 'lotNumber', null,
        'title', c.name, 'detail', concat('master, on ', m.name), 'lab', c.master)
      FROM colourways c JOIN materials m ON m.id = c.base_material_id WHERE c.master IS NOT NULL`
      }
    ) q)`,
  );
}

interface Prepared {
  readonly stamp: string;
  readonly rows: readonly Row[];
  readonly index: LabIndex;
}

/** Of each database an index of all its colours, for as long as nothing was added to them. */
const preparedFor = new WeakMap<Db, Prepared>();

/** The colours nearest to one by CIEDE2000, nearest first; light and observer as each was read. */
export async function readNearest(
  db: Db,
  to: { readonly L: number; readonly a: number; readonly b: number },
  count: number,
  veil: Veil | undefined,
): Promise<NearColour[]> {
  const stamp = await oneValue<string>(
    db,
    sql`(SELECT to_json(concat_ws(' ', (SELECT max(seq) FROM readings), (SELECT max(seq) FROM verdicts), (SELECT max(seq) FROM verdict_take_backs),
      (SELECT max(seq) FROM masters), (SELECT max(seq) FROM strip_readings),
      (SELECT concat(count(*), ' ', sum(version), ' ', max(id::text)) FROM swatches WHERE taken_out_at IS NULL),
      (SELECT concat(count(*), ' ', max(id::text)) FROM lots), (SELECT concat(count(*), ' ', max(id::text)) FROM colourways))))`,
  );
  let prepared = preparedFor.get(db);
  if (prepared?.stamp !== stamp) {
    const rows = await readRows(db, {}, false);
    prepared = { stamp, rows, index: indexLabs(rows.map((c): LabUnder => c.lab)) };
    preparedFor.set(db, prepared);
  }
  const { rows, index } = prepared;
  const hidden = rows.filter((r) => !isShown(r, false, veil)).length;
  return index
    .nearest(to, count + hidden)
    .flatMap(({ position, deltaE }) => {
      const row = rows[position];
      return row && isShown(row, false, veil) ? [{ ...told(row), deltaE }] : [];
    })
    .slice(0, count);
}
