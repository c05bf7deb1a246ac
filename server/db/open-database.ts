import { hostname } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { drizzle as drizzleServer } from 'drizzle-orm/node-postgres';
import { migrate as migrateServer } from 'drizzle-orm/node-postgres/migrator';
import { drizzle as drizzleFolder } from 'drizzle-orm/pglite';
import { migrate as migrateFolder } from 'drizzle-orm/pglite/migrator';
import pg from 'pg';
import type { Database } from './database';
import { copyBeforeUpgrade } from './copy-before-upgrade';
import type { Sync } from './disk-flush';
import { DiskFlush, syncToDisk } from './disk-flush';
import { FIRST_FILE, lockFolder } from './folder-lock';
import { damagedDatabase, lookAtFolder } from './folder-state';
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

/** How a folder is opened, where not as usual. */
export interface OpenHow {
  readonly sync?: Sync;
  /** Before a newer schema the database is copied beside itself. */
  readonly isCopiedFirst?: boolean;
}

/** Thrown where what was committed could not be put on the disk: nothing that is said after that can be relied on. */
export class FlushFailedError extends Error {
  constructor(folder: string, cause: unknown) {
    super(
      `What was written could not be put on the disk of ${folder}: ${cause instanceof Error ? cause.message : String(cause)}. ` +
        'The program ends so that nothing is promised that isn’t kept. Look at the disk and its room, then start again.',
      { cause },
    );
    this.name = 'FlushFailedError';
  }
}

/** Nobody vacuums behind PGlite's back: balances rewritten thousands of times would slow every reading of the shelf. */
const WRITES_BETWEEN_TIDYING = 2000;

async function tidy(client: PGlite): Promise<void> {
  await client.exec('VACUUM ANALYZE');
}

/**
 * Opens PGlite in the data folder, held for this process alone, and brings it to the newest schema.
 * @throws {FolderHeldError} when another process has the folder
 * @throws {FolderUnusableError} where it can’t be written in, or is damaged; nothing is written over it
 */
export async function openFolder(
  dataDir: string,
  migrationsFolder: string,
  now: Date,
  { sync = syncToDisk, isCopiedFirst = true }: OpenHow = {},
): Promise<Database> {
  const folder = join(dataDir, 'db');
  const { isFresh } = lookAtFolder(dataDir);
  const lock = lockFolder(dataDir, join(dataDir, 'held-by.json'), now);
  try {
    const client = await PGlite.create(folder).catch((error: unknown) => {
      throw damagedDatabase(dataDir, error);
    });
    if (isFresh) lock.hold(join(dataDir, FIRST_FILE));
    const db = drizzleFolder({ client, schema });
    const disk = new DiskFlush(folder, sync);
    const files = new KeptFiles(join(dataDir, 'files'));
    if (!isFresh && isCopiedFirst) await copyBeforeUpgrade(client, dataDir, migrationsFolder, now);
    await writeOutAttachments(db, files);
    await migrateFolder(db, { migrationsFolder });
    if (isFresh) await client.exec('CHECKPOINT');
    await disk.flush();
    let untidied = 0;
    let tellBroken: (error: Error) => void = () => undefined;
    const broken = new Promise<Error>((resolve) => (tellBroken = resolve));
    const close = async (): Promise<void> => {
      await tidy(client);
      await client.exec('CHECKPOINT');
      await client.close();
      await disk.flush();
      lock.release();
    };
    const flush = async (): Promise<void> => {
      untidied += 1;
      if (untidied >= WRITES_BETWEEN_TIDYING) {
        untidied = 0;
        await tidy(client);
      }
      try {
        await disk.flush();
      } catch (error) {
        const failed = new FlushFailedError(folder, error);
        tellBroken(failed);
        throw failed;
      }
    };
    return { db, kind: 'folder', files, broken, flush, tidy: () => tidy(client), close };
  } catch (error) {
    lock.release();
    throw error;
  }
}

/**
 * Opens a PostgreSQL server's database with the same schema and migrations. @param dataDir where photographs and sheets lie
 * @throws {DatabaseHeldError} when another Vestigia serves it
 */
export async function openServer(databaseUrl: string, dataDir: string, migrationsFolder: string): Promise<Database> {
  const applicationName = `vestigia, process ${process.pid} on ${hostname()}`;
  const keeper = new pg.Client({ connectionString: databaseUrl, application_name: applicationName });
  await keeper.connect();
  const { rows } = await keeper.query<{ held: boolean }>('SELECT pg_try_advisory_lock($1) AS held', [SERVER_LOCK]);
  if (!rows[0]?.held) {
    const holder = await keeper.query<{ application_name: string }>(
      "SELECT a.application_name FROM pg_locks l JOIN pg_stat_activity a USING (pid) WHERE l.locktype = 'advisory' AND l.objid = $1 AND l.granted",
      [SERVER_LOCK],
    );
    await keeper.end();
    throw new DatabaseHeldError(holder.rows[0]?.application_name);
  }
  const pool = new pg.Pool({ connectionString: databaseUrl, application_name: applicationName, max: 8 });
  // A connection the database ends is made anew when it is wanted next; whoever asked on it just then is refused. It
  // must not end this process.
  pool.on('error', () => undefined);
  pool.on('connect', (client) => client.on('error', () => undefined));
  const db = drizzleServer({ client: pool, schema });
  const close = async (): Promise<void> => {
    await pool.end();
    await keeper.end();
  };
  const files = new KeptFiles(join(dataDir, 'files'));
  try {
    await writeOutAttachments(db, files);
    await migrateServer(db, { migrationsFolder });
  } catch (error) {
    await close();
    throw error;
  }
  return {
    db,
    kind: 'server',
    files,
    broken: new Promise(() => undefined),
    flush: () => Promise.resolve(),
    tidy: () => pool.query('ANALYZE').then(() => undefined),
    close,
  };
}
