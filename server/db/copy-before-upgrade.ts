import { cpSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { DiskFlush } from './disk-flush';

const NAMED = 'before-upgrade-';
/** The newest two are enough to go back to the program that was there before. */
const KEPT = 2;

/** How many migrations of this program the database hasn't had. */
async function pending(client: PGlite, migrationsFolder: string): Promise<number> {
  const { entries } = JSON.parse(readFileSync(join(migrationsFolder, 'meta', '_journal.json'), 'utf8')) as {
    readonly entries: readonly { readonly when: number }[];
  };
  // A program that was stopped in its first seconds leaves a database without anything in it.
  const begun = await client.query<{ is: boolean }>(
    `SELECT to_regclass('drizzle.__drizzle_migrations') IS NOT NULL AS is`,
  );
  if (!begun.rows[0]?.is) return 0;
  const { rows } = await client.query<{ last: string | null }>(
    'SELECT max(created_at)::text AS last FROM drizzle.__drizzle_migrations',
  );
  const last = Number(rows[0]?.last ?? 0);
  return entries.filter((e) => e.when > last).length;
}

const countRows = async (client: PGlite): Promise<string> => {
  const { rows } = await client.query<{ name: string }>(
    `SELECT quote_ident(table_name) AS name FROM information_schema.tables
     WHERE table_schema = 'public' AND table_type = 'BASE TABLE' ORDER BY table_name`,
  );
  const counts: string[] = [];
  for (const { name } of rows) {
    const [row] = (await client.query<{ n: number }>(`SELECT count(*)::int AS n FROM ${name}`)).rows;
    counts.push(`${name} ${row?.n}`);
  }
  return counts.join(', ');
};

/**
 * Before a newer program changes the schema, the database as it is goes into a folder beside it, is put on the disk and
 * opened once, so that the way back to the older program stays open.
 * @returns that folder; `null` where nothing is to be changed
 */
export async function copyBeforeUpgrade(
  client: PGlite,
  dataDir: string,
  migrationsFolder: string,
  now: Date,
): Promise<string | null> {
  if ((await pending(client, migrationsFolder)) === 0) return null;
  await client.exec('CHECKPOINT');
  const copy = join(dataDir, `${NAMED}${now.toISOString().slice(0, 19).replaceAll(':', '-')}Z`);
  rmSync(copy, { recursive: true, force: true });
  cpSync(join(dataDir, 'db'), join(copy, 'db'), { recursive: true });
  const opened = await PGlite.create(join(copy, 'db'));
  try {
    const [was, is] = [await countRows(client), await countRows(opened)];
    if (was !== is) throw new Error(`The copy before the upgrade holds something else than the studio: ${copy}`);
  } finally {
    await opened.close();
  }
  await new DiskFlush(join(copy, 'db')).flush();
  const older = readdirSync(dataDir)
    .filter((name) => name.startsWith(NAMED))
    .sort()
    .slice(0, -KEPT);
  for (const name of older) rmSync(join(dataDir, name), { recursive: true });
  return copy;
}
