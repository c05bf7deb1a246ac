import type { Count, Taking } from '@vestigia/contract';
import { countDifference, formatAmount } from '@vestigia/core';
import { and, eq } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { movements } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { Refusal } from '../shared/problem';
import { keepContents } from './liquor-level';
import { amountOf } from './materials-store';
import type { Jar } from './stock-lot-store';
import { findStockLot } from './stock-lot-store';

/**
 * Refuses to take what is not there, or what is promised to lots. `evenPromised`: what spoiled is gone, promised or
 * not.
 */
export function assertFree(
  stockLot: Jar,
  amount: number,
  { evenReserved = false }: { evenReserved?: boolean } = {},
): void {
  const { measure } = stockLot.material;
  if (amount > stockLot.onHand)
    throw new Refusal(
      'refused',
      $localize`${stockLot.tag} holds ${formatAmount(stockLot.onHand, measure)}, so ${formatAmount(amount, measure)} can’t come out of it. Count the jar if the screen is wrong.`,
      { reason: 'notOnHand' },
    );
  const free = Math.max(0, stockLot.onHand - stockLot.reserved);
  if (!evenReserved && amount > free)
    throw new Refusal(
      'refused',
      $localize`${formatAmount(free, measure)} of ${stockLot.tag} ${stockLot.material.measure === 'pieces' ? $localize`are` : $localize`is`} free; the rest is promised to lots. Take less, or take it from another jar.`,
      { reason: 'reserved' },
    );
}

/** Stock that leaves without a lot. Packets leave whole and take their auxiliaries with them. */
export async function takeOut(db: Db, id: string, taking: Taking, { now, byId }: By): Promise<{ id: string }> {
  const stockLot = await findStockLot(db, id);
  const amount = await amountOf(db, taking.quantityText, stockLot.material);
  assertFree(stockLot, amount, { evenReserved: taking.kind === 'spoil' });
  if (taking.kind !== 'use' && taking.note === '')
    throw new Refusal(
      'refused',
      taking.kind === 'spoil'
        ? $localize`Say what spoiled it: the next harvest will want to know.`
        : $localize`Say to whom it was given.`,
      { reason: 'reasonMissing' },
    );
  const at = now.toISOString();
  await db
    .insert(movements)
    .values({ id: taking.id, stockLotId: id, kind: taking.kind, amount: -amount, note: taking.note, at, byId });
  for (const need of auxiliariesOf(stockLot, taking.kind === 'use' ? amount : 0)) {
    const from = await chosenStockLot(db, taking, need.materialId);
    if (!from)
      throw new Refusal(
        'refused',
        $localize`Each packet of ${stockLot.material.name} goes with an auxiliary. Choose the jar it is taken from.`,
        { reason: 'auxiliaryMissing' },
      );
    assertFree(from.stockLot, need.amount);
    await db.insert(movements).values({
      id: from.movementId,
      stockLotId: from.stockLot.id,
      kind: 'use',
      amount: -need.amount,
      note: $localize`with ${formatAmount(amount, 'pieces')} of ${stockLot.tag}`,
      at,
      byId,
    });
  }
  return { id: taking.id };
}

const auxiliariesOf = (stockLot: Jar, packets: number): { materialId: string; amount: number }[] =>
  packets === 0
    ? []
    : (stockLot.material.facts.packet?.auxiliaries ?? []).map((a) => ({
        materialId: a.materialId,
        amount: a.amount * packets,
      }));

async function chosenStockLot(
  db: Db,
  taking: Taking,
  materialId: string,
): Promise<{ stockLot: Jar; movementId: string } | undefined> {
  for (const { stockLotId, movementId } of taking.auxiliaries) {
    const stockLot = await findStockLot(db, stockLotId);
    if (stockLot.material.id === materialId) return { stockLot, movementId };
  }
  return undefined;
}

/**
 * Books the difference between the shelf and the screen. A movement since the counter looked is told, not
 * overwritten.
 */
