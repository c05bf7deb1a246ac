import type { SessionData } from 'express-session';
import { Store } from 'express-session';
import { eq, lt } from 'drizzle-orm';
import type { Database } from '../db/database';
import { sessions } from '../db/schema';

/** How long a tablet on the studio's wall stays signed in. */
export const SESSION_DAYS = 14;

type Callback = (error?: unknown, session?: SessionData | null) => void;

/** Sessions in the database, so that they outlive a restart. No `touch`: looking at pages writes nothing. */
export class SessionStore extends Store {
  constructor(private readonly database: Database, private readonly clock: () => Date) {
    super();
  }

  override get(sid: string, callback: Callback): void {
    void answer(callback, async () => {
      const [row] = await this.database.db.select().from(sessions).where(eq(sessions.sid, sid));
      if (!row || Date.parse(row.expiresAt) <= this.clock().getTime()) return null;
      return row.data as unknown as SessionData;
    });
  }

  override set(sid: string, session: SessionData, callback: Callback): void {
    void answer(callback, async () => {
      const now = this.clock();
      const expiresAt = new Date(now.getTime() + SESSION_DAYS * 86_400_000).toISOString();
      const data = JSON.parse(JSON.stringify(session)) as Record<string, unknown>;
      await this.database.db.insert(sessions).values({ sid, data, expiresAt }).onConflictDoUpdate({ target: sessions.sid, set: { data, expiresAt } });
      await this.database.db.delete(sessions).where(lt(sessions.expiresAt, now.toISOString()));
      await this.database.flush();
      return undefined;
    });
  }

  override destroy(sid: string, callback: Callback): void {
    void answer(callback, async () => {
      await this.database.db.delete(sessions).where(eq(sessions.sid, sid));
      await this.database.flush();
      return undefined;
    });
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
