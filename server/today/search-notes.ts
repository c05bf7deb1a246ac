import type { NoteSubject, SearchHit } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';

const AT_MOST = 90;
/** A recipe's notes lead to its newest version; a material has a page of its own. */
const KINDS: Readonly<Record<NoteSubject, SearchHit['kind']>> = {
  material: 'material',
  stockLot: 'stockLot',
  recipe: 'recipe',
  colourway: 'colourway',
  lot: 'lot',
  vessel: 'vessel',
};

/** Notes that say something like this, of the bench and on anything; each leads to what it is on. */
export async function searchNotes(db: Db, like: string, max: number): Promise<SearchHit[]> {
  const { rows } = await db.execute<{
    subject: NoteSubject;
    id: string;
    text: string;
    title: string;
    atBench: boolean;
  }>(sql`
    SELECT n.subject, CASE n.subject WHEN 'recipe' THEN
        (SELECT v.id FROM recipe_versions v WHERE v.recipe_id = n.subject_id ORDER BY v.number DESC LIMIT 1)
      ELSE n.subject_id END AS id, n.text, n.at_bench AS "atBench",
      coalesce((SELECT 'Lot ' || number FROM lots WHERE id = n.subject_id),
        (SELECT tag FROM stock_lots WHERE id = n.subject_id), (SELECT name FROM materials WHERE id = n.subject_id),
        (SELECT name FROM colourways WHERE id = n.subject_id), (SELECT name FROM recipes WHERE id = n.subject_id),
        (SELECT name FROM vessels WHERE id = n.subject_id), '') AS title
    FROM (
      SELECT subject, subject_id, text, at, false AS at_bench FROM notes n WHERE text ILIKE ${like}
        AND NOT EXISTS (SELECT 1 FROM notes later WHERE later.replaces_id = n.id)
      UNION ALL
      SELECT 'lot', lot_id, text, at, true FROM run_entries e WHERE kind = 'note' AND text ILIKE ${like}
        AND NOT EXISTS (SELECT 1 FROM run_entries later WHERE later.replaces_id = e.id)
    ) n ORDER BY n.at DESC LIMIT ${max}`);
  return rows.map(({ subject, id, text, title, atBench }) => ({
    kind: KINDS[subject],
    ...(atBench ? { atBench } : {}),
    id,
    title,
    lab: null,
    detail: text.length > AT_MOST ? `${text.slice(0, AT_MOST)}…` : text,
  }));
}
