// Odd requests, one after another: what is refused has changed nothing. Looked at in PostgreSQL, which numbers what writes.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { demoDocument } from '../demo-document.mjs';
import { startPostgres } from '../postgres.mjs';
import { serve, temporaryFolder } from '../serve.mjs';
import { oddCaller } from './odd-caller';

export interface RefusedReport {
  refused: number;
  readonly changed: string[];
}

/** What may be written though somebody is refused: that they were, and where they are in. */
const OF_THE_DOOR = ['deeds', 'sessions'];

/** @returns what was counted; `undefined` where there is no PostgreSQL to look into */
export async function refused(requests: number, seed: number): Promise<RefusedReport | undefined> {
  const { folder, remove } = temporaryFolder('refused');
  const postgres = startPostgres(join(folder, 'pg'));
  if (!postgres) return undefined;
  writeFileSync(join(folder, 'demo.json'), demoDocument());
  const server = await serve(join(folder, 'data'), {
    DATABASE_URL: postgres.url,
    OPEN_DOCUMENT: join(folder, 'demo.json'),
  });
  const client = new pg.Client({ connectionString: postgres.url });
  const report: RefusedReport = { refused: 0, changed: [] };
  try {
    await client.connect();
    const { rows } = await client.query<{ name: string }>(
      "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public' ORDER BY 1",
    );
    const parts = rows
      .filter(({ name }) => !OF_THE_DOOR.includes(name))
      .map(({ name }) => `SELECT '${name}' AS t, count(*) AS n, max(xmin::text::bigint) AS x FROM "${name}"`);
    // How many rows each table has, and by which transaction the newest was written.
    const stamp = async (): Promise<string> => JSON.stringify((await client.query(parts.join(' UNION ALL '))).rows);
    const ask = await oddCaller(server.base, seed);
    let before = await stamp();
    for (let n = 1; n <= requests; n += 1) {
      const { said, status, isReading } = await ask(n);
      if (isReading) continue;
      const after = await stamp();
      if (status !== undefined && status >= 400) {
        report.refused += 1;
        if (after !== before) report.changed.push(`${said} gave ${status} and changed something`);
      }
      before = after;
    }
    return report;
  } finally {
    await client.end();
    await server.stop();
    postgres.stop();
    remove();
  }
}
