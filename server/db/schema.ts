import type {
  BaseFacts,
  Liquor,
  LotExtras,
  MaterialFacts,
  RecipeBody,
  StockFacts,
  StudioVessel,
  WaterSource,
} from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import type {
  ColourConditions,
  ConversionKind,
  Factor,
  Hazard,
  KeptPlan,
  KitchenUnit,
  Lab,
  LaidStrip,
  LotCheck,
  LotPlan,
  MaterialKind,
  MovementKind,
  Practice,
  RunDetail,
  RunEntry,
  Standing,
  StockMeasure,
  StripFactor,
  StripLevel,
  TagKind,
  VolumeSystem,
} from '@vestigia/core';
import { DEFAULT_PROOFS_NEEDED } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import {
  bigint,
  bigserial,
  boolean,
  check,
  customType,
  date,
  doublePrecision,
  index,
  integer,
  jsonb,
  pgTable,
  real,
  text,
  timestamp,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';

/*
 * Tables marked «append-only» refuse update, delete and truncate in the database itself (see the hand-written migration).
 * Amounts are whole smallest units: mg or µl. Times are UTC. `seq` is the order of recording, which a clock can't disturb.
 */
const instant = (name: string) => timestamp(name, { withTimezone: true, mode: 'string' });
const amount = (name: string) => bigint(name, { mode: 'number' });
const bytes = customType<{ data: Uint8Array }>({ dataType: () => 'bytea' });
const seq = () => bigserial('seq', { mode: 'number' }).notNull();

export const studio = pgTable(
  'studio',
  {
    only: boolean('only').primaryKey().default(true),
    name: text('name').notNull(),
    zone: text('zone').notNull(),
    signInNote: text('sign_in_note').notNull().default(''),
    balanceName: text('balance_name').notNull().default('bench balance'),
    balanceResolutionG: real('balance_resolution_g').notNull().default(0.1),
    balanceCapacityG: real('balance_capacity_g').notNull().default(3000),
    volumeSystem: text('volume_system').$type<VolumeSystem>(),
    currency: text('currency').notNull().default('EUR'),
    practice: jsonb('practice').$type<Practice>().notNull().default({}),
    provenNeeds: integer('proven_needs').notNull().default(DEFAULT_PROOFS_NEEDED),
    roomC: doublePrecision('room_c').notNull().default(18),
    coldWaterC: doublePrecision('cold_water_c').notNull().default(12),
    hotWaterC: doublePrecision('hot_water_c').notNull().default(55),
    liftLimitKg: doublePrecision('lift_limit_kg').notNull().default(15),
    energyMinorPerKwh: doublePrecision('energy_minor_per_kwh'),
    version: integer('version').notNull().default(1),
  },
  (t) => [check('one_studio', sql`${t.only}`)],
);

export const secrets = pgTable('secrets', { name: text('name').primaryKey(), value: text('value').notNull() });

export const people = pgTable('people', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  passphraseHash: text('passphrase_hash'),
});

export const sessions = pgTable('sessions', {
  sid: text('sid').primaryKey(),
  data: jsonb('data').$type<Record<string, unknown>>().notNull(),
  expiresAt: instant('expires_at').notNull(),
});

/** Replies already given, by the caller's key: the same write sent twice is answered twice and done once. */
export const answered = pgTable('answered', {
  key: text('key').primaryKey(),
  bodyHash: text('body_hash').notNull(),
  status: integer('status').notNull(),
  reply: jsonb('reply').notNull(),
  at: instant('at').notNull(),
});

export const heatSources = pgTable('heat_sources', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  powerW: doublePrecision('power_w').notNull(),
  efficiencyPercent: doublePrecision('efficiency_percent').notNull(),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
});

export const vessels = pgTable('vessels', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  metal: text('metal').$type<StudioVessel['metal']>().notNull(),
  workingMl: integer('working_ml').notNull(),
  heldIron: boolean('held_iron').notNull().default(false),
  emptyG: doublePrecision('empty_g'),
  mostC: doublePrecision('most_c'),
  heatSourceId: uuid('heat_source_id').references(() => heatSources.id),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
});

export const waters = pgTable('waters', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  ph: real('ph').$type<WaterSource['ph']>(),
  hardnessDh: real('hardness_dh').$type<WaterSource['hardnessDh']>(),
  ironMgPerL: doublePrecision('iron_mg_per_l'),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
});

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

