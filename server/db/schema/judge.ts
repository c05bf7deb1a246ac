import type { FastnessKind, FastnessPlace, GreyGrade, Lab, MadeWith, ShadeOf } from '@vestigia/core';
import type { ColourConditions } from '@vestigia/core';
import { date, index, integer, jsonb, pgTable, real, text, uuid } from 'drizzle-orm/pg-core';
import { instant, seq } from './columns';
import { lots } from './lots';
import { people } from './people';

/** Snippets fastened in the book. What one was made with stands as it was when it was cut. */
export const swatches = pgTable(
  'swatches',
  {
    id: uuid('id').primaryKey(),
    page: integer('page').notNull(),
    slot: integer('slot').notNull(),
    name: text('name').notNull(),
    /** `null`: it is of no lot here. */
    lotId: uuid('lot_id').references(() => lots.id),
    of: jsonb('of').$type<ShadeOf>(),
    lab: jsonb('lab').$type<Lab & ColourConditions>(),
    madeWith: jsonb('made_with').$type<MadeWith>().notNull(),
    note: text('note').notNull().default(''),
    version: integer('version').notNull().default(1),
    /** When it was taken out of the book again. */
    takenOutAt: instant('taken_out_at'),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('swatches_place').on(t.page, t.slot)],
);

/** Append-only: something that is washed or hung into the light. */
export const fastnessTests = pgTable('fastness_tests', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  kind: text('kind').$type<FastnessKind>().notNull(),
  /** Where a card hangs; `null` for a wash. */
  place: text('place').$type<FastnessPlace>(),
  name: text('name').notNull(),
  lotId: uuid('lot_id').references(() => lots.id),
  madeWith: jsonb('made_with').$type<MadeWith>().notNull(),
  /** White cloths that are washed with it, by fibre. */
  cloths: jsonb('cloths').$type<string[]>().notNull().default([]),
  startedOn: date('started_on').notNull(),
  note: text('note').notNull().default(''),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});

/** Append-only: how it looked after so many days, read or graded by eye. */
export const fastnessReadings = pgTable(
  'fastness_readings',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    testId: uuid('test_id')
      .notNull()
      .references(() => fastnessTests.id),
    /** The piece itself; or the white cloth of this fibre, which was stained. */
    cloth: text('cloth'),
    onDate: date('on_date').notNull(),
    before: jsonb('before').$type<Lab>(),
    after: jsonb('after').$type<Lab>(),
    /** As it was graded by eye, where it was not read. */
    typedGrade: real('typed_grade').$type<GreyGrade>(),
    note: text('note').notNull().default(''),
    replacesId: uuid('replaces_id').unique(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('fastness_readings_test').on(t.testId, t.seq)],
);

/** Append-only: the studio’s printed card, as a reader measured it; the newest counts. */
export const patchCards = pgTable('patch_cards', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  labs: jsonb('labs').$type<Lab[]>().notNull(),
  note: text('note').notNull().default(''),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});
