import type { SessionData } from 'express-session';
import { Store } from 'express-session';
import type { Person } from '@vestigia/contract';
import { and, desc, eq, gt, lt, ne, sql } from 'drizzle-orm';
import { v5 } from 'uuid';
import type { Context } from '../shared/context';
import { sessions } from '../db/schema';

/** How long a tablet on the studio's wall stays signed in. */
export const SESSION_DAYS = 14;

const MAX_REMEMBERED = 500;

export interface LivingSession {
  readonly sid: string;
  readonly id: string;
  readonly data: SessionData & { readonly person: Person };
  readonly expiresAt: string;
}

/** What a session is called where it is told of: whoever knows it can’t come in by it. */
export const publicId = (sid: string): string => v5(sid, v5.URL);

type Callback = (error?: unknown, session?: SessionData | null) => void;

interface Kept {
  readonly data: SessionData;
  readonly expiresAt: string;
}

/**
 * Sessions in the database, so that they outlive a restart. No `touch`: looking at pages writes nothing.
 * What was read once is remembered: this process alone holds the database, so nobody else changes it.
 */
export class SessionStore extends Store {
  private readonly remembered = new Map<string, Kept>();

  constructor(private readonly context: Context) {
    super();
  }

  private get database(): Context['database'] {
    return this.context.database;
  }

  override get(sid: string, callback: Callback): void {
    void answer(callback, async () => {
      const kept = this.remembered.get(sid) ?? (await this.read(sid));
      if (!kept || Date.parse(kept.expiresAt) <= this.context.clock().getTime()) return null;
      return structuredClone(kept.data);
    });
  }

  override set(sid: string, session: SessionData, callback: Callback): void {
    void answer(callback, async () => {
      const now = this.context.clock();
      const expiresAt = new Date(now.getTime() + SESSION_DAYS * 86_400_000).toISOString();
      const data = JSON.parse(JSON.stringify(session)) as SessionData;
      await this.database.db
        .insert(sessions)
        .values({ sid, data, expiresAt })
        .onConflictDoUpdate({ target: sessions.sid, set: { data, expiresAt } });
      await this.database.db.delete(sessions).where(lt(sessions.expiresAt, now.toISOString()));
      await this.database.flush();
      this.remember(sid, { data: data, expiresAt });
      return undefined;
    });
  }

  override destroy(sid: string, callback: Callback): void {
    void answer(callback, async () => {
      await this.end(sid);
      return undefined;
    });
  }

  /** Ends wherever a person came in, but for one. @param but the one that stays */
  async endAllOf(personId: string, but: string): Promise<void> {
    const rows = await this.database.db
      .delete(sessions)
      .where(and(sql`${sessions.data} -> 'person' ->> 'id' = ${personId}`, ne(sessions.sid, but)))
      .returning({ sid: sessions.sid });
    await this.database.flush();
    for (const { sid } of rows) this.forget(sid);
  }

  /** Where people are in, the newest first; nothing by which anybody could come in as them. */
  async list(): Promise<readonly LivingSession[]> {
    const rows = await this.database.db
      .select()
      .from(sessions)
      .where(gt(sessions.expiresAt, this.context.clock().toISOString()))
      .orderBy(desc(sessions.expiresAt));
    return rows.flatMap(({ sid, data, expiresAt }) =>
      data.person ? [{ sid, id: publicId(sid), data: { ...data, person: data.person }, expiresAt }] : [],
    );
  }

  async end(sid: string): Promise<void> {
    await this.database.db.delete(sessions).where(eq(sessions.sid, sid));
    await this.database.flush();
    this.forget(sid);
  }

  private forget(sid: string): void {
    this.remembered.delete(sid);
    this.context.sessionEnds.emit(sid);
  }

  private async read(sid: string): Promise<Kept | undefined> {
    const [row] = await this.database.db.select().from(sessions).where(eq(sessions.sid, sid));
    if (!row) return undefined;
    const kept = { data: row.data, expiresAt: row.expiresAt };
    this.remember(sid, kept);
    return kept;
  }

  private remember(sid: string, kept: Kept): void {
    if (this.remembered.size >= MAX_REMEMBERED) this.remembered.clear();
    this.remembered.set(sid, kept);
  }
}

async function answer(callback: Callback, run: () => Promise<SessionData | null | undefined>): Promise<void> {
  try {
    const session = await run();
    callback(null, session);
  } catch (error) {
    callback(error);
  }
}
