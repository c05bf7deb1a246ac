import type { Delivery, StockFacts, StockLotEdit, StockLotsMove } from '@vestigia/contract';
import { NO_STOCK_FACTS } from '@vestigia/contract';
import { dayOf, formatWeight, netOfTare, readAmount, readMoney } from '@vestigia/core';
import { and, eq, sql } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { movements, stockLots } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { Refusal, notFound } from '../shared/problem';
import { studioZone } from '../studio/studio-store';
import { amountOf, findMaterial, nextTag } from './materials-store';
import { keepPicking, sayPicking } from './gathering';
import { momentOf } from './moment-of';
import { findStockLot } from './stock-lot-store';

/** Books in a receipt, a harvest or a gift: a new stock lot and its first movement. */
export async function receive(db: Db, delivery: Delivery, { now, byId }: By): Promise<{ id: string }> {
  const material = await findMaterial(db, delivery.materialId);
  const { amount, facts } = await weighed(db, delivery, material);
  const { id, receivedOn, bestBefore, place, source, note, picking } = delivery;
  if (bestBefore !== null && bestBefore < receivedOn)
    throw new Refusal('refused', $localize`That would be past its best before it came. Check the two dates.`, {
      reason: 'expiryBeforeReceipt',
    });
  const zone = await studioZone(db);
  if (receivedOn > dayOf(now.getTime(), zone))
    throw new Refusal('refused', $localize`A delivery can’t be booked before it comes. Write the day it arrived.`, {
      reason: 'receivedLater',
    });
  if (facts.origin === 'harvest' && facts.gathering === null)
    throw new Refusal(
      'refused',
      $localize`Say whose permission there was and how much of the stand was taken, or that it is your own ground. Without it a harvest is not booked.`,
      { reason: 'gathering' },
    );
  const costMinor = delivery.cost.trim() === '' ? null : readMoney(delivery.cost);
  if (costMinor === undefined)
    throw new Refusal(
      'refused',
      $localize`That is not an amount of money. Write what all of it cost, for example 12.50, or leave it empty.`,
      { reason: 'cost' },
    );
  const tag = delivery.tag === '' ? await nextTag(db, material.name) : delivery.tag;
  await db
    .insert(stockLots)
    .values({ id, materialId: material.id, tag, receivedOn, bestBefore, place, source, note, costMinor, facts });
  await db.insert(movements).values({
    id: delivery.movementId,
    stockLotId: id,
    kind: facts.origin === 'harvest' ? 'gather' : 'receive',
    amount,
    note: [source, picking === null ? '' : sayPicking(picking, 1)].filter((part) => part !== '').join(': '),
    ...momentOf(receivedOn, now, zone),
    byId,
  });
  if (picking !== null)
    await keepPicking(
      db,
      { ...picking, stockLotId: id, movementId: delivery.movementId, portions: 1, tareMg: facts.tareMg ?? 0, note: '' },
      { now, byId },
    );
  return { id };
}

/** Net as written, or gross less the container. */
async function weighed(
  db: Db,
  delivery: Delivery,
  material: Awaited<ReturnType<typeof findMaterial>>,
): Promise<{ amount: number; facts: StockFacts }> {
  if (delivery.grossText.trim() === '')
    return { amount: await amountOf(db, delivery.quantityText, material), facts: delivery.facts };
  if (material.measure !== 'weight')
    throw new Refusal('refused', $localize`Only weights have a container taken off. Write how much there is.`);
  const gross = readAmount(delivery.grossText, 'weight');
  const tare = readAmount(delivery.tareText, 'weight', { allowNothing: true });
  if (!gross.ok) throw new Refusal('refused', gross.message, { reason: 'quantity' });
  if (!tare.ok) throw new Refusal('refused', $localize`The container alone: ${tare.message}`, { reason: 'quantity' });
  const net = netOfTare(gross.amount, tare.amount);
  if (!net.ok) throw new Refusal('refused', net.message, { reason: 'tare' });
  if (net.netMg === 0)
    throw new Refusal(
      'refused',
      $localize`${formatWeight(gross.amount / 1000)} is the container alone: there is nothing in it to book.`,
      { reason: 'quantity' },
    );
  return { amount: net.netMg, facts: { ...delivery.facts, grossMg: gross.amount, tareMg: tare.amount } };
}

/** Changes what a jar's label says. One lot of a material is the studio's reference for strength. */
export async function editStockLot(
  db: Db,
  id: string,
  { version, facts, ...label }: StockLotEdit,
): Promise<{ id: string }> {
  const before = await findStockLot(db, id);
  const [own] = await db.select({ note: stockLots.note }).from(stockLots).where(eq(stockLots.id, id));
  if (label.bestBefore !== null && label.bestBefore < before.receivedOn)
    throw new Refusal('refused', $localize`That would be past its best before it came. Check the two dates.`, {
      reason: 'expiryBeforeReceipt',
    });
  const kept =
    facts === undefined
      ? {}
      : {
          facts: {
            ...facts,
            origin: before.facts.origin,
            strengthPercent: facts.reference ? 100 : facts.strengthPercent,
          },
        };
  const updated = await db
    .update(stockLots)
    .set({ ...label, ...kept, version: version + 1 })
    .where(and(eq(stockLots.id, id), eq(stockLots.version, version)))
    .returning({ id: stockLots.id });
  assertFresh(updated, label, { place: before.place, note: own?.note ?? '', bestBefore: before.bestBefore });
  if (facts?.reference === true) await dethrone(db, before.material.id, id);
  return { id };
}

/** Jars stand somewhere else from now on: all of them, or none. */
export async function moveStockLots(db: Db, { id, moved }: StockLotsMove): Promise<{ id: string }> {
  for (const { stockLotId, place } of moved) {
    const kept = await db
      .update(stockLots)
      .set({ place, version: sql`${stockLots.version} + 1` })
      .where(eq(stockLots.id, stockLotId))
      .returning({ id: stockLots.id });
    if (kept.length === 0) throw notFound('jar');
  }
  return { id };
}

async function dethrone(db: Db, materialId: string, except: string): Promise<void> {
  const others = await db
    .select({ id: stockLots.id, facts: stockLots.facts })
    .from(stockLots)
    .where(eq(stockLots.materialId, materialId));
  for (const other of others) {
    if (other.id !== except && other.facts.reference)
      await db
        .update(stockLots)
        .set({
          facts: { ...NO_STOCK_FACTS, ...other.facts, reference: false, strengthPercent: null, strengthBasis: '' },
        })
        .where(eq(stockLots.id, other.id));
  }
}
