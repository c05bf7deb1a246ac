import { mkdtempSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync, mkdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Problem } from '@vestigia/contract';
import { studioDocument } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { demoDocument } from '../../scripts/demo-document.mjs';
import { contextOn } from '../shared/context';
import { broughtAlone, importDocument } from '../document/import-document';
import { Writer } from '../http/write';
import { MIGRATIONS, copyTemplate } from '../test/databases';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  delivery,
  wholeDocument,
  dyeLot,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  verdict,
  proof,
  stripReading,
  stripTrial,
} from '../test/test-studio';
import { DiskFlush } from './disk-flush';
import { lockFolder } from './folder-lock';
import { openFolder } from './open-database';
import { lotProgress, stockBalances } from './schema';

describe.each(KINDS)('the database itself, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let lotId: string;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    lotId = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    await dyeLot(studio, f, lotId, { grams: 200 });
    await studio.agent.post(`/api/lots/${lotId}/readings`).send(reading('dry')).expect(200);
    await studio.agent.post(`/api/lots/${lotId}/verdicts`).send(verdict('pass')).expect(200);
    await studio.agent.post(`/api/recipe-versions/${f.version}/proofs`).send(proof()).expect(200);
    const trial = (
      (await studio.agent.post('/api/strip-trials').send(stripTrial(f)).expect(200)).body as { id: string }
    ).id;
    await studio.agent.post(`/api/strip-trials/${trial}/readings`).send(stripReading(1, 80)).expect(200);
    await studio.agent
      .post(`/api/strip-trials/${trial}/promotions`)
      .send({ id: newId(), number: 1, name: null, recipeId: newId() })
      .expect(200);
  });
  afterAll(() => studio.close());

  const cause = async (statement: string): Promise<string | undefined> => {
    try {
      await studio.context.database.db.execute(sql.raw(statement));
      return undefined;
    } catch (error) {
      return ((error as Error).cause as { code?: string }).code;
    }
  };

  it.each([
    'movements',
    'reservations',
    'run_entries',
    'readings',
    'verdicts',
    'recipe_versions',
    'recipe_statuses',
    'lots',
    'proofs',
    'strip_trials',
    'strip_readings',
    'strip_promotions',
  ])('refuses to change or lose a row of %s', async (table) => {
    const count = async (): Promise<number> =>
      (
        (await studio.context.database.db.execute(sql.raw(`SELECT count(*)::int AS n FROM ${table}`))) as unknown as {
          rows: { n: number }[];
        }
      ).rows[0]?.n ?? 0;
    const before = await count();
    expect(before).toBeGreaterThan(0);
    expect(await cause(`UPDATE ${table} SET id = id`)).toBe('VS001');
    expect(await cause(`DELETE FROM ${table}`)).toBe('VS001');
    expect(await cause(`TRUNCATE ${table} CASCADE`)).toBe('VS001');
    expect(await count()).toBe(before);
  });

  it('refuses less than nothing on a shelf and more promised than is free', async () => {
    const by = `(SELECT id FROM people LIMIT 1)`;
    expect(
      await cause(
        `INSERT INTO movements (id, stock_lot_id, kind, amount, at, by_id) VALUES ('${newId()}', '${f.weldStockLot}', 'use', -99000000, now(), ${by})`,
      ),
    ).toBe('23514');
    expect(
      await cause(
        `INSERT INTO reservations (id, lot_id, stock_lot_id, amount, at, by_id) VALUES ('${newId()}', '${lotId}', '${f.weldStockLot}', 99000000, now(), ${by})`,
      ),
    ).toBe('VS002');
  });

  it('refuses to write when the clock was set back, loses nothing, and goes on when it is right', async () => {
    studio.pass(-120);
    const body = delivery(f.weld, '1 kg');
    const reply = (await studio.agent.post('/api/stock-lots').send(body).expect(409)).body as Problem;
    expect(reply.code).toBe('clockBehind');
    expect(reply.detail).toMatch(
      /^This computer’s clock says .* Set the clock right, then do it again\. Nothing was changed\.$/,
    );
    await studio.agent.get('/api/stores').expect(200);
    studio.pass(120);
    await studio.agent.post('/api/stock-lots').send(body).expect(200);
  });

  it('tells other browsers within a second, by server-sent events', async () => {
    const reply: string[] = [];
    const stop = studio.context.changes.listen((topics) => reply.push(topics.join()));
    await studio.agent.post('/api/stock-lots').send(delivery(f.weld, '1 kg')).expect(200);
    await studio.agent.post('/api/stock-lots').send(delivery(f.weld, 'nonsense')).expect(422);
    stop();
    expect(reply).toEqual(['stores']);
  });

  it('describes itself in OpenAPI 3.1', async () => {
    const document = (await studio.stranger.get('/api/openapi.json').expect(200)).body as {
      openapi: string;
      paths: Record<string, Record<string, { operationId: string }>>;
      components: { schemas: Record<string, unknown> };
    };
    expect(document.openapi).toBe('3.1.0');
    expect(document.paths['/api/lots/proposal']?.['post']?.operationId).toBe('propose');
    expect(Object.keys(document.components.schemas)).toEqual(
      expect.arrayContaining(['LotDetail', 'Figure', 'ShelfRow', 'OpenedDocument']),
    );
  });
});

