import type {
  ColourConditions,
  EyeSeen,
  Lab,
  PlannedStrip,
  SeenStrip,
  StripFactor,
  StripLevel,
  Taken,
} from '@vestigia/core';
import { index, integer, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { instant, amount, seq } from './columns';
import { people } from './people';
import { materials } from './materials';
import { recipeVersions } from './recipes';

/** Append-only: strips alike but for one factor, with what was worked out for each when they were cut. */
export const stripTrials = pgTable('strip_trials', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  /** `null`: liquors in bowls, by no recipe. */
  recipeVersionId: uuid('recipe_version_id').references(() => recipeVersions.id),
  baseMaterialId: uuid('base_material_id')
    .notNull()
    .references(() => materials.id),
  waterId: uuid('water_id'),
  factor: text('factor').$type<StripFactor>().notNull(),
  materialId: uuid('material_id').references(() => materials.id),
  totalMg: amount('total_mg'),
  levels: jsonb('levels').$type<StripLevel[]>().notNull(),
  layout: jsonb('layout').$type<PlannedStrip[]>().notNull(),
  note: text('note').notNull().default(''),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});

/** Append-only. */
export const stripReadings = pgTable(
  'strip_readings',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    trialId: uuid('trial_id')
      .notNull()
      .references(() => stripTrials.id),
    number: integer('number').notNull(),
    lab: jsonb('lab').$type<Lab>().notNull(),
    conditions: jsonb('conditions').$type<ColourConditions>().notNull(),
    /** How it was taken, and how sure it is; `null`: typed, by an early version. */
    taken: jsonb('taken').$type<Taken>(),
    note: text('note').notNull().default(''),
    replacesId: uuid('replaces_id').unique(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('strip_readings_trial').on(t.trialId)],
);

/** Append-only: strips laid side by side, as an eye placed them. */
export const stripLooks = pgTable(
  'strip_looks',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    trialId: uuid('trial_id')
      .notNull()
      .references(() => stripTrials.id),
    state: text('state').$type<'wet' | 'dry'>().notNull(),
    light: text('light').$type<EyeSeen['light']>().notNull(),
    seen: jsonb('seen').$type<SeenStrip[]>().notNull(),
    replacesId: uuid('replaces_id').unique(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('strip_looks_trial').on(t.trialId)],
);

/** Append-only: the recipe version that was made of a strip. */
export const stripPromotions = pgTable(
  'strip_promotions',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    trialId: uuid('trial_id')
      .notNull()
      .references(() => stripTrials.id),
    number: integer('number').notNull(),
    recipeVersionId: uuid('recipe_version_id')
      .notNull()
      .references(() => recipeVersions.id),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('strip_promotions_trial').on(t.trialId)],
);
