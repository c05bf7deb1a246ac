import { describe, expect, it } from 'vitest';
import { fuzz } from '../scripts/torture/fuzz';
import { kills } from '../scripts/torture/kills';

describe('the server under requests nobody would send on purpose', () => {
  it('breaks at none of five hundred made of its own description (npm run torture sends more)', async () => {
    const { broken, byStatus } = await fuzz(500, 11);
    expect(broken).toEqual([]);
    expect(byStatus['200']).toBeGreaterThan(50);
    expect(byStatus['400']).toBeGreaterThan(50);
  });
});

describe('what was acknowledged, under four clients', () => {
  it.each([
    ['folder', 3],
    ['server', 4],
  ] as const)(
    'outlives kills of the server and of the database (%s; npm run torture kills more)',
    async (kind, times) => {
      const report = await kills(kind, times, 5);
      // There may be no PostgreSQL on this machine.
      if (kind === 'server' && report === undefined) return;
      expect(report).toMatchObject({ kills: times, lost: 0, doubled: 0, wrongBalances: 0, refused: 0, said: [] });
      expect(report?.acknowledged).toBeGreaterThan(times * 4);
    },
  );
});
