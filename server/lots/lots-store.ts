import type { EyeReadingView, LabUnder, LotDetail, LotSummary, ReadingView, RunEntryView } from '@vestigia/contract';
import { lotExtras } from '@vestigia/contract';
import type { EyeReading, LotConditions, LotPlan, ShadeReading } from '@vestigia/core';
import {
  completePlan,
  convertMilligramsToGrams,
  findRunDeviations,
  currentEntries,
  stockLotsInLot,
} from '@vestigia/core';
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { baseFacts } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import {
  colourways,
  lotProgress,
  lots,
  materials,
  people,
  reservations,
  recipeVersions,
  recipes,
  stockLots as stockLotTable,
} from '../db/schema';
import { lotTag } from '../shared/lot-tag';
import { notFound } from '../shared/problem';
import { readParts } from './lot-parts';

/** A lot with its plan complete, whatever version of the program kept it. */
export type LotRow = Omit<typeof lots.$inferSelect, 'plan'> & { readonly plan: LotPlan };
const iso = (at: string): string => new Date(at).toISOString();

/** Lots as lists show them, newest first. Reads no plans: they are large. */
export async function readLotSummaries(
  db: Db,
  { id, colourwayId, states }: { id?: string; colourwayId?: string; states?: readonly LotSummary['state'][] } = {},
): Promise<LotSummary[]> {
  const earlier = alias(lots, 'earlier');
  const rows = await db
    .select({
      id: lots.id,
      number: lots.number,
      pieces: lots.pieces,
      pieceWeightMg: lots.pieceWeightMg,
      batches: lots.batches,
      at: lots.at,
      colourway: { id: colourways.id, name: colourways.name },
      ownMaster: lots.master,
      firstMaster: sql<LabUnder | null>`(SELECT m.lab FROM masters m WHERE m.colourway_id = ${colourways.id} ORDER BY m.seq LIMIT 1)`,
      master: colourways.master,
      base: materials,
      by: { id: people.id, name: people.name },
      earlierId: earlier.id,
      earlierNumber: earlier.number,
      state: lotProgress.state,
      stations: lotProgress.stations,
      result: lotProgress.result,
      deltaE: lotProgress.deltaE,
      family: lotProgress.family,
      seen: lotProgress.seen,
      next: lotProgress.next,
    })
    .from(lots)
    .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
    .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
    .innerJoin(materials, eq(materials.id, lots.baseMaterialId))
    .innerJoin(people, eq(people.id, lots.byId))
    .leftJoin(earlier, eq(earlier.id, lots.reorderOfId))
    .where(
      and(
        id ? eq(lots.id, id) : undefined,
        colourwayId ? eq(lots.colourwayId, colourwayId) : undefined,
        states ? inArray(lotProgress.state, [...states]) : undefined,
      ),
    )
    .orderBy(desc(lots.number));
  return rows.map(({ number, pieceWeightMg, earlierId, earlierNumber, base, ownMaster, firstMaster, ...r }) => ({
    ...r,
    // Dyed without one, a lot goes by the first that came.
    master: ownMaster ?? firstMaster ?? r.master,
    tag: lotTag(number),
    family: r.family ?? [],
    at: iso(r.at),
    pieceWeightG: convertMilligramsToGrams(pieceWeightMg),
    reorderOf: earlierId !== null && earlierNumber !== null ? { id: earlierId, tag: lotTag(earlierNumber) } : null,
    undyed: baseFacts(base).undyed,
  }));
}

export async function findLot(db: Db, id: string): Promise<LotRow> {
  const [row] = await db.select().from(lots).where(eq(lots.id, id));
  if (!row) throw notFound('lot');
  return { ...row, plan: completePlan(row.plan) };
}

export async function readEntries(db: Db, lotId: string): Promise<RunEntryView[]> {
  return (await readParts(db, lotId, 'entries')).entries;
}

export async function readReadings(db: Db, lotId: string): Promise<ReadingView[]> {
  return (await readParts(db, lotId, 'readings')).readings;
}

/** Readings that still stand, as judging needs them. */
export function currentReadings(all: readonly ReadingView[]): ShadeReading[] {
  return currentEntries(all).map(({ batch, group, zone, piece, state, lab, illuminant, observer }) => ({
    batch,
    group,
    zone,
    piece,
    state,
    lab,
    illuminant,
    observer,
  }));
}

/** What eyes saw that still stands, as judging needs it. */
export const currentEyes = (all: readonly EyeReadingView[]): EyeReading[] =>
  currentEntries(all).map(({ batch, group, zone, piece, state, seen, by }) => ({
    batch,
    group,
    zone,
    piece,
    state,
    seen,
    byId: by.id,
  }));

/** The first of a line of reorders; undefined for a lot that repeats none. */
export async function findFirstLotId(db: Db, lot: Pick<LotRow, 'reorderOfId'>): Promise<string | undefined> {
  let earlierId = lot.reorderOfId;
  let first: string | undefined;
  while (earlierId !== null) {
    first = earlierId;
    const [row] = await db.select({ reorderOfId: lots.reorderOfId }).from(lots).where(eq(lots.id, earlierId));
    earlierId = row?.reorderOfId ?? null;
  }
  return first;
}

/** Everything a lot took off the shelf, net of corrections. */
function madeFromMoved(
  moved: Awaited<ReturnType<typeof readParts<'moved'>>>['moved'],
  lotId: string,
): LotDetail['madeFrom'] {
  const taken = stockLotsInLot(moved, lotId);
  const stockLots = new Map(
    moved.map(({ lotId: _lotId, amount: _amount, ...stockLot }) => [stockLot.stockLotId, stockLot]),
  );
  return [...stockLots.values()].flatMap((stockLot) =>
    taken.has(stockLot.stockLotId) ? [{ ...stockLot, amount: taken.get(stockLot.stockLotId) ?? 0 }] : [],
  );
}

