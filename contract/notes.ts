import { z } from 'zod';
import { shadeOf } from './readings';
import { id, isoTime, noteOf, personRef } from './common';

/** What a note can be on. A recipe's is on all its versions. */
export const NOTE_SUBJECTS = ['material', 'stockLot', 'recipe', 'colourway', 'lot', 'vessel'] as const;
/** Where a note is seen again by itself: when it is dyed again, or when its recipe is written anew. */
export const NOTE_MARKS = ['next', 'recipe'] as const;

const fields = {
  id,
  subject: z.enum(NOTE_SUBJECTS),
  subjectId: id,
  /** Empty takes back the note it replaces. */
  text: noteOf(() => $localize`The note`),
  mark: z.enum(NOTE_MARKS).nullable().default(null),
  /** On a lot: the piece, zone, part or dip it is about; `null`: all of it. */
  of: shadeOf.nullable().default(null),
  replacesId: id.nullable().default(null),
};
export const newNote = z.object(fields);
export type NewNote = z.input<typeof newNote>;
export type ReadNewNote = z.infer<typeof newNote>;
export const noteRecord = z.object({ ...fields, byId: id, at: isoTime });
export const note = z.object({ ...fields, by: personRef, at: isoTime }).meta({ id: 'Note' });
export type Note = z.infer<typeof note>;
export type NoteSubject = Note['subject'];
