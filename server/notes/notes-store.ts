import type { Note, NoteSubject, ReadNewNote } from '@vestigia/contract';
import type { ShadeOf } from '@vestigia/core';
import { completePlan, hasShade } from '@vestigia/core';
import { and, desc, eq, inArray, or, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lots, materials, notes, people, recipes, recipeVersions, stockLots, vessels } from '../db/schema';
import { Refusal, notFound } from '../shared/problem';
import type { By } from '../shared/recorded-by';

const TABLES = {
  material: materials,
  stockLot: stockLots,
  recipe: recipes,
  colourway: colourways,
  lot: lots,
  vessel: vessels,
};

/** Notes on something, or a correction of one. */
export async function addNote(db: Db, note: ReadNewNote, { now, byId }: By): Promise<{ id: string }> {
  const { subject, subjectId, replacesId } = note;
  const table = TABLES[subject];
  const [there] = await db.select({ id: table.id }).from(table).where(eq(table.id, subjectId));
  if (!there) throw notFound($localize`thing to note on`);
  if (note.of !== null) await checkShade(db, note, note.of);
  if (note.text.trim() === '' && replacesId === null)
    throw new Refusal('refused', $localize`The note is empty. Write what you want to keep.`, { reason: 'empty' });
  if (replacesId !== null) await checkReplaced(db, note, replacesId);
  await db.insert(notes).values({ ...note, text: note.text.trim(), at: now.toISOString(), byId });
  return { id: note.id };
}

/** A note on a part of a lot is on one that the lot has. */
async function checkShade(db: Db, { subject, subjectId }: ReadNewNote, of: ShadeOf): Promise<void> {
  const [lot] = subject === 'lot' ? await db.select({ plan: lots.plan }).from(lots).where(eq(lots.id, subjectId)) : [];
  if (!lot || !hasShade(completePlan(lot.plan), of))
    throw new Refusal('refused', $localize`The lot has no such piece, zone, part or dip. Choose what it has.`, {
      reason: 'noSuchShade',
    });
}

async function checkReplaced(db: Db, { subject, subjectId }: ReadNewNote, replacesId: string): Promise<void> {
  const [before] = await db.select().from(notes).where(eq(notes.id, replacesId));
  if (before?.subject !== subject || before.subjectId !== subjectId)
    throw new Refusal(
      'refused',
      $localize`A correction names a note on the same thing. Choose the note to correct again.`,
    );
  const [later] = await db.select({ id: notes.id }).from(notes).where(eq(notes.replacesId, replacesId));
  if (later) throw new Refusal('alreadyDone', $localize`That note was corrected already. Correct the newest one.`);
}

/** What still stands: no later note replaces it, and it says something. */
const STANDS = sql`${notes.text} <> '' AND NOT EXISTS (SELECT 1 FROM notes later WHERE later.replaces_id = ${notes.id})`;

/** Notes on one thing, newest first; on a recipe also those of its lots and colourways that are marked for it. */
export async function readNotes(db: Db, subject: NoteSubject, subjectId: string): Promise<Note[]> {
  const own = and(eq(notes.subject, subject), eq(notes.subjectId, subjectId));
  if (subject !== 'recipe') return select(db, own);
  const versions = db
    .select({ id: recipeVersions.id })
    .from(recipeVersions)
    .where(eq(recipeVersions.recipeId, subjectId));
  const ofLots = db.select({ id: lots.id }).from(lots).where(inArray(lots.recipeVersionId, versions));
  const ofColourways = db
    .select({ id: colourways.id })
    .from(colourways)
    .where(inArray(colourways.recipeVersionId, versions));
  return select(
    db,
    or(
      own,
      and(eq(notes.mark, 'recipe'), or(inArray(notes.subjectId, ofLots), inArray(notes.subjectId, ofColourways))),
    ),
  );
}

/** Notes marked “next time” on a lot or its colourway. */
export const readNextNotes = (db: Db, lotId: string, colourwayId: string): Promise<Note[]> =>
  select(db, and(eq(notes.mark, 'next'), inArray(notes.subjectId, [lotId, colourwayId])));

async function select(db: Db, which: Parameters<typeof and>[0]): Promise<Note[]> {
  const rows = await db
    .select({
      id: notes.id,
      subject: notes.subject,
      subjectId: notes.subjectId,
      text: notes.text,
      mark: notes.mark,
      of: notes.of,
      replacesId: notes.replacesId,
      at: notes.at,
      by: { id: people.id, name: people.name },
    })
    .from(notes)
    .innerJoin(people, eq(people.id, notes.byId))
    .where(and(which, STANDS))
    .orderBy(desc(notes.seq));
  return rows.map((n) => ({ ...n, at: new Date(n.at).toISOString() }));
}
