import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { veilFor } from '../studio/veil';
import { readMatchRecord } from './match-record';

export function matchRoutes(routes: Routes): void {
  routes.reads(api.matchRecord, async ({ db, person }) => readMatchRecord(db, await veilFor(db, person.id)));
}
