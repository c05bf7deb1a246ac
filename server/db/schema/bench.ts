import type { TagKind } from '@vestigia/core';
import { boolean, date, index, integer, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { instant, amount, bytes, seq } from './columns';
import { people } from './people';
import { stockLots } from './materials';
import { lots } from './lots';

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
    caution: text('caution').notNull(),
  },
  (t) => [unique('caution_once_a_day').on(t.personId, t.on, t.caution)],
);

/**
 * Append-only: what a bath probe read during a step, packed: pairs of epoch ms (64 bit) and °C (32 bit), little end
 * first.
 */
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
    stockLotId: uuid('stock_lot_id').references(() => stockLots.id),
    vesselId: uuid('vessel_id'),
    lotId: uuid('lot_id').references(() => lots.id),
    number: integer('number'),
    stepIndex: integer('step_index'),
    at: instant('at').notNull(),
  },
  (t) => [unique('tag_once').on(t.kind, t.stockLotId, t.vesselId, t.lotId, t.number, t.stepIndex).nullsNotDistinct()],
);
