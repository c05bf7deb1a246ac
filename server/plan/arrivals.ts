import { addDays } from '@vestigia/core';
import type { LotPlan } from '@vestigia/core';
import { eq, gte, inArray, sql } from 'drizzle-orm';
import type { PlanFactsView } from '@vestigia/contract';
import type { Db } from '../db/database';
import { arrivals, liquorEntries, materials, stockBalances, stockLots } from '../db/schema';
import type { By } from '../shared/recorded-by';
import { findMaterial } from '../stores/materials-store';
import { usualLeadDays } from '../stores/forecast';
import { assertDayToCome } from '../studio/day-to-come';

/**
 * Says on which day what is short of a material is to be there, or that nobody knows any more.
 * @throws {Refusal} where there is no such material, or the day is past
 */
export async function awaitMaterial(
  db: Db,
  materialId: string,
  arrivesOn: string | null,
  { now, byId }: By,
): Promise<void> {
  await findMaterial(db, materialId);
  if (arrivesOn === null) {
    await db.delete(arrivals).where(eq(arrivals.materialId, materialId));
    return;
  }
  await assertDayToCome(db, arrivesOn, { now, field: 'arrivesOn' });
  const row = { arrivesOn, at: now.toISOString(), byId };
  await db
    .insert(arrivals)
    .values({ materialId, ...row })
    .onConflictDoUpdate({ target: arrivals.materialId, set: row });
}

/** A lot that isn't done, and which of its steps nobody began. */
export interface OpenLot {
  readonly tag: string;
  /** The day it was agreed to, and what it is short of could be ordered. */
  readonly agreedOn: string;
  readonly plan: LotPlan;
  readonly isBegun: (stepIndex: number) => boolean;
  /** Its recipe is kept from whoever asks. */
  readonly isKept: boolean;
}

/** From and up to when a step of each lot may begin by what it weighs, and what is waited for. */
export interface StockAhead {
  readonly beginFromOn: (lot: OpenLot, stepIndex: number) => string | null;
  readonly beginByOn: (lot: OpenLot, stepIndex: number) => string | null;
  readonly awaited: PlanFactsView['awaited'];
}

/**
 * What the shelf says of open lots, the earlier lot first: what one is short of and the shelf has no more of is waited
 * for, until the day somebody said or as long as it usually takes (a bath of the house: not at all, since nobody delivers
 * it); what goes off is weighed by its last good day.
 */
export async function readStockAhead(db: Db, today: string, open: readonly OpenLot[]): Promise<StockAhead> {
  const shorts = open.flatMap((lot) => stillShort(lot).map((m) => ({ lot, ...m })));
  const ids = [...new Set(shorts.map((s) => s.materialId))];
  const rows = ids.length === 0 ? [] : await db.select().from(materials).where(inArray(materials.id, ids));
  const free = ids.length === 0 ? new Map<string, number>() : await readFree(db, today, ids);
  const said = new Map(
    (await db.select().from(arrivals).where(gte(arrivals.arrivesOn, today))).map((a) => [a.materialId, a.arrivesOn]),
  );
  const madeHere = await readMadeHere(db, ids);
  const waits = shorts.filter(({ materialId, short }) => {
    const left = free.get(materialId) ?? 0;
    if (left < short) return true;
    free.set(materialId, left - short);
    return false;
  });
  /** Ordered when the first lot that waits was agreed to; what is overdue by that may come any day. */
  const usualArrival = (m: (typeof rows)[number]): string => {
    const ordered = waits.flatMap((w) => (w.materialId === m.id ? [w.lot.agreedOn] : [])).sort()[0] ?? today;
    const usual = addDays(ordered, usualLeadDays(m.facts));
    return usual < today ? today : usual;
  };
  const arrivesOn = new Map(rows.map((m) => [m.id, said.get(m.id) ?? (madeHere.has(m.id) ? today : usualArrival(m))]));
  const goodUntil = await readGoodUntil(db, today, open);
  const ofStep = (lot: OpenLot, stepIndex: number): LotPlan['steps'][number]['weighings'] =>
    lot.isBegun(stepIndex) ? [] : (lot.plan.steps.find((s) => s.index === stepIndex)?.weighings ?? []);
  return {
    beginFromOn: (lot, stepIndex) => {
      const awaits = new Set(waits.flatMap((w) => (w.lot === lot ? [w.materialId] : [])));
      const days = ofStep(lot, stepIndex).flatMap((w) =>
        awaits.has(w.materialId) ? (arrivesOn.get(w.materialId) ?? []) : [],
      );
      return days.sort().at(-1) ?? null;
    },
    beginByOn: (lot, stepIndex) =>
      ofStep(lot, stepIndex)
        .flatMap((w) => w.picks.flatMap((p) => goodUntil.get(p.stockLotId ?? '') ?? []))
        .sort()[0] ?? null,
    awaited: rows
      .map((m) => {
        const own = waits.filter((w) => w.materialId === m.id && !w.lot.isKept);
        return {
          materialId: m.id,
          name: m.name,
          measure: m.measure,
          missing: own.reduce((sum, w) => sum + w.short, 0),
          lotTags: own.map((w) => w.lot.tag),
          arrivesOn: arrivesOn.get(m.id) ?? today,
          isSaid: said.has(m.id),
          isMadeHere: madeHere.has(m.id),
        };
      })
      .filter((m) => m.missing > 0)
      .sort((a, b) => a.name.localeCompare(b.name)),
  };
}

