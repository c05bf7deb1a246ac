import { describe, expect, it } from 'vitest';
import { ConfigError, readConfig } from './config';

describe('settings of the process', () => {
  it('have a default each, and an empty one counts as not said', () =>
    expect(readConfig({ PORT: '', DATABASE_URL: '' }, '/studio')).toEqual({
      host: '127.0.0.1',
      port: 4310,
      dataDir: '/studio/data/studio',
      copiesDir: '/studio/data/studio-copies',
      migrationsDir: '/studio/server/db/migrations',
      webDir: undefined,
      openDocument: undefined,
      databaseUrl: undefined,
      logLevel: 'warn',
      loopbackOnly: true,
      answersTo: [],
      tls: 'off',
      behindProxy: false,
    }));

  it.each<[Record<string, string>, object]>([
    [{ HOST: '0.0.0.0' }, { answersTo: ['loft', 'loft.local', '10.0.0.2'], tls: 'own', behindProxy: false }],
    [
      { HOST: '0.0.0.0', HOSTS: 'Dyes.example.org, 10.0.0.9' },
      { answersTo: ['dyes.example.org', '10.0.0.9'], tls: 'own' },
    ],
    [{ HOST: '0.0.0.0', TLS: 'off' }, { tls: 'off' }],
    [{ HOST: '0.0.0.0', TLS_CERT: '/c', TLS_KEY: '/k' }, { tls: { certPath: '/c', keyPath: '/k' } }],
    [
      { BEHIND_PROXY: 'yes', HOSTS: 'dyes.example.org' },
      { answersTo: ['dyes.example.org'], tls: 'off', behindProxy: true },
    ],
    [{ TLS: 'own' }, { answersTo: [], tls: 'own' }],
  ])('say with %j how the door is', (env, door) =>
    expect(readConfig(env, '/', () => ['loft', 'loft.local', '10.0.0.2'])).toMatchObject(door),
  );

  it('name this machine on its network where nobody else does', () => {
    const { answersTo } = readConfig({ HOST: '0.0.0.0' }, '/');
    expect(answersTo[0]).toMatch(/^[a-z0-9.-]+$/);
  });

  it('copies lie beside the data folder, or where COPIES_DIR says', () => {
    expect(readConfig({ DATA_DIR: '/mnt/studio/' }, '/').copiesDir).toBe('/mnt/studio-copies');
    expect(readConfig({ COPIES_DIR: '/usb/copies' }, '/').copiesDir).toBe('/usb/copies');
  });

  it.each([
    [{ HOST: '0.0.0.0' }, false],
    [{ HOST: '::1' }, true],
    [{ HOST: 'localhost' }, true],
  ])('know with %j whether only this computer is listened to', (env, loopbackOnly) =>
    expect(readConfig(env, '/').loopbackOnly).toBe(loopbackOnly),
  );

  it.each([
    [{ PORT: 'soon' }, /PORT must be a number from 0 to 65535, not “soon”\.$/],
    [{ PORT: '65536' }, /0 to 65535/],
    [{ PORT: '-1' }, /0 to 65535/],
    [{ PORT: '1.5' }, /without a fraction, not “1.5”/],
    [{ LOG_LEVEL: 'loud' }, /one of fatal/],
    [{ TLS: 'yes' }, /TLS must be own or off, not “yes”/],
    [{ BEHIND_PROXY: 'yes' }, /BEHIND_PROXY needs HOSTS/],
    [{ TLS_CERT: '/c' }, /go together/],
    [{ DATABASE_URL: 'mysql://x' }, /postgresql:\/\//],
  ])('refuse %j in a sentence that says what to write', (env, message) => {
    expect(() => readConfig(env, '/')).toThrow(ConfigError);
    expect(() => readConfig(env, '/')).toThrow(message);
  });
});
