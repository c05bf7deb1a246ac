import type { KeptVersion, RecipeBody } from '@vestigia/contract';
import type { ColourConditions, Lab, RecipeStatus } from '@vestigia/core';
import { boolean, doublePrecision, index, integer, jsonb, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { instant, seq } from './columns';
import { people } from './people';

export const recipes = pgTable('recipes', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  /** The people to whom alone it is shown; `null`: everybody. */
  keptTo: jsonb('kept_to').$type<string[]>(),
  /** Versions that are shown to some people alone, while the others of the recipe are not kept. */
  keptVersions: jsonb('kept_versions').$type<KeptVersion[]>().notNull().default([]),
  /** The people who alone see how much of each goes in; `null`: everybody who sees the recipe. */
  amountsKeptTo: jsonb('amounts_kept_to').$type<string[]>(),
  putAway: boolean('put_away').notNull().default(false),
});

/** Append-only. */
export const recipeVersions = pgTable(
  'recipe_versions',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    recipeId: uuid('recipe_id')
      .notNull()
      .references(() => recipes.id),
    number: integer('number').notNull(),
    body: jsonb('body').$type<RecipeBody>().notNull(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [unique('recipe_version_number').on(t.recipeId, t.number)],
);

/** Append-only. */
export const recipeStatuses = pgTable(
  'recipe_statuses',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    recipeVersionId: uuid('recipe_version_id')
      .notNull()
      .references(() => recipeVersions.id),
    status: text('status').$type<RecipeStatus>().notNull(),
    reason: text('reason').notNull().default(''),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('recipe_statuses_version').on(t.recipeVersionId)],
);

/** Append-only: small proofs of a version, read dry against the shade wanted. */
export const proofs = pgTable(
  'proofs',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    recipeVersionId: uuid('recipe_version_id')
      .notNull()
      .references(() => recipeVersions.id),
    wofG: doublePrecision('wof_g').notNull(),
    lab: jsonb('lab').$type<Lab>().notNull(),
    wanted: jsonb('wanted').$type<Lab>().notNull(),
    conditions: jsonb('conditions').$type<ColourConditions>().notNull(),
    toleranceDeltaE: doublePrecision('tolerance_delta_e').notNull(),
    deltaE: doublePrecision('delta_e').notNull(),
    note: text('note').notNull().default(''),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('proofs_version').on(t.recipeVersionId)],
);
