import { getTableColumns, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Db } from './database';

/** Sent in one statement at most: few enough rows that others are served between two, little enough text to be read in memory. */
const CHUNK_ROWS = 2000;
const CHUNK_CHARACTERS = 1_000_000;

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
  let done = 0;
  for (const chunk of chunksOf(rows)) {
    await between(done);
    await db.execute(
      sql`INSERT INTO ${table} (${names}) SELECT ${keys} FROM json_to_recordset(${`[${chunk.join(',')}]`}::json) AS r(${shape})`,
    );
    done += chunk.length;
  }
}

function* chunksOf(rows: readonly unknown[]): Generator<readonly string[]> {
  let [chunk, characters]: [string[], number] = [[], 0];
  for (const row of rows) {
    const text = JSON.stringify(row);
    if (chunk.length === CHUNK_ROWS || (chunk.length > 0 && characters + text.length > CHUNK_CHARACTERS)) {
      yield chunk;
      [chunk, characters] = [[], 0];
    }
    chunk.push(text);
    characters += text.length;
  }
  if (chunk.length > 0) yield chunk;
}
