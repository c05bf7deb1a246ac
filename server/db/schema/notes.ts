import type { NoteSubject } from '@vestigia/contract';
import type { ShadeOf } from '@vestigia/core';
import { index, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { instant, seq } from './columns';
import { people } from './people';

/** Append-only: notes on anything. One that replaces another corrects it; an empty one takes it back. */
export const notes = pgTable(
  'notes',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    subject: text('subject').$type<NoteSubject>().notNull(),
    subjectId: uuid('subject_id').notNull(),
    text: text('text').notNull(),
    /** Where it is seen again by itself. */
    mark: text('mark').$type<'next' | 'recipe'>(),
    /** On a lot: the piece, zone, part or dip it is about; `null`: all of it. */
    of: jsonb('of').$type<ShadeOf>(),
    replacesId: uuid('replaces_id').unique(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('notes_subject').on(t.subject, t.subjectId, t.seq)],
);
