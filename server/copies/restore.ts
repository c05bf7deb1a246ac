import { existsSync } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { basename, join } from 'node:path';
import type { OpenedDocument } from '@vestigia/contract';
import { hasStudio } from '../auth/auth-store';
import type { Config } from '../config';
import type { Database } from '../db/database';
import { lockFolder } from '../db/folder-lock';
import { openFolder } from '../db/open-database';
import { openServer } from '../db/open-server';
import { importDocument } from '../document/import-document';
import { readStudioFile } from '../document/read-studio-file';
import { Writer } from '../http/write';
import { contextOn } from '../shared/context';

/** What a restored studio was brought back from, and where what it replaced lies. */
export interface Restored {
  readonly codes: OpenedDocument['codes'];
  /** `null`: there was nothing to be replaced. */
  readonly replaced: string | null;
}

const KEPT = ['db', 'files'] as const;

/**
 * Brings a studio back from a copy. The copy is read before anything is touched; what it replaces is moved aside, never
 * thrown away, and moved back where the copy doesn’t open.
 * @throws {Refusal} in a plain sentence where the copy is no good
 * @throws {FolderHeldError} where the studio is open
 */
export async function restoreStudio(
  { dataDir, databaseUrl, migrationsDir }: Pick<Config, 'dataDir' | 'databaseUrl' | 'migrationsDir'>,
  path: string,
  now: Date,
): Promise<Restored> {
  const file = await readStudioFile(path);
  try {
    if (databaseUrl) {
      const database = await openServer(databaseUrl, dataDir, migrationsDir);
      try {
        if (await hasStudio(database.db))
          throw new Error('The database at DATABASE_URL holds a studio already. Make an empty database and name that.');
        return { codes: await bringIn(database, file, basename(path)), replaced: null };
      } finally {
        await database.close();
      }
    }
    const replaced = await moveAside(dataDir, now);
    try {
      const database = await openFolder(dataDir, migrationsDir, now);
      try {
        return { codes: await bringIn(database, file, basename(path)), replaced };
      } finally {
        await database.close();
      }
    } catch (error) {
      if (replaced) await moveBack(dataDir, replaced);
      throw error;
    }
  } finally {
    file.close();
  }
}

async function bringIn(
  database: Database,
  file: Awaited<ReturnType<typeof readStudioFile>>,
  openedFrom: string,
): Promise<OpenedDocument['codes']> {
  const context = contextOn(database);
  const writer = new Writer(context);
  await writer.start();
  return importDocument(context, writer, file, { openedFrom });
}

async function moveAside(dataDir: string, now: Date): Promise<string | null> {
  if (KEPT.every((name) => !existsSync(join(dataDir, name)))) return null;
  const { release } = lockFolder(dataDir, join(dataDir, 'held-by.json'), now);
  try {
    const aside = join(dataDir, `replaced-${now.toISOString().slice(0, 19).replaceAll(':', '-')}Z`);
    await mkdir(aside);
    for (const name of KEPT) if (existsSync(join(dataDir, name))) await rename(join(dataDir, name), join(aside, name));
    return aside;
  } finally {
    release();
  }
}

async function moveBack(dataDir: string, aside: string): Promise<void> {
  for (const name of KEPT) {
    await rm(join(dataDir, name), { recursive: true, force: true });
    if (existsSync(join(aside, name))) await rename(join(aside, name), join(dataDir, name));
  }
  await rm(aside, { recursive: true });
}