/** Of these materials those that are baths and liquors of the house: nobody delivers them. */
async function readMadeHere(db: Db, ids: readonly string[]): Promise<ReadonlySet<string>> {
  if (ids.length === 0) return new Set();
  const rows = await db
    .selectDistinct({ materialId: stockLots.materialId })
    .from(liquorEntries)
    .innerJoin(stockLots, eq(stockLots.id, liquorEntries.stockLotId))
    .where(inArray(stockLots.materialId, [...ids]));
  return new Set(rows.map((r) => r.materialId));
}

/** What a lot is short of and hasn't weighed yet. */
const stillShort = (lot: OpenLot): { materialId: string; short: number }[] =>
  lot.plan.materials.flatMap((m) =>
    m.short > 0 &&
    m.ownGoods !== true &&
    lot.plan.steps.some((s) => !lot.isBegun(s.index) && s.weighings.some((w) => w.materialId === m.materialId))
      ? [{ materialId: m.materialId, short: m.short }]
      : [],
  );

/** What of these materials is promised to nobody and still good. */
async function readFree(db: Db, today: string, ids: readonly string[]): Promise<Map<string, number>> {
  const rows = await db
    .select({
      materialId: stockLots.materialId,
      free: sql<string>`sum(${stockBalances.onHand} - ${stockBalances.reserved})`,
    })
    .from(stockLots)
    .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id))
    .where(
      sql`${inArray(stockLots.materialId, [...ids])} AND (${stockLots.bestBefore} IS NULL OR ${stockLots.bestBefore} >= ${today})`,
    )
    .groupBy(stockLots.materialId);
  return new Map(rows.map((r) => [r.materialId, Number(r.free)]));
}

/** The last good days, still to come, of the jars that lots are to be weighed from. */
async function readGoodUntil(db: Db, today: string, open: readonly OpenLot[]): Promise<Map<string, string>> {
  const ids = [
    ...new Set(
      open.flatMap((l) =>
        l.plan.steps.flatMap((s) => s.weighings.flatMap((w) => w.picks.flatMap((p) => p.stockLotId ?? []))),
      ),
    ),
  ];
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: stockLots.id, bestBefore: stockLots.bestBefore })
    .from(stockLots)
    .where(inArray(stockLots.id, ids));
  return new Map(
    rows.flatMap((r): [string, string][] =>
      r.bestBefore !== null && r.bestBefore >= today ? [[r.id, r.bestBefore]] : [],
    ),
  );
}