export async function countStockLot(
  db: Db,
  id: string,
  count: Count,
  { now, byId }: By,
): Promise<{ difference: number }> {
  const stockLot = await findStockLot(db, id);
  const counted = await amountOf(db, count.quantityText, stockLot.material, { allowNothing: true });
  if (stockLot.onHand !== count.seenOnHand) {
    throw new Refusal(
      'changedMeanwhile',
      $localize`Stock of ${stockLot.tag} moved while you counted: the screen now says ${formatAmount(stockLot.onHand, stockLot.material.measure)}. Weigh it again, then enter it.`,
      { yours: count.seenOnHand, theirs: stockLot.onHand },
    );
  }
  const difference = countDifference(stockLot.onHand, counted);
  if (difference === 0) return { difference };
  const liquorEntryId = await keepContents(db, stockLot, counted, { now, byId });
  await db.insert(movements).values({
    id: count.id,
    stockLotId: id,
    liquorEntryId,
    kind: 'count',
    amount: difference,
    note: count.note,
    at: now.toISOString(),
    byId,
  });
  return { difference };
}

/** A movement told later is booked on the day it happened, and says when it was written down. */
const TOLD_LATER_MS = 60_000;
const datedAt = (atMs: number, now: Date): { at: string; recordedAt?: string } =>
  now.getTime() - atMs > TOLD_LATER_MS
    ? { at: new Date(atMs).toISOString(), recordedAt: now.toISOString() }
    : { at: now.toISOString() };

/** The movement that takes a lot's weighing off the shelf. */
export async function takeForLot(
  db: Db,
  {
    atMs,
    ...taken
  }: { id: string; stockLotId: string; amount: number; lotId: string; runEntryId: string; atMs: number },
  { now, byId }: By,
): Promise<void> {
  await db.insert(movements).values({
    ...taken,
    kind: 'use',
    amount: -taken.amount,
    ...datedAt(atMs, now),
    byId,
  });
}

/**
 * The shelf's figure put right while something was weighed from it: a count, dated with the weighing and gone with it
 * where that was a slip.
 */
export async function settleAtWeighing(
  db: Db,
  {
    stockLotId,
    runEntryId,
    difference,
    atMs,
  }: { stockLotId: string; runEntryId: string; difference: number; atMs: number },
  { now, byId }: By,
): Promise<void> {
  await db.insert(movements).values({
    id: uuidv7(now),
    stockLotId,
    runEntryId,
    kind: 'count',
    amount: difference,
    note:
      difference > 0
        ? $localize`there was more in it when it was weighed from`
        : $localize`it was empty when it was weighed from`,
    ...datedAt(atMs, now),
    byId,
  });
}

/** Takes back what a weighing booked and was not taken back yet. */
export async function giveBackFromLot(
  db: Db,
  runEntryId: string,
  { now, byId }: By,
  note = $localize`weighing corrected`,
): Promise<void> {
  const booked = await db.select().from(movements).where(eq(movements.runEntryId, runEntryId));
  const reversed = new Set(booked.map((m) => m.reversesId));
  const standing = booked.filter((m) => (m.kind === 'use' || m.kind === 'count') && !reversed.has(m.id));
  if (standing.length === 0) return;
  await db.insert(movements).values(
    standing.map(({ stockLotId, lotId, amount, id }) => ({
      id: uuidv7(now),
      stockLotId,
      lotId,
      kind: 'reverse' as const,
      amount: -amount,
      reversesId: id,
      runEntryId,
      note,
      at: now.toISOString(),
      byId,
    })),
  );
}

/** Whether what a weighing booked was taken back once. */
export async function wasGivenBack(db: Db, runEntryId: string): Promise<boolean> {
  const rows = await db
    .select({ id: movements.id })
    .from(movements)
    .where(and(eq(movements.runEntryId, runEntryId), eq(movements.kind, 'reverse')));
  return rows.length > 0;
}
