import type { RecipeBody, RecipeOutline, RecipeSummary, RecipeVersionDetail } from '@vestigia/contract';
import { readRecipeBody } from '@vestigia/contract';
import type { Evidence } from '@vestigia/core';
import { practiceDifferences } from '@vestigia/core';
import { and, asc, count, desc, eq, inArray, isNotNull, lte } from 'drizzle-orm';
import type { Db } from '../db/database';
import {
  colourways,
  lotProgress,
  lots,
  materials,
  people,
  proofs,
  recipeVersions,
  recipes,
  recipeStatuses,
} from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { notFound } from '../shared/problem';
import { readRoom } from '../studio/room';
import { veilFor } from '../studio/veil';

type VersionRef = RecipeSummary['versions'][number];
export type RecipeStatus = VersionRef['status'];
const iso = (at: string): string => new Date(at).toISOString();

/** Every material a recipe names: doses, zones, and the bases it says a shade for. */
export const namedIds = (body: RecipeBody): string[] => [
  ...new Set([
    ...body.steps.flatMap((s) => s.doses.map((d) => d.materialId)),
    ...(body.placed?.zones ?? []).flatMap((z) => (z.materialId === null ? [] : [z.materialId])),
    ...body.expectedShades.map((e) => e.baseMaterialId),
  ]),
];

/** Where each version stands now: the newest entry of each. */
export async function currentStatuses(db: Db): Promise<Map<string, RecipeStatus>> {
  const rows = await db
    .select({ id: recipeStatuses.recipeVersionId, status: recipeStatuses.status })
    .from(recipeStatuses)
    .orderBy(asc(recipeStatuses.seq));
  return new Map(rows.map((r) => [r.id, r.status]));
}

/** The colour of each recipe's newest lot that was read, and on what. */
async function readGiven(db: Db): Promise<Map<string, NonNullable<RecipeSummary['gave']>>> {
  const rows = await db
    .selectDistinctOn([recipeVersions.recipeId], {
      recipeId: recipeVersions.recipeId,
      lab: lotProgress.result,
      base: materials.name,
    })
    .from(lots)
    .innerJoin(recipeVersions, eq(recipeVersions.id, lots.recipeVersionId))
    .innerJoin(materials, eq(materials.id, lots.baseMaterialId))
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .where(isNotNull(lotProgress.result))
    .orderBy(recipeVersions.recipeId, desc(lots.number));
  return new Map(rows.flatMap(({ recipeId, lab, base }) => (lab ? [[recipeId, { lab, base }] as const] : [])));
}

export async function readRecipes(db: Db, personId: string): Promise<RecipeSummary[]> {
  const veil = await veilFor(db, personId);
  const [status, given] = [await currentStatuses(db), await readGiven(db)];
  const names = new Map(
    (await db.select({ id: materials.id, name: materials.name }).from(materials)).map((m) => [m.id, m.name]),
  );
  const versions = await db.select().from(recipeVersions).orderBy(asc(recipeVersions.number));
  const all = await db.select().from(recipes).orderBy(asc(recipes.name));
  return all
    .filter((r) => !veil?.recipeIds.has(r.id))
    .map(({ keptTo, keptVersions, amountsKeptTo: _amounts, ...recipe }) => {
      const lacksAmounts = veil?.amountsOf.has(recipe.id) === true;
      const isShown = (id: string): boolean =>
        lacksAmounts
          ? keptVersions.every((v) => v.versionId !== id || v.keptTo.includes(personId))
          : veil?.versionIds.has(id) !== true;
      const ofRecipe = versions.filter((v) => v.recipeId === recipe.id && isShown(v.id));
      const newest = ofRecipe.at(-1)?.body;
      return {
        ...recipe,
        isPrivate: keptTo !== null,
        lacksAmounts,
        versions: ofRecipe.map((v) => ({ id: v.id, number: v.number, status: status.get(v.id) ?? 'trial' })),
        fibres: newest?.fibres ?? [],
        steps: newest?.steps.length ?? 0,
        gave: given.get(recipe.id) ?? null,
        materials: newest
          ? [...new Set(newest.steps.flatMap((s) => s.doses.map((d) => d.materialId)))].map((id) => names.get(id) ?? '')
          : [],
      };
    })
    .filter((r) => r.versions.length > 0);
}

