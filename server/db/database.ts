import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import type { Room } from './disk-room';
import type { KeptFiles } from './kept-files';
import type * as schema from './schema';

interface RowsOf<Row> {
  readonly rows: Row[];
}
/** What both drivers answer to a raw question: at least its rows. */
interface Rows extends PgQueryResultHKT {
  readonly type: RowsOf<this['row']>;
}

/** Speaks to PGlite and to a PostgreSQL server alike; a transaction is one too. */
export type Db = PgDatabase<Rows, typeof schema>;

/** Why nothing can be written just now, as a refusal says it. */
export interface WriteBar {
  readonly code: 'databaseAway' | 'diskFull';
  readonly detail: string;
}

export interface Database {
  readonly db: Db;
  /** `folder`: PGlite in the data folder. `server`: a PostgreSQL server. */
  readonly kind: 'folder' | 'server';
  /** Photographs and sheets. */
  readonly files: KeptFiles;
  /** What room the disk has. */
  room(): Promise<Room>;
  /** What keeps from writing just now, asked before each write: the disk is full, or the database is away. */
  barred(): Promise<WriteBar | undefined>;
  /** Asked after an error nobody expected: where the database ended by it, `broken` is told. */
  probe(): Promise<void>;
  /** Resolves once everything committed so far is on the disk. */
  flush(): Promise<void>;
  /** Clears away rows that were rewritten and counts what there is, after much was written at once. */
  tidy(): Promise<void>;
  /** Resolves with the reason where nothing that is said can be relied on any more: the process ends then. */
  readonly broken: Promise<Error>;
  close(): Promise<void>;
}
