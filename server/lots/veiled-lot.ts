import type { LotDetail, LotSummary, Station } from '@vestigia/contract';
import { STEP_KIND_LABELS, codeNames, jarCodes, namesOf, withCodeNames } from '@vestigia/core';
import { eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, recipeVersions, recipes } from '../db/schema';
import type { Veil } from '../studio/veil';
import { privateRecipe, PRIVATE_VERSION_ID, veilFor } from '../studio/veil';
import { readLot } from './lots-store';

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

/** Whether what makes a lot is kept to anybody: its recipe, this version, the amounts, or what the colourway is made of. */
async function isKept(db: Db, { recipe, summary }: LotDetail): Promise<boolean> {
  const [kept] = await db
    .select({ keptTo: recipes.keptTo, keptVersions: recipes.keptVersions, amountsKeptTo: recipes.amountsKeptTo })
    .from(recipeVersions)
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .where(eq(recipeVersions.id, recipe.versionId));
  const [promised] = await db
    .select({ keptTo: colourways.keptTo })
    .from(colourways)
    .where(eq(colourways.id, summary.colourway.id));
  return (
    (kept?.keptTo ?? kept?.amountsKeptTo ?? promised?.keptTo ?? null) !== null ||
    kept?.keptVersions.some((v) => v.versionId === recipe.versionId) === true
  );
}

/** A lot as this person may see it. */
export async function readLotFor(db: Db, lotId: string, personId: string): Promise<LotDetail> {
  return shownTo(db, await readLot(db, lotId), personId);
}

/** The same of a lot that was read already. */
export async function shownTo(db: Db, lot: LotDetail, personId: string): Promise<LotDetail> {
  if ((await veilFor(db, personId))?.lotIds.has(lot.summary.id)) return veilLot(lot);
  if (!(await isKept(db, lot))) return lot;
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
export const veilSummaries = (lots: readonly LotSummary[], veil: Veil | undefined): LotSummary[] =>
  lots.map((lot) =>
    veil?.lotIds.has(lot.id)
      ? {
          ...lot,
          stations: lot.stations.map((s) => ({ ...s, title: kindLabel(s.kind) })),
          next: lot.next && { ...lot.next, title: kindLabel(lot.stations[lot.next.index]?.kind ?? 'fibre') },
        }
      : lot,
  );
