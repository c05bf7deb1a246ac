import { said } from '@vestigia/core';
import type { Colourway, ColourwayEdit, NamedColourway, NewColourway } from '@vestigia/contract';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, masters, materials, people, recipeVersions, recipes } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { uuidv7 } from '../shared/ids';
import { Refusal, notFound } from '../shared/problem';
import { currentStatuses, findVersion } from '../recipes/recipes-store';
import type { By } from '../shared/recorded-by';
import { findMaterial } from '../stores/materials-store';
import type { Veil } from '../studio/veil';
import { privateRecipe, PRIVATE_VERSION_ID } from '../studio/veil';

const UNFIT = (name: string, fibre: string): string =>
  $localize`That recipe version is not for ${said(fibre)}, which ${name} is. Choose another recipe or another base.`;

export async function readColourways(db: Db, id?: string): Promise<Colourway[]> {
  const status = await currentStatuses(db);
  const keepers = await db.select({ id: people.id, name: people.name }).from(people).orderBy(asc(people.name));
  const rows = await db
    .select({
      colourway: colourways,
      versionId: recipeVersions.id,
      number: recipeVersions.number,
      recipeName: recipes.name,
      base: materials,
      lots: sql<number>`count(${lots.id})::int`,
      released: sql<number>`(count(*) filter (where ${lotProgress.state} = 'released'))::int`,
      lastWaterId: sql<string | null>`(array_agg(${lots.waterId} order by ${lots.number} desc))[1]`,
    })
    .from(colourways)
    .innerJoin(recipeVersions, eq(recipeVersions.id, colourways.recipeVersionId))
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .innerJoin(materials, eq(materials.id, colourways.baseMaterialId))
    .leftJoin(lots, eq(lots.colourwayId, colourways.id))
    .leftJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .where(id === undefined ? undefined : eq(colourways.id, id))
    .groupBy(colourways.id, recipeVersions.id, recipes.name, materials.id)
    .orderBy(asc(colourways.name));
  return rows.map(({ colourway: c, base, ...row }) => ({
    id: c.id,
    version: c.version,
    name: c.name,
    master: c.master,
    toleranceDeltaE: c.toleranceDeltaE,
    formula: c.formula,
    note: c.note,
    recipe: {
      versionId: row.versionId,
      name: row.recipeName,
      number: row.number,
      status: status.get(row.versionId) ?? 'trial',
    },
    base: { id: base.id, name: base.name, ...baseFacts(base) },
    lots: row.lots,
    released: row.released,
    keptTo: c.keptTo && keepers.filter((p) => c.keptTo?.includes(p.id)),
    isVeiled: false,
    putAway: c.putAway,
    lastWaterId: row.lastWaterId,
  }));
}

/** A colourway kept to some, or of a private recipe: its colour is for all to see, what makes it is not. */
export const veiledColourway = (c: Colourway, veil: Veil | undefined): Colourway =>
  veil?.colourwayIds.has(c.id)
    ? {
        ...c,
        recipe: { versionId: PRIVATE_VERSION_ID, name: privateRecipe(), number: 1, status: c.recipe.status },
        isVeiled: true,
      }
    : c;

export function baseFacts(base: typeof materials.$inferSelect): {
  fibre: NonNullable<typeof base.base>['fibre'];
  blend?: NonNullable<typeof base.base>['blend'];
  pieceWord: string;
  usualPieceWeightG: number;
  gPerM?: number | null | undefined;
  undyed: Colourway['base']['undyed'];
} {
  if (!base.base) throw new Refusal('refused', $localize`${base.name} is not a base. Choose a fibre.`);
  return base.base;
}

export async function findColourway(db: Db, id: string): Promise<Colourway> {
  const [found] = await readColourways(db, id);
  if (!found) throw notFound('colourway');
  return found;
}

async function checkFits(db: Db, recipeVersionId: string, baseMaterialId: string): Promise<void> {
  const version = await findVersion(db, recipeVersionId);
  const base = await findMaterial(db, baseMaterialId);
  const { fibre } = baseFacts(base);
  if (!version.body.fibres.includes(fibre))
    throw new Refusal('refused', UNFIT(base.name, fibre), { reason: 'fibreNotSuited' });
  if (version.status === 'retired')
    throw new Refusal('refused', $localize`That recipe version is retired. Choose one that is in use.`);
}

export async function addColourway(db: Db, colourway: NewColourway): Promise<void> {
  await checkFits(db, colourway.recipeVersionId, colourway.baseMaterialId);
  await db.insert(colourways).values(colourway);
}

/** A colourway that is named with its swatch: that is its first master, with how it was read. */
export async function nameColourway(
  db: Db,
  { masterTaken, ...colourway }: NamedColourway,
  { now, byId }: By,
): Promise<void> {
  await addColourway(db, colourway);
  const { id: colourwayId, master } = colourway;
  if (master)
    await db.insert(masters).values({
      id: uuidv7(now),
      colourwayId,
      lab: master,
      taken: masterTaken,
      reason: $localize`as it was named`,
      at: now.toISOString(),
      byId,
    });
}

export async function editColourway(db: Db, id: string, { version, ...fields }: ColourwayEdit): Promise<void> {
  const before = await findColourway(db, id);
  if (fields.recipeVersionId !== before.recipe.versionId) await checkFits(db, fields.recipeVersionId, before.base.id);
  const updated = await db
    .update(colourways)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(colourways.id, id), eq(colourways.version, version)))
    .returning();
  assertFresh(updated, fields, {
    recipeVersionId: before.recipe.versionId,
    toleranceDeltaE: before.toleranceDeltaE,
    formula: before.formula,
    note: before.note,
  });
}

/** Puts a colourway away, or brings it back: its lots stay as they are, and can be dyed again. */
export async function putColourwayAway(db: Db, id: string, putAway: boolean): Promise<{ id: string }> {
  const [row] = await db
    .update(colourways)
    .set({ putAway })
    .where(eq(colourways.id, id))
    .returning({ id: colourways.id });
  if (!row) throw notFound('colourway');
  return row;
}
