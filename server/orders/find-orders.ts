import type { SearchHit } from '@vestigia/contract';
import { desc, eq, ilike, or, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { customers, orderLines, orders } from '../db/schema';
import { customerName } from './customer-name';

const MAX_HITS = 8;

/** Orders by number, customer or what is wanted, and customers by name. */
export async function findOrders(db: Db, label: string): Promise<SearchHit[]> {
  const asked = label.trim();
  if (asked === '') return [];
  const like = `%${asked.replace(/[\\%_]/g, (c) => `\\${c}`)}%`;
  const number = Number(/^(?:(?:order|auftrag)\s*)?(\d{1,9})$/i.exec(asked)?.[1] ?? -1);
  const what = sql<string>`(SELECT string_agg(l.pieces || ' × ' || l.what, ', ' ORDER BY l.position) FROM ${orderLines} l WHERE l.order_id = ${orders.id})`;
  const found = await db
    .select({ id: orders.id, number: orders.number, what, customer: customers })
    .from(orders)
    .innerJoin(customers, eq(customers.id, orders.customerId))
    .where(or(eq(orders.number, number), ilike(customers.name, like), ilike(what, like)))
    .orderBy(desc(sql`${orders.number} = ${number}`), desc(orders.number))
    .limit(MAX_HITS);
  const people = await db.select().from(customers).where(ilike(customers.name, like)).limit(MAX_HITS);
  return [
    ...found.map((o) => ({
      kind: 'order' as const,
      id: o.id,
      title: $localize`Order ${o.number}`,
      detail: [customerName(o.customer), o.what].join(', '),
      lab: null,
    })),
    ...people
      .filter((c) => c.erasedAt === null)
      .map((c) => ({ kind: 'customer' as const, id: c.id, title: c.name, detail: $localize`customer`, lab: null })),
  ];
}
