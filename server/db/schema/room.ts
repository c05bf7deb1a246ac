import type { StudioVessel, WaterSource } from '@vestigia/contract';
import type { JudgeRule, OneBalance, Practice, ShownIn, VolumeSystem } from '@vestigia/core';
import { DEFAULT_PROOFS_NEEDED, SHOWN_AT_FIRST } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import { boolean, check, doublePrecision, integer, jsonb, pgTable, real, text, uuid } from 'drizzle-orm/pg-core';

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
    /** A second, fine one for small doses; `null` where there is none. */
    fineBalance: jsonb('fine_balance').$type<OneBalance>(),
    volumeSystem: text('volume_system').$type<VolumeSystem>(),
    currency: text('currency').notNull().default('EUR'),
    practice: jsonb('practice').$type<Practice>().notNull().default({}),
    provenNeeds: integer('proven_needs').notNull().default(DEFAULT_PROOFS_NEEDED),
    /** What a lot may be passed by. */
    judgeRule: text('judge_rule').$type<JudgeRule>().notNull().default('eye'),
    roomC: doublePrecision('room_c').notNull().default(18),
    coldWaterC: doublePrecision('cold_water_c').notNull().default(12),
    hotWaterC: doublePrecision('hot_water_c').notNull().default(55),
    liftLimitKg: doublePrecision('lift_limit_kg').notNull().default(15),
    energyMinorPerKwh: doublePrecision('energy_minor_per_kwh'),
    waterMinorPerM3: doublePrecision('water_minor_per_m3'),
    hourMinor: doublePrecision('hour_minor'),
    /** How figures are written out here; what is kept is SI. */
    shownIn: jsonb('shown_in').$type<ShownIn>().notNull().default(SHOWN_AT_FIRST),
    version: integer('version').notNull().default(1),
  },
  (t) => [check('one_studio', sql`${t.only}`)],
);

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
  maxC: doublePrecision('max_c'),
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
