import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { readToday, search } from './today-store';

export function todayRoutes(routes: Routes): void {
  routes.reads(api.today, ({ db, now }) => readToday(db, now));
  routes.reads(api.search, ({ db, query }) => search(db, query.q));
}
