import { createHash } from 'node:crypto';
import { and, eq, sql } from 'drizzle-orm';
import type { Context } from '../shared/context';
import type { Db } from '../db/database';
import { WRITE_LOCK } from '../db/locks';
import { idempotencyKeys } from '../db/schema';
import { Refusal, refusalFromDatabase } from '../shared/problem';

/** The clock may be this much behind the last record before writing stops: two tablets never agree to the second. */
const CLOCK_SLACK_MS = 2 * 60_000;
export interface Write<R> {
  readonly call: string;
  /** The caller's own id for this write, where it has one. */
  readonly key: string | undefined;
  readonly body: unknown;
  /** Who does it; left out at the door and where the program itself does. */
  readonly byId?: string;
  readonly run: (tx: Db, now: Date) => Promise<R>;
}

/** Writes, one after another; a reply is given only when what it tells is on the disk. */
export class Writer {
  private lastMs = 0;

  constructor(private readonly context: Context) {}

  /** When something was recorded last, ms; `null`: nothing ever was. */
  get newestRecordMs(): number | null {
    return this.lastMs === 0 ? null : this.lastMs;
  }

  /** Reads when the newest record was made, so that a clock set back is noticed after a restart too. */
  async start(): Promise<void> {
    const { rows } = await this.context.database.db.execute<{ last: string | null }>(sql`
      -- A day in a table that was brought in stands for its noon, which may be still to come.
      SELECT max(at)::text AS last FROM (
        SELECT max(coalesce(recorded_at, at)) AS at FROM movements WHERE brought_by_id IS NULL UNION ALL SELECT max(at) FROM reservations
          UNION ALL SELECT max(recorded_at) FROM run_entries
        UNION ALL SELECT max(at) FROM readings UNION ALL SELECT max(at) FROM eye_readings UNION ALL SELECT max(at) FROM verdicts
        UNION ALL SELECT max(at) FROM verdict_take_backs UNION ALL SELECT max(at) FROM lots UNION ALL SELECT max(at) FROM idempotency_keys) AS times`);
    const last = rows[0]?.last;
    if (last) this.lastMs = Date.parse(last);
  }

  /**
   * Runs a write in one transaction, once: the same key with the same body gets the first reply again, with another
   * body it is refused.
   */
  async write<R>({ call, key, body, byId = '', run }: Write<R>): Promise<R> {
    const { database, clock } = this.context;
    const bar = await database.barred();
    if (bar) throw new Refusal(bar.code, bar.detail);
    const now = this.checkedNow(clock());
    const storedKey = key === undefined ? undefined : `${call}:${key}`;
    const bodyHash = createHash('sha256').update(JSON.stringify(body)).digest('hex');
    let reply: R;
    try {
      reply = await database.db.transaction(async (tx) => {
        await tx.execute(
          sql`SELECT pg_advisory_xact_lock(${WRITE_LOCK}), set_config('vestigia.person', ${byId}, true), set_config('vestigia.now', ${now.toISOString()}, true)`,
        );
        if (storedKey !== undefined) {
          const before = await earlierReply(tx, storedKey, bodyHash);
          if (before) return before.reply as R;
        }
        const created = await run(tx, now);
        if (storedKey !== undefined)
          await tx
            .insert(idempotencyKeys)
            .values({ key: storedKey, bodyHash, status: 200, reply: created, at: now.toISOString() });
        return created;
      });
    } catch (error) {
      throw refusalFromDatabase(error);
    }
    this.lastMs = Math.max(this.lastMs, now.getTime());
    await database.flush();
    return reply;
  }

  private checkedNow(now: Date): Date {
    if (now.getTime() >= this.lastMs - CLOCK_SLACK_MS) return now;
    throw new Refusal(
      'clockBehind',
      $localize`This computer’s clock says ${sayTime(now)}, but something was recorded here at ${sayTime(new Date(this.lastMs))}. Set the clock right, then do it again. Nothing was changed.`,
    );
  }
}

const sayTime = (at: Date): string => `${at.toISOString().slice(0, 16).replace('T', ' ')} UTC`;

async function earlierReply(tx: Db, key: string, bodyHash: string): Promise<{ reply: unknown } | undefined> {
  const [row] = await tx
    .select()
    .from(idempotencyKeys)
    .where(and(eq(idempotencyKeys.key, key)));
  if (!row) return undefined;
  if (row.bodyHash !== bodyHash)
    throw new Refusal(
      'idReused',
      $localize`That id was used for something else already. Reload the page and try again.`,
    );
  return { reply: row.reply };
}
