import type { DeedChanges, DeedKind, DeedThing } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { deeds } from '../db/schema';

export interface NewDeed {
  readonly now: Date;
  /** `null`: at the door, or by the program itself. */
  readonly byId: string | null;
  readonly kind: DeedKind;
  readonly thing: DeedThing;
  readonly thingId?: string;
  readonly name?: string;
  readonly changes?: DeedChanges;
  readonly note?: string;
}

/** Tells what no row of a thing tells by itself: who came in, what was brought or taken as a file. */
export async function noteDeed(db: Db, { now, ...deed }: NewDeed): Promise<void> {
  await db.insert(deeds).values({ ...deed, at: now.toISOString() });
}

/** For the rest of this transaction rows are not told one by one: a file is brought in, and one deed says so. */
export async function tellNoRows(tx: Db): Promise<void> {
  await tx.execute(sql`SELECT set_config('vestigia.deeds', 'off', true)`);
}
