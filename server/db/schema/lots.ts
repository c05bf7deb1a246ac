import type { LotExtras, LotSummary, WaterSource } from '@vestigia/contract';
import type {
  ColourConditions,
  DeltaEFormula,
  EyeSeen,
  Factor,
  KeptPlan,
  Lab,
  LotCheck,
  LotPlan,
  ReadingState,
  RunEntry,
  ShadeOf,
  Taken,
  ZoneStandard,
} from '@vestigia/core';
import { boolean, index, integer, jsonb, pgTable, real, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { instant, amount, seq } from './columns';
import { people } from './people';
import { waters } from './room';
import { materials } from './materials';
import { recipeVersions } from './recipes';

/** What a verdict rests on. */
export type VerdictRest = 'reading' | 'twoEyes' | 'eye';

export const colourways = pgTable('colourways', {
  id: uuid('id').primaryKey(),
  name: text('name').notNull().unique(),
  recipeVersionId: uuid('recipe_version_id')
    .notNull()
    .references(() => recipeVersions.id),
  baseMaterialId: uuid('base_material_id')
    .notNull()
    .references(() => materials.id),
  /** The current one; each that ever was stands in `masters`. `null` while nobody has said “this is it”. */
  master: jsonb('master').$type<Lab & ColourConditions>(),
  toleranceDeltaE: real('tolerance_delta_e').notNull(),
  /** What its lots are judged by. */
  formula: text('formula').$type<DeltaEFormula>().notNull().default('de00'),
  note: text('note').notNull().default(''),
  version: integer('version').notNull().default(1),
  /** The people who alone see what makes it; `null`: everybody who sees its recipe. */
  keptTo: jsonb('kept_to').$type<string[]>(),
  putAway: boolean('put_away').notNull().default(false),
});

/** Append-only: every master of a colourway, and why it took the place of the one before. */
export const masters = pgTable(
  'masters',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    colourwayId: uuid('colourway_id')
      .notNull()
      .references(() => colourways.id),
    lab: jsonb('lab').$type<Lab & ColourConditions>().notNull(),
    /** Of a variegated one: what each zone is. */
    zones: jsonb('zones').$type<ZoneStandard[]>().notNull().default([]),
    reason: text('reason').notNull().default(''),
    /** How its colour was read, and how sure it is; `null` where nobody said. */
    taken: jsonb('taken').$type<Taken>(),
    /** The lot that came out so. */
    fromLotId: uuid('from_lot_id'),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('masters_colourway').on(t.colourwayId, t.seq)],
);

/**
 * Append-only: a lot's plan is what was agreed. What became of it is told by the run, the readings and the verdicts.
 */
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
    quantityText: text('quantity_text').notNull(),
    pieces: integer('pieces').notNull(),
    pieceWeightMg: amount('piece_weight_mg').notNull(),
    batches: integer('batches').notNull(),
    /** The colourway’s master as it was; a lot dyed without one goes by the first that comes. */
    master: jsonb('master').$type<Lab & ColourConditions>(),
    plan: jsonb('plan').$type<KeptPlan>().notNull(),
    /** What was asked for beside: other bases, a shorter bath, two runs, intake, another school. */
    extras: jsonb('extras').$type<Partial<LotExtras>>().notNull().default({}),
    /** Cautions gone past when it was agreed, each with its reason. */
    checks: jsonb('checks').$type<(LotCheck & { reason: string })[]>().notNull().default([]),
    factors: jsonb('factors').$type<Factor[]>().notNull(),
    note: text('note').notNull().default(''),
    /** When it was begun; where that was told later, `recordedAt` is when it was told. */
    at: instant('at').notNull(),
    recordedAt: instant('recorded_at'),
    /** Dyed before the studio kept these books: it takes nothing off the shelf. */
    offBooks: boolean('off_books').notNull().default(false),
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
    detail: jsonb('detail').$type<RunEntry['detail']>(),
  },
  (t) => [index('run_entries_lot').on(t.lotId, t.seq), uniqueIndex('run_entries_seq').on(t.seq)],
);

/** What was seen of which shade of a lot, in what state, by whom; and what it corrects. */
const seenOf = () => ({
  seq: seq(),
  id: uuid('id').primaryKey(),
  lotId: uuid('lot_id')
    .notNull()
    .references(() => lots.id),
  batch: integer('batch').notNull(),
  /** Base and part, zone, single piece by its mark, where it is not the batch as a whole. */
  groupKey: text('group_key'),
  zone: text('zone'),
  piece: text('piece'),
  dip: integer('dip'),
  state: text('state').$type<ReadingState>().notNull(),
  note: text('note').notNull().default(''),
  replacesId: uuid('replaces_id').unique(),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});

/** Append-only. */
export const readings = pgTable(
  'readings',
  {
    ...seenOf(),
    lab: jsonb('lab').$type<Lab>().notNull(),
    conditions: jsonb('conditions').$type<ColourConditions>().notNull(),
    /** How it was taken, and how sure it is; `null`: typed, by an early version. */
    taken: jsonb('taken').$type<Taken>(),
  },
  (t) => [index('readings_lot').on(t.lotId, t.seq)],
);

/** Append-only: what an eye said of a shade, against what, in what light. */
export const eyeReadings = pgTable(
  'eye_readings',
  { ...seenOf(), seen: jsonb('seen').$type<EyeSeen>().notNull() },
  (t) => [index('eye_readings_lot').on(t.lotId, t.seq)],
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
    /** The shade that is judged by itself; `null`: the lot. */
    of: jsonb('of').$type<ShadeOf>(),
    reason: text('reason').notNull().default(''),
    toMaster: real('to_master'),
    toFirst: real('to_first'),
    betweenBatches: real('between_batches'),
    /** A reading of everything, two people’s eyes or one: how sure it is; `null` where nobody had looked. */
    restsOn: text('rests_on').$type<VerdictRest>().default('reading'),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('verdicts_lot').on(t.lotId, t.seq)],
);

/** A verdict that was a slip: it no longer stands. Append-only, and once for each. */
export const verdictTakeBacks = pgTable('verdict_take_backs', {
  seq: seq(),
  id: uuid('id').primaryKey(),
  verdictId: uuid('verdict_id')
    .notNull()
    .unique()
    .references(() => verdicts.id),
  at: instant('at').notNull(),
  byId: uuid('by_id')
    .notNull()
    .references(() => people.id),
});

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
          hasDeviation: boolean;
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
    /** The lot’s shades, where it has several or one was told apart; what an eye said last, where nothing was read. */
    family: jsonb('family').$type<LotSummary['family']>(),
    seen: jsonb('seen').$type<EyeSeen>(),
    lastAt: instant('last_at').notNull(),
  },
  (t) => [index('lot_progress_state').on(t.state)],
);
