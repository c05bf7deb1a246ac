import { execFile } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import type { StudioCopies } from '@vestigia/contract';
import type { Browser } from 'puppeteer-core';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import yauzl from 'yauzl';
import { launch } from '../scripts/browser.mjs';
import type { Served } from '../scripts/serve.mjs';
import { serve, temporaryFolder } from '../scripts/serve.mjs';
import { Someone } from './person';

const root = fileURLToPath(new URL('..', import.meta.url));
const PHOTO = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), randomBytes(30_000)]);
const DELIVERY = {
  movementId: v7(),
  tag: '',
  quantityText: '500 g',
  receivedOn: '2026-05-01',
  bestBefore: null,
  place: 'Shelf',
  source: 'order',
  note: '',
};
/** A copy is looked over in a process of its own, in a database made anew: on a slow machine that takes its time. */
const LOOKED_OVER_MS = 6 * 60_000;
const CHOSEN = 'green hanks by the river';

/** The document in a studio file, without the moment it was written at. */
async function documentIn(file: Buffer): Promise<object> {
  const zip = await yauzl.fromBufferPromise(file, { lazyEntries: true });
  for await (const entry of zip.eachEntry()) {
    if (entry.fileName !== 'studio.json') continue;
    const pieces: Buffer[] = [];
    for await (const piece of await zip.openReadStreamPromise(entry)) pieces.push(piece as Buffer);
    const { asOf: _asOf, ...rest } = JSON.parse(Buffer.concat(pieces).toString()) as { asOf: string };
    return rest;
  }
  throw new Error('no document in the studio file');
}
const wholeOf = async ({ page }: Someone): Promise<object> => {
  const bytes = await page.evaluate(async () => [
    ...new Uint8Array(await (await fetch('/api/studio-file')).arrayBuffer()),
  ]);
  // That it was opened, and who came in, is told of each studio by itself.
  const { deeds: _own, ...document } = (await documentIn(Buffer.from(bytes))) as { deeds: unknown };
  return document;
};
const comesInByCode = async (who: Someone, name: string, code: string): Promise<void> => {
  await who.go('/');
  await who.tick(name);
  await who.press('I was given a code');
  await who.write('Your code', code);
  await who.write('The passphrase you choose', CHOSEN);
  await who.press('Come in');
  await who.sees('Today', 'h1');
};

