import { api, recipeFileSchema } from '@vestigia/contract';
import type { Routes } from '../http/routes';
import { checkRecipeFile, exportRecipe, importRecipe } from './recipe-files';
import { assertRecipeShown, assertVersionShown, veilFor } from '../studio/veil';
import { keepRecipeTo } from './keep-private';
import { readRecipes, readVersion } from './recipes-store';
import { addStripTrial, promoteStrip, readStripTrial, readStripTrials, recordStripReading } from './strip-trials';
import { addRecipe, addVersion, recordProof, setRecipeStatus } from './write-versions';

export function recipesRoutes(routes: Routes): void {
  routes.reads(api.recipes, ({ db, person }) => readRecipes(db, person.id));
  routes.reads(api.recipeSchema, () => Promise.resolve(recipeFileSchema()));
  routes.reads(api.recipeVersion, async ({ db, id, person }) => {
    await assertVersionShown(db, id, person.id);
    return readVersion(db, id);
  });
  routes.reads(api.exportRecipe, async ({ db, id, person }) => {
    await assertVersionShown(db, id, person.id);
    return exportRecipe(db, id);
  });
  routes.reads(api.checkRecipeFile, ({ db, body }) => checkRecipeFile(db, body));
  routes.reads(api.stripTrials, async ({ db, person }) => {
    const veil = await veilFor(db, person.id);
    return (await readStripTrials(db)).filter((t) => !veil?.versionIds.has(t.recipeVersionId));
  });
  routes.reads(api.stripTrial, async ({ db, id, person }) => {
    const trial = await readStripTrial(db, id);
    await assertVersionShown(db, trial.summary.recipeVersionId, person.id);
    return trial;
  });
  routes.writes(api.keepRecipeTo, ['recipes', 'colourways', 'lots', 'stores'], async ({ db, id, body, person }) => {
    await assertRecipeShown(db, id, person.id);
    return keepRecipeTo(db, id, body, person.id);
  });

  routes.writes(api.addRecipe, ['recipes'], ({ db, body, now, person }) =>
    addRecipe(db, body, { now, byId: person.id }),
  );
  routes.writes(api.addRecipeVersion, ['recipes'], async ({ db, id, body, now, person }) => {
    await assertRecipeShown(db, id, person.id);
    return addVersion(db, { ...body, recipeId: id }, { now, byId: person.id });
  });
  routes.writes(api.setRecipeStatus, ['recipes', 'colourways'], async ({ db, id, body, now, person }) => {
    await assertVersionShown(db, id, person.id);
    return setRecipeStatus(db, id, body, { now, byId: person.id });
  });
  routes.writes(api.recordProof, ['recipes'], async ({ db, id, body, now, person }) => {
    await assertVersionShown(db, id, person.id);
    return recordProof(db, id, body, { now, byId: person.id });
  });
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