/** Append-only: what was attached to a material (its safety data sheet), to a stock lot or to a bench entry (a photograph). */
export const attachments = pgTable(
  'attachments',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    materialId: uuid('material_id').references(() => materials.id),
    stockLotId: uuid('stock_lot_id').references(() => stockLots.id),
    runEntryId: uuid('run_entry_id').references(() => runEntries.id),
    kind: text('kind').$type<'sheet' | 'photo'>().notNull(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    content: bytes('content').notNull(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [
    index('attachments_material').on(t.materialId),
    index('attachments_stock_lot').on(t.stockLotId),
    index('attachments_run_entry')
      .on(t.runEntryId)
      .where(sql`${t.runEntryId} IS NOT NULL`),
  ],
);

/** Sums of the two ledgers, kept by triggers in the same transaction; the check is what makes «never negative» true. */
export const stockBalances = pgTable(
  'stock_balances',
  {
    stockLotId: uuid('stock_lot_id')
      .primaryKey()
      .references(() => stockLots.id),
    onHand: amount('on_hand').notNull().default(0),
    promised: amount('promised').notNull().default(0),
    /** Rises whenever this jar's row on the shelf changes, so that a reader asks only for what it has not seen. */
    touched: amount('touched').notNull().default(0),
  },
  (t) => [
    index('stock_balances_touched').on(t.touched),
    check('on_hand_not_negative', sql`${t.onHand} >= 0`),
    check('promised_not_negative', sql`${t.promised} >= 0`),
  ],
);

/** Append-only: stock that changed its form. Its movements name it; what went in and what came out is its lineage. */
export const conversions = pgTable('conversions', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  kind: text('kind').$type<ConversionKind>().notNull(),
  lossMg: amount('loss_mg').notNull(),
  note: text('note').notNull().default(''),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});

/** Append-only: what happened to a kept liquor, each with what was in it afterwards. */
export const liquorEntries = pgTable(
  'liquor_entries',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    stockLotId: uuid('stock_lot_id')
      .notNull()
      .references(() => stockLots.id),
    kind: text('kind').$type<'save' | 'use' | 'replenish' | 'check' | 'ladder'>().notNull(),
    after: jsonb('after').$type<Liquor>().notNull(),
    note: text('note').notNull().default(''),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('liquor_entries_stock_lot').on(t.stockLotId, t.seq)],
);

