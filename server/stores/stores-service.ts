import type { Count, Delivery, Reversal, StockLotEdit } from '@vestigia/contract';
import { countDifference, formatAmount, readAmount } from '@vestigia/core';
import { and, eq } from 'drizzle-orm';
import { uuidv7 } from '../ids';
import type { Db } from '../db/database';
import { movements, stockBalances, stockLots } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { Refusal, notFound } from '../problem';
import { findMaterial, nextTag, readStockLot } from './stores-store';

interface By {
  readonly now: Date;
  readonly byId: string;
}

/** Reads a quantity as written, in the jar's own measure, or refuses it in core's words. */
function amountOf(written: string, measure: 'weight' | 'volume', options: { allowNothing?: boolean } = {}): number {
  const reading = readAmount(written, measure, options);
  if (!reading.ok) throw new Refusal('refused', reading.sentence, { reason: 'quantity' });
  return reading.amount;
}

export async function receive(db: Db, delivery: Delivery, { now, byId }: By): Promise<{ id: string }> {
  const material = await findMaterial(db, delivery.materialId);
  const amount = amountOf(delivery.written, material.measure);
  const { id, receivedOn, bestBefore, place, source, note } = delivery;
  if (bestBefore !== null && bestBefore < receivedOn) throw new Refusal('refused', 'That would be past its best before it came. Check the two dates.', { reason: 'expiryBeforeReceipt' });
  const tomorrow = new Date(now.getTime() + 36 * 3_600_000).toISOString().slice(0, 10);
  if (receivedOn > tomorrow) throw new Refusal('refused', 'A delivery can’t be booked before it comes. Write the day it arrived.', { reason: 'receivedLater' });
  const tag = delivery.tag === '' ? await nextTag(db, material.name) : delivery.tag;
  await db.insert(stockLots).values({ id, materialId: material.id, tag, receivedOn, bestBefore, place, source, note });
  await db.insert(movements).values({ id: delivery.movementId, stockLotId: id, kind: 'receive', amount, note: source, at: now.toISOString(), byId });
  return { id };
}

export async function editStockLot(db: Db, id: string, { version, ...fields }: StockLotEdit): Promise<{ id: string }> {
  const before = await readStockLot(db, id);
  const updated = await db.update(stockLots).set({ ...fields, version: version + 1 }).where(and(eq(stockLots.id, id), eq(stockLots.version, version))).returning();
  assertFresh(updated, fields, { place: before.row.place, note: before.note, bestBefore: before.row.bestBefore });
  return { id };
}

/** Books the difference between the shelf and the screen. A movement since the counter looked is told, not overwritten. */
export async function countStockLot(db: Db, id: string, count: Count, { now, byId }: By): Promise<{ difference: number }> {
  const { row } = await readStockLot(db, id);
  const counted = amountOf(count.written, row.measure, { allowNothing: true });
  if (row.onHand !== count.seenOnHand) {
    throw new Refusal('changedMeanwhile', `Stock of ${row.tag} moved while you counted: the screen now says ${formatAmount(row.onHand, row.measure)}. Weigh it again, then enter it.`, { yours: count.seenOnHand, theirs: row.onHand });
  }
  const difference = countDifference(row.onHand, counted);
  if (difference !== 0) await db.insert(movements).values({ id: count.id, stockLotId: id, kind: 'count', amount: difference, note: count.note, at: now.toISOString(), byId });
  return { difference };
}

/** Puts a delivery or a count right by an equal and opposite movement. What a lot used is corrected at the bench. */
export async function reverseMovement(db: Db, id: string, reversal: Reversal, { now, byId }: By): Promise<{ id: string }> {
  const [movement] = await db.select().from(movements).where(eq(movements.id, id));
  if (!movement) throw notFound('movement');
  if (movement.kind === 'reverse') throw new Refusal('refused', 'A reversal is not reversed again. Book the delivery or the count anew.');
  if (movement.lotId !== null) throw new Refusal('refused', 'That went into a lot. Correct the weighing at the bench, and the shelf follows.');
  const [reversed] = await db.select({ id: movements.id }).from(movements).where(eq(movements.reversesId, id));
  if (reversed) throw new Refusal('alreadyDone', 'That movement was reversed already.');
  const [balance] = await db.select().from(stockBalances).where(eq(stockBalances.stockLotId, movement.stockLotId));
  if (balance && balance.onHand - movement.amount < 0) throw new Refusal('refused', 'Some of that has been used since, so it can’t be taken back whole. Count the jar instead.');
  await db.insert(movements).values({ id: reversal.id, stockLotId: movement.stockLotId, kind: 'reverse', amount: -movement.amount, reversesId: id, note: reversal.note, at: now.toISOString(), byId });
  return { id: reversal.id };
}

/** The movement that takes a lot's weighing off the shelf. */
export async function takeForLot(db: Db, taken: { id: string; stockLotId: string; amountMg: number; lotId: string; runEntryId: string }, { now, byId }: By): Promise<void> {
  const { amountMg, ...rest } = taken;
  await db.insert(movements).values({ ...rest, kind: 'use', amount: -amountMg, at: now.toISOString(), byId });
}

/** Takes back what a corrected weighing booked. */
export async function giveBackFromLot(db: Db, runEntryId: string, { now, byId }: By): Promise<void> {
  const [movement] = await db.select().from(movements).where(and(eq(movements.runEntryId, runEntryId), eq(movements.kind, 'use')));
  if (!movement) return;
  const { stockLotId, lotId, amount, id } = movement;
  await db.insert(movements).values({ id: uuidv7(now), stockLotId, lotId, kind: 'reverse', amount: -amount, reversesId: id, runEntryId, note: 'weighing corrected', at: now.toISOString(), byId });
}
