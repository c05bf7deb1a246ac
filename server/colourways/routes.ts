import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { setUpFirstLot } from './first-lot';
import { dyeInLiquor } from './dye-in-liquor';
import { addColourway, editColourway, readColourways } from './colourways-store';

export function colourwaysRoutes(routes: Routes): void {
  routes.reads(api.colourways, ({ db }) => readColourways(db));
  routes.writes(api.addColourway, ['colourways'], async ({ db, body }) => {
    await addColourway(db, body);
    return { id: body.id };
  });
  routes.writes(api.editColourway, ['colourways'], async ({ db, id, body }) => {
    await editColourway(db, id, body);
    return { id };
  });
  routes.writes(api.firstLot, ['colourways', 'recipes', 'stores', 'studio'], ({ db, body, now, person }) =>
    setUpFirstLot(db, body, { now, byId: person.id }),
  );
  routes.writes(api.dyeInLiquor, ['colourways', 'recipes'], ({ db, id, body, now, person }) =>
    dyeInLiquor(db, id, body, { now, byId: person.id }),
  );
}