/** A count of one place, figure by figure, until its differences are booked together. */
export const countWalks = pgTable('count_walks', {
  id: uuid('id').primaryKey(),
  place: text('place').notNull(),
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

/** Append-only. `at` is when it happened, `recordedAt` when it was written down, where that was later. */
export const movements = pgTable(
  'movements',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    stockLotId: uuid('stock_lot_id')
      .notNull()
      .references(() => stockLots.id),
    kind: text('kind').$type<MovementKind>().notNull(),
    amount: amount('amount').notNull(),
    lotId: uuid('lot_id').references(() => lots.id),
    /** A lot of another studio's, by its name, in history that was brought from there. */
    lotRef: text('lot_ref'),
    conversionId: uuid('conversion_id').references(() => conversions.id),
    runEntryId: uuid('run_entry_id').references(() => runEntries.id),
    reversesId: uuid('reverses_id'),
    note: text('note').notNull().default(''),
    at: instant('at').notNull(),
    recordedAt: instant('recorded_at'),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [
    index('movements_jar').on(t.stockLotId, t.at, t.seq),
    // Most movements have none of these: indexes of those that do keep long imports quick.
    index('movements_lot')
      .on(t.lotId)
      .where(sql`${t.lotId} IS NOT NULL`),
    index('movements_conversion')
      .on(t.conversionId)
      .where(sql`${t.conversionId} IS NOT NULL`),
    uniqueIndex('movements_reverses_id_unique')
      .on(t.reversesId)
      .where(sql`${t.reversesId} IS NOT NULL`),
  ],
);

/** Append-only: a promise is positive, its release or use negative. */
export const promises = pgTable(
  'promises',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    lotId: uuid('lot_id')
      .notNull()
      .references(() => lots.id),
    stockLotId: uuid('stock_lot_id')
      .notNull()
      .references(() => stockLots.id),
    amount: amount('amount').notNull(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('promises_lot').on(t.lotId), index('promises_stock_lot').on(t.stockLotId)],
);

export const recipes = pgTable('recipes', { id: uuid('id').primaryKey(), name: text('name').notNull().unique() });

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
export const standings = pgTable(
  'standings',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    recipeVersionId: uuid('recipe_version_id')
      .notNull()
      .references(() => recipeVersions.id),
    standing: text('standing').$type<Standing>().notNull(),
    reason: text('reason').notNull().default(''),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('standings_version').on(t.recipeVersionId)],
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

/** Append-only: strips alike but for one factor, with what was worked out for each when they were cut. */
export const stripTrials = pgTable('strip_trials', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  recipeVersionId: uuid('recipe_version_id')
    .notNull()
    .references(() => recipeVersions.id),
  baseMaterialId: uuid('base_material_id')
    .notNull()
    .references(() => materials.id),
  waterId: uuid('water_id'),
  factor: text('factor').$type<StripFactor>().notNull(),
  materialId: uuid('material_id').references(() => materials.id),
  totalMg: amount('total_mg').notNull(),
  levels: jsonb('levels').$type<StripLevel[]>().notNull(),
  laid: jsonb('laid').$type<LaidStrip[]>().notNull(),
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
    note: text('note').notNull().default(''),
    replacesId: uuid('replaces_id').unique(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('strip_readings_trial').on(t.trialId)],
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

export const colourways = pgTable('colourways', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  recipeVersionId: uuid('recipe_version_id')
    .notNull()
    .references(() => recipeVersions.id),
  baseMaterialId: uuid('base_material_id')
    .notNull()
    .references(() => materials.id),
  master: jsonb('master').$type<Lab & ColourConditions>().notNull(),
  toleranceDeltaE: real('tolerance_delta_e').notNull(),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
});

/** Append-only: a lot's plan is what was agreed. What became of it is told by the run, the readings and the verdicts. */
export const lots = pgTable(
  'lots',
  {
    id: uuid('id').primaryKey(),
    number: integer('number').notNull().unique(),
    colourwayId: uuid('colourway_id')
      .notNull()
      .references(() => colourways.id),
    recipeVersionId: uuid('recipe_version_id')
      .notNull()
      .references(() => recipeVersions.id),
    baseMaterialId: uuid('base_material_id')
      .notNull()
      .references(() => materials.id),
    waterId: uuid('water_id').references(() => waters.id),
    /** The water as it was when the lot was agreed: a source's figures are edited later. */
    water: jsonb('water').$type<
      Pick<WaterSource, 'id' | 'name' | 'ph' | 'hardnessDh'> & Partial<Pick<WaterSource, 'ironMgPerL'>>
    >(),
    reorderOfId: uuid('reorder_of_id'),
    written: text('written').notNull(),
    pieces: integer('pieces').notNull(),
    pieceWeightMg: amount('piece_weight_mg').notNull(),
    batches: integer('batches').notNull(),
    plan: jsonb('plan').$type<KeptPlan>().notNull(),
    /** What was asked for beside: other bases, a shorter bath, two runs, intake, another school. */
    asked: jsonb('asked').$type<Partial<LotExtras>>().notNull().default({}),
    /** Cautions gone past when it was agreed, each with its reason. */
    checks: jsonb('checks').$type<(LotCheck & { reason: string })[]>().notNull().default([]),
    factors: jsonb('factors').$type<Factor[]>().notNull(),
    note: text('note').notNull().default(''),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('lots_colourway').on(t.colourwayId), index('lots_reorder').on(t.reorderOfId)],
);

/** Append-only. */
export const runEntries = pgTable(
  'run_entries',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    lotId: uuid('lot_id')
      .notNull()
      .references(() => lots.id),
    stepIndex: integer('step_index').notNull(),
    kind: text('kind').$type<RunEntry['kind']>().notNull(),
    at: instant('at').notNull(),
    recordedAt: instant('recorded_at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    replacesId: uuid('replaces_id').unique(),
    temperatureC: real('temperature_c'),
    text: text('text'),
    weighing: jsonb('weighing').$type<RunEntry['weighing']>(),
    detail: jsonb('detail').$type<RunDetail>(),
  },
  (t) => [index('run_entries_lot').on(t.lotId, t.seq)],
);

/** Append-only. */
export const readings = pgTable(
  'readings',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    lotId: uuid('lot_id')
      .notNull()
      .references(() => lots.id),
    batch: integer('batch').notNull(),
    state: text('state').$type<'wet' | 'dry' | 'cured' | 'washed'>().notNull(),
    lab: jsonb('lab').$type<Lab>().notNull(),
    conditions: jsonb('conditions').$type<ColourConditions>().notNull(),
    note: text('note').notNull().default(''),
    replacesId: uuid('replaces_id').unique(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('readings_lot').on(t.lotId, t.seq)],
);

/** Append-only. */
export const verdicts = pgTable(
  'verdicts',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    lotId: uuid('lot_id')
      .notNull()
      .references(() => lots.id),
    verdict: text('verdict').$type<'pass' | 'hold' | 'refuse'>().notNull(),
    reason: text('reason').notNull().default(''),
    toMaster: real('to_master'),
    toFirst: real('to_first'),
    betweenBatches: real('between_batches'),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('verdicts_lot').on(t.lotId, t.seq)],
);

/** A step of a lot that is in work. Times ISO in UTC; `startedAt` with its pauses put off. */
export interface RunningOfLot {
  readonly stepIndex: number;
  readonly title: string;
  readonly vesselNames: readonly string[];
  readonly startedAt: string;
  readonly pausedAt: string | null;
  readonly durationMin: number;
  readonly attended: boolean;
  readonly hot: boolean;
}

/**
 * Where each lot stands, folded from its run, readings and verdicts, so that a list of thousands opens at once.
 * A projection: rewritten in the same transaction as whatever changed it, and it can be made again from the rest.
 */
export const lotProgress = pgTable(
  'lot_progress',
  {
    lotId: uuid('lot_id')
      .primaryKey()
      .references(() => lots.id),
    state: text('state')
      .$type<'planned' | 'inWork' | 'toJudge' | 'held' | 'released' | 'refused' | 'cancelled'>()
      .notNull(),
    stations: jsonb('stations')
      .$type<
        {
          kind: LotPlan['steps'][number]['kind'];
          title: string;
          state: 'waiting' | 'running' | 'paused' | 'done' | 'skipped';
          knotted: boolean;
        }[]
      >()
      .notNull(),
    next: jsonb('next').$type<{
      index: number;
      title: string;
      startedAt: string | null;
      durationMin: number;
      attended: boolean;
    }>(),
    /** Steps in work, as the pot line shows them; `null` until it is folded by a program that knows of them. */
    running: jsonb('running').$type<RunningOfLot[]>(),
    result: jsonb('result').$type<Lab & ColourConditions>(),
    deltaE: real('delta_e'),
    lastAt: instant('last_at').notNull(),
  },
  (t) => [index('lot_progress_state').on(t.state)],
);

/** What empty containers weigh, remembered from the balance. */
export const containers = pgTable('containers', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  tareMg: amount('tare_mg').notNull(),
});