export async function findVersion(
  db: Db,
  id: string,
): Promise<{
  id: string;
  number: number;
  recipeId: string;
  recipeName: string;
  body: RecipeBody;
  status: RecipeStatus;
}> {
  const [row] = await db
    .select({
      id: recipeVersions.id,
      number: recipeVersions.number,
      recipeId: recipes.id,
      recipeName: recipes.name,
      body: recipeVersions.body,
    })
    .from(recipeVersions)
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .where(eq(recipeVersions.id, id));
  if (!row) throw notFound($localize`recipe version`);
  const [status] = await db
    .select({ status: recipeStatuses.status })
    .from(recipeStatuses)
    .where(eq(recipeStatuses.recipeVersionId, id))
    .orderBy(desc(recipeStatuses.seq))
    .limit(1);
  return { ...row, body: readRecipeBody(row.body), status: status?.status ?? 'trial' };
}

/** What speaks for a version: lots of it passed within tolerance, and proofs read within theirs. */
export async function readEvidence(db: Db, versionId: string): Promise<Evidence> {
  const [passed] = await db
    .select({ n: count() })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
    .where(
      and(
        eq(lots.recipeVersionId, versionId),
        eq(lotProgress.state, 'released'),
        lte(lotProgress.deltaE, colourways.toleranceDeltaE),
      ),
    );
  const [proved] = await db
    .select({ n: count() })
    .from(proofs)
    .where(and(eq(proofs.recipeVersionId, versionId), lte(proofs.deltaE, proofs.toleranceDeltaE)));
  return { lotsInTolerance: passed?.n ?? 0, proofsInTolerance: proved?.n ?? 0 };
}

const LOTS_SHOWN = 12;
/** Its newest lots: a version may have made hundreds. */

const readLotsOf = (db: Db, versionId: string) =>
  db
    .select({
      id: lots.id,
      number: lots.number,
      colourway: colourways.name,
      state: lotProgress.state,
      deltaE: lotProgress.deltaE,
    })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
    .where(eq(lots.recipeVersionId, versionId))
    .orderBy(desc(lots.number))
    .limit(LOTS_SHOWN);

/** To whom alone something is shown; `null`: to everybody. */
async function namesOf(db: Db, ids: readonly string[] | null): Promise<{ id: string; name: string }[] | null> {
  if (!ids) return null;
  return db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(inArray(people.id, [...ids]))
    .orderBy(asc(people.name));
}

