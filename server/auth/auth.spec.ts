import type { AuthState, Problem } from '@vestigia/contract';
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
      studio: { name: 'Test House', signInNote: '', zone: 'Europe/London' },
      people: [{ id: personId, name: 'Ada Reed' }],
      person: null,
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
