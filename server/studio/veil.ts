import { inArray, isNotNull, ne, or } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lots, people, recipeVersions, recipes } from '../db/schema';
import { Refusal, notFound } from '../shared/problem';

/** What is kept from a person: recipes that belong to others, and the lots dyed by them. */
export interface Veil {
  readonly recipeIds: ReadonlySet<string>;
  /** Recipes of which the person sees what goes in, and not how much. */
  readonly amountsOf: ReadonlySet<string>;
  readonly versionIds: ReadonlySet<string>;
  readonly lotIds: ReadonlySet<string>;
  readonly colourwayIds: ReadonlySet<string>;
  /** Who may see at least one of them. */
  readonly keepers: readonly string[];
}

/** What is kept from this person; `undefined` where nothing is. */
export async function veilFor(db: Db, personId: string): Promise<Veil | undefined> {
  const isFrom = (keptTo: readonly string[] | null): keptTo is string[] =>
    keptTo !== null && !keptTo.includes(personId);
  const all = await db
    .select()
    .from(recipes)
    .where(or(isNotNull(recipes.keptTo), isNotNull(recipes.amountsKeptTo), ne(recipes.keptVersions, [])));
  const hidden = all.filter((r) => isFrom(r.keptTo));
  const unmeasured = all.filter((r) => !isFrom(r.keptTo) && isFrom(r.amountsKeptTo));
  const single = all.flatMap((r) => r.keptVersions).filter((v) => isFrom(v.keptTo));
  const promised = await db
    .select({ id: colourways.id, keptTo: colourways.keptTo })
    .from(colourways)
    .where(isNotNull(colourways.keptTo));
  const own = promised.filter((c) => isFrom(c.keptTo));
  if (hidden.length + unmeasured.length + single.length + own.length === 0) return undefined;
  const versions = await db
    .select({ id: recipeVersions.id })
    .from(recipeVersions)
    .where(
      inArray(
        recipeVersions.recipeId,
        [...hidden, ...unmeasured].map((r) => r.id),
      ),
    );
  const versionIds = [...new Set([...versions.map((v) => v.id), ...single.map((v) => v.versionId)])];
  const ownIds = own.map((c) => c.id);
  const dyed = await db
    .select({ id: lots.id })
    .from(lots)
    .where(or(inArray(lots.recipeVersionId, versionIds), inArray(lots.colourwayId, ownIds)));
  const named = await db
    .select({ id: colourways.id })
    .from(colourways)
    .where(inArray(colourways.recipeVersionId, versionIds));
  const keeperIds = [
    ...hidden.map((r) => r.keptTo),
    ...unmeasured.map((r) => r.amountsKeptTo),
    ...single.map((v) => v.keptTo),
    ...own.map((c) => c.keptTo),
  ].flatMap((ids) => ids ?? []);
  const keepers = await db
    .select({ name: people.name })
    .from(people)
    .where(inArray(people.id, [...new Set(keeperIds)]));
  return {
    recipeIds: new Set(hidden.map((r) => r.id)),
    amountsOf: new Set(unmeasured.map((r) => r.id)),
    versionIds: new Set(versionIds),
    lotIds: new Set(dyed.map((l) => l.id)),
    colourwayIds: new Set([...named.map((c) => c.id), ...ownIds]),
    keepers: keepers.map((p) => p.name),
  };
}

/** A recipe version that is kept from a person is not there, for them. */
export async function assertVersionShown(db: Db, versionId: string | undefined, personId: string): Promise<void> {
  if (versionId !== undefined && (await veilFor(db, personId))?.versionIds.has(versionId))
    throw notFound($localize`recipe version`);
}

/** What makes a lot is kept from a person: there is no recipe to it, for them. */
export async function assertLotShown(db: Db, lotId: string, personId: string): Promise<void> {
  if ((await veilFor(db, personId))?.lotIds.has(lotId)) throw notFound($localize`recipe of this lot`);
}

/** Nor is a recipe; one whose amounts are kept isn't changed by who can't see them. */
export async function assertRecipeShown(db: Db, recipeId: string, personId: string): Promise<void> {
  const veil = await veilFor(db, personId);
  if (veil?.recipeIds.has(recipeId) || veil?.amountsOf.has(recipeId)) throw notFound('recipe');
}

/** What would tell all of the studio is not told while part of it is kept from this person. */
export async function assertAllShown(db: Db, personId: string, what: string): Promise<void> {
  const veil = await veilFor(db, personId);
  if (veil)
    throw new Refusal(
      'refused',
      $localize`Some recipes here are kept to ${veil.keepers.join($localize` and `)}, and ${what} would tell them. Ask one of them to take it.`,
      { reason: 'keptPrivate' },
    );
}

/** What stands in place of the version that makes a private thing: there is none by this id. */
export const PRIVATE_VERSION_ID = '00000000-0000-4000-8000-000000000000';
/** A lot of a private recipe, where it would tell what went into it. */
export const privateLot = (): string => $localize`a private lot`;
/** What stands in place of a private recipe’s name. */
export const privateRecipe = (): string => $localize`kept private`;
/** What stands in place of the title of a step that runs for a private lot. */
export const privateStep = (): string => $localize`a step of a private lot`;
