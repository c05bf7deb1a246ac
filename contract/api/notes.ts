import { z } from 'zod';
import { id } from '../common';
import { newNote, note, NOTE_SUBJECTS } from '../notes';
import type { Call } from './call';
import { created } from './call';

export const notesCalls = {
  notes: {
    method: 'get',
    path: '/api/notes',
    summary: 'Notes on one thing, newest first; on a recipe also those of its lots that are marked for it',
    query: z.object({ subject: z.enum(NOTE_SUBJECTS), id }),
    reply: z.array(note),
  },
  addNote: {
    method: 'post',
    path: '/api/notes',
    summary: 'Note something on anything; a note that replaces another corrects it',
    body: newNote,
    reply: created,
  },
} as const satisfies Record<string, Call>;
