import type { ColourConditions, Factor, Hazard, Lab, LotPlan, RunEntry } from '@vestigia/core';
import type { BaseFacts, RecipeBody, StudioVessel, WaterSource } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import { bigint, bigserial, boolean, check, date, index, integer, jsonb, pgTable, real, text, timestamp, unique, uuid } from 'drizzle-orm/pg-core';

/*
 * Tables marked «append-only» refuse update, delete and truncate in the database itself (see the hand-written migration).
 * Amounts are whole smallest units: mg or µl. Times are UTC. `seq` is the order of recording, which a clock can't disturb.
 */
const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });
const amount = (name: string) => bigint(name, { mode: 'number' });
const seq = () => bigserial('seq', { mode: 'number' }).notNull();

export const studio = pgTable('studio', {
  only: boolean('only').primaryKey().default(true),
  name: text('name').notNull(),
  zone: text('zone').notNull(),
  signInNote: text('sign_in_note').notNull().default(''),
  balanceName: text('balance_name').notNull().default('bench balance'),
  balanceResolutionG: real('balance_resolution_g').notNull().default(0.1),
  balanceCapacityG: real('balance_capacity_g').notNull().default(3000),
  version: integer('version').notNull().default(1),
}, (t) => [check('one_studio', sql`${t.only}`)]);

export const secrets = pgTable('secrets', { name: text('name').primaryKey(), value: text('value').notNull() });

export const people = pgTable('people', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  passphraseHash: text('passphrase_hash'),
});

export const sessions = pgTable('sessions', { sid: text('sid').primaryKey(), data: jsonb('data').$type<Record<string, unknown>>().notNull(), expiresAt: instant('expires_at').notNull() });

/** Replies already given, by the caller's key: the same write sent twice is answered twice and done once. */
export const answered = pgTable('answered', {
  key: text('key').primaryKey(),
  bodyHash: text('body_hash').notNull(),
  status: integer('status').notNull(),
  reply: jsonb('reply').notNull(),
  at: instant('at').notNull(),
});

export const vessels = pgTable('vessels', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  metal: text('metal').$type<StudioVessel['metal']>().notNull(),
  workingMl: integer('working_ml').notNull(),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
});

export const waters = pgTable('waters', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  ph: real('ph').$type<WaterSource['ph']>(),
  hardnessDh: real('hardness_dh').$type<WaterSource['hardnessDh']>(),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
});

export const materials = pgTable('materials', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  kind: text('kind').$type<'fibre' | 'dyestuff' | 'mordant' | 'tannin' | 'assistant' | 'modifier' | 'detergent'>().notNull(),
  measure: text('measure').$type<'weight' | 'volume'>().notNull(),
  hazards: jsonb('hazards').$type<Hazard[]>().notNull(),
  note: text('note').notNull().default(''),
  base: jsonb('base').$type<BaseFacts>(),
});

export const stockLots = pgTable('stock_lots', {
  id: uuid('id').primaryKey(),
  materialId: uuid('material_id').notNull().references(() => materials.id),
  tag: text('tag').notNull().unique(),
  receivedOn: date('received_on').notNull(),
  bestBefore: date('best_before'),
  place: text('place').notNull().default(''),
  source: text('source').notNull().default(''),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
}, (t) => [index('stock_lots_material').on(t.materialId)]);

/** Sums of the two ledgers, kept by triggers in the same transaction; the check is what makes «never negative» true. */
export const stockBalances = pgTable('stock_balances', {
  stockLotId: uuid('stock_lot_id').primaryKey().references(() => stockLots.id),
  onHand: amount('on_hand').notNull().default(0),
  promised: amount('promised').notNull().default(0),
}, (t) => [check('on_hand_not_negative', sql`${t.onHand} >= 0`), check('promised_not_negative', sql`${t.promised} >= 0`)]);

/** Append-only. */
export const movements = pgTable('movements', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  stockLotId: uuid('stock_lot_id').notNull().references(() => stockLots.id),
  kind: text('kind').$type<'receive' | 'use' | 'count' | 'reverse'>().notNull(),
  amount: amount('amount').notNull(),
  lotId: uuid('lot_id').references(() => lots.id),
  runEntryId: uuid('run_entry_id').references(() => runEntries.id),
  reversesId: uuid('reverses_id').unique(),
  note: text('note').notNull().default(''),
  at: instant('at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
}, (t) => [index('movements_stock_lot').on(t.stockLotId, t.seq), index('movements_lot').on(t.lotId)]);

/** Append-only: a promise is positive, its release or use negative. */
export const promises = pgTable('promises', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  lotId: uuid('lot_id').notNull().references(() => lots.id),
  stockLotId: uuid('stock_lot_id').notNull().references(() => stockLots.id),
  amount: amount('amount').notNull(),
  at: instant('at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
}, (t) => [index('promises_lot').on(t.lotId), index('promises_stock_lot').on(t.stockLotId)]);

export const recipes = pgTable('recipes', { id: uuid('id').primaryKey(), name: text('name').notNull().unique() });

