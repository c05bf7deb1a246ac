import { createHash } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import type { KeptFile } from '../db/kept-files';
import { KeptFiles } from '../db/kept-files';
import { openInMemory } from '../db/open-in-memory';
import { beginExport, documentText } from '../document/export-document';
import { importDocument } from '../document/import-document';
import { readStudioFile } from '../document/read-studio-file';
import { Writer } from '../http/write';
import { contextOn } from '../shared/context';

/** What a copy holds, found by opening it. */
export interface CheckedCopy {
  /** SHA-256 of the document that the copy gives when it is opened and written out again. */
  readonly document: string;
  /** MD5 of what every jar holds and has promised. */
  readonly balances: string;
  readonly rows: number;
  readonly files: number;
}

/** Looks whether a photograph is what its name says, and writes nothing. */
class LookedAt extends KeptFiles {
  override keep(content: Uint8Array): Promise<KeptFile> {
    return Promise.resolve({ sha256: createHash('sha256').update(content).digest('hex'), bytes: content.length });
  }
}

/** What every jar holds and has promised, as one figure: the same in a studio and in a true copy of it. */
export async function digestBalances(db: Db): Promise<string> {
  const { rows } = await db.execute<{ digest: string | null }>(sql`
    SELECT md5(string_agg(stock_lot_id || ':' || on_hand || ':' || reserved, ',' ORDER BY stock_lot_id)) AS digest
    FROM stock_balances`);
  return rows[0]?.digest ?? '';
}

/**
 * Opens a copy in a database of its own, in memory, and writes out what is in it: a copy counts when that is what was
 * to be copied, byte for byte, with every photograph there and every jar holding the same.
 * @throws {Refusal} where it doesn’t open
 */
export async function checkCopy(path: string, migrationsFolder: string): Promise<CheckedCopy> {
  const file = await readStudioFile(path);
  const database = await openInMemory(migrationsFolder, new LookedAt(join(tmpdir(), 'nothing-is-written-here')));
  try {
    const { db } = database;
    const asOf = new Date(file.document.asOf);
    const context = contextOn(database, () => asOf);
    const writer = new Writer(context);
    await writer.start();
    await importDocument(context, writer, file);
    const exported = await beginExport(db, asOf);
    const hash = createHash('sha256');
    for await (const text of documentText(exported)) hash.update(text);
    return {
      document: hash.digest('hex'),
      balances: await digestBalances(db),
      rows: (await Promise.all(exported.lists.map((list) => list.rows()))).reduce((sum, rows) => sum + rows, 0),
      files: exported.files.length,
    };
  } finally {
    await database.close();
    file.close();
  }
}
