import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';
import { startPostgres } from '../../scripts/postgres.mjs';
import { openFolder } from '../db/open-database';

export const MIGRATIONS = join(import.meta.dirname, '..', 'db', 'migrations');

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

export function copyTemplate(template: string): string {
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-studio-'));
  cpSync(template, folder, { recursive: true });
  return folder;
}
