import { api } from '@vestigia/contract';
import type { Context } from '../shared/context';
import type { Routes } from '../http/routes';
import { findOrders } from '../orders/find-orders';
import { ordersSoon } from '../orders/orders-soon';
import { touchesSoon } from '../plan/touches-soon';
import { veilFor } from '../studio/veil';
import { changeAtHand, readAtHand } from './at-hand';
import { readToday, search, veilHits, veilToday } from './today-store';

export function todayRoutes(routes: Routes, { watchers, database }: Context): void {
  routes.reads(api.today, async ({ db, now, person, role }) => ({
    ...veilToday(
      await readToday(
        db,
        now,
        watchers.flatMap((watcher) => [...watcher(now.getTime())]),
      ),
      await veilFor(db, person.id),
    ),
    // Customers are no business of guests.
    orders: role === 'guest' ? [] : await ordersSoon(db, now),
    byPlan: await touchesSoon(db, now, person.id),
    disk: await database.room(),
  }));
  routes.reads(api.atHand, ({ db, person }) => readAtHand(db, person.id));
  routes.writes(api.keepAtHand, ['studio'], ({ db, body, now, person }) =>
    changeAtHand(db, body, { now, byId: person.id }),
  );
  routes.reads(api.search, async ({ db, query, person, role }) => {
    const veil = await veilFor(db, person.id);
    const found = veilHits(await search(db, query.q), veil);
    return role === 'guest' ? found : [...found, ...(await findOrders(db, query.q))];
  });
}
