import type { EyeReadingView, LabUnder, LotDetail, LotSummary, ReadingView, RunEntryView } from '@vestigia/contract';
import { lotExtras } from '@vestigia/contract';
import type { EyeReading, LotPlan, ShadeReading } from '@vestigia/core';
import {
  completePlan,
  convertMilligramsToGrams,
  findRunDeviations,
  currentEntries,
  stockLotsInLot,
} from '@vestigia/core';
import { and, asc, desc, eq, inArray, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { baseFacts } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, materials, people, reservations } from '../db/schema';
import { masterSpectraOf, zonesAmong } from './master-of';
import { lotTag } from '../shared/lot-tag';
import { notFound } from '../shared/problem';
import { readParts, readPartsOfLots } from './lot-parts';

/** A lot with its plan complete, whatever version of the program kept it. */
export type LotRow = Omit<typeof lots.$inferSelect, 'plan'> & { readonly plan: LotPlan };
const iso = (at: string): string => new Date(at).toISOString();

/** Lots as lists show them, newest first. Reads no plans: they are large. */
export async function readLotSummaries(
  db: Db,
  {
    ids,
    colourwayId,
    states,
  }: { ids?: readonly string[]; colourwayId?: string; states?: readonly LotSummary['state'][] } = {},
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
      recordedAt: lots.recordedAt,
      offBooks: lots.offBooks,
      strikeOff: sql<boolean>`coalesce((${lots.extras} ->> 'strikeOff')::boolean, false)`,
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
        ids ? inArray(lots.id, [...ids]) : undefined,
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
    family: (r.family ?? []).map((m) => ({ ...m, apart: m.apart ?? null })),
    at: iso(r.at),
    recordedAt: r.recordedAt === null ? null : iso(r.recordedAt),
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
  return currentEntries(all).map(({ batch, group, zone, piece, dip, state, lab, illuminant, observer }) => ({
    batch,
    group,
    zone,
    piece,
    dip,
    state,
    lab,
    illuminant,
    observer,
  }));
}

/** What eyes saw that still stands, as judging needs it. */
export const currentEyes = (all: readonly EyeReadingView[]): EyeReading[] =>
  currentEntries(all).map(({ batch, group, zone, piece, dip, state, seen, by }) => ({
    batch,
    group,
    zone,
    piece,
    dip,
    state,
    seen,
    byId: by.id,
  }));

/** A lot that was passed, the first of a line of reorders. */
interface FirstOfLine {
  readonly id: string;
  readonly number: number;
  readonly colour: LabUnder | null;
}

/** Of lots that repeat another, the first of their line that was passed; what was refused is nothing to match. */
export async function firstsOfLines(db: Db, lotIds: readonly string[]): Promise<ReadonlyMap<string, FirstOfLine>> {
  const { rows } = await db.execute<{ ofId: string; id: string; number: number; colour: LabUnder | null }>(sql`
    WITH RECURSIVE line(of_id, id, back) AS (
      SELECT l.id, l.reorder_of_id, 1 FROM lots l
        WHERE l.id = ANY(${sql.param(lotIds)}::uuid[]) AND l.reorder_of_id IS NOT NULL
      UNION ALL
      SELECT line.of_id, l.reorder_of_id, line.back + 1 FROM line JOIN lots l ON l.id = line.id
        WHERE l.reorder_of_id IS NOT NULL)
    SELECT DISTINCT ON (line.of_id) line.of_id AS "ofId", l.id, l.number, g.result AS colour
      FROM line JOIN lots l ON l.id = line.id JOIN lot_progress g ON g.lot_id = l.id
      WHERE g.state = 'released' ORDER BY line.of_id, line.back DESC`);
  return new Map(rows.map(({ ofId, ...first }) => [ofId, first]));
}

/** What of one stock lot is in a lot; `amount` in smallest units. */
export type Taken = LotDetail['madeFrom'][number];

/** Everything a lot took off the shelf, net of corrections. */
export function madeFromMoved(
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

/**
 * Lots whole, by their numbers. Every question costs milliseconds whatever its answer, so all of them are read by the same
 * ones; an id that no lot has is left out.
 */
export async function readLots(db: Db, ids: readonly string[]): Promise<LotDetail[]> {
  if (ids.length === 0) return [];
  const rows = await db
    .select()
    .from(lots)
    .where(inArray(lots.id, [...ids]))
    .orderBy(asc(lots.number));
  const summaries = new Map((await readLotSummaries(db, { ids })).map((s) => [s.id, s]));
  const parts = await readPartsOfLots(
    db,
    ids,
    'named',
    'standing',
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
  const firsts = await firstsOfLines(db, ids);
  const spectra = await masterSpectraOf(
    db,
    rows.map((r) => r.colourwayId),
  );
  return rows.flatMap((row, i) => {
    const [summary, own] = [summaries.get(row.id), parts[i]];
    if (!summary || !own) return [];
    const { named, standing, moved, again, ...rest } = own;
    const lot = { ...row, plan: completePlan(row.plan) };
    const madeFrom = madeFromMoved(moved, lot.id);
    const tags = new Map([
      ...rest.stockLots.map((j) => [j.id, j.tag] as const),
      ...madeFrom.map((m) => [m.stockLotId, m.tag] as const),
    ]);
    const first = firsts.get(lot.id);
    return [
      {
        summary,
        note: lot.note,
        quantityText: lot.quantityText,
        extras: lotExtras.parse(lot.extras),
        ...named,
        ...rest,
        codeNames: null,
        zoneStandards: [...zonesAmong(standing, lot.at)],
        masterSpectrum: spectra(lot.colourwayId, summary.master),
        water: lot.water ? { ...lot.water, ironMgPerL: lot.water.ironMgPerL ?? null } : null,
        checks: lot.checks,
        plan: lot.plan as LotDetail['plan'],
        deviations: findRunDeviations(
          lot.plan,
          rest.entries,
          (stockLot) => tags.get(stockLot) ?? $localize`another jar`,
        ),
        factors: lot.factors,
        first: first ? { id: first.id, tag: lotTag(first.number), colour: first.colour } : null,
        again: again.map((a) => ({ id: a.id, tag: lotTag(a.number) })),
        madeFrom,
      },
    ];
  });
}

export async function readLot(db: Db, id: string): Promise<LotDetail> {
  const [lot] = await readLots(db, [id]);
  if (!lot) throw notFound('lot');
  return lot;
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
