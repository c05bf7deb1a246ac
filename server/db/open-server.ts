import { hostname } from 'node:os';
import { join } from 'node:path';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import pg from 'pg';
import type { Database, WriteBar } from './database';
import { roomOf, sayFull } from './disk-room';
import { KeptFiles } from './kept-files';
import { SERVER_LOCK } from './locks';
import * as schema from './schema';
import { writeOutAttachments } from './write-out-attachments';

/** Thrown when another Vestigia serves this PostgreSQL database. */
export class DatabaseHeldError extends Error {
  constructor(holder: string | undefined) {
    super(`The database at DATABASE_URL is served already, by ${holder ?? 'another process'}. Stop that one first.`);
    this.name = 'DatabaseHeldError';
  }
}

const AGAIN_AFTER_MS = 500;
const LONGEST_MS = 10_000;
const AWAY: WriteBar = {
  code: 'databaseAway',
  detail:
    'The database is away just now. Nothing was changed; it is asked again by itself every few seconds. Do it again when it is back.',
};

/**
 * The lock by which this process alone serves the database, on a connection of its own. PostgreSQL may be restarted
 * under it: it is taken anew as soon as that is back, and until then nothing is written, for another Vestigia could
 * have come first.
 */
class Keeper {
  private client: pg.Client | undefined;
  private closed = false;
  private tellTaken: (error: Error) => void = () => undefined;
  /** Resolves where another process has the database when it is back. */
  readonly taken = new Promise<Error>((resolve) => (this.tellTaken = resolve));

  constructor(
    private readonly connectionString: string,
    private readonly applicationName: string,
  ) {}

  get holds(): boolean {
    return this.client !== undefined;
  }

  /** @throws {DatabaseHeldError} when another process has it */
  async hold(): Promise<void> {
    const client = new pg.Client({ connectionString: this.connectionString, application_name: this.applicationName });
    client.on('error', () => undefined);
    await client.connect();
    const { rows } = await client.query<{ held: boolean }>('SELECT pg_try_advisory_lock($1) AS held', [SERVER_LOCK]);
    if (!rows[0]?.held) {
      const holder = await client.query<{ application_name: string }>(
        // PostgreSQL lists the locks of all its databases; another studio's is held under the same number.
        "SELECT a.application_name FROM pg_locks l JOIN pg_stat_activity a USING (pid) WHERE l.locktype = 'advisory' AND l.objid = $1 AND l.granted AND a.datname = current_database()",
        [SERVER_LOCK],
      );
      await client.end();
      throw new DatabaseHeldError(holder.rows[0]?.application_name);
    }
    client.once('end', () => {
      this.client = undefined;
      if (!this.closed) void this.holdAgain(AGAIN_AFTER_MS);
    });
    this.client = client;
  }

  async close(): Promise<void> {
    this.closed = true;
    await this.client?.end();
  }

  private async holdAgain(afterMs: number): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve, afterMs));
    if (this.closed) return;
    try {
      await this.hold();
      // Closed meanwhile: what was just taken is let go of.
      if (this.closed) await this.close();
    } catch (error) {
      if (error instanceof DatabaseHeldError) this.tellTaken(error);
      else void this.holdAgain(Math.min(afterMs * 2, LONGEST_MS));
    }
  }
}

/**
 * Opens a PostgreSQL server's database with the same schema and migrations. @param dataDir where photographs and sheets lie
 * @throws {DatabaseHeldError} when another Vestigia serves it
 */
export async function openServer(databaseUrl: string, dataDir: string, migrationsFolder: string): Promise<Database> {
  const applicationName = `vestigia, process ${process.pid} on ${hostname()}`;
  const keeper = new Keeper(databaseUrl, applicationName);
  await keeper.hold();
  const pool = new pg.Pool({ connectionString: databaseUrl, application_name: applicationName, max: 8 });
  // A connection the database ends is made anew when it is wanted next; whoever asked on it just then is refused. It
  // must not end this process.
  pool.on('error', () => undefined);
  pool.on('connect', (client) => client.on('error', () => undefined));
  const db = drizzle({ client: pool, schema });
  const close = async (): Promise<void> => {
    await pool.end();
    await keeper.close();
  };
  const files = new KeptFiles(join(dataDir, 'files'));
  try {
    await writeOutAttachments(db, files);
    await migrate(db, { migrationsFolder });
  } catch (error) {
    await close();
    throw error;
  }
  const room = () => roomOf(dataDir);
  return {
    db,
    kind: 'server',
    files,
    broken: keeper.taken,
    room,
    barred: async () => {
      if (!keeper.holds) return AWAY;
      const full = sayFull(await room());
      return full === undefined ? undefined : { code: 'diskFull', detail: full };
    },
    flush: () => Promise.resolve(),
    probe: () => Promise.resolve(),
    tidy: () => pool.query('ANALYZE').then(() => undefined),
    close,
  };
}
