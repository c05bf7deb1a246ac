import { api, recipeFileSchema } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { checkRecipeFile, exportRecipe, importRecipe } from './recipe-files';
import { readRecipes, readVersion } from './recipes-store';
import { addStripTrial, promoteStrip, readStripTrial, readStripTrials, recordStripReading } from './strip-trials';
import { addRecipe, addVersion, recordProof, setRecipeStatus } from './write-versions';

export function recipesRoutes(routes: Routes): void {
  routes.reads(api.recipes, ({ db }) => readRecipes(db));
  routes.reads(api.recipeSchema, () => Promise.resolve(recipeFileSchema()));
  routes.reads(api.recipeVersion, ({ db, id }) => readVersion(db, id));
  routes.reads(api.exportRecipe, ({ db, id }) => exportRecipe(db, id));
  routes.reads(api.checkRecipeFile, ({ db, body }) => checkRecipeFile(db, body));
  routes.reads(api.stripTrials, ({ db }) => readStripTrials(db));
  routes.reads(api.stripTrial, ({ db, id }) => readStripTrial(db, id));

  routes.writes(api.addRecipe, ['recipes'], ({ db, body, now, person }) =>
    addRecipe(db, body, { now, byId: person.id }),
  );
  routes.writes(api.addRecipeVersion, ['recipes'], ({ db, id, body, now, person }) =>
    addVersion(db, { ...body, recipeId: id }, { now, byId: person.id }),
  );
  routes.writes(api.setRecipeStatus, ['recipes', 'colourways'], ({ db, id, body, now, person }) =>
    setRecipeStatus(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.recordProof, ['recipes'], ({ db, id, body, now, person }) =>
    recordProof(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.importRecipe, ['recipes', 'stores'], ({ db, body, now, person }) =>
    importRecipe(db, body, { now, byId: person.id }),
  );
  routes.writes(api.addStripTrial, ['recipes'], ({ db, body, now, person }) =>
    addStripTrial(db, body, { now, byId: person.id }),
  );
  routes.writes(api.recordStripReading, ['recipes'], ({ db, id, body, now, person }) =>
    recordStripReading(db, id, body, { now, byId: person.id }),
  );
  routes.writes(api.promoteStrip, ['recipes'], ({ db, id, body, now, person }) =>
    promoteStrip(db, id, body, { now, byId: person.id }),
  );
}
