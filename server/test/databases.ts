import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { openFolder } from '../db/open-database';

export const MIGRATIONS = join(import.meta.dirname, '..', 'db', 'migrations');
const DEBIAN_POSTGRES = '/usr/lib/postgresql';

declare module 'vitest' {
  interface ProvidedContext {
    /** A migrated, empty data folder to copy: making one anew takes PGlite seconds. */
    templateFolder: string;
    /** A PostgreSQL server made for this run, where Debian's is on the machine. */
    postgresUrl: string;
  }
}

/** Makes what every server test starts from, once a run; gives back what takes it away. */
export default async function setup(project: TestProject): Promise<() => void> {
  const root = mkdtempSync(join(tmpdir(), 'vestigia-test-'));
  const template = join(root, 'template');
  await (await openFolder(template, MIGRATIONS, new Date())).close();
  project.provide('templateFolder', template);
  const postgres = startPostgres(join(root, 'pg'));
  project.provide('postgresUrl', postgres?.url ?? '');
  return () => {
    postgres?.stop();
    rmSync(root, { recursive: true, force: true });
  };
}

/** A cluster on a socket in its own folder, under a user that PostgreSQL accepts (it refuses root). */
function startPostgres(folder: string): { url: string; stop: () => void } | undefined {
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
  run(join(bin, 'initdb'), '-D', data, '-A', 'trust', '-U', 'postgres', '--no-sync');
  run(
    join(bin, 'pg_ctl'),
    '-D',
    data,
    '-w',
    '-o',
    `-k ${folder} -c listen_addresses='' -c fsync=off`,
    '-l',
    join(folder, 'log'),
    'start',
  );
  return {
    url: `postgresql:///postgres?host=${encodeURIComponent(folder)}&user=postgres`,
    stop: () => run(join(bin, 'pg_ctl'), '-D', data, '-m', 'immediate', 'stop'),
  };
}

export function copyTemplate(template: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-studio-'));
  cpSync(template, folder, { recursive: true });
  return folder;
}
