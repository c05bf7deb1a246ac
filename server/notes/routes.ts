import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { assertRecipeShown } from '../studio/veil';
import { addNote, readNotes } from './notes-store';

export function notesRoutes(routes: Routes): void {
  routes.reads(api.notes, async ({ db, query, person }) => {
    if (query.subject === 'recipe') await assertRecipeShown(db, query.id, person.id);
    return readNotes(db, query.subject, query.id);
  });
  routes.writes(api.addNote, ['notes'], ({ db, body, now, person }) => addNote(db, body, { now, byId: person.id }));
}