/** Tested strengths of stock lots, as a share of the reference lot; those never tested are left out. */
export async function readStrengths(db: Db, stockLotIds: readonly string[]): Promise<ReadonlyMap<string, number>> {
  if (stockLotIds.length === 0) return new Map();
  const rows = await db
    .select({ id: stockLotTable.id, facts: stockLotTable.facts })
    .from(stockLotTable)
    .where(inArray(stockLotTable.id, [...stockLotIds]));
  return new Map(
    rows.flatMap((r) => (r.facts.strengthPercent === null ? [] : [[r.id, r.facts.strengthPercent / 100] as const])),
  );
}

/** What really made a lot: by its movements where it was dyed, by its plan where it was not. */
export async function readConditions(db: Db, lot: LotRow): Promise<LotConditions> {
  const [recipe] = await db
    .select({ id: recipeVersions.id, name: sql<string>`${recipes.name} || ', version ' || ${recipeVersions.number}` })
    .from(recipeVersions)
    .innerJoin(recipes, eq(recipes.id, recipeVersions.recipeId))
    .where(eq(recipeVersions.id, lot.recipeVersionId));
  const taken = madeFromMoved((await readParts(db, lot.id, 'moved')).moved, lot.id);
  const bases = new Set([lot.baseMaterialId, ...lot.plan.groups.map((g) => g.baseId)]);
  const base = taken.filter((t) => bases.has(t.materialId));
  const wofMg = base.reduce((sum, t) => sum + t.amount, 0) || lot.plan.wof.value * 1000;
  const used = taken.filter((t) => !bases.has(t.materialId));
  const strengths = await readStrengths(
    db,
    used.map((u) => u.stockLotId),
  );
  return {
    recipe: recipe ?? { id: lot.recipeVersionId, name: '' },
    base: base.map(({ stockLotId, tag }) => ({ stockLotId, tag })),
    materials: [...new Map(used.map((u) => [u.materialId, u])).values()].map(
      ({ materialId, material: name, measure }) => {
        const usedOfMaterial = used.filter((u) => u.materialId === materialId);
        const perGram = measure === 'pieces' ? 1000 : 1;
        return {
          materialId,
          name,
          measure,
          percentOwf: ((usedOfMaterial.reduce((sum, u) => sum + u.amount, 0) * perGram) / wofMg) * 100,
          worthPercentOwf:
            ((usedOfMaterial.reduce((sum, u) => sum + u.amount * (strengths.get(u.stockLotId) ?? 1), 0) * perGram) /
              wofMg) *
            100,
          sources: usedOfMaterial.map(({ stockLotId, tag }) => ({ stockLotId, tag })),
        };
      },
    ),
    water: lot.water,
    vessels: lot.plan.batches.map((b) => ({ id: b.vesselId, name: b.vesselName, metal: b.metal })),
    liquorRatio: lot.plan.liquorRatio,
  };
}

export async function readLot(db: Db, id: string): Promise<LotDetail> {
  const lot = await findLot(db, id);
  const [summary] = await readLotSummaries(db, { id });
  if (!summary) throw notFound('lot');
  const { named, entries, readings, eyes, verdicts, stockLots, moved, again, expected, judgeRule } = await readParts(
    db,
    id,
    'named',
    'entries',
    'readings',
    'eyes',
    'verdicts',
    'stockLots',
    'moved',
    'again',
    'expected',
    'judgeRule',
  );
  const madeFrom = madeFromMoved(moved, id);
  const tags = new Map([
    ...stockLots.map((j) => [j.id, j.tag] as const),
    ...madeFrom.map((m) => [m.stockLotId, m.tag] as const),
  ]);
  const firstId = await findFirstLotId(db, lot);
  const [first] =
    firstId === undefined
      ? []
      : await db
          .select({ number: lots.number, colour: lotProgress.result })
          .from(lots)
          .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
          .where(eq(lots.id, firstId));
  return {
    summary,
    note: lot.note,
    quantityText: lot.quantityText,
    extras: lotExtras.parse(lot.extras),
    ...named,
    water: lot.water ? { ...lot.water, ironMgPerL: lot.water.ironMgPerL ?? null } : null,
    checks: lot.checks,
    plan: lot.plan as LotDetail['plan'],
    entries,
    deviations: findRunDeviations(lot.plan, entries, (stockLot) => tags.get(stockLot) ?? 'another jar'),
    readings,
    eyes,
    expected,
    judgeRule,
    verdicts,
    factors: lot.factors,
    first: firstId !== undefined && first ? { id: firstId, tag: lotTag(first.number), colour: first.colour } : null,
    again: again.map((a) => ({ id: a.id, tag: lotTag(a.number) })),
    madeFrom,
    stockLots,
  };
}

/** What is still promised to a lot, by stock lot. */
export async function readReserved(db: Db, lotId: string): Promise<Map<string, number>> {
  const rows = await db
    .select({ stockLotId: reservations.stockLotId, amount: sql<number>`sum(${reservations.amount})::float8` })
    .from(reservations)
    .where(eq(reservations.lotId, lotId))
    .groupBy(reservations.stockLotId);
  return new Map(rows.filter((r) => r.amount > 0).map((r) => [r.stockLotId, r.amount]));
}
