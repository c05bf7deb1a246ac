import type { RecipePrivacy } from '@vestigia/contract';
import { eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { people, recipes } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { Refusal, notFound } from '../shared/problem';

const alike = (a: readonly string[] | null, b: readonly string[] | null): boolean =>
  a === null || b === null ? a === b : a.length === b.length && a.every((id) => b.includes(id));

/** Keeps a recipe to some people, whoever decides it among them, or shows it to everybody again. */
export async function keepRecipeTo(
  db: Db,
  recipeId: string,
  { keptTo, before }: RecipePrivacy,
  personId: string,
): Promise<{ id: string }> {
  const [recipe] = await db.select().from(recipes).where(eq(recipes.id, recipeId));
  if (!recipe) throw notFound('recipe');
  if (!alike(recipe.keptTo, before)) assertFresh([], keptTo, recipe.keptTo);
  if (keptTo !== null && !keptTo.includes(personId))
    throw new Refusal('refused', 'You would not see it yourself any more. Keep yourself among them.', {
      reason: 'notOneself',
    });
  const known =
    keptTo === null ? [] : await db.select({ id: people.id }).from(people).where(inArray(people.id, keptTo));
  if (keptTo !== null && known.length < new Set(keptTo).size) throw notFound('person');
  await db
    .update(recipes)
    .set({ keptTo: keptTo && [...new Set(keptTo)] })
    .where(eq(recipes.id, recipeId));
  return { id: recipeId };
}
