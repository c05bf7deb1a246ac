import type { LabUnder, SearchHit, Today } from '@vestigia/contract';
import { said, countLabel, readTagCode } from '@vestigia/core';
import { and, asc, desc, eq, ilike, inArray, isNull, or, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, materials, recipeVersions, recipes, stockLots, swatches } from '../db/schema';
import { searchNotes } from './search-notes';
import { readTag } from '../bench/tags';
import { lotTag } from '../shared/lot-tag';
import { Refusal } from '../shared/problem';
import { readLotSummaries } from '../lots/lots-store';
import { veilSummaries } from '../lots/veiled-lot';
import type { Veil } from '../studio/veil';
import { privateStep } from '../studio/veil';
import { readFastnessTests } from '../judge/fastness-store';
import { readGoingOff, readShort } from '../stores/shelf';
import { studioToday } from '../studio/studio-store';

const GOING_OFF_DAYS = 30;
const MAX_HITS = 8;

/** What today is by the record; what the disk says is beside it. */
type TodayOfRecord = Omit<Today, 'disk' | 'byPlan' | 'orders'>;

export async function readToday(db: Db, now: Date, calls: Today['calls']): Promise<TodayOfRecord> {
  const active = await readLotSummaries(db, { states: ['planned', 'inWork', 'toJudge', 'held'] });
  const inWork = active.filter((l) => l.state === 'inWork');
  const folded =
    inWork.length === 0
      ? []
      : await db
          .select({ id: lotProgress.lotId, running: lotProgress.running })
          .from(lotProgress)
          .where(
            inArray(
              lotProgress.lotId,
              inWork.map((l) => l.id),
            ),
          );
  const running = inWork.flatMap((lot) =>
    (folded.find((f) => f.id === lot.id)?.running ?? []).map(({ stepIndex: _stepIndex, vesselNames, ...r }) => ({
      ...r,
      vesselNames: [...vesselNames],
      lotId: lot.id,
      lotTag: lot.tag,
    })),
  );
  const today = await studioToday(db, now);
  const goingOffBy = await studioToday(db, new Date(now.getTime() + GOING_OFF_DAYS * 86_400_000));
  return {
    now: now.toISOString(),
    running,
    inWork,
    calls,
    planned: active.filter((l) => l.state === 'planned'),
    toJudge: active.filter((l) => l.state === 'toJudge' || l.state === 'held'),
    short: await readShort(db),
    goingOff: await readGoingOff(db, goingOffBy),
    fastnessDue: (await readFastnessTests(db, undefined)).flatMap(({ id, name, kind, dueOn }) =>
      dueOn !== null && dueOn <= today ? [{ id, name, kind, dueOn }] : [],
    ),
  };
}

/** What was found, without what is kept from somebody: recipes, and what was noted on their lots. */
export const veilHits = (hits: readonly SearchHit[], veil: Veil | undefined): SearchHit[] =>
  hits
    .filter((hit) => {
      if (hit.kind === 'recipe') return !veil?.versionIds.has(hit.id);
      return hit.atBench !== true || !veil?.lotIds.has(hit.id);
    })
    .map((hit) => (veil && hit.kind === 'stockLot' ? { ...hit, lab: null } : hit));

/** Today as it is shown to somebody from whom lots are kept: their steps are told by their kind alone. */
export function veilToday(today: TodayOfRecord, veil: Veil | undefined): TodayOfRecord {
  if (!veil) return today;
  const veiled = (lots: Today['inWork']): Today['inWork'] => veilSummaries(lots, veil);
  return {
    ...today,
    running: today.running.map((r) => (veil.lotIds.has(r.lotId) ? { ...r, title: privateStep() } : r)),
    inWork: veiled(today.inWork),
    planned: veiled(today.planned),
    toJudge: veiled(today.toJudge),
  };
}

/** The colour of the newest lot that was weighed from a jar. */
const lastOfJar = sql<LabUnder | null>`(SELECT p.result FROM movements v JOIN lots l ON l.id = v.lot_id
  JOIN lot_progress p ON p.lot_id = l.id WHERE v.stock_lot_id = ${stockLots.id} AND v.amount < 0 AND p.result IS NOT NULL
  ORDER BY l.number DESC LIMIT 1)`;
/** The colour of the newest lot dyed by a recipe version. */
const lastOfVersion = sql<LabUnder | null>`(SELECT p.result FROM lots l JOIN lot_progress p ON p.lot_id = l.id
  WHERE l.recipe_version_id = ${recipeVersions.id} AND p.result IS NOT NULL ORDER BY l.number DESC LIMIT 1)`;

