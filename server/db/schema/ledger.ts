import type { Liquor, LiquorEntryKind } from '@vestigia/contract';
import type { ConversionKind, MovementKind } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import { boolean, check, index, integer, jsonb, pgTable, text, uniqueIndex, uuid } from 'drizzle-orm/pg-core';
import { instant, amount, seq } from './columns';
import { people } from './people';
import { materials, stockLots } from './materials';
import { eyeReadings, lots, runEntries } from './lots';

/**
 * Append-only: what was attached to a material (its safety data sheet), to a stock lot or to a bench entry (a
 * photograph).
 */
export const attachments = pgTable(
  'attachments',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    materialId: uuid('material_id').references(() => materials.id),
    stockLotId: uuid('stock_lot_id').references(() => stockLots.id),
    runEntryId: uuid('run_entry_id').references(() => runEntries.id),
    eyeReadingId: uuid('eye_reading_id').references(() => eyeReadings.id),
    kind: text('kind').$type<'sheet' | 'photo'>().notNull(),
    name: text('name').notNull(),
    type: text('type').notNull(),
    /** Its contents are a file of this name. */
    sha256: text('sha256').notNull(),
    bytes: integer('bytes').notNull(),
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
    index('attachments_eye_reading')
      .on(t.eyeReadingId)
      .where(sql`${t.eyeReadingId} IS NOT NULL`),
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
    reserved: amount('reserved').notNull().default(0),
    /** Rises whenever this jar's row on the shelf changes, so that a reader asks only for what it has not seen. */
    touched: amount('touched').notNull().default(0),
  },
  (t) => [
    index('stock_balances_touched').on(t.touched),
    check('on_hand_not_negative', sql`${t.onHand} >= 0`),
    check('reserved_not_negative', sql`${t.reserved} >= 0`),
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
    kind: text('kind').$type<LiquorEntryKind>().notNull(),
    /** The entry that was a slip: this one leaves the liquor as it would be without it. */
    takesBackId: uuid('takes_back_id'),
    after: jsonb('after').$type<Liquor>().notNull(),
    note: text('note').notNull().default(''),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [
    index('liquor_entries_stock_lot').on(t.stockLotId, t.seq),
    uniqueIndex('liquor_entries_takes_back')
      .on(t.takesBackId)
      .where(sql`${t.takesBackId} IS NOT NULL`),
  ],
);

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
    /** What was done to a kept liquor by it, so that both are put right together. */
    liquorEntryId: uuid('liquor_entry_id'),
    note: text('note').notNull().default(''),
    at: instant('at').notNull(),
    recordedAt: instant('recorded_at'),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
    /** Who brought it in from a file, in the name of whoever it says did it; `null` where it was written here. */
    broughtById: uuid('brought_by_id').references(() => people.id),
  },
  (t) => [
    index('movements_stock_lot').on(t.stockLotId, t.at, t.seq),
    // Read on from where somebody was: by the mirror of the ledger, and piece by piece into a studio file.
    uniqueIndex('movements_seq').on(t.seq),
    // Most movements have none of these: indexes of those that do keep long imports quick.
    index('movements_lot')
      .on(t.lotId)
      .where(sql`${t.lotId} IS NOT NULL`),
    index('movements_conversion')
      .on(t.conversionId)
      .where(sql`${t.conversionId} IS NOT NULL`),
    index('movements_liquor_entry')
      .on(t.liquorEntryId)
      .where(sql`${t.liquorEntryId} IS NOT NULL`),
    uniqueIndex('movements_reverses_id_unique')
      .on(t.reversesId)
      .where(sql`${t.reversesId} IS NOT NULL`),
  ],
);

/** Append-only: who gathered what went into a jar, and how long it took; the movement beside it says how much. */
export const pickings = pgTable(
  'pickings',
  {
    seq: seq(),
    id: uuid('id').primaryKey(),
    stockLotId: uuid('stock_lot_id')
      .notNull()
      .references(() => stockLots.id),
    movementId: uuid('movement_id')
      .notNull()
      .unique()
      .references(() => movements.id),
    pickers: jsonb('pickers').$type<string[]>().notNull(),
    minutesEach: integer('minutes_each'),
    portions: integer('portions').notNull(),
    tareMg: amount('tare_mg').notNull(),
    guessed: boolean('guessed').notNull(),
    pickedWith: text('picked_with').notNull(),
    note: text('note').notNull(),
    at: instant('at').notNull(),
    byId: uuid('by_id')
      .notNull()
      .references(() => people.id),
  },
  (t) => [index('pickings_stock_lot').on(t.stockLotId, t.seq)],
);

/** Append-only: a promise is positive, its release or use negative. */
export const reservations = pgTable(
  'reservations',
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
  (t) => [index('reservations_lot').on(t.lotId), index('reservations_stock_lot').on(t.stockLotId)],
);
