import type { HousePlanView, HouseTimesView } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import { boolean, check, date, integer, jsonb, pgTable, uuid } from 'drizzle-orm/pg-core';
import { instant, seq } from './columns';
import { lots } from './lots';
import { materials } from './materials';
import { people } from './people';

/** When the house is open, who works when, what works. */
export const houseTimes = pgTable(
  'house_times',
  {
    only: boolean('only').primaryKey().default(true),
    times: jsonb('times').$type<HouseTimesView>().notNull(),
    version: integer('version').notNull().default(1),
  },
  (t) => [check('one_house', sql`${t.only}`)],
);

/** Append-only: every plan that was accepted; the newest is gone by. */
export const plans = pgTable('plans', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  plan: jsonb('plan').$type<HousePlanView>().notNull(),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});

/** The day a lot is promised for. */
export const lotsWanted = pgTable('lots_wanted', {
  lotId: uuid('lot_id')
    .primaryKey()
    .references(() => lots.id),
  wantedOn: date('wanted_on', { mode: 'string' }).notNull(),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});

/** The day what is short of a material is to be there. */
export const arrivals = pgTable('arrivals', {
  materialId: uuid('material_id')
    .primaryKey()
    .references(() => materials.id),
  arrivesOn: date('arrives_on', { mode: 'string' }).notNull(),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});