/** Cautions a person has put away for a day. */
export const cautionsPutAway = pgTable(
  'cautions_put_away',
  {
    personId: uuid('person_id')
      .notNull()
      .references(() => people.id),
    on: date('on').notNull(),
    words: text('words').notNull(),
  },
  (t) => [unique('caution_once_a_day').on(t.personId, t.on, t.words)],
);

/** Append-only: what a bath probe read during a step, packed: pairs of epoch ms (64 bit) and °C (32 bit), little end first. */
export const probeLogs = pgTable(
  'probe_logs',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    lotId: uuid('lot_id')
      .notNull()
      .references(() => lots.id),
    stepIndex: integer('step_index').notNull(),
    simulated: boolean('simulated').notNull(),
    readings: bytes('readings').notNull(),
    at: instant('at').notNull(),
  },
  (t) => [index('probe_logs_lot').on(t.lotId, t.seq)],
);

/** Append-only: codes given out, in the order of their numbers. */
export const tags = pgTable(
  'tags',
  {
    seq: seq(),
    kind: text('kind').$type<TagKind>().notNull(),
    jarId: uuid('jar_id').references(() => stockLots.id),
    vesselId: uuid('vessel_id'),
    lotId: uuid('lot_id').references(() => lots.id),
    number: integer('number'),
    stepIndex: integer('step_index'),
    at: instant('at').notNull(),
  },
  (t) => [unique('tag_once').on(t.kind, t.jarId, t.vesselId, t.lotId, t.number, t.stepIndex).nullsNotDistinct()],
);
