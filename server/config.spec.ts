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
    }));

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
    [{ DATABASE_URL: 'mysql://x' }, /postgresql:\/\//],
  ])('refuse %j in a sentence that says what to write', (env, message) => {
    expect(() => readConfig(env, '/')).toThrow(ConfigError);
    expect(() => readConfig(env, '/')).toThrow(message);
  });
});
