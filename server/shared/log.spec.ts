import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DrizzleQueryError } from 'drizzle-orm/errors';
import { describe, expect, it, vi } from 'vitest';
import { openLog, tellError } from './log';

describe('the log', () => {
  const ofDatabase = new DrizzleQueryError(
    'insert into "people" ("id", "name") values ($1, $2)',
    ['1', 'Wenna Tidewell'],
    Object.assign(new Error('duplicate key value violates unique constraint "people_name_unique"'), {
      code: '23505',
      severity: 'ERROR',
      detail: 'Key (name)=(Wenna Tidewell) already exists.',
    }),
  );

  it('tells of an error where it was and what kind, and never what was written', () => {
    const told = tellError(ofDatabase);
    expect(JSON.stringify(told)).not.toMatch(/Wenna|params/);
    expect(told.cause?.code).toBe('23505');
    expect(told.at?.[0]).toContain('log.spec.ts');
    expect(
      JSON.stringify(
        tellError(Object.assign(new Error('invalid input syntax for type uuid: "my secret"'), { severity: 'ERROR' })),
      ),
    ).not.toContain('secret');
  });

  it('keeps no line long, and follows no chain for ever', () => {
    const error = new Error('x'.repeat(50_000_000));
    error.cause = error;
    expect(JSON.stringify(tellError(error)).length).toBeLessThan(20_000);
    expect(tellError('a body of somebody')).toEqual({
      type: 'string',
      message: 'something was thrown that is no error',
    });
  });

  it('writes into files that take turns', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'vestigia-log-'));
    const toConsole = vi.spyOn(process.stdout, 'write').mockImplementation(() => true);
    const log = openLog('info', folder);
    try {
      for (let i = 0; i < 14_000; i += 1) log.info({ path: 'x'.repeat(400) }, 'a line');
      log.error({ err: ofDatabase }, 'unexpected');
      await vi.waitFor(() => expect(readdirSync(join(folder, 'log')).length).toBeGreaterThan(1), { timeout: 60_000 });
      await vi.waitFor(() => expect(lastOf(folder)).toContain('unexpected'), { timeout: 60_000 });
    } finally {
      toConsole.mockRestore();
    }
    for (const name of readdirSync(join(folder, 'log')))
      expect(statSync(join(folder, 'log', name)).size, name).toBeLessThan(6_000_000);
    rmSync(folder, { recursive: true });
  });
});

const lastOf = (folder: string): string => {
  const path = join(folder, 'log', 'vestigia.log');
  return existsSync(path) ? readFileSync(path, 'utf8') : '';
};
