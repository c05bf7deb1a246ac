import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { ClockSpan } from './week-hours';
import { explainWeek, hoursBetween, readWeek, sayWeek, WEEK_AT_FIRST, weekdayOf } from './week-hours';

const HOUR = 3_600_000;

describe('hours of a week', () => {
  it.each([
    ['Mon–Fri 8–17, Sat 9–13', 'Mon–Fri 8–17, Sat 9–13'],
    ['tue, thu 8:30-12 13-17', 'Tue 8:30–12 13–17, Thu 8:30–12 13–17'],
    ['daily 8 - 18', 'Mon–Sun 8–18'],
    ['Mo-Mi 9-17; Freitag 10-14', 'Mon–Wed 9–17, Fri 10–14'],
    ['Sat–Mon 9–12', 'Mon 9–12, Sat–Sun 9–12'],
    ['Monday 18-24', 'Mon 18–24'],
    ['', ''],
  ])('reads “%s”', (text, said) => expect(sayWeek(readWeek(text) ?? [])).toBe(said));
  it.each(['8–17', 'Mon', 'Mon 17–8', 'Mon 8–25', 'Mon 8–12 11–14', 'whenever', 'Mon-Tue-Wed 8-9'])(
    'doesn’t read “%s”',
    (text) => expect(readWeek(text)).toBeUndefined(),
  );
  it('says how they are written', () => expect(explainWeek('whenever')).toMatch(/“whenever”.*Mon–Fri 8–17/));
  it('reads again what it says, whatever the week', () => {
    const span = fc
      .tuple(fc.integer({ min: 0, max: 47 }), fc.integer({ min: 1, max: 24 }))
      .map(([from, length]): ClockSpan => {
        const clock = (half: number): string => `${String(half >> 1).padStart(2, '0')}:${half % 2 ? '30' : '00'}`;
        return [clock(from), clock(Math.min(48, from + length))];
      });
    fc.assert(
      fc.property(fc.array(fc.array(span, { maxLength: 1 }), { minLength: 7, maxLength: 7 }), (week) => {
        expect(readWeek(sayWeek(week))).toEqual(week);
      }),
    );
  });
});

describe('when they are', () => {
  const inZone = (fromDay: string, toDay: string, away: { from: string; to: string; why: string }[] = []) =>
    hoursBetween(readWeek('daily 0-24') ?? [], { fromDay, toDay, zone: 'Europe/Berlin', away });
  it('knows the days of the week', () =>
    expect(['2026-06-01', '2026-06-07', '1999-12-31', '2024-02-29'].map(weekdayOf)).toEqual([0, 6, 4, 3]));
  it('makes the day the clocks go forward an hour shorter, and the one they go back an hour longer', () => {
    const length = (day: string): number[] => inZone(day, day).map(([from, to]) => (to - from) / HOUR);
    expect([length('2026-03-29'), length('2026-10-25'), length('2026-06-01')]).toEqual([[23], [25], [24]]);
  });
  it('leaves out days away, both ends', () =>
    expect(inZone('2026-06-01', '2026-06-05', [{ from: '2026-06-02', to: '2026-06-04', why: '' }])).toHaveLength(2));
  it('begins with hours a studio is likely to have', () =>
    expect(sayWeek(WEEK_AT_FIRST)).toBe('Mon–Fri 8–18, Sat 9–13'));
});
