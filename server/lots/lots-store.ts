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
import { and, desc, eq, inArray, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { baseFacts } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, materials, people, reservations } from '../db/schema';
import { masterSpectrumOf, zonesAmong } from './master-of';
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

/** The first of a line of reorders that was passed; undefined for a lot that repeats none, or only failures. */
export async function findFirstLotId(db: Db, lot: Pick<LotRow, 'reorderOfId'>): Promise<string | undefined> {
  let earlierId = lot.reorderOfId;
  let first: string | undefined;
  while (earlierId !== null) {
    const [row] = await db
      .select({ reorderOfId: lots.reorderOfId, state: lotProgress.state })
      .from(lots)
      .innerJoin(lotProgress, eq(lotProgress.lotId, lots.id))
      .where(eq(lots.id, earlierId));
    // What was refused is nothing to match.
    if (row?.state === 'released') first = earlierId;
    earlierId = row?.reorderOfId ?? null;
  }
  return first;
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

export async function readLot(db: Db, id: string): Promise<LotDetail> {
  const lot = await findLot(db, id);
  const [summary] = await readLotSummaries(db, { id });
  if (!summary) throw notFound('lot');
  const { named, standing, entries, readings, eyes, verdicts, stockLots, moved, again, expected, judgeRule } =
    await readParts(
      db,
      id,
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
    codeNames: null,
    zoneStandards: [...zonesAmong(standing, lot.at)],
    masterSpectrum: await masterSpectrumOf(db, lot.colourwayId, summary.master),
    water: lot.water ? { ...lot.water, ironMgPerL: lot.water.ironMgPerL ?? null } : null,
    checks: lot.checks,
    plan: lot.plan as LotDetail['plan'],
    entries,
    deviations: findRunDeviations(lot.plan, entries, (stockLot) => tags.get(stockLot) ?? $localize`another jar`),
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
