import { mkdtempSync, rmSync, statSync } from 'node:fs';
import { request as askSecurely } from 'node:https';
import { connect } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Problem, Session } from '@vestigia/contract';
import express from 'express';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../app';
import type { TestStudio } from '../test/test-studio';
import { copiesIn, openTestStudio } from '../test/test-studio';
import type { Certificate } from './certificate';
import { ownCertificate, readCertificate } from './certificate';
import { listenWith } from './listen';

const NOW = new Date();
const PASSPHRASE = 'ten green hanks';

describe('the studio’s own certificate', () => {
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-tls-'));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('is made once, is nobody else’s to read, and is made anew for other names and before it is over', async () => {
    const first = await ownCertificate(folder, ['loft.local', '10.0.0.2'], NOW);
    expect(statSync(join(folder, 'key.pem')).mode & 0o077).toBe(0);
    expect((await ownCertificate(folder, ['10.0.0.2'], NOW)).fingerprint).toBe(first.fingerprint);
    const renamed = await ownCertificate(folder, ['attic.local'], NOW);
    expect(renamed.fingerprint).not.toBe(first.fingerprint);
    const later = new Date(NOW.getTime() + 340 * 86_400_000);
    expect((await ownCertificate(folder, ['attic.local'], later)).fingerprint).not.toBe(renamed.fingerprint);
  });

  it('that is given is refused with another’s key', async () => {
    const [one, two] = [join(folder, 'one'), join(folder, 'two')];
    await ownCertificate(one, ['a.example'], NOW);
    await ownCertificate(two, ['b.example'], NOW);
    expect(() => readCertificate(join(one, 'certificate.pem'), join(two, 'key.pem'))).toThrow(
      'isn’t the one of the certificate',
    );
  });
});

describe('a server with a certificate', () => {
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-tls-'));
  let certificate: Certificate;
  let port: number;
  let close: () => void;
  beforeAll(async () => {
    certificate = await ownCertificate(folder, ['localhost'], NOW);
    const app = express();
    app.get('/here', (req, res) => void res.json({ secure: req.secure }));
    const listening = listenWith(app, certificate);
    await new Promise<void>((resolve) => listening.server.listen(0, '127.0.0.1', resolve));
    ({ port } = listening.server.address() as AddressInfo);
    close = () => {
      listening.closeAllConnections();
      listening.server.close();
    };
  });
  afterAll(() => {
    close();
    rmSync(folder, { recursive: true });
  });

  it('speaks HTTPS', async () => {
    const body = await new Promise<string>((resolve, reject) =>
      askSecurely({ host: '127.0.0.1', servername: 'localhost', port, path: '/here', ca: certificate.cert }, (res) => {
        res.setEncoding('utf8');
        res.on('data', resolve);
      })
        .on('error', reject)
        .end(),
    );
    expect(JSON.parse(body)).toEqual({ secure: true });
  });

  it('sends whoever comes in the clear there, and lives through nonsense', async () => {
    const reply = await fetch(`http://127.0.0.1:${port}/here?x=1`, { redirect: 'manual' });
    expect([reply.status, reply.headers.get('location')]).toEqual([308, `https://127.0.0.1:${port}/here?x=1`]);
    for (const nonsense of ['\u0016nonsense', '\u0000', 'GET / HTTP/9.9\r\n\r\n'])
      await new Promise<void>((resolve) => {
        const socket = connect(port, '127.0.0.1', () => socket.end(nonsense));
        socket.on('error', () => undefined).on('close', () => resolve());
        socket.resume();
      });
    expect((await fetch(`http://127.0.0.1:${port}/`, { redirect: 'manual' })).status).toBe(308);
  });
});

describe('a studio on a network', () => {
  let studio: TestStudio;
  let personId: string;
  beforeAll(async () => {
    studio = await openTestStudio('folder');
    personId = ((await studio.stranger.get('/api/auth')).body as { people: { id: string }[] }).people[0]!.id;
  });
  afterAll(() => studio.close());
  const appWith = (how: object) =>
    createApp(studio.context, {
      answersTo: ['dyes.example'],
      copies: copiesIn(studio.context.database.files.folder),
      ...how,
    });
  const comeIn = { passphrase: PASSPHRASE };

  it('answers to its names, and to no other that leads to it', async () => {
    const app = await appWith({});
    for (const host of ['dyes.example', 'DYES.example:4310', 'localhost', '127.0.0.1:4310', '[::1]:4310'])
      await request(app).get('/api/health').set('host', host).expect(200);
    const refused = await request(app).get('/api/health').set('host', 'evil.example');
    expect([refused.status, (refused.body as Problem).detail]).toEqual([
      403,
      'This server doesn’t go by that name. Open it as dyes.example, or name this one in HOSTS.',
    ]);
  });

  it('behind a proxy gives a cookie over HTTPS only, holds browsers to it, and counts who stands behind', async () => {
    const app = await appWith({ transport: 'trusted', behindProxy: true });
    const come = (headers: Record<string, string>) =>
      request(app)
        .post('/api/auth/session')
        .set({ host: 'dyes.example', ...headers })
        .send({ personId, ...comeIn });
    const clear = await come({});
    expect(clear.headers['set-cookie']).toBeUndefined();
    const secure = await come({ 'x-forwarded-proto': 'https', 'x-forwarded-for': '203.0.113.9' });
    expect(String(secure.headers['set-cookie'])).toContain('Secure');
    expect(secure.headers['strict-transport-security']).toContain('max-age');
    const sessions = (await studio.agent.get('/api/sessions').expect(200)).body as Session[];
    expect(sessions.map((s) => s.address)).toContain('203.0.113.9');
  });

  it('without one believes nobody about where they come from', async () => {
    const app = await appWith({ transport: 'own' });
    await request(app)
      .post('/api/auth/session')
      .set({ host: 'dyes.example', 'x-forwarded-for': '198.51.100.1' })
      .send({ personId, ...comeIn });
    const sessions = (await studio.agent.get('/api/sessions').expect(200)).body as Session[];
    expect(sessions.map((s) => s.address)).not.toContain('198.51.100.1');
  });
});
