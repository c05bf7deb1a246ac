import { api, recipeFileSchema } from '@vestigia/contract';
import type { Db } from '../db/database';
import type { Routes } from '../http/routes';
import { checkRecipeFile, exportRecipe, importRecipe } from './recipe-files';
import { assertRecipeShown, assertVersionShown, veilFor } from '../studio/veil';
import { keepRecipeTo, keepVersionTo } from './keep-private';
import { putRecipeAway, readOutline, readRecipes, readVersion } from './recipes-store';
import {
  addStripTrial,
  promoteStrip,
  readStripTrial,
  readStripTrials,
  recordStripLook,
  recordStripReading,
} from './strip-trials';
import { addRecipe, addVersion, recordProof, setRecipeStatus } from './write-versions';

export function recipesRoutes(routes: Routes): void {
  routes.reads(api.recipes, ({ db, person }) => readRecipes(db, person.id));
  routes.reads(api.recipeSchema, () => Promise.resolve(recipeFileSchema()));
  routes.reads(api.recipeVersion, async ({ db, id, person }) => {
    await assertVersionShown(db, id, person.id);
    return readVersion(db, id, person.id);
  });
  routes.reads(api.exportRecipe, async ({ db, id, person }) => {
    await assertVersionShown(db, id, person.id);
    return exportRecipe(db, id);
  });
  routes.reads(api.checkRecipeFile, ({ db, body }) => checkRecipeFile(db, body));
  routes.reads(api.stripTrials, async ({ db, person }) => {
    const veil = await veilFor(db, person.id);
    return (await readStripTrials(db)).filter(
      (t) => t.recipeVersionId === null || !veil?.versionIds.has(t.recipeVersionId),
    );
  });
  routes.reads(api.stripTrial, async ({ db, id, person }) => {
    await assertTrialShown(db, id, person.id);
    return readStripTrial(db, id);
  });
  routes.writes(api.keepRecipeTo, ['recipes', 'colourways', 'lots', 'stores'], async ({ db, id, body, person }) => {
    await assertRecipeShown(db, id, person.id);
    return keepRecipeTo(db, id, 'keptTo', body, person.id);
  });

  routes.writes(api.keepVersionTo, ['recipes', 'colourways', 'lots', 'stores'], async ({ db, id, body, person }) => {
    await assertVersionShown(db, id, person.id);
    return keepVersionTo(db, id, body, person.id);
  });
  routes.writes(api.keepAmountsTo, ['recipes', 'colourways', 'lots', 'stores'], async ({ db, id, body, person }) => {
    await assertRecipeShown(db, id, person.id);
    return keepRecipeTo(db, id, 'amountsKeptTo', body, person.id);
  });
  routes.writes(api.putRecipeAway, ['recipes'], async ({ db, id, body, person }) => {
    await assertRecipeShown(db, id, person.id);
    return putRecipeAway(db, id, body.putAway);
  });
  routes.reads(api.recipeOutline, ({ db, id, person }) => readOutline(db, id, person.id));
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
  routes.writes(api.addStripTrial, ['recipes'], async ({ db, body, now, person }) => {
    if (body.recipeVersionId !== null) await assertVersionShown(db, body.recipeVersionId, person.id);
    return addStripTrial(db, body, { now, byId: person.id });
  });
  routes.writes(api.recordStripLook, ['recipes'], async ({ db, id, body, now, person }) => {
    await assertTrialShown(db, id, person.id);
    return recordStripLook(db, id, body, { now, byId: person.id });
  });
  routes.writes(api.recordStripReading, ['recipes'], async ({ db, id, body, now, person }) => {
    await assertTrialShown(db, id, person.id);
    return recordStripReading(db, id, body, { now, byId: person.id });
  });
  routes.writes(api.promoteStrip, ['recipes'], async ({ db, id, body, now, person }) => {
    await assertTrialShown(db, id, person.id);
    return promoteStrip(db, id, body, { now, byId: person.id });
  });
}

/** A trial is of its recipe: kept from whom that is kept. */
async function assertTrialShown(db: Db, trialId: string, personId: string): Promise<void> {
  const { summary } = await readStripTrial(db, trialId);
  if (summary.recipeVersionId !== null) await assertVersionShown(db, summary.recipeVersionId, personId);
}
