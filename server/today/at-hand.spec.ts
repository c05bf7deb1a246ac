import type { PageAtHand, Problem } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { TestStudio } from '../test/test-studio';
import { KINDS, newId, openTestStudio, wholeDocument } from '../test/test-studio';

describe.each(KINDS)('what is at hand (%s)', (kind) => {
  let studio: TestStudio;
  const read = async (): Promise<PageAtHand[]> =>
    (await studio.agent.get('/api/at-hand').expect(200)).body as PageAtHand[];
  const keep = (path: string, title: string, isKept = true) =>
    studio.agent.put('/api/at-hand').send({ path, title, keep: isKept });

  beforeAll(async () => {
    studio = await openTestStudio(kind);
  });
  afterAll(() => studio.close());

  it('is kept for whoever pressed it, newest first, under its newest name, and let go again', async () => {
    const [jar, lot] = [`/stores/${newId()}`, `/lots/${newId()}`];
    await keep(jar, 'ALU-1 · Alum').expect(200);
    studio.pass(1);
    expect((await keep(lot, 'Lot 1 · Marram').expect(200)).body).toEqual([
      { path: lot, title: 'Lot 1 · Marram' },
      { path: jar, title: 'ALU-1 · Alum' },
    ]);
    await keep(jar, 'ALU-1 · Potash alum').expect(200);
    expect((await read()).map((p) => p.title)).toEqual(['Lot 1 · Marram', 'ALU-1 · Potash alum']);
    const { atHand, people } = await wholeDocument(studio.context.database.db);
    expect(atHand.map((p) => [p.path, p.personId])).toEqual([
      [jar, people[0]?.id],
      [lot, people[0]?.id],
    ]);
    await keep(jar, '', false).expect(400);
    await keep(jar, 'ALU-1', false).expect(200);
    expect((await read()).map((p) => p.path)).toEqual([lot]);
    await studio.stranger.get('/api/at-hand').expect(401);
  });

  it('may be a view of a list, with how it is narrowed and sorted', async () => {
    const path = '/stores?by=-free&find=kr%C3%A4uter+%26+alum&without=place%2Ckind';
    expect((await keep(path, 'Herbs').expect(200)).body).toContainEqual({ path, title: 'Herbs' });
    await keep(path, 'Herbs', false).expect(200);
  });

  it('leads to pages of the studio alone, and stays a short list', async () => {
    for (const path of [
      'https://elsewhere.example',
      '//elsewhere',
      '/lots?',
      '/lots?x=<b>',
      '/lots?x=1#2',
      'lots',
      '/Lots',
    ])
      expect(((await keep(path, 'x').expect(400)).body as Problem).status).toBe(400);
    for (let i = (await read()).length; i < 30; i += 1) await keep(`/lots/${newId()}`, `Lot ${i}`).expect(200);
    const { reason, detail } = (await keep('/stores', 'Stores').expect(422)).body as Problem;
    expect([reason, detail]).toEqual(['tooMany', '30 pages are at hand already. Take one away on Today first.']);
    await keep((await read())[0]?.path ?? '', 'Renamed').expect(200);
    expect((await read())[0]?.title).toBe('Renamed');
  });
});
