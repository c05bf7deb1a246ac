import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Problem } from '@vestigia/contract';
import pg from 'pg';
import { describe, expect, inject, it, vi } from 'vitest';
import { MIGRATIONS } from '../test/databases';
import { KINDS, newId, openTestStudio } from '../test/test-studio';
import { SERVER_LOCK } from './locks';
import { DatabaseHeldError, openServer } from './open-server';

const PATIENCE = { timeout: 60_000, interval: 50 };

describe.runIf(KINDS.includes('server'))('a PostgreSQL server that goes away', () => {
  const admin = async <T>(work: (client: pg.Client) => Promise<T>): Promise<T> => {
    const client = new pg.Client({ connectionString: inject('postgresUrl') });
    await client.connect();
    try {
      return await work(client);
    } finally {
      await client.end();
    }
  };
  /** As a restart does: every line of this database is cut. */
  const cut = (name: string) =>
    admin((c) => c.query('SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1', [name]));

  it('is lived through: told by name meanwhile, and nothing that was answered is lost', async () => {
    const studio = await openTestStudio('server');
    const { db } = studio.context.database;
    const name = (
      (await db.execute<{ name: string }>('SELECT current_database() AS name')).rows[0]?.name ?? ''
    ).toString();
    const kept: string[] = [];
    let away = 0;
    for (let round = 0; round < 4; round += 1) {
      await cut(name);
      await vi.waitFor(async () => {
        const id = newId();
        const reply = await studio.agent
          .post('/api/waters')
          .send({ id, name: `Tap ${id}`, ph: 7, hardnessDh: 4, note: '' });
        if (reply.status === 200) kept.push(id);
        else {
          away += 1;
          expect([reply.status, (reply.body as Problem).code]).toEqual([503, 'databaseAway']);
        }
        expect(kept).toHaveLength(round + 1);
      }, PATIENCE);
    }
    expect(away).toBeGreaterThan(0);
    await studio.agent.get('/api/health').expect(200, { status: 'ok' });
    const { waters } = (await studio.agent.get('/api/studio').expect(200)).body as { waters: { id: string }[] };
    expect(waters.map((w) => w.id).sort()).toEqual([...kept].sort());
    await studio.close();
  });

  it('names who serves this database, not who serves the one beside it', async () => {
    const names = [newId(), newId()].map((id) => `t${id.replaceAll('-', '')}`);
    const folder = mkdtempSync(join(tmpdir(), 'vestigia-away-'));
    const holders: pg.Client[] = [];
    for (const name of names) {
      await admin((c) => c.query(`CREATE DATABASE ${name}`));
      const connectionString = inject('postgresUrl').replace('///postgres', `///${name}`);
      const holder = new pg.Client({ connectionString, application_name: `who serves ${name}` });
      await holder.connect();
      await holder.query('SELECT pg_advisory_lock($1)', [SERVER_LOCK]);
      holders.push(holder);
    }
    for (const name of names) {
      const url = inject('postgresUrl').replace('///postgres', `///${name}`);
      await expect(openServer(url, folder, MIGRATIONS)).rejects.toThrow(`who serves ${name}`);
    }
    for (const holder of holders) await holder.end();
    for (const name of names) await admin((c) => c.query(`DROP DATABASE ${name} WITH (FORCE)`));
    rmSync(folder, { recursive: true });
  });

  it('and is served by another when it is back, ends the program with that as its reason', async () => {
    const name = `t${newId().replaceAll('-', '')}`;
    await admin((c) => c.query(`CREATE DATABASE ${name}`));
    const folder = mkdtempSync(join(tmpdir(), 'vestigia-away-'));
    const url = inject('postgresUrl').replace('///postgres', `///${name}`);
    const database = await openServer(url, folder, MIGRATIONS);
    const other = new pg.Client({ connectionString: url, application_name: 'another Vestigia' });
    await other.connect();
    // The other one waits for the lock, and has it in the moment the line is cut.
    const waiting = other.query('SELECT pg_advisory_lock($1)', [SERVER_LOCK]);
    await admin((c) =>
      c.query(
        "SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = $1 AND application_name LIKE 'vestigia%'",
        [name],
      ),
    );
    await waiting;
    expect(await database.broken).toBeInstanceOf(DatabaseHeldError);
    expect((await database.broken).message).toContain('another Vestigia');
    expect((await database.barred())?.code).toBe('databaseAway');
    await database.close();
    await other.end();
    await admin((c) => c.query(`DROP DATABASE ${name} WITH (FORCE)`));
    rmSync(folder, { recursive: true });
  });
});
