import { Temporal } from 'temporal-polyfill';

/**
 * Instants are UTC everywhere; a day and a time of day are the studio's own. These are the only ways from one to the
 * other. A day is an ISO date (`2026-11-25`), a clock time `09:40`, an instant epoch milliseconds or an ISO text that
 * ends in Z.
 */
const zoned = (instantMs: number, zone: string): Temporal.ZonedDateTime =>
  Temporal.Instant.fromEpochMilliseconds(instantMs).toZonedDateTimeISO(zone);

/**
 * The day that an instant falls on in the studio.
 * @param instantMs epoch ms
 * @param zone IANA name
 * @throws {RangeError} where the zone is not known
 */
export function dayOf(instantMs: number, zone: string): string {
  return zoned(instantMs, zone).toPlainDate().toString();
}

/**
 * The time of day of an instant in the studio, `09:40`.
 * @param instantMs epoch ms
 * @param zone IANA name
 * @throws {RangeError} where the zone is not known
 */
export function clockOf(instantMs: number, zone: string): string {
  return zoned(instantMs, zone).toPlainTime().toString({ smallestUnit: 'minute' });
}

/**
 * The instant of a day and a time of day in the studio, epoch ms. A time that the clocks skip in spring counts from
 * after the gap; one that comes twice in autumn is the first (RFC 5545, section 3.3.5).
 * @throws {RangeError} where day, time or zone is none
 */
export function instantOf(day: string, clock: string, zone: string): number {
  return Temporal.PlainDate.from(day).toZonedDateTime({ timeZone: zone, plainTime: clock }).epochMilliseconds;
}

/**
 * A day so many days later, or earlier where `days` is negative.
 * @throws {RangeError} where the day is none
 */
export function addDays(day: string, days: number): string {
  return Temporal.PlainDate.from(day).add({ days }).toString();
}

/**
 * Whole days from one day to another; negative where it lies before.
 * @throws {RangeError} where a day is none
 */
export function daysBetween(from: string, to: string): number {
  return Temporal.PlainDate.from(from).until(Temporal.PlainDate.from(to)).days;
}

/**
 * Full hours of the studio's clock within a window of time that can be divided by `everyHours`: 0, 4, 8 … o'clock.
 * Epoch ms.
 * @throws {RangeError} where the zone is not known or `everyHours` is not above nothing
 */
export function hoursWithin(fromMs: number, toMs: number, everyHours: number, zone: string): number[] {
  if (!(everyHours > 0)) throw new RangeError('hours must be stepped by more than nothing');
  const found: number[] = [];
  for (let day = dayOf(fromMs, zone); ; day = addDays(day, 1)) {
    for (let hour = 0; hour < 24; hour += everyHours) {
      const ms = instantOf(day, `${String(hour).padStart(2, '0')}:00`, zone);
      if (ms >= toMs) return found;
      if (ms >= fromMs && ms !== found.at(-1)) found.push(ms);
    }
  }
}
