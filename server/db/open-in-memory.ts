import { PGlite } from '@electric-sql/pglite';
import { drizzle } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import type { Database } from './database';
import type { KeptFiles } from './kept-files';
import * as schema from './schema';

/** A database of its own that nothing is kept of: what is brought in is looked at and let go. */
export async function openInMemory(migrationsFolder: string, files: KeptFiles): Promise<Database> {
  const client = await PGlite.create();
  const db = drizzle({ client, schema });
  await migrate(db, { migrationsFolder });
  const nothing = (): Promise<void> => Promise.resolve();
  return {
    db,
    kind: 'folder',
    files,
    broken: new Promise(() => undefined),
    room: () => Promise.resolve({ folder: '', freeBytes: null, state: 'enough' }),
    barred: () => Promise.resolve(undefined),
    probe: nothing,
    flush: nothing,
    tidy: nothing,
    close: () => client.close(),
  };
}
