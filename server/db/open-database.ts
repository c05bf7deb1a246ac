import { join } from 'node:path';
import { setImmediate } from 'node:timers/promises';
import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import type { Database } from './database';
import { copyBeforeUpgrade } from './copy-before-upgrade';
import type { Sync } from './disk-flush';
import type { FreeBytes } from './disk-room';
import { roomOf, sayFull } from './disk-room';
import { DiskFlush, syncToDisk } from './disk-flush';
import { FIRST_FILE, lockFolder } from './folder-lock';
import { damagedDatabase, lookAtFolder } from './folder-state';
import { KeptFiles } from './kept-files';
import * as schema from './schema';
import { writeOutAttachments } from './write-out-attachments';

/** How a folder is opened, where not as usual. */
export interface OpenHow {
  readonly sync?: Sync;
  /** Before a newer schema the database is copied beside itself. */
  readonly isCopiedFirst?: boolean;
  readonly freeBytes?: FreeBytes;
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

/** Thrown where there is no room to open a folder in; the message says how much is wanted. */
export class NoRoomError extends Error {}

/** Thrown where the database itself ended: a write to its log failed, most often for want of room. */
export class DatabaseEndedError extends Error {
  constructor(folder: string, reason: string) {
    super(
      `The database in ${folder} ended by itself: ${reason}. What was acknowledged is on the disk; what was being written is not. ` +
        'The program ends. Look at the disk and its room, then start again.',
    );
    this.name = 'DatabaseEndedError';
  }
}

const ANSWERS_WITHIN_MS = 20_000;

/** A database that met with an error goes on; one that ended throws at the simplest question, or says nothing more. */
async function whyItDoesNotAnswer(client: PGlite): Promise<string | undefined> {
  let patience: NodeJS.Timeout | undefined;
  const silent = new Promise<string>((resolve) => {
    patience = setTimeout(() => resolve('it does not answer any more'), ANSWERS_WITHIN_MS);
  });
  const answer = client.query('SELECT 1').then(
    () => undefined,
    (error: unknown) => (error instanceof Error ? error.message : String(error)),
  );
  try {
    return await Promise.race([answer, silent]);
  } finally {
    clearTimeout(patience);
  }
}

/** Nobody vacuums behind PGlite's back: balances rewritten thousands of times would slow every reading of the shelf. */
const WRITES_BETWEEN_TIDYING = 2000;

/** A table at a time, others served between. */
async function tidy(client: PGlite): Promise<void> {
  const { rows } = await client.query<{ name: string }>(
    "SELECT quote_ident(tablename) AS name FROM pg_tables WHERE schemaname = 'public'",
  );
  for (const { name } of rows) {
    await client.exec(`VACUUM ANALYZE ${name}`);
    await setImmediate();
  }
}

/**
 * Opens PGlite in the data folder, held for this process alone, and brings it to the newest schema.
 * @throws {FolderHeldError} when another process has the folder
 * @throws {NoRoomError} where the disk is full
 * @throws {FolderUnusableError} where it can’t be written in, or is damaged; nothing is written over it
 */
export async function openFolder(
  dataDir: string,
  migrationsFolder: string,
  now: Date,
  { sync = syncToDisk, isCopiedFirst = true, freeBytes }: OpenHow = {},
): Promise<Database> {
  const folder = join(dataDir, 'db');
  const { isFresh } = lookAtFolder(dataDir);
  const full = sayFull(await roomOf(dataDir, freeBytes));
  if (full !== undefined) throw new NoRoomError(full);
  const lock = lockFolder(dataDir, join(dataDir, 'held-by.json'), now);
  try {
    const client = await PGlite.create(folder).catch((error: unknown) => {
      throw damagedDatabase(dataDir, error);
    });
    if (isFresh) lock.hold(join(dataDir, FIRST_FILE));
    const db = drizzle({ client, schema });
    const disk = new DiskFlush(folder, sync);
    const files = new KeptFiles(join(dataDir, 'files'));
    if (!isFresh && isCopiedFirst) await copyBeforeUpgrade(client, dataDir, migrationsFolder, now);
    await writeOutAttachments(db, files);
    await migrate(db, { migrationsFolder });
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
    const room = () => roomOf(dataDir, freeBytes);
    return {
      db,
      kind: 'folder',
      files,
      broken,
      room,
      barred: async () => {
        const full = sayFull(await room());
        return full === undefined ? undefined : { code: 'diskFull', detail: full };
      },
      flush,
      probe: async () => {
        const reason = await whyItDoesNotAnswer(client);
        if (reason !== undefined) tellBroken(new DatabaseEndedError(folder, reason));
      },
      tidy: () => tidy(client),
      close,
    };
  } catch (error) {
    lock.release();
    throw error;
  }
}
