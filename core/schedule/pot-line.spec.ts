import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { layPotLine } from './pot-line';
import { forgottenPots } from '../run/forgotten-pots';

const HOUR = 3_600_000;
const NOW = Date.parse('2026-06-01T12:00:00Z');
const running = fc
  .array(
    fc.record({
      startMin: fc.integer({ min: -600, max: 0 }),
      durationMin: fc.integer({ min: 1, max: 900 }),
      attended: fc.boolean(),
      hot: fc.boolean(),
      vessels: fc.integer({ min: 0, max: 3 }),
    }),
    { maxLength: 12 },
  )
  .map((all) =>
    all.map((r, i) => ({
      lotId: `l${i}`,
      lotTag: `Lot ${i}`,
      title: 'Dye',
      vesselNames: Array.from({ length: r.vessels }, (_, v) => `pot ${i}.${v}`),
      startedAt: new Date(NOW + r.startMin * 60_000).toISOString(),
      durationMin: r.durationMin,
      attended: r.attended,
      hot: r.hot,
    })),
  );

describe('laws of the pot line', () => {
  it('shows every pot once, inside its window, none over another, and what is past its end as due', () => {
    fc.assert(
      fc.property(running, (all) => {
        const line = layPotLine(all, { fromMs: NOW - 4 * HOUR, toMs: NOW + 20 * HOUR, nowMs: NOW });
        expect(line.segments).toHaveLength(all.reduce((sum, r) => sum + Math.max(1, r.vesselNames.length), 0));
        for (const s of line.segments) {
          expect(s.from01 >= 0 && s.to01 <= 1 && s.from01 <= s.to01).toBe(true);
          expect(s.due).toBe(Date.parse(s.endsAt) <= NOW);
        }
        for (const a of line.segments)
          for (const b of line.segments)
            if (a !== b && a.row === b.row) expect(a.to01 <= b.from01 || b.to01 <= a.from01).toBe(true);
        expect(line.next === undefined).toBe(all.length === 0);
      }),
    );
  });
  it('calls only hot pots that nobody stands at, only after their time, and sooner never than later', () => {
    fc.assert(
      fc.property(running, fc.integer({ min: 0, max: 600 }), (all, laterMin) => {
        const called = forgottenPots(all, NOW);
        for (const pot of called) {
          const r = all.find((x) => x.lotId === pot.lotId);
          expect([r?.hot, r?.attended]).toEqual([true, false]);
          expect(Date.parse(r?.startedAt ?? '') + (r?.durationMin ?? 0) * 60_000).toBeLessThan(NOW);
          expect(pot.message).toMatch(/Go and look\.$/);
        }
        const later = new Set(forgottenPots(all, NOW + laterMin * 60_000).map((p) => p.lotId));
        expect(called.every((p) => later.has(p.lotId))).toBe(true);
      }),
    );
  });
});
