import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { CopyOfStudio, OpenedDocument, Problem, StudioCopies } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { openFolder } from '../db/open-database';
import { openEmptyStudio } from '../test/empty-studio';
import { MIGRATIONS, copyTemplate } from '../test/databases';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  asItWasBrought,
  copiesIn,
  dyeLot,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  wholeDocument,
} from '../test/test-studio';
import { restoreStudio } from './restore';

const PHOTO = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), randomBytes(20_000)]);
const DAY_MIN = 24 * 60;

describe.each(KINDS)('copies of a studio (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let folder: string;
  const copies = async (): Promise<StudioCopies> =>
    (await studio.agent.get('/api/copies').expect(200)).body as StudioCopies;
  const make = async (): Promise<CopyOfStudio> =>
    (await studio.agent.post('/api/copies').expect(200)).body as CopyOfStudio;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    folder = copiesIn(studio.context.database.files.folder).folder;
    f = await furnish(studio);
    const lot = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, lot, { grams: 100 });
    await studio.agent
      .post(`/api/stock-lots/${f.weldStockLot}/attachments?id=${newId()}&name=jar.png`)
      .set('content-type', 'image/png')
      .send(PHOTO)
      .expect(200);
  });
  afterAll(async () => {
    await studio.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('are none at first, and nobody who hasn’t come in is told of them', async () => {
    expect(await copies()).toMatchObject({ folder, copies: [], isMaking: false, problem: null, isNearlyFull: false });
    await studio.stranger.get('/api/copies').expect(401);
    await studio.stranger.post('/api/copies').expect(401);
    expect(((await studio.stranger.get('/api/auth/copies')).body as Problem).code).toBe('alreadyDone');
  });

  it('one by hand is looked over and counts; two who ask at once get the same one', async () => {
    const [one, two] = await Promise.all([make(), make()]);
    expect(one).toEqual(two);
    expect(one.bytes).toBeGreaterThan(PHOTO.length);
    const told = await copies();
    expect(told.copies).toEqual([one]);
    expect(told.isOld).toBe(false);
    expect(readdirSync(folder)).toEqual([one.name]);
  });

  it.runIf(kind === 'folder')(
    'one that can’t be what the studio is counts for nothing: it is thrown away, and that is said',
    async () => {
      const [before] = (await copies()).copies;
      studio.pass(1);
      const { sha256 } = (await wholeDocument(studio.context.database.db)).attachments[0]!;
      const path = studio.context.database.files.pathOf(sha256 ?? '');
      const was = readFileSync(path);
      for (const harm of [
        () => writeFileSync(path, Buffer.concat([was.subarray(1), Buffer.from([9])])),
        () => rmSync(path),
      ]) {
        harm();
        const refused = (await studio.agent.post('/api/copies').expect(422)).body as Problem;
        expect(refused.detail).toMatch(/no good and was thrown away/);
        expect((await copies()).problem).toBe(refused.detail);
      }
      writeFileSync(path, was);
      expect(readdirSync(folder)).toEqual([before?.name]);
      studio.pass(1);
      await make();
      expect((await copies()).problem).toBeNull();
    },
  );

  it.runIf(kind === 'folder')(
    'npm run restore brings one back with the very same in it, and moves aside what was there',
    async () => {
      const [newest] = (await copies()).copies;
      const empty = copyTemplate(inject('templateFolder'));
      const { codes, replaced } = await restoreStudio(
        { dataDir: empty, databaseUrl: undefined, migrationsDir: MIGRATIONS },
        join(folder, newest!.name),
        new Date(),
      );
      expect(codes).toHaveLength(1);
      expect(replaced && existsSync(join(replaced, 'db'))).toBe(true);
      const database = await openFolder(empty, MIGRATIONS, new Date());
      const now = studio.context.clock();
      const was = await wholeDocument(studio.context.database.db, now);
      expect(asItWasBrought(await wholeDocument(database.db, now), was)).toEqual(was);
      const [held] = (await database.db.execute<{ n: number }>(sql`SELECT count(*)::int AS n FROM stock_balances`))
        .rows;
      expect(held?.n).toBe(3);
      const kept = readdirSync(database.files.folder, { recursive: true, withFileTypes: true }).filter((e) =>
        e.isFile(),
      );
      expect(kept.map((e) => e.name)).toEqual([createHash('sha256').update(PHOTO).digest('hex')]);
      await database.close();
      rmSync(empty, { recursive: true, force: true });
    },
  );

  it.runIf(kind === 'folder')('a damaged copy replaces nothing: what is there stays as it was', async () => {
    const dataDir = mkdtempSync(join(tmpdir(), 'vestigia-restore-'));
    mkdirSync(join(dataDir, 'db'));
    writeFileSync(join(dataDir, 'db', 'PG_VERSION'), 'as it was');
    const [newest] = (await copies()).copies;
    const whole = readFileSync(join(folder, newest!.name));
    const bad = join(dataDir, 'bad.zip');
    writeFileSync(bad, whole.subarray(0, whole.length - 100));
    const config = { dataDir, databaseUrl: undefined, migrationsDir: MIGRATIONS };
    await expect(restoreStudio(config, bad, new Date())).rejects.toThrow(/damaged/);
    // Good at first sight, and no good once it goes in.
    const flipped = Buffer.from(whole);
    const at = flipped.indexOf(PHOTO.subarray(0, 100));
    flipped[at + 500]! ^= 1;
    writeFileSync(bad, flipped);
    await expect(restoreStudio(config, bad, new Date())).rejects.toThrow(/damaged/);
    expect(readFileSync(join(dataDir, 'db', 'PG_VERSION'), 'utf8')).toBe('as it was');
    expect(readdirSync(dataDir).filter((n) => n.startsWith('replaced'))).toEqual([]);
    rmSync(dirname(bad), { recursive: true, force: true });
  });

  it('are told as old once three days have passed with something recorded', async () => {
    studio.pass(4 * DAY_MIN);
    await studio.agent
      .post('/api/waters')
      .send({ id: newId(), name: 'Well', ph: null, hardnessDh: null, ironMgPerL: null, note: '' })
      .expect(200);
    expect((await copies()).isOld).toBe(true);
  });
});

