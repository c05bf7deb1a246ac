import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { formatClock, formatDay, formatMoment, monthName } from './format-date';
import { addDays, clockOf, dayOf, daysBetween, hoursWithin, instantOf } from './studio-calendar';

const ZONES = ['UTC', 'Europe/London', 'America/New_York', 'Asia/Kolkata', 'Pacific/Auckland', 'Pacific/Kiritimati'];
const ms = (iso: string): number => Date.parse(iso);

describe('a day in the studio', () => {
  it.each([
    ['late in the evening, already tomorrow in UTC', '2026-06-02T01:30:00Z', 'America/New_York', '2026-06-01', '21:30'],
    ['early in the morning, still yesterday in UTC', '2026-06-01T20:30:00Z', 'Pacific/Auckland', '2026-06-02', '08:30'],
    ['half an hour off the full hour', '2026-06-01T19:00:00Z', 'Asia/Kolkata', '2026-06-02', '00:30'],
    ['in winter', '2026-01-15T12:00:00Z', 'Europe/London', '2026-01-15', '12:00'],
    ['in summer', '2026-07-15T12:00:00Z', 'Europe/London', '2026-07-15', '13:00'],
  ])('%s', (_name, at, zone, day, clock) => {
    expect([dayOf(ms(at), zone), clockOf(ms(at), zone)]).toEqual([day, clock]);
    expect(instantOf(day, clock, zone)).toBe(ms(at));
  });

  it('takes a time that the clocks skip in spring from after the gap', () =>
    expect(new Date(instantOf('2026-03-29', '01:30', 'Europe/London')).toISOString()).toBe('2026-03-29T01:30:00.000Z'));

  it('takes the first of a time that comes twice in autumn', () =>
    expect(new Date(instantOf('2026-10-25', '01:30', 'Europe/London')).toISOString()).toBe('2026-10-25T00:30:00.000Z'));

  it('comes back from day and clock to the minute it was, but for the hour that comes twice', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: ms('2020-01-01T00:00:00Z') / 60_000, max: ms('2032-01-01T00:00:00Z') / 60_000 }),
        fc.constantFrom(...ZONES),
        (minute, zone) => {
          const at = minute * 60_000;
          const back = instantOf(dayOf(at, zone), clockOf(at, zone), zone);
          expect([0, 3_600_000]).toContain(at - back);
        },
      ),
      { seed: 8, numRuns: 400 },
    ));

  it.each([
    ['2026-02-28', 1, '2026-03-01'],
    ['2028-02-28', 1, '2028-02-29'],
    ['2026-01-01', -1, '2025-12-31'],
    ['2026-03-28', 2, '2026-03-30'],
  ])('%s and %i days is %s, and the days between are so many', (day, days, expected) => {
    expect(addDays(day, days)).toBe(expected);
    expect(daysBetween(day, expected)).toBe(days);
  });

  it.each([
    ['no day', () => instantOf('2026-13-01', '09:00', 'UTC')],
    ['no time', () => instantOf('2026-12-01', '25:00', 'UTC')],
    ['no zone', () => dayOf(0, 'Mars/Olympus')],
    ['no step', () => hoursWithin(0, 1, 0, 'UTC')],
  ])('refuses %s', (_name, wrong) => expect(wrong).toThrow(RangeError));
});

describe('hours within a window', () => {
  it('are those of the studio’s clock, not of UTC', () =>
    expect(
      hoursWithin(ms('2026-06-01T00:00:00Z'), ms('2026-06-01T12:00:00Z'), 4, 'Asia/Kolkata').map((at) =>
        clockOf(at, 'Asia/Kolkata'),
      ),
    ).toEqual(['08:00', '12:00', '16:00']));

  it('keep to the clock over the night when it is put forward', () =>
    expect(
      hoursWithin(ms('2026-03-28T22:00:00Z'), ms('2026-03-29T12:00:00Z'), 4, 'Europe/London').map((at) =>
        new Date(at).toISOString().slice(11, 16),
      ),
    ).toEqual(['00:00', '03:00', '07:00', '11:00']));
});

describe('dates as people read them', () => {
  it('a bare date is that day in every zone', () =>
    expect(ZONES.map((zone) => formatDay('2026-11-05', zone))).toEqual(ZONES.map(() => '5 Nov 2026')));

  it('an instant is the studio’s day', () =>
    expect(formatDay('2026-11-05T23:30:00Z', 'Pacific/Auckland')).toBe('6 Nov 2026'));

  it('a moment and the clock are the studio’s', () => {
    expect(formatMoment('2026-07-02T08:40:00Z', 'Europe/London')).toMatch(/^Thu,? 2 Jul.* 09:40$/);
    expect(formatClock('2026-07-02T08:40:00Z', 'America/New_York')).toBe('04:40');
  });

  it('months have names', () => expect([1, 5, 12].map(monthName)).toEqual(['January', 'May', 'December']));
});