describe('a studio file', () => {
  const open = async () => {
    const folder = copyTemplate(inject('templateFolder'));
    const database = await openFolder(folder, MIGRATIONS, new Date());
    const context = contextOn(database);
    const writer = new Writer(context);
    await writer.start();
    return {
      context,
      writer,
      close: async () => {
        await database.close();
        rmSync(folder, { recursive: true, force: true });
      },
    };
  };
  const demo = studioDocument.parse(JSON.parse(demoDocument()));

  it('opens, is told again the same, and opens once more', async () => {
    const now = new Date();
    const first = await open();
    await importDocument(first.context, first.writer, broughtAlone(demo));
    const states = await first.context.database.db.select({ state: lotProgress.state }).from(lotProgress);
    expect(states).toHaveLength(demo.lots.length);
    expect(new Set(states.map((s) => s.state))).toEqual(new Set(['released', 'refused', 'toJudge', 'inWork']));
    const out = await wholeDocument(first.context.database.db, now);
    const sorted = (rows: readonly { id: string }[]): unknown[] => [...rows].sort((a, b) => (a.id < b.id ? -1 : 1));
    const people = demo.people.map(({ passphrase: _own, ...person }) => person);
    for (const key of [
      'vessels',
      'waters',
      'materials',
      'stockLots',
      'recipeVersions',
      'colourways',
      'lots',
      'movements',
      'reservations',
      'runEntries',
      'readings',
    ] as const)
      expect(sorted(out[key]), key).toEqual(sorted(demo[key]));
    expect(sorted(out.people)).toEqual(sorted(people));

    const second = await open();
    await importDocument(second.context, second.writer, {
      document: studioDocument.parse(out),
      contentOf: (sha256) => first.context.database.files.read(sha256),
    });
    await first.close();
    expect({ ...(await wholeDocument(second.context.database.db, now)) }).toEqual(out);
    await second.close();
  });

  it('has every foreign key again that it had before, and each jar’s balance is the sum of its ledger', async () => {
    const { context, writer, close } = await open();
    const keys = async (): Promise<unknown[]> =>
      (
        await context.database.db.execute(
          sql`SELECT conrelid::regclass::text AS "table", conname, pg_get_constraintdef(oid) AS definition, convalidated FROM pg_constraint WHERE contype = 'f' ORDER BY 1, 2`,
        )
      ).rows;
    const before = await keys();
    await importDocument(context, writer, broughtAlone(demo));
    expect(before.length).toBeGreaterThan(50);
    expect(await keys()).toEqual(before);
    const sums = new Map<string, [number, number]>(demo.stockLots.map((s) => [s.id, [0, 0]]));
    for (const m of demo.movements) sums.get(m.stockLotId)![0] += m.amount;
    for (const r of demo.reservations) sums.get(r.stockLotId)![1] += r.amount;
    const balances = await context.database.db.select().from(stockBalances);
    expect(new Map(balances.map((b) => [b.stockLotId, [b.onHand, b.reserved]]))).toEqual(sums);
    await close();
  });

  it('opens whole or not at all', async () => {
    const target = await open();
    const broken = {
      ...demo,
      movements: [...demo.movements, { ...demo.movements[0]!, id: newId(), amount: -99_000_000_000, at: demo.asOf }],
    };
    await expect(importDocument(target.context, target.writer, broughtAlone(broken))).rejects.toThrow(
      /does not add up: .* would have held or promised more than there was/,
    );
    const future = { ...demo, asOf: new Date(Date.now() + 86_400_000).toISOString() };
    await expect(importDocument(target.context, target.writer, broughtAlone(future))).rejects.toThrow(/still to come/);
    const nowhere = { ...demo, movements: [...demo.movements, { ...demo.movements[0]!, id: newId(), byId: newId() }] };
    await expect(importDocument(target.context, target.writer, broughtAlone(nowhere))).rejects.toThrow(
      /names something that is not in it/,
    );
    const rows = (await target.context.database.db.execute(
      sql`SELECT (SELECT count(*) FROM people)::int + (SELECT count(*) FROM lots)::int AS n`,
    )) as unknown as { rows: { n: number }[] };
    expect(rows.rows[0]?.n).toBe(0);
    await target.close();
  });

  it.each([
    ['another program’s file', { format: 'x' }, /not a studio file/],
    ['a newer version', { ...demo, formatVersion: 5 }, /newer version/],
  ])('refuses %s', (_name, value, message) => {
    const result = studioDocument.safeParse(value);
    expect(result.error?.issues.map((i) => i.message).join(' ')).toMatch(message);
  });
});

