import type { LotDetail, LotSummary, Station } from '@vestigia/contract';
import { STEP_KIND_LABELS, codeNames, jarCodes, namesOf, withCodeNames } from '@vestigia/core';
import { eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lots, recipeVersions, recipes } from '../db/schema';
import { notFound } from '../shared/problem';
import type { Veil } from '../studio/veil';
import { privateRecipe, PRIVATE_VERSION_ID, veilFor } from '../studio/veil';
import { readLots } from './lots-store';

type Names = readonly (readonly [name: string, code: string])[];

/** Code names in the place of names in every text of a value. Ids, times and kinds hold none. */
function coded<T>(value: T, names: Names): T {
  if (typeof value === 'string') return withCodeNames(value, names) as T;
  if (Array.isArray(value)) return value.map((item: unknown) => coded(item, names)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([key, inner]) => [key, coded(inner as unknown, names)])) as T;
}

/**
 * A lot of a private recipe as it is shown to others: what to do, when, how much and from which jar, and code names
 * for all that goes in. Its cautions stay, since hands are the same.
 */
export function veilLot(lot: LotDetail): LotDetail {
  const codes = codeNames(lot.plan);
  const jars = [
    ...lot.stockLots,
    ...lot.madeFrom
      .filter((m) => !lot.stockLots.some((s) => s.id === m.stockLotId))
      .map(({ stockLotId, tag, materialId }) => ({ id: stockLotId, tag, materialId })),
  ];
  const tags = jarCodes(jars, codes);
  const names: Names = [
    [lot.recipe.name, privateRecipe()],
    ...codes.flatMap(namesOf),
    ...jars.flatMap(({ id, tag }) => {
      const code = tags.get(id);
      return code === undefined ? [] : [[tag, code] as const];
    }),
  ];
  const { plan, checks, deviations, entries, madeFrom, stockLots } = lot;
  const { stations, next } = lot.summary;
  return {
    ...lot,
    ...coded({ plan, checks, deviations, entries, madeFrom, stockLots }, names),
    summary: { ...lot.summary, ...coded({ stations, next }, names) },
    factors: [],
    note: coded(lot.note, names),
    recipe: { versionId: PRIVATE_VERSION_ID, name: privateRecipe(), number: 1 },
    codeNames: { mine: false, names: codes.map(({ code }) => ({ code, name: code })) },
  };
}

/** Lots of which what makes them is kept to anybody: recipe, this version, the amounts, or what the colourway is made of. */
async function keptAmong(db: Db, lotIds: readonly string[]): Promise<ReadonlySet<string>> {
  const rows = await db
    .select({
      id: lots.id,
      versionId: lots.recipeVersionId,
      keptTo: recipes.keptTo,
      keptVersions: recipes.keptVersions,
      amountsKeptTo: recipes.amountsKeptTo,
      promisedTo: colourways.keptTo,
    })
    .from(lots)
    .innerJoin(recipeVersions, eq(recipeVersions.id, lots.recipeVersionId))
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
    .where(inArray(lots.id, [...lotIds]));
  return new Set(
    rows
      .filter(
        (r) =>
          (r.keptTo ?? r.amountsKeptTo ?? r.promisedTo ?? null) !== null ||
          r.keptVersions.some((v) => v.versionId === r.versionId),
      )
      .map((r) => r.id),
  );
}

/** A lot as this person may see it. */
export async function readLotFor(db: Db, lotId: string, personId: string): Promise<LotDetail> {
  const [lot] = await readLotsFor(db, [lotId], personId);
  if (!lot) throw notFound('lot');
  return lot;
}

/** Lots as this person may see them, by their numbers. */
export async function readLotsFor(db: Db, lotIds: readonly string[], personId: string): Promise<LotDetail[]> {
  const all = await readLots(db, lotIds);
  if (all.length === 0) return [];
  const veil = await veilFor(db, personId);
  const kept = await keptAmong(db, lotIds);
  return all.map((lot) => {
    if (veil?.lotIds.has(lot.summary.id)) return veilLot(lot);
    return kept.has(lot.summary.id) ? withCodes(lot) : lot;
  });
}

/** A lot with the code names that others read, for whoever may see all of it. */
function withCodes(lot: LotDetail): LotDetail {
  const codes = codeNames(lot.plan);
  const tags = jarCodes(lot.stockLots, codes);
  return {
    ...lot,
    codeNames: {
      mine: true,
      names: codes.map(({ code, name, materialId }) => ({
        code: [
          code,
          ...lot.stockLots.filter((j) => j.materialId === materialId).map((j) => `${tags.get(j.id)} = ${j.tag}`),
        ].join(', '),
        name,
      })),
    },
  };
}

const kindLabel = (kind: Station['kind']): string =>
  kind === 'fibre' ? $localize`weigh the fibre` : STEP_KIND_LABELS[kind];

/** Lots in a list: of a private one each step is told by its kind alone, since its title may name what goes in. */
export const veilSummaries = (all: readonly LotSummary[], veil: Veil | undefined): LotSummary[] =>
  all.map((lot) =>
    veil?.lotIds.has(lot.id)
      ? {
          ...lot,
          stations: lot.stations.map((s) => ({ ...s, title: kindLabel(s.kind) })),
          next: lot.next && { ...lot.next, title: kindLabel(lot.stations[lot.next.index]?.kind ?? 'fibre') },
        }
      : lot,
  );