/** Finds lots by number or colourway, jars by tag, place or material, recipes, colourways and snippets by name. */
export async function search(db: Db, label: string): Promise<SearchHit[]> {
  const asked = label.trim();
  if (asked === '') return [];
  const tagged = await findByCode(db, asked);
  if (tagged) return [tagged];
  const like = `%${asked.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
  const number = Number(/^(?:(?:lot|partie)\s*)?(\d{1,9})$/i.exec(asked)?.[1] ?? -1);
  const foundLots = await db
    .select({
      id: lots.id,
      number: lots.number,
      colourway: colourways.name,
      pieces: lots.pieces,
      lab: lotProgress.result,
    })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
    .where(or(eq(lots.number, number), ilike(colourways.name, like)))
    .orderBy(desc(sql`${lots.number} = ${number}`), desc(lots.number))
    .limit(MAX_HITS);
  const foundStockLots = await db
    .select({ id: stockLots.id, tag: stockLots.tag, material: materials.name, place: stockLots.place, lab: lastOfJar })
    .from(stockLots)
    .innerJoin(materials, eq(materials.id, stockLots.materialId))
    .where(or(ilike(stockLots.tag, like), ilike(materials.name, like), ilike(stockLots.place, like)))
    .orderBy(asc(stockLots.tag))
    .limit(MAX_HITS);
  const foundRecipes = await db
    .select({ id: recipeVersions.id, name: recipes.name, number: recipeVersions.number, lab: lastOfVersion })
    .from(recipeVersions)
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .where(ilike(recipes.name, like))
    .orderBy(asc(recipes.name), desc(recipeVersions.number))
    .limit(MAX_HITS);
  const named = await db
    .select({ id: colourways.id, name: colourways.name, lab: colourways.master })
    .from(colourways)
    .where(ilike(colourways.name, like))
    .orderBy(asc(colourways.name))
    .limit(MAX_HITS);
  const snippets = await db
    .select({ id: swatches.id, name: swatches.name, page: swatches.page, slot: swatches.slot, lab: swatches.lab })
    .from(swatches)
    .where(and(isNull(swatches.takenOutAt), ilike(swatches.name, like)))
    .orderBy(asc(swatches.page), asc(swatches.slot))
    .limit(MAX_HITS);
  const noted = await searchNotes(db, like, MAX_HITS);
  return [
    ...foundLots.map((l) => ({
      kind: 'lot' as const,
      id: l.id,
      title: lotTag(l.number),
      detail: `${l.colourway}, ${countLabel(l.pieces, 'piece')}`,
      lab: l.lab,
    })),
    ...foundStockLots.map((j) => ({
      kind: 'stockLot' as const,
      id: j.id,
      title: j.tag,
      detail: j.place === '' ? j.material : `${j.material}, ${j.place}`,
      lab: j.lab,
    })),
    ...named.map((c) => ({
      kind: 'colourway' as const,
      id: c.id,
      title: c.name,
      detail: said('colourway'),
      lab: c.lab,
    })),
    ...snippets.map((s) => ({
      kind: 'swatch' as const,
      id: s.id,
      title: s.name,
      detail: $localize`snippet, page ${s.page}, place ${s.slot}`,
      lab: s.lab,
    })),
    ...noted,
    ...foundRecipes.map((r) => ({
      kind: 'recipe' as const,
      id: r.id,
      title: r.name,
      detail: $localize`recipe, version ${r.number}`,
      lab: r.lab,
    })),
  ];
}

/** A tag's code, typed or scanned, leads straight to what it hangs on. A mistyped one is looked for as a word. */
async function findByCode(db: Db, code: string): Promise<SearchHit | undefined> {
  if (!readTagCode(code).ok) return undefined;
  const tag = await readTag(db, code).catch((error: unknown) => {
    if (error instanceof Refusal) return undefined;
    throw error;
  });
  if (!tag) return undefined;
  const kind = tag.kind === 'stockLot' ? 'stockLot' : tag.kind === 'vessel' ? 'vessel' : 'lot';
  return {
    kind,
    id: tag.stockLotId ?? tag.vesselId ?? tag.lotId ?? '',
    title: tag.title,
    detail: `${tag.code} · ${tag.detail}`,
    lab: null,
  };
}