describe('DiskFlush', () => {
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-flush-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const write = (path: string, secondsAgo: number): void => {
    mkdirSync(join(folder, path, '..'), { recursive: true });
    writeFileSync(join(folder, path), String(Math.random()));
    const at = statSync(join(folder, path)).mtimeMs / 1000 - secondsAgo;
    utimesSync(join(folder, path), at, at);
  };
  const age = (path: string, secondsAgo: number): void => {
    const at = Date.now() / 1000 - secondsAgo;
    utimesSync(join(folder, path), at, at);
  };

  it('syncs the log after a commit, and every changed data file after a checkpoint', async () => {
    for (const file of ['global/pg_control', 'pg_wal/0001', 'base/1/1259']) write(file, 100);
    for (const dir of ['.', 'global', 'pg_wal', 'base', 'base/1']) age(dir, 100);
    const synced: string[] = [];
    const disk = new DiskFlush(folder, (path) => Promise.resolve(void synced.push(path.slice(folder.length + 1))));
    await disk.flush();
    expect(synced.sort()).toEqual(
      ['', 'base', 'base/1', 'base/1/1259', 'global', 'global/pg_control', 'pg_wal', 'pg_wal/0001'].sort(),
    );
    synced.length = 0;
    await disk.flush();
    expect(synced).toEqual([]);
    write('pg_wal/0001', 50);
    write('base/1/1259', 50);
    await disk.flush();
    expect(synced).toEqual(['pg_wal/0001']);
    synced.length = 0;
    write('global/pg_control', 40);
    await disk.flush();
    expect(synced.sort()).toEqual(['base/1/1259', 'global/pg_control']);
    synced.length = 0;
    write('pg_wal/0001', 0);
    await disk.flush();
    await disk.flush();
    expect(synced).toEqual(['pg_wal/0001', 'pg_wal/0001']);
  });

  it('lets those who come during a flush share one that began after them', async () => {
    age('pg_wal/0001', 30);
    let open: () => void = () => undefined;
    let begun = 0;
    const disk = new DiskFlush(folder, () => {
      begun += 1;
      return new Promise((resolve) => {
        open = resolve;
      });
    });
    const first = disk.flush();
    while (begun === 0) await new Promise((resolve) => setImmediate(resolve));
    const later = [disk.flush(), disk.flush(), disk.flush()];
    expect(new Set(later).size).toBe(1);
    const gate = setInterval(() => open(), 1);
    await Promise.all([first, ...later]);
    clearInterval(gate);
  });

  it('says so when the disk refuses, and tries again the next time', async () => {
    write('pg_wal/0002', 20);
    let refuse = true;
    const disk = new DiskFlush(folder, () => (refuse ? Promise.reject(new Error('no space')) : Promise.resolve()));
    await expect(disk.flush()).rejects.toThrow('no space');
    refuse = false;
    await expect(disk.flush()).resolves.toBeUndefined();
  });
});

describe('lockFolder', () => {
  it('keeps a second opener out and tells who holds it', () => {
    const folder = mkdtempSync(join(tmpdir(), 'vestigia-lock-'));
    const { release } = lockFolder(folder, join(folder, 'held-by.json'), new Date('2026-06-01T09:00:00Z'));
    expect(JSON.parse(readFileSync(join(folder, 'held-by.json'), 'utf8'))).toMatchObject({ pid: process.pid });
    expect(() => lockFolder(folder, join(folder, 'held-by.json'), new Date())).toThrow(
      new RegExp(`open already, by process ${process.pid} on .*, since 2026-06-01T09:00:00.000Z`),
    );
    release();
    lockFolder(folder, join(folder, 'held-by.json'), new Date()).release();
    rmSync(folder, { recursive: true });
  });
});