describe('the door of an empty studio', () => {
  it('shows the copies in the folder, opens one, and tells each person’s code', async () => {
    const studio = await openTestStudio('folder');
    await furnish(studio);
    const made = (await studio.agent.post('/api/copies').expect(200)).body as CopyOfStudio;
    const { folder } = copiesIn(studio.context.database.files.folder);
    const empty = await openEmptyStudio(folder);
    expect((await empty.agent.get('/api/auth/copies').expect(200)).body).toEqual([made]);
    expect(
      (await empty.agent.post('/api/auth/copies').send({ name: '../../etc/passwd' }).expect(404)).body,
    ).toMatchObject({
      detail: expect.stringContaining('no such copy') as string,
    });
    // Somebody on the network, by a proxy, is shown none and opens none.
    const far = { 'x-forwarded-for': '192.0.2.7' };
    expect((await empty.agent.get('/api/auth/copies').set(far).expect(200)).body).toEqual([]);
    const refused = await empty.agent.post('/api/auth/copies').set(far).send({ name: made.name }).expect(422);
    expect((refused.body as Problem).detail).toContain('at the computer it lies on');
    const { codes } = (await empty.agent.post('/api/auth/copies').send({ name: made.name }).expect(200))
      .body as OpenedDocument;
    expect(codes.map((c) => c.name)).toEqual(['Ada Reed']);
    expect(((await empty.agent.get('/api/auth/copies')).body as Problem).code).toBe('alreadyDone');
    await empty.close();
    await studio.close();
    rmSync(folder, { recursive: true, force: true });
  });
});
