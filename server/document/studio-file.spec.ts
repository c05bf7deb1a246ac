import { createHash, randomBytes } from 'node:crypto';
import { readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { OpenedDocument, Problem } from '@vestigia/contract';
import type request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { openEmptyStudio } from '../test/empty-studio';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  asItWasBrought,
  dyeLot,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  wholeDocument,
} from '../test/test-studio';

const PHOTO = Buffer.concat([Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]), randomBytes(3_000_000)]);

const openEmpty = () => openEmptyStudio(join(tmpdir(), 'vestigia-no-copies'));
const send = (agent: ReturnType<typeof request.agent>, file: Buffer | string, type = 'application/zip') =>
  agent.post('/api/auth/document').set('content-type', type).send(file);

describe.each(KINDS)('a studio file (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let file: Buffer;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    const lot = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, lot, { grams: 100 });
    await studio.agent.post(`/api/lots/${lot}/readings`).send(reading('dry', 74)).expect(200);
    // The same photograph twice is kept once.
    for (const name of ['jar.png', 'again.png'])
      await studio.agent
        .post(`/api/stock-lots/${f.weldStockLot}/attachments?id=${newId()}&name=${name}`)
        .set('content-type', 'image/png')
        .send(PHOTO)
        .expect(200);
    const reply = await studio.agent
      .get('/api/studio-file')
      .buffer(true)
      .parse((res, done) => {
        const pieces: Buffer[] = [];
        res.on('data', (piece: Buffer) => pieces.push(piece));
        res.on('end', () => done(null, Buffer.concat(pieces)));
      })
      .expect(200);
    file = reply.body as Buffer;
  });
  afterAll(() => studio.close());

  it('holds each photograph once, beside the document, and no secret', async () => {
    expect(file.length).toBeGreaterThan(PHOTO.length);
    expect(file.length).toBeLessThan(1.2 * PHOTO.length);
    const kept = studio.context.database.files.folder;
    const names = readdirSync(kept, { recursive: true, withFileTypes: true }).filter((e) => e.isFile());
    expect(names.map((e) => e.name)).toEqual([createHash('sha256').update(PHOTO).digest('hex')]);
    expect(JSON.stringify(await wholeDocument(studio.context.database.db))).not.toMatch(
      /scrypt|passphrase|base64":"iVBO/,
    );
  });

  it('opens whole in an empty studio; each person chooses a passphrase by a code, once', async () => {
    const empty = await openEmpty();
    const { codes } = (await send(empty.agent, file).expect(200)).body as OpenedDocument;
    expect(codes.map((c) => c.name)).toEqual(['Ada Reed']);
    const { personId, code } = codes[0]!;
    expect(code).toMatch(/^([A-Z2-9]{4}-){2}[A-Z2-9]{4}$/);
    const choose = (typed: string, passphrase = 'nine new words') =>
      empty.agent.post('/api/auth/passphrase').send({ personId, code: typed, passphrase });
    expect((await choose('AAAA-BBBB-CCCC')).status).toBe(401);
    expect((await choose(code, 'short')).status).toBe(400);
    await choose(code.toLowerCase().replaceAll('-', ' ')).expect(200);
    expect((await choose(code)).status).toBe(401);
    await empty.agent.delete('/api/auth/session').expect(200);
    await empty.agent.post('/api/auth/session').send({ personId, passphrase: 'nine new words' }).expect(200);

    const now = new Date('2026-06-01T10:00:00.000Z');
    const was = await wholeDocument(studio.context.database.db, now);
    const is = await wholeDocument(empty.context.database.db, now);
    expect(asItWasBrought(is, was)).toEqual(was);
    expect(is.deeds.slice(was.deeds.length).map((d) => d.kind)).toEqual([
      'openedFile',
      'turnedAway',
      'changed',
      'cameIn',
      'turnedAway',
      'left',
      'cameIn',
    ]);
    const photo = await empty.agent.get(`/api/attachments/${was.attachments[0]!.id}`).buffer(true).expect(200);
    expect(
      createHash('sha256')
        .update(photo.body as Buffer)
        .digest('hex'),
    ).toBe(was.attachments[0]!.sha256);
    const refused = (await send(empty.agent, file).expect(409)).body as Problem;
    expect(refused.detail).toContain('open already');
    expect(readdirSync(join(empty.folder, 'incoming'))).toEqual([]);
    await empty.close();
  });

  it('that is damaged, of another kind or newer is refused in a plain sentence, and nothing is opened', async () => {
    const empty = await openEmpty();
    const flipped = Buffer.from(file);
    flipped[Math.floor(file.length / 2)]! ^= 0x40;
    const newer = { format: 'vestigia-studio', formatVersion: 9 };
    for (const [sent, type, says] of [
      [file.subarray(0, Math.floor(0.7 * file.length)), 'application/zip', /damaged/],
      [flipped, 'application/zip', /damaged/],
      [Buffer.from('PK\u0003\u0004nothing'), 'application/zip', /damaged/],
      [JSON.stringify(newer), 'application/json', /newer version/],
      ['{"a":1}', 'application/json', /not a studio file/],
      ['text', 'application/octet-stream', /not a studio file/],
    ] as const) {
      const reply = await send(empty.agent, sent, type);
      expect([400, 422]).toContain(reply.status);
      expect((reply.body as Problem).detail).toMatch(says);
    }
    expect((await empty.agent.get('/api/auth').expect(200)).body).toMatchObject({ studio: null, people: [] });
    expect((await empty.agent.get('/api/auth/document').expect(200)).body).toEqual({
      phase: 'none',
      done: 0,
      total: null,
    });
    await empty.close();
  });

  it('a photograph that is gone or changed on the disk is said by name, not sent', async () => {
    const { id, sha256 } = (await wholeDocument(studio.context.database.db)).attachments[0]!;
    const path = studio.context.database.files.pathOf(sha256 ?? '');
    const was = readFileSync(path);
    writeFileSync(path, Buffer.concat([was.subarray(1), Buffer.from([1])]));
    const changed = (await studio.agent.get(`/api/attachments/${id}`)).body as Problem;
    expect(changed.detail).toContain('was changed on the disk');
    rmSync(path);
    const missing = await studio.agent.get(`/api/attachments/${id}`);
    expect(missing.status).toBe(404);
    expect((missing.body as Problem).detail).toContain(dirname(path));
    writeFileSync(path, was);
    await studio.agent.get(`/api/attachments/${id}`).expect(200);
  });
});
