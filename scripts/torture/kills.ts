// The server, and where it is PostgreSQL the database, killed at random moments under four clients.
import { join } from 'node:path';
import { seeded } from '../../core/photo/seeded';
import { startPostgres } from '../postgres.mjs';
import type { Served } from '../serve.mjs';
import { serve, temporaryFolder } from '../serve.mjs';
import type { Faults } from './clients';
import { House } from './clients';

const LONGEST_MS = 700;

export interface KillReport extends Faults {
  readonly kind: 'folder' | 'server';
  kills: number;
  acknowledged: number;
  said: readonly string[];
}

const pause = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** @returns what was counted; `undefined` where there is no PostgreSQL to be killed */
export async function kills(
  kind: 'folder' | 'server',
  times: number,
  seed: number,
  heard: (done: number) => void = () => undefined,
): Promise<KillReport | undefined> {
  const random = seeded(seed);
  const { folder, remove } = temporaryFolder('kills');
  const postgres = kind === 'server' ? startPostgres(join(folder, 'pg'), { isSafe: true }) : undefined;
  if (kind === 'server' && !postgres) return undefined;
  const env = postgres ? { DATABASE_URL: postgres.url } : undefined;
  const start = (): Promise<Served> => serve(join(folder, 'data'), env);
  const house = new House();
  let server = await start();
  try {
    await house.furnish(server.base);
    for (let n = 0; n < times; n += 1) {
      const { base } = server;
      const siege = house.besiege(base, seed * 7919 + n);
      await pause(20 + random.uniform() * LONGEST_MS);
      if (postgres && random.uniform() < 0.6) {
        // The server lives through it: clients are told that the database is away, and go on when it is back.
        postgres.kill();
        postgres.start();
        await pause(random.uniform() * LONGEST_MS);
        await siege.lift();
        await comesBack(base);
      } else {
        await server.stop('SIGKILL');
        await siege.lift();
        server = await start();
      }
      await house.check(server.base);
      heard(n + 1);
    }
    await house.checkEach(server.base);
    return { kind, kills: times, acknowledged: house.acknowledged.size, ...house.faults, said: house.said };
  } finally {
    await server.stop('SIGKILL');
    postgres?.stop();
    remove();
  }
}

/** Waits until the server says that it serves. */
async function comesBack(base: string): Promise<void> {
  for (let tries = 0; tries < 600; tries += 1) {
    const reply = await fetch(`${base}/api/health`).catch(() => undefined);
    if (reply?.status === 200) return;
    await pause(50);
  }
  throw new Error('the server did not come back after the database did');
}
