import { describe, expect, it } from 'vitest';
import { fuzz } from '../scripts/torture/fuzz';

describe('the server under requests nobody would send on purpose', () => {
  it('breaks at none of five hundred made of its own description (npm run torture sends more)', async () => {
    const { broken, byStatus } = await fuzz(500, 11);
    expect(broken).toEqual([]);
    expect(byStatus['200']).toBeGreaterThan(50);
    expect(byStatus['400']).toBeGreaterThan(50);
  });
});
