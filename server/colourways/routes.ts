import { api } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { keepColourwayTo } from '../recipes/keep-private';
import { notFound } from '../shared/problem';
import { setUpFirstLot } from './first-lot';
import { dyeInLiquor } from './dye-in-liquor';
import { assertVersionShown, veilFor } from '../studio/veil';
import { nameColourway, putColourwayAway, readColourways, veiledColourway } from './colourways-store';

export function colourwaysRoutes(routes: Routes): void {
  routes.reads(api.colourways, async ({ db, person }) => {
    const veil = await veilFor(db, person.id);
    return (await readColourways(db)).map((c) => veiledColourway(c, veil));
  });
  routes.writes(api.addColourway, ['colourways'], async ({ db, body, now, person }) => {
    await assertVersionShown(db, body.recipeVersionId, person.id);
    await nameColourway(db, body, { now, byId: person.id });
    return { id: body.id };
  });
  routes.writes(api.keepColourwayTo, ['colourways', 'lots', 'recipes', 'stores'], async ({ db, id, body, person }) => {
    if ((await veilFor(db, person.id))?.colourwayIds.has(id)) throw notFound('recipe');
    return keepColourwayTo(db, id, body, person.id);
  });
  routes.writes(api.putColourwayAway, ['colourways'], ({ db, id, body }) => putColourwayAway(db, id, body.putAway));
  routes.writes(api.firstLot, ['colourways', 'recipes', 'stores', 'studio'], ({ db, body, now, person }) =>
    setUpFirstLot(db, body, { now, byId: person.id }),
  );
  routes.writes(api.dyeInLiquor, ['colourways', 'recipes'], ({ db, id, body, now, person }) =>
    dyeInLiquor(db, id, body, { now, byId: person.id }),
  );
}
