import { api } from '@vestigia/contract';
import { asc } from 'drizzle-orm';
import { materials } from '../db/schema';
import type { Routes } from '../http/routes';
import { countStockLot, editStockLot, receive, reverseMovement } from './stores-service';
import { readShelf, readStockLot } from './stores-store';

export function storesRoutes(routes: Routes): void {
  routes.reads(api.shelf, ({ db }) => readShelf(db));
  routes.reads(api.materials, ({ db }) => db.select().from(materials).orderBy(asc(materials.name)));
  routes.reads(api.stockLot, ({ db, id }) => readStockLot(db, id));
  routes.writes(api.addMaterial, ['stores'], async ({ db, body }) => {
    await db.insert(materials).values(body);
    return { id: body.id };
  });
  routes.writes(api.receive, ['stores'], ({ db, body, now, person }) => receive(db, body, { now, byId: person.id }));
  routes.writes(api.editStockLot, ['stores'], ({ db, id, body }) => editStockLot(db, id, body));
  routes.writes(api.countStockLot, ['stores'], ({ db, id, body, now, person }) => countStockLot(db, id, body, { now, byId: person.id }));
  routes.writes(api.reverseMovement, ['stores'], ({ db, id, body, now, person }) => reverseMovement(db, id, body, { now, byId: person.id }));
}
