import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { addNote, readNotes } from './notes-store';

export function notesRoutes(routes: Routes): void {
  routes.reads(api.notes, ({ db, query }) => readNotes(db, query.subject, query.id));
  routes.writes(api.addNote, ['notes'], ({ db, body, now, person }) => addNote(db, body, { now, byId: person.id }));
}