export async function readVersion(db: Db, id: string, personId: string): Promise<RecipeVersionDetail> {
  const veil = await veilFor(db, personId);
  const version = await findVersion(db, id);
  const status = await currentStatuses(db);
  const [created] = await db
    .select({ at: recipeVersions.at, byId: people.id, byName: people.name })
    .from(recipeVersions)
    .innerJoin(people, eq(people.id, recipeVersions.byId))
    .where(eq(recipeVersions.id, id));
  if (!created) throw notFound($localize`recipe version`);
  const [kept] = await db
    .select({
      keptTo: recipes.keptTo,
      keptVersions: recipes.keptVersions,
      amountsKeptTo: recipes.amountsKeptTo,
      putAway: recipes.putAway,
    })
    .from(recipes)
    .where(eq(recipes.id, version.recipeId));
  const siblings = await db
    .select({ id: recipeVersions.id, number: recipeVersions.number })
    .from(recipeVersions)
    .where(eq(recipeVersions.recipeId, version.recipeId))
    .orderBy(asc(recipeVersions.number));
  const history = await db
    .select({
      status: recipeStatuses.status,
      at: recipeStatuses.at,
      reason: recipeStatuses.reason,
      byId: people.id,
      byName: people.name,
    })
    .from(recipeStatuses)
    .innerJoin(people, eq(people.id, recipeStatuses.byId))
    .where(eq(recipeStatuses.recipeVersionId, id))
    .orderBy(asc(recipeStatuses.seq));
  const named = namedIds(version.body);
  const { house, provenNeeds } = await readRoom(db);
  const proved = await db
    .select({ proof: proofs, byId: people.id, byName: people.name })
    .from(proofs)
    .innerJoin(people, eq(people.id, proofs.byId))
    .where(eq(proofs.recipeVersionId, id))
    .orderBy(asc(proofs.seq));
  return {
    id,
    number: version.number,
    status: version.status,
    body: version.body,
    recipe: {
      id: version.recipeId,
      name: version.recipeName,
      versions: siblings
        .filter((s) => !veil?.versionIds.has(s.id))
        .map((s) => ({ ...s, status: status.get(s.id) ?? 'trial' })),
      keptTo: await namesOf(db, kept?.keptTo ?? null),
      amountsKeptTo: await namesOf(db, kept?.amountsKeptTo ?? null),
      putAway: kept?.putAway ?? false,
    },
    keptTo: await namesOf(db, kept?.keptVersions.find((v) => v.versionId === id)?.keptTo ?? null),
    materials:
      named.length === 0
        ? []
        : await db
            .select({ id: materials.id, name: materials.name, kind: materials.kind, measure: materials.measure })
            .from(materials)
            .where(inArray(materials.id, named)),
    at: iso(created.at),
    by: { id: created.byId, name: created.byName },
    recipeStatuses: history.map(({ byId, byName, ...h }) => ({ ...h, at: iso(h.at), by: { id: byId, name: byName } })),
    colourways: (
      await db
        .select({ id: colourways.id, name: colourways.name })
        .from(colourways)
        .where(eq(colourways.recipeVersionId, id))
        .orderBy(asc(colourways.name))
    ).filter((c) => !veil?.colourwayIds.has(c.id)),
    evidence: { ...(await readEvidence(db, id)), needed: provenNeeds },
    proofs: proved.map(
      ({ proof: { seq: _seq, recipeVersionId: _version, conditions, byId: _byId, ...p }, byId, byName }) => ({
        ...p,
        ...conditions,
        at: iso(p.at),
        by: { id: byId, name: byName },
      }),
    ),
    lots: (await readLotsOf(db, id))
      .filter((l) => !veil?.lotIds.has(l.id))
      .map(({ number, ...l }) => ({ ...l, tag: lotTag(number) })),
    differsFromHouse: practiceDifferences(house, version.body.practice),
  };
}

/** What goes into a version step by step, for those from whom its amounts are kept. */
export async function readOutline(db: Db, id: string, personId: string): Promise<RecipeOutline> {
  const veil = await veilFor(db, personId);
  const { number, status, body, recipeId, recipeName } = await findVersion(db, id);
  const [kept] = await db.select().from(recipes).where(eq(recipes.id, recipeId));
  const isSingle = kept?.keptVersions.some((v) => v.versionId === id && !v.keptTo.includes(personId));
  if (!kept || isSingle || veil?.recipeIds.has(recipeId)) throw notFound($localize`recipe version`);
  const names = new Map(
    (await db.select({ id: materials.id, name: materials.name }).from(materials)).map((m) => [m.id, m.name]),
  );
  return {
    id,
    number,
    status,
    name: recipeName,
    fibres: body.fibres,
    keptTo: (await namesOf(db, kept.amountsKeptTo)) ?? [],
    steps: body.steps.map((s) => ({
      kind: s.kind,
      materials: [...new Set(s.doses.map((d) => names.get(d.materialId) ?? ''))],
    })),
  };
}

/** Puts a recipe away, or brings it back: its versions, lots and colourways stay as they are. */
export async function putRecipeAway(db: Db, id: string, putAway: boolean): Promise<{ id: string }> {
  const [row] = await db.update(recipes).set({ putAway }).where(eq(recipes.id, id)).returning({ id: recipes.id });
  if (!row) throw notFound('recipe');
  return row;
}
