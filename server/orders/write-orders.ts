import type { NewOrderLine, ReadNewOrder, ReadOrderEdit } from '@vestigia/contract';
import { and, eq, inArray, max } from 'drizzle-orm';
import type { Db } from '../db/database';
import { goods, lots, orderLineLots, orderLines, orders } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { noteDeed } from '../shared/deeds';
import { Refusal, notFound } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { assertDayToCome } from '../studio/day-to-come';
import { addCustomer, findCustomer } from './customers';
import { readOrder } from './read-orders';

const asRow = ({ pieceWeightG, ...line }: NewOrderLine, orderId: string, position: number) => ({
  ...line,
  pieceWeightMg: pieceWeightG === null ? null : Math.round(pieceWeightG * 1000),
  orderId,
  position,
});

/** @throws {Refusal} where the day is past, or the customer was erased */
export async function takeOrder(
  db: Db,
  { lines, customer: somebodyNew, ...order }: ReadNewOrder,
  { now, byId }: By,
): Promise<void> {
  if (somebodyNew) await addCustomer(db, { id: order.customerId, ...somebodyNew }, { now, byId });
  const customer = await findCustomer(db, order.customerId);
  if (customer.erasedAt !== null)
    throw new Refusal('refused', $localize`What was known of this customer is erased. Write them down anew.`, {
      reason: 'erased',
    });
  await assertDayToCome(db, order.wantedOn, { now, field: 'wantedOn' });
  const [last] = await db.select({ number: max(orders.number) }).from(orders);
  const number = (last?.number ?? 0) + 1;
  await db.insert(orders).values({ ...order, number, at: now.toISOString(), byId });
  await db.insert(orderLines).values(lines.map((line, i) => asRow(line, order.id, i)));
  await noteDeed(db, { now, byId, kind: 'added', thing: 'order', thingId: order.id, name: String(number) });
}

/**
 * Changes an order whole: its day, what is agreed, its lines.
 * @throws {Refusal} where it was changed meanwhile, or a line goes that pieces or lots belong to
 */
export async function editOrder(
  db: Db,
  id: string,
  { version, lines, ...fields }: ReadOrderEdit,
  { now, byId }: By,
): Promise<void> {
  const [before] = await db.select().from(orders).where(eq(orders.id, id));
  if (!before) throw notFound('order');
  if (fields.wantedOn !== before.wantedOn) await assertDayToCome(db, fields.wantedOn, { now, field: 'wantedOn' });
  const updated = await db
    .update(orders)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(orders.id, id), eq(orders.version, version)))
    .returning({ id: orders.id });
  assertFresh(updated, { ...fields, lines }, await readOrder(db, id));
  const old = await db.select().from(orderLines).where(eq(orderLines.orderId, id));
  const kept = new Set(lines.map((l) => l.id));
  for (const line of old.filter((l) => !kept.has(l.id))) await removeLine(db, line.id, line.what);
  const known = new Set(old.map((l) => l.id));
  for (const [i, line] of lines.entries()) {
    const { id: lineId, ...row } = asRow(line, id, i);
    if (known.has(lineId)) await db.update(orderLines).set(row).where(eq(orderLines.id, lineId));
    else await db.insert(orderLines).values({ id: lineId, ...row });
  }
  const changes: Record<string, [unknown, unknown]> = {};
  if (before.state !== fields.state) changes['state'] = [before.state, fields.state];
  if (before.wantedOn !== fields.wantedOn) changes['wantedOn'] = [before.wantedOn, fields.wantedOn];
  const [piecesBefore, pieces] = [piecesOf(old), piecesOf(lines)];
  if (piecesBefore !== pieces) changes['pieces'] = [piecesBefore, pieces];
  const told = { now, byId, kind: 'changed', thing: 'order', thingId: id, name: String(before.number) } as const;
  await noteDeed(db, { ...told, changes });
}

const piecesOf = (lines: readonly { pieces: number }[]): number => lines.reduce((sum, l) => sum + l.pieces, 0);

async function removeLine(db: Db, lineId: string, what: string): Promise<void> {
  const moved = await db.$count(goods, eq(goods.lineId, lineId));
  if (moved > 0)
    throw new Refusal(
      'refused',
      $localize`Pieces were set aside for “${what}” already. Call the order off, or leave the line with fewer pieces.`,
      { reason: 'lineInUse' },
    );
  await db.delete(orderLineLots).where(eq(orderLineLots.lineId, lineId));
  await db.delete(orderLines).where(eq(orderLines.id, lineId));
}

async function findLine(db: Db, lineId: string): Promise<typeof orderLines.$inferSelect> {
  const [line] = await db.select().from(orderLines).where(eq(orderLines.id, lineId));
  if (!line) throw notFound('order');
  return line;
}

/** Says which lots are meant for a line. */
export async function meanLots(db: Db, lineId: string, lotIds: readonly string[], { now, byId }: By): Promise<void> {
  await findLine(db, lineId);
  const wanted = [...new Set(lotIds)];
  const there = wanted.length === 0 ? [] : await db.select({ id: lots.id }).from(lots).where(inArray(lots.id, wanted));
  if (there.length < wanted.length) throw notFound('lot');
  await db.delete(orderLineLots).where(eq(orderLineLots.lineId, lineId));
  if (wanted.length > 0)
    await db.insert(orderLineLots).values(wanted.map((lotId) => ({ lineId, lotId, at: now.toISOString(), byId })));
}

/** Says that the pieces of a line carry their tags, or don't. */
export async function tagLine(db: Db, lineId: string, isTagged: boolean, { now, byId }: By): Promise<void> {
  await findLine(db, lineId);
  await db
    .update(orderLines)
    .set(isTagged ? { taggedAt: now.toISOString(), taggedById: byId } : { taggedAt: null, taggedById: null })
    .where(eq(orderLines.id, lineId));
}
