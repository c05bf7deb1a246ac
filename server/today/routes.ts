import { api } from '@vestigia/contract';
import type { Context } from '../shared/context';
import type { Routes } from '../http/routes';
import { readToday, search } from './today-store';

export function todayRoutes(routes: Routes, { watchers }: Context): void {
  routes.reads(api.today, ({ db, now }) =>
    readToday(
      db,
      now,
      watchers.flatMap((watcher) => [...watcher(now.getTime())]),
    ),
  );
  routes.reads(api.search, ({ db, query }) => search(db, query.q));
}
