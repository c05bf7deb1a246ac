// A studio brought back from its own copy, generation after generation: what is exported stays the same, byte for byte.
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import type { StudioDocument } from '@vestigia/contract';
import { digestBalances } from '../../server/copies/check-copy';
import { restoreStudio } from '../../server/copies/restore';
import { openFolder } from '../../server/db/open-database';
import { beginExport, documentText } from '../../server/document/export-document';
import { writeStudioFile } from '../../server/document/write-studio-file';
import { contextOn } from '../../server/shared/context';
import { serveDemo } from '../serve.mjs';

export interface RestoreReport {
  restores: number;
  different: number;
  readonly said: string[];
}

const MIGRATIONS = join(import.meta.dirname, '..', '..', 'server', 'db', 'migrations');
/** The smallest photograph. */
const ONE_PIXEL = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

export async function restores(times: number, heard: (done: number) => void = () => undefined): Promise<RestoreReport> {
  const report: RestoreReport = { restores: 0, different: 0, said: [] };
  const demo = await serveDemo();
  const folder = join(demo.dataDir, '..');
  await attachPhotograph(demo.base);
  await demo.stop();
  const now = new Date();
  try {
    let file = join(folder, 'generation-0.zip');
    let before = await tell(demo.dataDir, now, file);
    for (let n = 1; n <= times; n += 1) {
      const dataDir = join(folder, `generation-${n}`);
      await restoreStudio({ dataDir, migrationsDir: MIGRATIONS, databaseUrl: undefined }, file, now);
      await rm(file);
      file = join(folder, `generation-${n}.zip`);
      const after = await tell(dataDir, now, file);
      report.restores += 1;
      if (after.document !== before.document || after.balances !== before.balances || after.files !== before.files) {
        report.different += 1;
        report.said.push(`generation ${n} isn’t what generation ${n - 1} was`);
      }
      before = after;
      await rm(dataDir, { recursive: true });
      heard(n);
    }
    return report;
  } finally {
    demo.remove();
  }
}

/** What a studio tells of itself, and its studio file for the next. */
async function tell(
  dataDir: string,
  now: Date,
  file: string,
): Promise<{ document: string; balances: string; files: string }> {
  const database = await openFolder(dataDir, MIGRATIONS, now, { isCopiedFirst: false });
  try {
    const exported = await beginExport(database.db, now);
    let text = '';
    for await (const piece of documentText(exported)) text += piece;
    // That it was brought back is told in each generation anew.
    const { deeds: _deeds, ...document } = JSON.parse(text) as StudioDocument;
    await pipeline((await writeStudioFile(contextOn(database), now)).content, createWriteStream(file));
    return {
      document: JSON.stringify(document),
      balances: await digestBalances(database.db),
      files: JSON.stringify(exported.files),
    };
  } finally {
    await database.close();
  }
}

async function attachPhotograph(base: string): Promise<void> {
  const { people } = (await (await fetch(`${base}/api/auth`)).json()) as { people: { id: string; name: string }[] };
  const personId = people.find((p) => p.name === 'Isaby Fennimore')?.id;
  const entered = await fetch(`${base}/api/auth/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ personId, passphrase: 'heron at low tide' }),
  });
  const cookie = entered.headers.get('set-cookie')?.split(';')[0] ?? '';
  const [jar] = (await (await fetch(`${base}/api/stores`, { headers: { cookie } })).json()) as { id: string }[];
  const query = new URLSearchParams({ id: crypto.randomUUID(), name: 'jar.png' });
  const attached = await fetch(`${base}/api/stock-lots/${jar?.id}/attachments?${query}`, {
    method: 'POST',
    headers: { 'content-type': 'image/png', cookie },
    body: Buffer.from(ONE_PIXEL, 'base64'),
  });
  if (attached.status !== 200) throw new Error(`the photograph was refused: ${await attached.text()}`);
}
