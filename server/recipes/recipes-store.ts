import type { RecipeBody, RecipeSummary, RecipeVersionDetail } from '@vestigia/contract';
import { asc, desc, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, materials, people, recipeVersions, recipes, standings } from '../db/schema';
import { notFound } from '../problem';

type VersionRef = RecipeSummary['versions'][number];
export type Standing = VersionRef['standing'];

const dosedIds = (body: RecipeBody): string[] => [...new Set(body.steps.flatMap((s) => s.doses.map((d) => d.materialId)))];

/** Where each version stands now: the newest entry of each. */
export async function currentStandings(db: Db): Promise<Map<string, Standing>> {
  const rows = await db.select({ id: standings.recipeVersionId, standing: standings.standing }).from(standings).orderBy(asc(standings.seq));
  return new Map(rows.map((r) => [r.id, r.standing]));
}

export async function readRecipes(db: Db): Promise<RecipeSummary[]> {
  const standing = await currentStandings(db);
  const names = new Map((await db.select({ id: materials.id, name: materials.name }).from(materials)).map((m) => [m.id, m.name]));
  const versions = await db.select().from(recipeVersions).orderBy(asc(recipeVersions.number));
  const all = await db.select().from(recipes).orderBy(asc(recipes.name));
  return all.map((recipe) => {
    const its = versions.filter((v) => v.recipeId === recipe.id);
    const newest = its.at(-1)?.body;
    return {
      ...recipe,
      versions: its.map((v) => ({ id: v.id, number: v.number, standing: standing.get(v.id) ?? 'trial' })),
      fibres: newest?.fibres ?? [],
      materials: newest ? dosedIds(newest).map((id) => names.get(id) ?? '') : [],
    };
  });
}

export async function findVersion(db: Db, id: string): Promise<{ id: string; number: number; recipeId: string; recipeName: string; body: RecipeBody; standing: Standing }> {
  const [row] = await db.select({ id: recipeVersions.id, number: recipeVersions.number, recipeId: recipes.id, recipeName: recipes.name, body: recipeVersions.body })
    .from(recipeVersions).innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId)).where(eq(recipeVersions.id, id));
  if (!row) throw notFound('recipe version');
  const [standing] = await db.select({ standing: standings.standing }).from(standings).where(eq(standings.recipeVersionId, id)).orderBy(desc(standings.seq)).limit(1);
  return { ...row, standing: standing?.standing ?? 'trial' };
}

export async function readVersion(db: Db, id: string): Promise<RecipeVersionDetail> {
  const version = await findVersion(db, id);
  const standing = await currentStandings(db);
  const [made] = await db.select({ at: recipeVersions.at, byId: people.id, byName: people.name }).from(recipeVersions).innerJoin(people, eq(people.id, recipeVersions.byId)).where(eq(recipeVersions.id, id));
  if (!made) throw notFound('recipe version');
  const siblings = await db.select({ id: recipeVersions.id, number: recipeVersions.number }).from(recipeVersions).where(eq(recipeVersions.recipeId, version.recipeId)).orderBy(asc(recipeVersions.number));
  const history = await db.select({ standing: standings.standing, at: standings.at, reason: standings.reason, byId: people.id, byName: people.name })
    .from(standings).innerJoin(people, eq(people.id, standings.byId)).where(eq(standings.recipeVersionId, id)).orderBy(asc(standings.seq));
  const doses = dosedIds(version.body);
  return {
    id, number: version.number, standing: version.standing, body: version.body,
    recipe: { id: version.recipeId, name: version.recipeName, versions: siblings.map((s) => ({ ...s, standing: standing.get(s.id) ?? 'trial' })) },
    materials: doses.length === 0 ? [] : await db.select({ id: materials.id, name: materials.name }).from(materials).where(inArray(materials.id, doses)),
    at: new Date(made.at).toISOString(), by: { id: made.byId, name: made.byName },
    standings: history.map(({ byId, byName, ...h }) => ({ ...h, at: new Date(h.at).toISOString(), by: { id: byId, name: byName } })),
    colourways: await db.select({ id: colourways.id, name: colourways.name }).from(colourways).where(eq(colourways.recipeVersionId, id)).orderBy(asc(colourways.name)),
  };
}
