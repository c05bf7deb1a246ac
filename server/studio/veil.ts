import { inArray, isNotNull, ne, or } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lots, people, recipeVersions, recipes } from '../db/schema';
import { Refusal, notFound } from '../shared/problem';

/** What is kept from a person: recipes that belong to others, and the lots dyed by them. */
export interface Veil {
  readonly recipeIds: ReadonlySet<string>;
  readonly versionIds: ReadonlySet<string>;
  readonly lotIds: ReadonlySet<string>;
  readonly colourwayIds: ReadonlySet<string>;
  /** Who may see at least one of them. */
  readonly keepers: readonly string[];
}

/** What is kept from this person; `undefined` where nothing is. */
export async function veilFor(db: Db, personId: string): Promise<Veil | undefined> {
  const all = await db
    .select({ id: recipes.id, keptTo: recipes.keptTo, keptVersions: recipes.keptVersions })
    .from(recipes)
    .where(or(isNotNull(recipes.keptTo), ne(recipes.keptVersions, [])));
  const hidden = all.filter((r) => r.keptTo !== null && !r.keptTo.includes(personId));
  const single = all.flatMap((r) => r.keptVersions).filter((v) => !v.keptTo.includes(personId));
  if (hidden.length + single.length === 0) return undefined;
  const versions = await db
    .select({ id: recipeVersions.id })
    .from(recipeVersions)
    .where(
      inArray(
        recipeVersions.recipeId,
        hidden.map((r) => r.id),
      ),
    );
  const versionIds = [...new Set([...versions.map((v) => v.id), ...single.map((v) => v.versionId)])];
  const dyed = await db.select({ id: lots.id }).from(lots).where(inArray(lots.recipeVersionId, versionIds));
  const named = await db
    .select({ id: colourways.id })
    .from(colourways)
    .where(inArray(colourways.recipeVersionId, versionIds));
  const keepers = await db
    .select({ name: people.name })
    .from(people)
    .where(
      inArray(people.id, [...new Set([...hidden.flatMap((r) => r.keptTo ?? []), ...single.flatMap((v) => v.keptTo)])]),
    );
  return {
    recipeIds: new Set(hidden.map((r) => r.id)),
    versionIds: new Set(versionIds),
    lotIds: new Set(dyed.map((l) => l.id)),
    colourwayIds: new Set(named.map((c) => c.id)),
    keepers: keepers.map((p) => p.name),
  };
}

/** A recipe version that is kept from a person is not there, for them. */
export async function assertVersionShown(db: Db, versionId: string | undefined, personId: string): Promise<void> {
  if (versionId !== undefined && (await veilFor(db, personId))?.versionIds.has(versionId))
    throw notFound('recipe version');
}

/** Nor is a recipe. */
export async function assertRecipeShown(db: Db, recipeId: string, personId: string): Promise<void> {
  if ((await veilFor(db, personId))?.recipeIds.has(recipeId)) throw notFound('recipe');
}

/** What would tell all of the studio is not told while part of it is kept from this person. */
export async function assertAllShown(db: Db, personId: string, what: string): Promise<void> {
  const veil = await veilFor(db, personId);
  if (veil)
    throw new Refusal(
      'refused',
      `Some recipes here are kept to ${veil.keepers.join(' and ')}, and ${what} would tell them. Ask one of them to take it.`,
      { reason: 'keptPrivate' },
    );
}

/** A lot of a private recipe, where it would tell what went into it. */
export const PRIVATE_LOT = 'a private lot';
/** What stands in place of a private recipe’s name. */
export const PRIVATE_RECIPE = 'kept private';
/** What stands in place of the title of a step that runs for a private lot. */
export const PRIVATE_STEP = 'a step of a private lot';
