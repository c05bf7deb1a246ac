import type { Customer, CustomerDetail, NewCustomer } from '@vestigia/contract';
import { and, asc, eq, inArray, max } from 'drizzle-orm';
import type { Db } from '../db/database';
import { customers, goods, orderLines, orders } from '../db/schema';
import { assertFresh } from '../http/versioned';
import { noteDeed } from '../shared/deeds';
import { Refusal, notFound } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { customerName } from './customer-name';
import { readOrders } from './read-orders';

type Row = typeof customers.$inferSelect;
type Fields = Required<Omit<NewCustomer, 'id'>>;

const shown = (row: Row): Customer => ({
  ...row,
  name: customerName(row),
  erasedAt: row.erasedAt === null ? null : new Date(row.erasedAt).toISOString(),
  at: new Date(row.at).toISOString(),
});

export async function readCustomers(db: Db): Promise<Customer[]> {
  return (await db.select().from(customers).orderBy(asc(customers.number))).map(shown);
}

export async function findCustomer(db: Db, id: string): Promise<Row> {
  const [row] = await db.select().from(customers).where(eq(customers.id, id));
  if (!row) throw notFound('customer');
  return row;
}

export async function readCustomer(db: Db, id: string): Promise<CustomerDetail> {
  return { customer: shown(await findCustomer(db, id)), orders: await readOrders(db, { customerId: id }) };
}

export async function addCustomer(db: Db, { id, ...fields }: Fields & { id: string }, { now }: By): Promise<void> {
  const [last] = await db.select({ number: max(customers.number) }).from(customers);
  await db.insert(customers).values({ id, number: (last?.number ?? 0) + 1, ...fields, at: now.toISOString() });
}

/** @throws {Refusal} where it was changed meanwhile, or was erased */
export async function editCustomer(
  db: Db,
  id: string,
  { version, ...fields }: Fields & { version: number },
): Promise<void> {
  const before = await findCustomer(db, id);
  if (before.erasedAt !== null)
    throw new Refusal(
      'refused',
      $localize`What was known of this customer is erased. Write them down anew, as another.`,
      { reason: 'erased' },
    );
  const updated = await db
    .update(customers)
    .set({ ...fields, version: version + 1 })
    .where(and(eq(customers.id, id), eq(customers.version, version)))
    .returning({ id: customers.id });
  assertFresh(updated, fields, shown(before));
}

/** All that is kept of a customer, to give them: who they are, what they ordered, what was handed over. */
export async function exportCustomer(db: Db, id: string, now: Date): Promise<{ name: string; content: string }> {
  const { customer, orders: summaries } = await readCustomer(db, id);
  const ids = summaries.map((o) => o.id);
  const rows = ids.length === 0 ? [] : await db.select().from(orders).where(inArray(orders.id, ids));
  const lines = ids.length === 0 ? [] : await db.select().from(orderLines).where(inArray(orderLines.orderId, ids));
  const lineIds = lines.map((l) => l.id);
  const moves = lineIds.length === 0 ? [] : await db.select().from(goods).where(inArray(goods.lineId, lineIds));
  const content = {
    format: 'vestigia-customer',
    formatVersion: 1,
    asOf: now.toISOString(),
    customer,
    orders: rows
      .sort((one, other) => one.number - other.number)
      .map(({ id: orderId, number, state, wantedOn, note, at }) => ({
        number,
        state,
        wantedOn,
        note,
        at: new Date(at).toISOString(),
        lines: lines
          .filter((l) => l.orderId === orderId)
          .sort((one, other) => one.position - other.position)
          .map(({ id: lineId, what, pieces, pieceWeightMg, brought, broughtNote, setOf, priceMinor, care }) => ({
            what,
            pieces,
            pieceWeightG: pieceWeightMg === null ? null : pieceWeightMg / 1000,
            brought,
            broughtNote,
            setOf,
            priceMinor,
            care,
            moves: moves
              .filter((m) => m.lineId === lineId)
              .map(({ kind, pieces: many, at: when }) => ({
                kind,
                pieces: many,
                at: new Date(when).toISOString(),
              })),
          })),
      })),
  };
  return { name: `customer ${customer.number}.json`, content: `${JSON.stringify(content, null, 2)}\n` };
}

/**
 * Erases who a customer is and what was written of them by hand. Orders, lots and counts stay, under a number: the
 * record of the lots doesn't break.
 */
export async function eraseCustomer(db: Db, id: string, { now, byId }: By): Promise<void> {
  const { number, erasedAt } = await findCustomer(db, id);
  if (erasedAt !== null) return;
  await db
    .update(customers)
    .set({ name: '', reach: '', note: '', erasedAt: now.toISOString() })
    .where(eq(customers.id, id));
  const own = await db.update(orders).set({ note: '' }).where(eq(orders.customerId, id)).returning({ id: orders.id });
  if (own.length > 0)
    await db
      .update(orderLines)
      .set({ broughtNote: '', care: '' })
      .where(
        inArray(
          orderLines.orderId,
          own.map((o) => o.id),
        ),
      );
  await noteDeed(db, { now, byId, kind: 'removed', thing: 'customer', thingId: id, name: String(number) });
}
