import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, instantOf } from './studio-calendar';
import { COPIES_KEPT, copiesToKeep, isCopyDue, isCopyOld } from './studio-copies';

const ZONE = 'Europe/London';
const at = (day: string, clock = '19:05'): number => instantOf(day, clock, ZONE);
const DAY_MS = 86_400_000;

describe('copies of a studio', () => {
  it('of two years of evenings are seven days, five weeks and twelve months', () => {
    const evenings = Array.from({ length: 730 }, (_, i) => at(addDays('2024-11-30', i)));
    const kept = copiesToKeep(evenings, ZONE).map((ms) => new Date(ms).toISOString().slice(0, 10));
    // 2026-11-29 is a Sunday: its week’s newest is itself.
    expect(kept.slice(0, 7)).toEqual([29, 28, 27, 26, 25, 24, 23].map((d) => `2026-11-${d}`));
    expect(kept.slice(7, 11)).toEqual(['2026-11-22', '2026-11-15', '2026-11-08', '2026-11-01']);
    expect(kept.slice(11)).toEqual(
      ['10-31', '09-30', '08-31', '07-31', '06-30', '05-31', '04-30', '03-31', '02-28', '01-31']
        .map((d) => `2026-${d}`)
        .concat('2025-12-31'),
    );
  });
  it('of one day leave the newest; a studio that rests keeps what it has', () => {
    expect(copiesToKeep([at('2026-06-01', '09:00'), at('2026-06-01', '12:00')], ZONE)).toEqual([
      at('2026-06-01', '12:00'),
    ]);
    const rare = ['2026-01-10', '2026-03-02', '2026-05-20'].map((d) => at(d));
    expect(copiesToKeep(rare, ZONE)).toEqual([...rare].reverse());
    expect(copiesToKeep([], ZONE)).toEqual([]);
  });
  it('always hold the newest, never more than the rule, and the same again when they are looked over again', () => {
    const moments = fc.array(fc.integer({ min: Date.UTC(2020, 0, 1), max: Date.UTC(2027, 0, 1) }), { maxLength: 200 });
    fc.assert(
      fc.property(moments, (made) => {
        const kept = copiesToKeep(made, ZONE);
        if (made.length > 0) expect(kept[0]).toBe(Math.max(...made));
        expect(kept.length).toBeLessThanOrEqual(COPIES_KEPT.days + COPIES_KEPT.weeks + COPIES_KEPT.months);
        expect(copiesToKeep(kept, ZONE)).toEqual(kept);
      }),
      { seed: 7 },
    );
  });
  it.each([
    ['in the evening, after a day’s work', '2026-06-02', '19:01', '2026-06-01', '2026-06-02', true],
    ['not while the day goes on', '2026-06-02', '15:00', '2026-06-01', '2026-06-02', false],
    ['not twice of one evening', '2026-06-02', '23:00', '2026-06-02', '2026-06-02', false],
    [
      'the next morning, where nobody was there in the evening',
      '2026-06-03',
      '08:00',
      '2026-06-01',
      '2026-06-02',
      true,
    ],
    ['not where nothing was recorded since', '2026-06-09', '20:00', '2026-06-01', '2026-06-01', false],
  ])('are due %s', (_when, day, clock, copied, recorded, isDue) => {
    expect(isCopyDue(at(day, clock), at(copied), at(recorded, '14:00'), ZONE)).toBe(isDue);
  });
  it('are due where there is none yet, once a day has ended; and of nothing none', () => {
    expect(isCopyDue(at('2026-06-02', '09:00'), null, at('2026-06-01', '14:00'), ZONE)).toBe(true);
    expect(isCopyDue(at('2026-06-02', '20:00'), null, null, ZONE)).toBe(false);
  });
  it('are told as old after three days with something recorded since', () => {
    const now = at('2026-06-10');
    expect(isCopyOld(now, now - 4 * DAY_MS, now - DAY_MS)).toBe(true);
    expect(isCopyOld(now, now - 4 * DAY_MS, now - 5 * DAY_MS)).toBe(false);
    expect(isCopyOld(now, now - 2 * DAY_MS, now - DAY_MS)).toBe(false);
    expect(isCopyOld(now, null, now - DAY_MS)).toBe(true);
    expect(isCopyOld(now, null, null)).toBe(false);
  });
});
