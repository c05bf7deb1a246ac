import { cpSync } from 'node:fs';
import { join } from 'node:path';
import { v7 } from 'uuid';
import { afterAll, describe, expect, it } from 'vitest';
import type { Served } from '../scripts/serve.mjs';
import { serve, temporaryFolder } from '../scripts/serve.mjs';

const PASSPHRASE = 'ten green hanks';

/** A person at a real server process, with the cookie it gave. */
async function openStudio(base: string): Promise<{ cookie: string; personId: string }> {
  const personId = v7();
  const reply = await fetch(`${base}/api/auth/studio`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      name: 'Process House',
      zone: 'UTC',
      person: { id: personId, name: 'Ada Reed', passphrase: PASSPHRASE },
    }),
  });
  expect(reply.status).toBe(200);
  return { cookie: reply.headers.get('set-cookie')?.split(';')[0] ?? '', personId };
}

const send = (base: string, cookie: string, path: string, body?: object): Promise<Response> =>
  fetch(
    base + path,
    body
      ? { method: 'POST', headers: { 'content-type': 'application/json', cookie }, body: JSON.stringify(body) }
      : { headers: { cookie } },
  );

describe('a real server process', () => {
  const { folder, remove } = temporaryFolder('process');
  const running: Served[] = [];
  const start = async (env: Record<string, string> = {}): Promise<Served> => {
    const server = await serve(join(folder, 'data'), env);
    running.push(server);
    return server;
  };
  afterAll(async () => {
    for (const server of running) await server.stop('SIGKILL');
    remove();
  });

  it('holds its folder: a second process is told who has it, and the first goes on', async () => {
    const first = await start();
    await openStudio(first.base);
    const refused = await serve(join(folder, 'data')).then(
      () => undefined,
      (error: Error & { code?: number }) => error,
    );
    expect(refused?.message).toMatch(
      new RegExp(
        `^The data folder .* is open already, by process ${first.pid} on .*\\. Stop that one first, or give this one another DATA_DIR\\.$`,
      ),
    );
    expect(refused?.code).toBe(3);
    expect(await (await fetch(`${first.base}/api/health`)).json()).toEqual({ status: 'ok' });
    await first.stop();
  });

  it('closes cleanly on SIGTERM, even with a browser listening, and opens again', async () => {
    const server = await start();
    const { people } = (await (await fetch(`${server.base}/api/auth`)).json()) as { people: { id: string }[] };
    const entered = await send(server.base, '', '/api/auth/session', {
      personId: people[0]?.id,
      passphrase: PASSPHRASE,
    });
    const cookie = entered.headers.get('set-cookie')?.split(';')[0] ?? '';
    const events = await fetch(`${server.base}/api/events`, { headers: { cookie } });
    expect(events.headers.get('content-type')).toBe('text/event-stream');
    const { code, signal } = await server.stop('SIGTERM');
    expect([code, signal]).toEqual([0, null]);
    await events.body?.cancel().catch(() => undefined);
    const again = await start();
    expect((await send(again.base, cookie, '/api/studio')).status).toBe(200);
    await again.stop();
  });

  it('says in a sentence when its port is taken or is none', async () => {
    const first = await start();
    const port = new URL(first.base).port;
    const other = temporaryFolder('port');
    // A studio that is there opens sooner than one that has to be made first.
    cpSync(process.env['DEMO_TEMPLATE'] ?? '', join(other.folder, 'data'), { recursive: true });
    await expect(serve(join(other.folder, 'data'), { PORT: port })).rejects.toThrow(
      `Port ${port} is taken by another program.`,
    );
    await expect(serve(join(other.folder, 'data'), { PORT: 'high' })).rejects.toThrow(
      'PORT must be a number from 0 to 65535, not “high”.',
    );
    other.remove();
    await first.stop();
  });
});
