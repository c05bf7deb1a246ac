import { gzipSync } from 'node:zlib';
import type { Problem } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { TestStudio } from '../test/test-studio';
import { KINDS, newId, openTestStudio } from '../test/test-studio';

const NUL = String.fromCharCode(0);

describe.each(KINDS)('what the server can’t take (%s)', (kind) => {
  let studio: TestStudio;
  beforeAll(async () => (studio = await openTestStudio(kind)));
  afterAll(() => studio.close());

  const water = (rest: object) => ({
    id: newId(),
    name: 'Well',
    ph: null,
    hardnessDh: null,
    ironMgPerL: null,
    note: '',
    ...rest,
  });
  it.each([
    ['a NUL in a name', water({ name: `We${NUL}ll` })],
    ['half of a sign in a note', water({ note: 'a \uD800 b' })],
    ['a figure no column holds', water({ hardnessDh: 1e308 })],
  ])('%s is refused in words, and nothing is kept', async (_what, body) => {
    const before = (await studio.agent.get('/api/studio').expect(200)).body as object;
    const reply = await studio.agent.post('/api/waters').send(body);
    expect(reply.status).toBe(400);
    expect((reply.body as Problem).detail).toMatch(/\.$/);
    expect((await studio.agent.get('/api/studio').expect(200)).body).toEqual(before);
  });

  it.each([
    ['is cut off', 'gzip', gzipSync(JSON.stringify(water({}))).subarray(0, 40)],
    ['is not packed as it says', 'gzip', Buffer.from(JSON.stringify(water({})))],
    ['is no such thing', 'br', Buffer.from([0x0b, 0xff, 0xff, 1, 2])],
    ['is packed in a way nobody knows', 'zip', Buffer.from('{}')],
  ])('a packed body that %s is refused in words', async (_what, encoding, sent) => {
    const reply = await studio.agent
      .post('/api/waters')
      .set('content-type', 'application/json')
      .set('content-encoding', encoding)
      .serialize((body: unknown) => body as string)
      .send(sent as unknown as string);
    expect(reply.status).toBe(400);
    expect((reply.body as Problem).code).toBe('unreadable');
  });

  it('a body that goes half a million deep is refused in words', async () => {
    const reply = await studio.agent
      .post('/api/waters')
      .set('content-type', 'application/json')
      .serialize((body: unknown) => body as string)
      .send('['.repeat(400_000) + ']'.repeat(400_000));
    expect(reply.status).toBe(400);
  });

  it('of a body with a thousand faults the first twenty are told', async () => {
    const faults = Array.from({ length: 1000 }, () => ({ materialId: 5 }));
    const reply = await studio.agent.post('/api/stocktakes').send({ id: newId(), counts: faults, lines: faults });
    expect(reply.status).toBe(400);
    expect(((reply.body as Problem).errors ?? []).length).toBeLessThanOrEqual(20);
  });
});
