import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import { afterAll, describe, expect, inject, it } from 'vitest';
import { MIGRATIONS, copyTemplate } from '../test/databases';
import { FolderHeldError } from './folder-lock';
import { FolderUnusableError } from './folder-state';
import { FlushFailedError, openFolder } from './open-database';

const NOW = new Date('2026-06-01T09:00:00.000Z');

describe('a data folder', () => {
  const root = mkdtempSync(join(tmpdir(), 'vestigia-folder-'));
  afterAll(() => rmSync(root, { recursive: true, force: true }));

  it('is held even where somebody deletes the file that says so', async () => {
    const folder = copyTemplate(inject('templateFolder'));
    const database = await openFolder(folder, MIGRATIONS, NOW);
    rmSync(join(folder, 'held-by.json'));
    await expect(openFolder(folder, MIGRATIONS, NOW)).rejects.toThrow(FolderHeldError);
    await database.close();
    await (await openFolder(folder, MIGRATIONS, NOW)).close();
    rmSync(folder, { recursive: true });
  });

  it('without its first file is not taken for an empty one: nothing is written over it', async () => {
    const folder = join(root, 'no version');
    mkdirSync(join(folder, 'db', 'base'), { recursive: true });
    writeFileSync(join(folder, 'db', 'base', '1'), 'what was kept');
    const opening = openFolder(folder, MIGRATIONS, NOW);
    await expect(opening).rejects.toThrow(FolderUnusableError);
    await expect(opening).rejects.toThrow(`The database in ${join(folder, 'db')} is damaged`);
    expect(readdirSync(folder)).toEqual(['db']);
    expect(readdirSync(join(folder, 'db'))).toEqual(['base']);
    expect(readFileSync(join(folder, 'db', 'base', '1'), 'utf8')).toBe('what was kept');
  });

  it('whose program was stopped in its first seconds opens as an empty one', async () => {
    const folder = join(root, 'first seconds');
    mkdirSync(folder);
    await (await PGlite.create(join(folder, 'db'))).close();
    const database = await openFolder(folder, MIGRATIONS, NOW);
    expect((await database.db.execute(sql`SELECT count(*)::int AS n FROM people`)).rows).toEqual([{ n: 0 }]);
    await database.close();
  });

  it('that can’t be written in is named, with what to do', async () => {
    writeFileSync(join(root, 'a file'), '');
    const folder = join(root, 'a file', 'studio');
    await expect(openFolder(folder, MIGRATIONS, NOW)).rejects.toThrow(
      `The data folder ${folder} can’t be written in (ENOTDIR). Give the program leave to, or name another as DATA_DIR.`,
    );
  });

  it('whose disk fails ends the program with the reason: nothing more is promised', async () => {
    const folder = copyTemplate(inject('templateFolder'));
    let isBroken = false;
    const database = await openFolder(folder, MIGRATIONS, NOW, {
      sync: () => (isBroken ? Promise.reject(new Error('EIO: i/o error, fsync')) : Promise.resolve()),
    });
    await database.flush();
    isBroken = true;
    await database.db.execute(sql`CREATE TABLE anything (n integer)`);
    await expect(database.flush()).rejects.toThrow(FlushFailedError);
    expect((await database.broken).message).toMatch(/could not be put on the disk of .*: EIO: i\/o error, fsync/);
    isBroken = false;
    await database.close();
    rmSync(folder, { recursive: true });
  });
});
