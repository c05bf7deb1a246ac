import type { LabUnder, OrderState } from '@vestigia/contract';
import type { GoodsKind } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import { date, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { amount, instant, seq } from './columns';
import { colourways, lots } from './lots';
import { people } from './people';

/** People outside the house who order. Erased ones stay as a number, so that their orders do. */
export const customers = pgTable('customers', {
  id: uuid('id').primaryKey(),
  number: integer('number').notNull().unique(),
  name: text('name').notNull(),
  reach: text('reach').notNull().default(''),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
  erasedAt: instant('erased_at'),
  at: instant('at').notNull(),
});

export const orders = pgTable(
  'orders',
  {
    id: uuid('id').primaryKey(),
    number: integer('number').notNull().unique(),
    customerId: uuid('customer_id')
      .notNull()
      .references(() => customers.id),
    state: text('state').$type<OrderState>().notNull(),
    wantedOn: date('wanted_on', { mode: 'string' }),
    note: text('note').notNull().default(''),
    version: integer('version').notNull().default(1),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('orders_customer').on(t.customerId)],
);

export const orderLines = pgTable(
  'order_lines',
  {
    id: uuid('id').primaryKey(),
    orderId: uuid('order_id')
      .notNull()
      .references(() => orders.id),
    position: integer('position').notNull(),
    what: text('what').notNull(),
    pieces: integer('pieces').notNull(),
    pieceWeightMg: amount('piece_weight_mg'),
    colourwayId: uuid('colourway_id').references(() => colourways.id),
    matchLotId: uuid('match_lot_id').references(() => lots.id),
    /** The colour they brought. */
    brought: jsonb('brought').$type<LabUnder>(),
    broughtNote: text('brought_note').notNull().default(''),
    setOf: integer('set_of'),
    priceMinor: integer('price_minor'),
    care: text('care').notNull().default(''),
    taggedAt: instant('tagged_at'),
    taggedById: uuid('tagged_by_id').references(() => people.id),
  },
  (t) => [index('order_lines_order').on(t.orderId)],
);

/** The lots meant for a line: several for one, and one for several. */
export const orderLineLots = pgTable(
  'order_line_lots',
  {
    lineId: uuid('line_id')
      .notNull()
      .references(() => orderLines.id),
    lotId: uuid('lot_id')
      .notNull()
      .references(() => lots.id),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [primaryKey({ columns: [t.lineId, t.lotId] }), index('order_line_lots_lot').on(t.lotId)],
);

/** Append-only: finished pieces of a lot, as they came and went. */
export const goods = pgTable(
  'goods',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    kind: text('kind').$type<GoodsKind>().notNull(),
    lotId: uuid('lot_id')
      .notNull()
      .references(() => lots.id),
    groupKey: text('group_key'),
    pieces: integer('pieces').notNull(),
    lineId: uuid('line_id').references(() => orderLines.id),
    set: integer('set'),
    note: text('note').notNull().default(''),
    /** The move that was a slip. */
    reversesId: uuid('reverses_id'),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [
    index('goods_lot').on(t.lotId, t.seq),
    uniqueIndex('goods_reverses')
      .on(t.reversesId)
      .where(sql`${t.reversesId} IS NOT NULL`),
  ],
);
