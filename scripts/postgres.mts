// A PostgreSQL cluster of its own, where Debian's is on the machine: on a socket in its folder, nothing on the network.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join } from 'node:path';

const DEBIAN_POSTGRES = '/usr/lib/postgresql';

export interface OwnPostgres {
  readonly url: string;
  /** As a power cut would: nothing is finished, and it recovers when it starts. */
  kill(): void;
  start(): void;
  stop(): void;
}

/**
 * Makes a cluster under a user that PostgreSQL accepts (it refuses root) and starts it.
 * @param isSafe what is committed lies on the disk before it is answered, as in a studio
 */
export function startPostgres(folder: string, { isSafe = false } = {}): OwnPostgres | undefined {
  const newest = existsSync(DEBIAN_POSTGRES)
    ? readdirSync(DEBIAN_POSTGRES).sort((a, b) => Number(b) - Number(a))[0]
    : undefined;
  const bin = newest === undefined ? '' : join(DEBIAN_POSTGRES, newest, 'bin');
  if (!existsSync(join(bin, 'initdb'))) return undefined;
  mkdirSync(folder, { recursive: true });
  const asRoot = userInfo().uid === 0;
  if (asRoot) {
    if (spawnSync('id', ['postgres']).status !== 0) return undefined;
    execFileSync('chmod', ['755', join(folder, '..')]);
    execFileSync('chown', ['postgres', folder]);
  }
  const run = (...args: string[]): void => {
    const [command = '', ...rest] = asRoot ? ['runuser', '-u', 'postgres', '--', ...args] : args;
    execFileSync(command, rest, { stdio: 'ignore' });
  };
  const data = join(folder, 'data');
  const control = (...args: string[]): void => run(join(bin, 'pg_ctl'), '-D', data, '-w', ...args);
  const start = (): void =>
    control(
      '-o',
      `-k ${folder} -c listen_addresses='' -c fsync=${isSafe ? 'on' : 'off'}`,
      '-l',
      join(folder, 'log'),
      'start',
    );
  run(join(bin, 'initdb'), '-D', data, '-A', 'trust', '-U', 'postgres', '--no-sync');
  start();
  return {
    url: `postgresql:///postgres?host=${encodeURIComponent(folder)}&user=postgres`,
    kill: () => control('-m', 'immediate', 'stop'),
    start,
    stop: () => control('-m', 'immediate', 'stop'),
  };
}
