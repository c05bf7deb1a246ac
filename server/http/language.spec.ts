import request from 'supertest';
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AuthState, Problem } from '@vestigia/contract';
import type { TestStudio } from '../test/test-studio';
import { openTestStudio } from '../test/test-studio';

describe('what each is answered in', () => {
  let studio: TestStudio;
  beforeAll(async () => {
    studio = await openTestStudio('folder');
  });
  afterAll(() => studio.close());

  const language = async (headers: Record<string, string> = {}): Promise<string> =>
    ((await studio.stranger.get('/api/auth').set(headers)).body as AuthState).language;
  const refused = async (): Promise<Problem> =>
    (await studio.agent.post('/api/vessels').send({ id: v7(), name: '' })).body as Problem;

  it('is English, unless the browser asks for another it knows', async () => {
    expect(await language()).toBe('en');
    expect(await language({ 'accept-language': 'de-AT,de;q=0.9,en;q=0.5' })).toBe('de');
    expect(await language({ 'accept-language': 'fr' })).toBe('en');
    expect(await language({ cookie: 'vestigia-language=xx', 'accept-language': 'de' })).toBe('de');
  });

  it('is what the person chose, in every sentence, until another is chosen', async () => {
    expect((await refused()).title).toBe('Something in that can’t be used');
    await studio.agent.put('/api/auth/language').send({ language: 'fr' }).expect(400);
    await studio.agent.put('/api/auth/language').send({ language: 'de' }).expect(200);
    const state = await studio.agent.get('/api/auth').set('accept-language', 'en').expect(200);
    expect((state.body as AuthState).language).toBe('de');
    const problem = await refused();
    expect(problem.title).toBe('Etwas darin lässt sich nicht verwenden');
    expect(JSON.stringify(problem)).toContain('Der Name des Gefäßes ist leer. Schreib etwas.');
    await studio.agent.put('/api/auth/language').send({ language: 'en' }).expect(200);
    expect((await refused()).title).toBe('Something in that can’t be used');
  });

  it('follows the person to another browser', async () => {
    await studio.agent.put('/api/auth/language').send({ language: 'de' }).expect(200);
    const { people } = (await studio.stranger.get('/api/auth')).body as AuthState;
    await studio.stranger
      .post('/api/auth/session')
      .send({ personId: people[0]?.id, passphrase: 'ten green hanks' })
      .expect(200);
    const first = await studio.stranger.get('/api/auth').expect(200);
    expect((first.body as AuthState).language).toBe('de');
    expect(String(first.headers['set-cookie'])).toContain('vestigia-language=de');
    const refusal = (await studio.stranger.post('/api/vessels').send({ id: v7(), name: '' })).body as Problem;
    expect(refusal.title).toBe('Etwas darin lässt sich nicht verwenden');
    await studio.stranger.delete('/api/auth/session').expect(200);
    await studio.agent.put('/api/auth/language').send({ language: 'en' }).expect(200);
  });

  it('answers two at once each in theirs', async () => {
    const asked = await Promise.all(
      Array.from({ length: 40 }, (_, i) =>
        request(studio.app)
          .get(`/api/lots/${v7()}`)
          .set('accept-language', i % 2 === 0 ? 'de' : 'en'),
      ),
    );
    for (const [i, { body }] of asked.entries())
      expect((body as Problem).title).toBe(i % 2 === 0 ? 'Komm zuerst herein' : 'Come in first');
  });
});
