import type { DeedChanges, DeedKind, DeedThing } from '@vestigia/contract';
import { index, jsonb, pgTable, text, uuid } from 'drizzle-orm/pg-core';
import { instant, seq } from './columns';
import { people } from './people';

/**
 * Append-only: who did what to things that can be changed, and who came in. Written by triggers for tables whose rows
 * change (migration 0037), so that no way into them is forgotten; what changes no row is added by who did it.
 */
export const deeds = pgTable(
  'deeds',
  {
    seq: seq(),
    id: uuid('id').primaryKey().defaultRandom(),
    at: instant('at').notNull(),
    /** `null`: at the door, or by the program itself. */
    byId: uuid('by_id').references(() => people.id),
    kind: text('kind').$type<DeedKind>().notNull(),
    thing: text('thing').$type<DeedThing>().notNull(),
    thingId: uuid('thing_id'),
    /** What it was called at that time. */
    name: text('name').notNull().default(''),
    /** From and to, by field. */
    changes: jsonb('changes').$type<DeedChanges>().notNull().default({}),
    note: text('note').notNull().default(''),
  },
  (t) => [index('deeds_thing').on(t.thingId), index('deeds_seq').on(t.seq)],
);
