import { SHOWN_AT_FIRST } from '@vestigia/core';
import type { AuthState, Problem } from '@vestigia/contract';
import request from 'supertest';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { TestStudio } from '../test/test-studio';
import { KINDS, newId, openTestStudio } from '../test/test-studio';
import { checkPassphrase, hashPassphrase } from '../shared/passphrase';

describe('passphrases', () => {
  it('are kept as scrypt with their own salt and cost, and checked', async () => {
    const [one, two] = await Promise.all([hashPassphrase('ten green hanks'), hashPassphrase('ten green hanks')]);
    expect(one).toMatch(/^scrypt\$32768\$8\$3\$/);
    expect(one).not.toBe(two);
    expect(await checkPassphrase('ten green hanks', one)).toBe(true);
    expect(await checkPassphrase('ten green hank', one)).toBe(false);
    expect(await checkPassphrase('anything', null)).toBe(false);
    expect(await checkPassphrase('anything', 'plain text')).toBe(false);
  });
});

describe.each(KINDS)('the door, on a %s', (kind) => {
  let studio: TestStudio;
  let personId: string;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    personId = ((await studio.stranger.get('/api/auth')).body as AuthState).people[0]?.id ?? '';
  });
  afterAll(() => studio.close());

  it('shows a stranger names and nothing else', async () => {
    const authState = (await studio.stranger.get('/api/auth').expect(200)).body as AuthState;
    expect(authState).toEqual({
      studio: { name: 'Test House', signInNote: '', zone: 'Europe/London', shownIn: SHOWN_AT_FIRST },
      people: [{ id: personId, name: 'Ada Reed' }],
      person: null,
      language: 'en',
    });
    for (const path of ['/api/stores', '/api/lots', '/api/studio', '/api/studio-file', '/api/events', '/api/today'])
      expect((await studio.stranger.get(path)).status, path).toBe(401);
    expect((await studio.stranger.post('/api/vessels').send({})).status).toBe(401);
  });

  it('lets in with the passphrase, by a cookie scripts and other sites can’t use', async () => {
    await studio.stranger.post('/api/auth/session').send({ personId, passphrase: 'wrong' }).expect(401);
    const reply = await studio.stranger
      .post('/api/auth/session')
      .send({ personId, passphrase: 'ten green hanks' })
      .expect(200);
    const cookie = String(reply.headers['set-cookie']);
    expect(cookie).toMatch(/^vestigia=s%3A/);
    expect(cookie).toContain('HttpOnly');
    expect(cookie).toContain('SameSite=Strict');
    await studio.stranger.get('/api/stores').expect(200);
    await studio.stranger.delete('/api/auth/session').expect(200);
    await studio.stranger.get('/api/stores').expect(401);
  });

  it('forgets a session after its days, and a forged cookie never counted', async () => {
    await studio.stranger.post('/api/auth/session').send({ personId, passphrase: 'ten green hanks' }).expect(200);
    studio.pass(15 * 24 * 60);
    await studio.stranger.get('/api/stores').expect(401);
    studio.pass(-15 * 24 * 60);
    await studio.stranger.delete('/api/auth/session');
    expect((await studio.stranger.get('/api/stores').set('cookie', 'vestigia=s%3Aforged.signature')).status).toBe(401);
  });

  it('slows down repeated wrong tries, for that name only', async () => {
    const other = newId();
    await studio.agent
      .post('/api/people')
      .send({ id: other, name: 'Bo Sedge', passphrase: 'six brown skeins' })
      .expect(200);
    const tries = [];
    for (let i = 0; i < 7; i += 1)
      tries.push(
        (await studio.stranger.post('/api/auth/session').send({ personId: other, passphrase: 'guess' })).status,
      );
    expect(tries.slice(0, 5)).toEqual([401, 401, 401, 401, 401]);
    expect(tries[6]).toBe(429);
    const reply = (
      await studio.stranger.post('/api/auth/session').send({ personId: other, passphrase: 'six brown skeins' })
    ).body as Problem;
    expect([reply.code, reply.detail]).toEqual(['slowDown', 'Too many wrong tries. Wait a minute, then try again.']);
    await studio.stranger.post('/api/auth/session').send({ personId, passphrase: 'ten green hanks' }).expect(200);
  });

  it('a guess isn’t made again by writing the name’s id in capitals', async () => {
    const other = newId();
    await studio.agent
      .post('/api/people')
      .send({ id: other, name: 'Cy Moss', passphrase: 'two grey hanks' })
      .expect(200);
    const guess = async (id: string) =>
      (await studio.stranger.post('/api/auth/session').send({ personId: id, passphrase: 'guess' })).status;
    for (let i = 0; i < 5; i += 1) expect(await guess(i % 2 === 0 ? other : other.toUpperCase())).toBe(401);
    expect(await guess(other.toUpperCase())).toBe(429);
  });

  it('a passphrase is changed by whoever knows it; wherever else it came in, that ends', async () => {
    const id = newId();
    await studio.agent.post('/api/people').send({ id, name: 'Di Fern', passphrase: 'one old passphrase' }).expect(200);
    const [here, there] = [request.agent(studio.app), request.agent(studio.app)];
    for (const tablet of [here, there])
      await tablet.post('/api/auth/session').send({ personId: id, passphrase: 'one old passphrase' }).expect(200);
    const change = (current: string, passphrase: string) =>
      here.put('/api/auth/passphrase').send({ current, passphrase });
    expect((await change('not it', 'nine new words')).status).toBe(401);
    expect(((await change('one old passphrase', 'Password 123')).body as Problem).detail).toContain(
      'first anybody tries',
    );
    expect(((await change('one old passphrase', 'aaaaaaaaaa')).body as Problem).detail).toContain(
      'first anybody tries',
    );
    await change('one old passphrase', 'nine new words').expect(200);
    await here.get('/api/stores').expect(200);
    await there.get('/api/stores').expect(401);
    expect(
      (await there.post('/api/auth/session').send({ personId: id, passphrase: 'one old passphrase' })).status,
    ).toBe(401);
    await there.post('/api/auth/session').send({ personId: id, passphrase: 'nine new words' }).expect(200);
    await request(studio.app)
      .put('/api/auth/passphrase')
      .send({ current: 'x', passphrase: 'nine new words' })
      .expect(401);
  });

  it('who forgot a passphrase is given a code by a colleague, and comes in by it once', async () => {
    const id = newId();
    await studio.agent.post('/api/people').send({ id, name: 'Ed Alder', passphrase: 'soon forgotten' }).expect(200);
    const { code } = (await studio.agent.post(`/api/people/${id}/code`).expect(200)).body as { code: string };
    await request(studio.app).post(`/api/people/${id}/code`).expect(401);
    await studio.agent.post(`/api/people/${newId()}/code`).expect(404);
    expect(((await studio.agent.post(`/api/people/${personId}/code`)).body as Problem).detail).toContain(
      'somebody else',
    );
    const own = request.agent(studio.app);
    await own.post('/api/auth/passphrase').send({ personId: id, code, passphrase: 'remembered now' }).expect(200);
    await own.get('/api/stores').expect(200);
    expect((await own.post('/api/auth/passphrase').send({ personId: id, code, passphrase: 'and again' })).status).toBe(
      401,
    );
  });

  it('opens a studio once', async () => {
    const again = await studio.stranger
      .post('/api/auth/studio')
      .send({ name: 'Other', zone: 'UTC', person: { id: newId(), name: 'Eve', passphrase: 'let me in please' } });
    expect(again.status).toBe(409);
    expect((await studio.stranger.get('/api/auth')).body.studio.name).toBe('Test House');
  });

  it.each<[string, object, string]>([
    ['an empty name', { id: newId(), name: ' ', passphrase: 'long enough' }, 'The name is empty. Write something.'],
    [
      'a name of 5,000 characters',
      { id: newId(), name: 'x'.repeat(5000), passphrase: 'long enough' },
      'The name is too long: 120 characters at most.',
    ],
    [
      'a script for a name',
      { id: newId(), name: '<script>alert(1)</script>', passphrase: 'long enough' },
      'The name can’t hold the signs < or >. Write it in words.',
    ],
    [
      'a short passphrase',
      { id: newId(), name: 'Cy', passphrase: 'short' },
      'A passphrase needs at least 8 characters. Three words are easy to remember.',
    ],
    [
      'an id that is none',
      { id: '1', name: 'Cy', passphrase: 'long enough' },
      'An id is not in the form this server understands. Reload the page and try again.',
    ],
    [
      'a name already there',
      { id: newId(), name: 'Ada Reed', passphrase: 'long enough' },
      'Someone here has that name already. Add a letter to tell them apart.',
    ],
  ])('refuses %s in a plain sentence', async (_name, body, message) => {
    const reply = await studio.agent.post('/api/people').send(body);
    expect(reply.status).toBeGreaterThanOrEqual(400);
    expect(reply.status).toBeLessThan(500);
    expect((reply.body as Problem).detail).toBe(message);
  });

  it('refuses a 10 MB body, broken JSON, another site’s page and a borrowed name, and stays up', async () => {
    const huge = await studio.agent
      .post('/api/people')
      .set('content-type', 'application/json')
      .send(JSON.stringify({ name: 'x'.repeat(10_000_000) }));
    expect([huge.status, (huge.body as Problem).code]).toEqual([413, 'tooLarge']);
    const broken = await studio.agent.post('/api/people').set('content-type', 'application/json').send('{"name":');
    expect([broken.status, (broken.body as Problem).code]).toEqual([400, 'unreadable']);
    const elsewhere = await studio.agent.post('/api/people').set('sec-fetch-site', 'cross-site').send({});
    expect([elsewhere.status, (elsewhere.body as Problem).code]).toEqual([403, 'otherSite']);
    expect((await studio.agent.get('/api/stores').set('host', 'dyes.example')).status).toBe(403);
    expect((await studio.agent.get('/api/nothing-here')).status).toBe(404);
    expect((await studio.agent.get('/api/search?q=%E0%A4%A')).status).toBeLessThan(500);
    await studio.stranger.get('/api/health').expect(200, { status: 'ok' });
  });

  it('sends the headers that keep a page to itself', async () => {
    const { headers } = await studio.stranger.get('/api/auth');
    expect(headers['content-security-policy']).toContain("script-src 'self'");
    expect(headers['x-content-type-options']).toBe('nosniff');
    expect(headers['x-powered-by']).toBeUndefined();
    expect(headers['cache-control']).toBe('no-store');
  });

  it('keeps no passphrase in words', async () => {
    const rows = (await studio.context.database.db.execute(sql`SELECT passphrase_hash FROM people`)) as unknown as {
      rows: { passphrase_hash: string }[];
    };
    for (const row of rows.rows) expect(row.passphrase_hash).toMatch(/^scrypt\$/);
  });
});
