import type { RecipePrivacy } from '@vestigia/contract';
import { eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, people, recipeVersions, recipes } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { Refusal, notFound } from '../shared/problem';

const alike = (a: readonly string[] | null, b: readonly string[] | null): boolean =>
  a === null || b === null ? a === b : a.length === b.length && a.every((id) => b.includes(id));

/** Whether somebody may keep something to these people: oneself among them, all known, and as it was when decided. */
async function checkKeepers(
  db: Db,
  now: readonly string[] | null,
  { keptTo, before }: RecipePrivacy,
  personId: string,
): Promise<void> {
  if (!alike(now, before)) assertFresh([], keptTo, now);
  if (keptTo === null) return;
  if (!keptTo.includes(personId))
    throw new Refusal('refused', $localize`You would not see it yourself any more. Keep yourself among them.`, {
      reason: 'notOneself',
    });
  const known = await db.select({ id: people.id }).from(people).where(inArray(people.id, keptTo));
  if (known.length < new Set(keptTo).size) throw notFound('person');
}

/**
 * Keeps a recipe (`keptTo`), or how much of each goes in while all see what does (`amountsKeptTo`), to some people,
 * whoever decides it among them; or shows it to everybody again.
 */
export async function keepRecipeTo(
  db: Db,
  recipeId: string,
  what: 'keptTo' | 'amountsKeptTo',
  privacy: RecipePrivacy,
  personId: string,
): Promise<{ id: string }> {
  const [recipe] = await db.select().from(recipes).where(eq(recipes.id, recipeId));
  if (!recipe) throw notFound('recipe');
  await checkKeepers(db, recipe[what], privacy, personId);
  await db
    .update(recipes)
    .set({ [what]: privacy.keptTo && [...new Set(privacy.keptTo)] })
    .where(eq(recipes.id, recipeId));
  return { id: recipeId };
}

/** Keeps what makes a colourway to some people: its name and colour are for all to see. */
export async function keepColourwayTo(
  db: Db,
  colourwayId: string,
  privacy: RecipePrivacy,
  personId: string,
): Promise<{ id: string }> {
  const [colourway] = await db.select().from(colourways).where(eq(colourways.id, colourwayId));
  if (!colourway) throw notFound('colourway');
  await checkKeepers(db, colourway.keptTo, privacy, personId);
  await db
    .update(colourways)
    .set({ keptTo: privacy.keptTo && [...new Set(privacy.keptTo)] })
    .where(eq(colourways.id, colourwayId));
  return { id: colourwayId };
}

/** Keeps one version to some people, while the others of its recipe stay as they are shown. */
export async function keepVersionTo(
  db: Db,
  versionId: string,
  privacy: RecipePrivacy,
  personId: string,
): Promise<{ id: string }> {
  const [recipe] = await db
    .select({ id: recipes.id, keptVersions: recipes.keptVersions })
    .from(recipes)
    .innerJoin(recipeVersions, eq(recipeVersions.recipeId, recipes.id))
    .where(eq(recipeVersions.id, versionId));
  if (!recipe) throw notFound($localize`recipe version`);
  const now = recipe.keptVersions.find((v) => v.versionId === versionId)?.keptTo ?? null;
  await checkKeepers(db, now, privacy, personId);
  const others = recipe.keptVersions.filter((v) => v.versionId !== versionId);
  const { keptTo } = privacy;
  await db
    .update(recipes)
    .set({ keptVersions: keptTo === null ? others : [...others, { versionId, keptTo: [...new Set(keptTo)] }] })
    .where(eq(recipes.id, recipe.id));
  return { id: versionId };
}