/** Append-only. */
export const recipeVersions = pgTable('recipe_versions', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  recipeId: uuid('recipe_id').notNull().references(() => recipes.id),
  number: integer('number').notNull(),
  body: jsonb('body').$type<RecipeBody>().notNull(),
  at: instant('at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
}, (t) => [unique('recipe_version_number').on(t.recipeId, t.number)]);

/** Append-only. */
export const standings = pgTable('standings', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  recipeVersionId: uuid('recipe_version_id').notNull().references(() => recipeVersions.id),
  standing: text('standing').$type<'trial' | 'proof' | 'proven' | 'retired'>().notNull(),
  reason: text('reason').notNull().default(''),
  at: instant('at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
}, (t) => [index('standings_version').on(t.recipeVersionId)]);

export const colourways = pgTable('colourways', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  recipeVersionId: uuid('recipe_version_id').notNull().references(() => recipeVersions.id),
  baseMaterialId: uuid('base_material_id').notNull().references(() => materials.id),
  master: jsonb('master').$type<Lab & ColourConditions>().notNull(),
  toleranceDeltaE: real('tolerance_delta_e').notNull(),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
});

/** Append-only: a lot's plan is what was agreed. What became of it is told by the run, the readings and the verdicts. */
export const lots = pgTable('lots', {
  id: uuid('id').primaryKey(),
  number: integer('number').notNull().unique(),
  colourwayId: uuid('colourway_id').notNull().references(() => colourways.id),
  recipeVersionId: uuid('recipe_version_id').notNull().references(() => recipeVersions.id),
  baseMaterialId: uuid('base_material_id').notNull().references(() => materials.id),
  waterId: uuid('water_id').references(() => waters.id),
  /** The water as it was when the lot was agreed: a source's figures are edited later. */
  water: jsonb('water').$type<Pick<WaterSource, 'id' | 'name' | 'ph' | 'hardnessDh'>>(),
  reorderOfId: uuid('reorder_of_id'),
  written: text('written').notNull(),
  pieces: integer('pieces').notNull(),
  pieceWeightMg: amount('piece_weight_mg').notNull(),
  batches: integer('batches').notNull(),
  plan: jsonb('plan').$type<LotPlan>().notNull(),
  factors: jsonb('factors').$type<Factor[]>().notNull(),
  note: text('note').notNull().default(''),
  at: instant('at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
}, (t) => [index('lots_colourway').on(t.colourwayId), index('lots_reorder').on(t.reorderOfId)]);

/** Append-only. */
export const runEntries = pgTable('run_entries', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  lotId: uuid('lot_id').notNull().references(() => lots.id),
  stepIndex: integer('step_index').notNull(),
  kind: text('kind').$type<RunEntry['kind']>().notNull(),
  at: instant('at').notNull(),
  recordedAt: instant('recorded_at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
  replacesId: uuid('replaces_id').unique(),
  temperatureC: real('temperature_c'),
  text: text('text'),
  weighing: jsonb('weighing').$type<RunEntry['weighing']>(),
}, (t) => [index('run_entries_lot').on(t.lotId, t.seq)]);

/** Append-only. */
export const readings = pgTable('readings', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  lotId: uuid('lot_id').notNull().references(() => lots.id),
  batch: integer('batch').notNull(),
  state: text('state').$type<'wet' | 'dry' | 'cured' | 'washed'>().notNull(),
  lab: jsonb('lab').$type<Lab>().notNull(),
  conditions: jsonb('conditions').$type<ColourConditions>().notNull(),
  note: text('note').notNull().default(''),
  replacesId: uuid('replaces_id').unique(),
  at: instant('at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
}, (t) => [index('readings_lot').on(t.lotId, t.seq)]);

/** Append-only. */
export const verdicts = pgTable('verdicts', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  lotId: uuid('lot_id').notNull().references(() => lots.id),
  verdict: text('verdict').$type<'pass' | 'hold' | 'refuse'>().notNull(),
  reason: text('reason').notNull().default(''),
  toMaster: real('to_master'),
  toFirst: real('to_first'),
  betweenBatches: real('between_batches'),
  at: instant('at').notNull(),
  byId: uuid('by_id').notNull().references(() => people.id),
}, (t) => [index('verdicts_lot').on(t.lotId, t.seq)]);

/**
 * Where each lot stands, folded from its run, readings and verdicts, so that a list of thousands opens at once.
 * A projection: rewritten in the same transaction as whatever changed it, and it can be made again from the rest.
 */
export const lotProgress = pgTable('lot_progress', {
  lotId: uuid('lot_id').primaryKey().references(() => lots.id),
  state: text('state').$type<'planned' | 'inWork' | 'toJudge' | 'held' | 'released' | 'refused' | 'cancelled'>().notNull(),
  stations: jsonb('stations').$type<{ kind: LotPlan['steps'][number]['kind']; title: string; state: 'waiting' | 'running' | 'done' | 'skipped'; knotted: boolean }[]>().notNull(),
  next: jsonb('next').$type<{ index: number; title: string; startedAt: string | null; durationMin: number; attended: boolean }>(),
  result: jsonb('result').$type<Lab & ColourConditions>(),
  deltaE: real('delta_e'),
  lastAt: instant('last_at').notNull(),
}, (t) => [index('lot_progress_state').on(t.state)]);
