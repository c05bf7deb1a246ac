import type { BaseFacts, MaterialFacts, StockFacts } from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import type { Hazard, KitchenUnit, MaterialKind, StockMeasure, VolumeSystem } from '@vestigia/core';
import { boolean, date, index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { instant, amount, seq } from './columns';
import { people } from './people';

export const materials = pgTable('materials', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  kind: text('kind').$type<MaterialKind>().notNull(),
  measure: text('measure').$type<StockMeasure>().notNull(),
  hazards: jsonb('hazards').$type<Hazard[]>().notNull(),
  note: text('note').notNull().default(''),
  base: jsonb('base').$type<BaseFacts>(),
  facts: jsonb('facts').$type<MaterialFacts>().notNull().default(NO_FACTS),
  version: integer('version').notNull().default(1),
  /** Out of the lists, and out of what is chosen from; what was made with it stays. */
  putAway: boolean('put_away').notNull().default(false),
});

/** Append-only: weighings of a level spoonful, from which its mean and spread are read. */
export const spoonWeighings = pgTable(
  'spoon_weighings',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    materialId: uuid('material_id')
      .notNull()
      .references(() => materials.id),
    unit: text('unit').$type<KitchenUnit>().notNull(),
    system: text('system').$type<VolumeSystem>().notNull(),
    weightMg: amount('weight_mg').notNull(),
    fromBalance: boolean('from_balance').notNull().default(false),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('spoon_weighings_material').on(t.materialId)],
);

export const stockLots = pgTable(
  'stock_lots',
  {
    id: uuid('id').primaryKey(),
    materialId: uuid('material_id')
      .notNull()
      .references(() => materials.id),
    tag: text('tag').notNull().unique(),
    receivedOn: date('received_on').notNull(),
    bestBefore: date('best_before'),
    place: text('place').notNull().default(''),
    source: text('source').notNull().default(''),
    note: text('note').notNull().default(''),
    /** What all of it cost when it came, minor units; null where that is not known or it came free. */
    costMinor: amount('cost_minor'),
    facts: jsonb('facts').$type<StockFacts>().notNull().default(NO_STOCK_FACTS),
    version: integer('version').notNull().default(1),
  },
  (t) => [index('stock_lots_material').on(t.materialId)],
);

/** A count of one place, figure by figure, until its differences are booked together. */
export const stocktakes = pgTable('stocktakes', {
  id: uuid('id').primaryKey(),
  place: text('place').notNull(),
  /** The jars chosen to be counted; `null`: all that stand at the place. */
  chosen: jsonb('chosen').$type<readonly string[]>(),
  blind: boolean('blind').notNull(),
  entries: jsonb('entries')
    .$type<Record<string, { counted: number; seenOnHand: number; fromBalance: boolean; at: string; byId: string }>>()
    .notNull()
    .default({}),
  startedAt: instant('started_at').notNull(),
  bookedAt: instant('booked_at'),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
  version: integer('version').notNull().default(1),
});
