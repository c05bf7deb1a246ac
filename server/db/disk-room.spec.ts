import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { AuthState, Problem, Today } from '@vestigia/contract';
import { buildSync } from 'esbuild';
import request from 'supertest';
import { afterAll, describe, expect, inject, it } from 'vitest';
import { createApp } from '../app';
import { contextOn } from '../shared/context';
import { MIGRATIONS, copyTemplate } from '../test/databases';
import { copiesIn, newId } from '../test/test-studio';
import { FULL_BYTES, LITTLE_BYTES, roomOf, sayFull } from './disk-room';
import { NoRoomError, openFolder } from './open-database';

describe('the disk of a studio', () => {
  it.each([
    [null, 'enough'],
    [LITTLE_BYTES, 'enough'],
    [LITTLE_BYTES - 1, 'little'],
    [FULL_BYTES, 'little'],
    [FULL_BYTES - 1, 'full'],
    [0, 'full'],
  ])('with %s bytes free has %s', async (free, state) => {
    const room = await roomOf('/studio', () => Promise.resolve(free));
    expect(room).toEqual({ folder: '/studio', freeBytes: free, state });
    expect(sayFull(room) === undefined).toBe(state !== 'full');
  });

  it('asks a real one', async () => {
    expect((await roomOf(tmpdir())).freeBytes).toBeGreaterThan(0);
    expect((await roomOf(join(tmpdir(), 'there is no such folder'))).state).toBe('enough');
  });

  it('full refuses writes by name and is read; with room again it goes on by itself', async () => {
    let free = 10 * LITTLE_BYTES;
    const folder = copyTemplate(inject('templateFolder'));
    const now = new Date('2026-06-01T09:00:00.000Z');
    const freeBytes = (): Promise<number> => Promise.resolve(free);
    const database = await openFolder(folder, MIGRATIONS, now, { freeBytes });
    const context = contextOn(database, () => now);
    const app = await createApp(context, {
      answersTo: [],
      copies: copiesIn(database.files.folder),
      checkReplies: true,
    });
    const agent = request.agent(app);
    const person = { id: newId(), name: 'Ada Reed', passphrase: 'ten green hanks' };
    await agent.post('/api/auth/studio').send({ name: 'House', zone: 'UTC', person }).expect(200);
    const water = () =>
      agent.post('/api/waters').send({ id: newId(), name: `Tap ${newId()}`, ph: 7, hardnessDh: 4, note: '' });
    await water().expect(200);

    free = FULL_BYTES - 1;
    const refused = await water();
    expect([refused.status, (refused.body as Problem).code]).toEqual([507, 'diskFull']);
    expect((refused.body as Problem).detail).toContain(`The disk of ${folder} is full: 63 MB are left`);
    expect(((await agent.get('/api/studio').expect(200)).body as { waters: unknown[] }).waters).toHaveLength(1);
    expect(((await agent.get('/api/today').expect(200)).body as Today).disk.state).toBe('full');
    expect(((await agent.get('/api/auth').expect(200)).body as AuthState).person?.name).toBe('Ada Reed');
    // Whoever comes in now can read.
    await request(app)
      .post('/api/auth/session')
      .send({ personId: person.id, passphrase: person.passphrase })
      .expect(200);

    free = LITTLE_BYTES - 1;
    await water().expect(200);
    expect(((await agent.get('/api/today').expect(200)).body as Today).disk.state).toBe('little');
    for (const end of context.atClose) await end();
    await database.close();
    free = 0;
    await expect(openFolder(folder, MIGRATIONS, now, { freeBytes })).rejects.toThrow(NoRoomError);
    rmSync(folder, { recursive: true });
  });
});

describe('a program whose thread is held by a database that can’t write', () => {
  const folder = mkdtempSync(join(tmpdir(), 'vestigia-blocked-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const bundle = join(folder, 'watch.mjs');
  const run = (how: object, then: string): Promise<{ signal: unknown; said: string; told: string }> => {
    buildSync({
      entryPoints: [join(import.meta.dirname, 'watch-blocked.ts')],
      bundle: true,
      platform: 'node',
      format: 'esm',
      outfile: bundle,
    });
    const script = join(folder, 'script.mjs');
    writeFileSync(
      script,
      `import { watchBlocked } from './watch.mjs';
       watchBlocked(${JSON.stringify(folder)}, ${JSON.stringify(how)});
       setTimeout(() => { ${then} }, 600);`,
    );
    return new Promise((resolve) =>
      execFile(process.execPath, [script], (error, told, said) =>
        resolve({ signal: error?.signal ?? null, said, told }),
      ),
    );
  };

  it('is ended with the reason where the disk is full', async () => {
    const { signal, said } = await run({ patienceMs: 300, fullBytes: Number.MAX_SAFE_INTEGER }, 'for (;;);');
    expect(signal).toBe('SIGKILL');
    expect(said).toContain(`The disk of ${folder} is full`);
  });

  it('goes on where there is room, however long it works', async () => {
    const busy = 'const till = Date.now() + 1500; while (Date.now() < till); console.log("done"); process.exit();';
    const { signal, told } = await run({ patienceMs: 300, fullBytes: 0 }, busy);
    expect([signal, told]).toEqual([null, 'done\n']);
  });
});
