import { getTableColumns, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Db } from './database';

/** Rows sent in one statement: few enough that others are served between two. */
const CHUNK = 2000;

/**
 * Inserts many rows as JSON, a chunk to a statement: several times as quick as a parameter for each field.
 * Every row must have the same keys; a key left out takes the column's default.
 * @param between runs before each chunk with the number already in; throws to stop
 */
export async function insertRows<T extends PgTable>(
  db: Db,
  table: T,
  rows: readonly T['$inferInsert'][],
  between: (done: number) => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  const first = rows[0];
  if (!first) return;
  const columns = Object.entries(getTableColumns(table)).filter(([key]) => key in first);
  const names = sql.join(
    columns.map(([, c]) => sql.identifier(c.name)),
    sql`, `,
  );
  const keys = sql.join(
    columns.map(([key]) => sql`r.${sql.identifier(key)}`),
    sql`, `,
  );
  const shape = sql.join(
    columns.map(([key, c]) => sql`${sql.identifier(key)} ${sql.raw(c.getSQLType().replace('bigserial', 'bigint'))}`),
    sql`, `,
  );
  for (let i = 0; i < rows.length; i += CHUNK) {
    await between(i);
    await db.execute(
      sql`INSERT INTO ${table} (${names}) SELECT ${keys} FROM json_to_recordset(${JSON.stringify(rows.slice(i, i + CHUNK))}::json) AS r(${shape})`,
    );
  }
}
