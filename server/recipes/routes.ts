import type { RecipeBody } from '@vestigia/contract';
import { api } from '@vestigia/contract';
import { eq, inArray, max } from 'drizzle-orm';
import type { Db } from '../db/database';
import { materials, recipeVersions, recipes, standings } from '../db/schema';
import type { Routes } from '../http/routes';
import { uuidv7 } from '../ids';
import { Refusal, notFound } from '../problem';
import { findVersion, readRecipes, readVersion } from './recipes-store';

export function recipesRoutes(routes: Routes): void {
  routes.reads(api.recipes, ({ db }) => readRecipes(db));
  routes.reads(api.recipeVersion, ({ db, id }) => readVersion(db, id));
  routes.writes(api.addRecipe, ['recipes'], async ({ db, body, now, person }) => {
    await db.insert(recipes).values({ id: body.id, name: body.name });
    await addVersion(db, { id: body.versionId, recipeId: body.id, number: 1, body: body.body, now, byId: person.id });
    return { id: body.versionId };
  });
  routes.writes(api.addRecipeVersion, ['recipes'], async ({ db, id, body, now, person }) => {
    const [newest] = await db.select({ number: max(recipeVersions.number) }).from(recipeVersions).where(eq(recipeVersions.recipeId, id));
    if (!newest?.number) throw notFound('recipe');
    await addVersion(db, { id: body.id, recipeId: id, number: newest.number + 1, body: body.body, now, byId: person.id });
    return { id: body.id };
  });
  routes.writes(api.setStanding, ['recipes', 'colourways'], async ({ db, id, body, now, person }) => {
    const version = await findVersion(db, id);
    if (version.standing === body.standing) throw new Refusal('alreadyDone', `This version is ${body.standing} already.`);
    await db.insert(standings).values({ ...body, recipeVersionId: id, at: now.toISOString(), byId: person.id });
    return { id: body.id };
  });
}

interface NewVersion {
  readonly id: string;
  readonly recipeId: string;
  readonly number: number;
  readonly body: RecipeBody;
  readonly now: Date;
  readonly byId: string;
}

async function addVersion(db: Db, { now, ...version }: NewVersion): Promise<void> {
  await checkDoses(db, version.body);
  await db.insert(recipeVersions).values({ ...version, at: now.toISOString() });
  await db.insert(standings).values({ id: uuidv7(now), recipeVersionId: version.id, standing: 'trial', at: now.toISOString(), byId: version.byId });
}

/** Doses are grams of a material on the shelf list, once a step; fibre is not dosed, and litres can't be weighed. */
async function checkDoses(db: Db, body: RecipeBody): Promise<void> {
  for (const step of body.steps) {
    if (new Set(step.doses.map((d) => d.materialId)).size < step.doses.length) throw new Refusal('refused', `“${step.title}” doses one material twice. Add the two together.`);
  }
  const ids = [...new Set(body.steps.flatMap((s) => s.doses.map((d) => d.materialId)))];
  if (ids.length === 0) return;
  const known = await db.select().from(materials).where(inArray(materials.id, ids));
  if (known.length < ids.length) throw new Refusal('notFound', 'The recipe doses a material that is not in Stores. Add the material first.');
  for (const m of known) {
    if (m.kind === 'fibre') throw new Refusal('refused', `${m.name} is a base: the weight of fibre comes from the lot, so it is not dosed.`);
    if (m.measure === 'volume') throw new Refusal('refused', `${m.name} is kept by volume and per cent of fibre is a weight. Dose it from a jar kept by weight.`);
  }
}