describe('a studio that is killed, damaged and brought back', () => {
  let server: Served & { dataDir: string };
  let browser: Browser;
  let before: object;
  let copy: string;
  const { folder, remove } = temporaryFolder('copies');
  const copiesFolder = (): string => `${server.dataDir}-copies`;
  beforeAll(async () => {
    const dataDir = join(folder, 'data');
    const [served, opened] = await Promise.all([serve(dataDir), launch()]);
    server = { ...served, dataDir };
    browser = opened;
  });
  afterAll(async () => {
    await browser.close();
    await server.stop();
    remove();
  });

  it('a small studio comes about, with a jar and its photograph', async () => {
    const isaby = await Someone.at(browser, server.base);
    await isaby.go('/');
    const person = { id: v7(), name: 'Isaby Fennimore', passphrase: 'heron at low tide' };
    await isaby.send('/api/auth/studio', { name: 'A small dyehouse', zone: 'Europe/London', person });
    await isaby.send('/api/people', { id: v7(), name: 'Wenna Tidewell', role: 'owner', passphrase: 'seven wet hanks' });
    const weld = { id: v7(), name: 'Weld', kind: 'dyestuff', measure: 'weight', hazards: [], note: '', base: null };
    await isaby.send('/api/materials', weld);
    const jar = { id: v7(), materialId: weld.id, ...DELIVERY };
    await isaby.send('/api/stock-lots', jar);
    const status = await isaby.page.evaluate(
      async (path, bytes) =>
        (await fetch(path, { method: 'POST', headers: { 'content-type': 'image/png' }, body: new Uint8Array(bytes) }))
          .status,
      `/api/stock-lots/${jar.id}/attachments?id=${v7()}&name=jar.png`,
      [...PHOTO],
    );
    expect(status).toBe(200);
  });

  it('a copy made by hand is looked over in a process of its own, and told', async () => {
    const isaby = await Someone.at(browser, server.base);
    isaby.page.setDefaultTimeout(LOOKED_OVER_MS);
    await isaby.signIn('Isaby Fennimore', 'heron at low tide');
    await isaby.go('/studio');
    await isaby.sees('There is no copy yet', 'vs-copies');
    await isaby.press('Make a copy now');
    await isaby.sees(/A copy of \d+ kB was made and is good/, 'vs-copies');
    const { copies } = await isaby.ask<StudioCopies>('/api/copies');
    expect(readdirSync(copiesFolder())).toEqual(copies.map((c) => c.name));
    copy = join(copiesFolder(), copies[0]!.name);
    before = await wholeOf(isaby);
  });

  it('its damaged folder is left alone, and the newest good copy is named with the command', async () => {
    await server.stop('SIGKILL');
    rmSync(join(server.dataDir, 'db', 'PG_VERSION'));
    const ended = await serve(server.dataDir).then(
      () => ({ code: 0, message: '' }),
      (error: Error & { code: number }) => error,
    );
    expect(ended.code).toBe(4);
    expect(ended.message).toContain(`The database in ${join(server.dataDir, 'db')} is damaged`);
    expect(ended.message).toContain(`npm run restore -- ${copy}`);
    // Damaged otherwise, it ends in words as well.
    writeFileSync(join(server.dataDir, 'db', 'PG_VERSION'), '17\n');
    writeFileSync(join(server.dataDir, 'db', 'global', 'pg_control'), Buffer.alloc(8192));
    await expect(serve(server.dataDir)).rejects.toThrow(/can’t be opened: it is damaged/);
  });

  it('the command brings it back; each person comes in by a code, and everything is as it was', async () => {
    const { stdout } = await promisify(execFile)(
      process.execPath,
      [join(root, 'dist', 'server', 'main.mjs'), '--restore', copy],
      { env: { ...process.env, DATA_DIR: server.dataDir, MIGRATIONS_DIR: join(root, 'server', 'db', 'migrations') } },
    );
    const [, code] = /Isaby Fennimore comes in with the code (\S+),/.exec(stdout) ?? [];
    expect(stdout).toContain('What was there before lies in');
    expect(readdirSync(server.dataDir).filter((name) => name.startsWith('replaced-'))).toHaveLength(1);
    Object.assign(server, await serve(server.dataDir));
    const isaby = await Someone.at(browser, server.base);
    await comesInByCode(isaby, 'Isaby Fennimore', code ?? '');
    expect(await wholeOf(isaby)).toEqual(before);
    // The code was good for once.
    const other = await Someone.at(browser, server.base);
    await other.go('/');
    await other.tick('Isaby Fennimore');
    await other.press('I was given a code');
    await other.write('Your code', code ?? '');
    await other.write('The passphrase you choose', 'another one altogether');
    await other.press('Come in');
    await other.sees('That code does not belong to that name, or was used before.', '[role=alert]');
  });

  it('an empty studio’s first page brings a copy back too, and shows the codes once', async () => {
    const empty = await serve(join(server.dataDir, '..', 'empty'), { COPIES_DIR: copiesFolder() });
    const wenna = await Someone.at(browser, empty.base);
    wenna.page.setDefaultTimeout(LOOKED_OVER_MS);
    await wenna.go('/');
    await wenna.press(/^Bring this back/);
    await wenna.sees('The studio is back', 'h1');
    const code = await wenna.page.$$eval(
      '.codes tr',
      (rows) =>
        rows
          .map((r) => [...r.children].map((c) => c.textContent?.trim() ?? ''))
          .find(([name]) => name === 'Wenna Tidewell')?.[1] ?? '',
    );
    await wenna.press('They are written down');
    await wenna.tick('Wenna Tidewell');
    await wenna.write('Your code', code);
    await wenna.write('The passphrase you choose', CHOSEN);
    await wenna.press('Come in');
    await wenna.sees('Today', 'h1');
    expect(await wholeOf(wenna)).toEqual(before);
    expect(wenna.troubles).toEqual([]);
    await empty.stop();
  });
});
