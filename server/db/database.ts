import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import type * as schema from './schema';

/** Speaks to PGlite and to a PostgreSQL server alike; a transaction is one too. */
export type Db = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface Database {
  readonly db: Db;
  /** `folder`: PGlite in the data folder. `server`: a PostgreSQL server. */
  readonly kind: 'folder' | 'server';
  /** Resolves once everything committed so far is on the disk. */
  flush(): Promise<void>;
  /** Clears away rows that were rewritten and counts what there is, after much was written at once. */
  tidy(): Promise<void>;
  close(): Promise<void>;
}
