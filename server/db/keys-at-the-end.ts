import { sql } from 'drizzle-orm';
import type { Db } from './database';

interface ForeignKey {
  readonly table: string;
  readonly name: string;
  readonly definition: string;
}

/**
 * Does the work with no foreign key in force, then puts all of them back: the database looks at all rows of a table at
 * once where it looked at each by itself, in half the time. For a whole studio that is brought in, in its transaction.
 */
export async function keysAtTheEnd(tx: Db, work: () => Promise<void>): Promise<void> {
  const { rows: keys } = await tx.execute<Record<keyof ForeignKey, string>>(sql`
    SELECT conrelid::regclass::text AS "table", quote_ident(conname) AS name, pg_get_constraintdef(oid) AS definition
    FROM pg_constraint WHERE contype = 'f' AND connamespace = 'public'::regnamespace ORDER BY conrelid, conname`);
  for (const [table, own] of byTable(keys))
    await tx.execute(sql.raw(`ALTER TABLE ${table} ${own.map((k) => `DROP CONSTRAINT ${k.name}`).join(', ')}`));
  await work();
  for (const [table, own] of byTable(keys))
    await tx.execute(
      sql.raw(`ALTER TABLE ${table} ${own.map((k) => `ADD CONSTRAINT ${k.name} ${k.definition}`).join(', ')}`),
    );
}

function byTable(keys: readonly ForeignKey[]): Map<string, ForeignKey[]> {
  const found = new Map<string, ForeignKey[]>();
  for (const key of keys) found.set(key.table, [...(found.get(key.table) ?? []), key]);
  return found;
}
