import { sql } from 'drizzle-orm';
import type { Db } from './database';
import type { KeptFiles } from './kept-files';

/**
 * Earlier versions kept photographs and sheets in rows. Before the schema lets go of them each is written out as a file;
 * what a break left half done is done again.
 */
export async function writeOutAttachments(db: Db, files: KeptFiles): Promise<void> {
  const held = await db.execute<{ held: boolean }>(sql`SELECT EXISTS (SELECT FROM information_schema.columns
    WHERE table_schema = 'public' AND table_name = 'attachments' AND column_name = 'content') AS held`);
  if (!held.rows[0]?.held) return;
  const { rows } = await db.execute<{ id: string }>(sql`SELECT id FROM attachments ORDER BY seq`);
  for (const { id } of rows) {
    const [row] = (
      await db.execute<{ packed: string }>(
        sql`SELECT encode(content, 'base64') AS packed FROM attachments WHERE id = ${id}`,
      )
    ).rows;
    if (row) await files.keep(Buffer.from(row.packed, 'base64'));
  }
}
