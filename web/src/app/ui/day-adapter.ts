import { Injectable, inject } from '@angular/core';
import { DateAdapter } from '@angular/material/core';
import { addDays, figuresShownIn, formatDay, monthName, readDay } from '@vestigia/core';
import { StudioCalendar } from '../services/studio-calendar';

const FIRST_DAY = { sunday: 0, monday: 1, saturday: 6 } as const;
const WEEKDAYS = [
  $localize`Sunday`,
  $localize`Monday`,
  $localize`Tuesday`,
  $localize`Wednesday`,
  $localize`Thursday`,
  $localize`Friday`,
  $localize`Saturday`,
];
const two = (n: number): string => String(n).padStart(2, '0');
const utc = (day: string): Date => new Date(`${day}T00:00:00Z`);

/** Lets the calendar go over days as this studio means them: ISO dates, with no clock and no zone in them. */
@Injectable()
export class DayAdapter extends DateAdapter<string> {
  private readonly calendar = inject(StudioCalendar);

  override getYear = (day: string): number => Number(day.slice(0, 4));
  override getMonth = (day: string): number => Number(day.slice(5, 7)) - 1;
  override getDate = (day: string): number => Number(day.slice(8));
  override getDayOfWeek = (day: string): number => utc(day).getUTCDay();
  override getMonthNames = (style: 'long' | 'short' | 'narrow'): string[] =>
    Array.from({ length: 12 }, (_, i) => monthName(i + 1).slice(0, LENGTHS[style]));
  override getDateNames = (): string[] => Array.from({ length: 31 }, (_, i) => String(i + 1));
  override getDayOfWeekNames = (style: 'long' | 'short' | 'narrow'): string[] =>
    WEEKDAYS.map((name) => name.slice(0, style === 'narrow' ? 2 : LENGTHS[style]));
  override getYearName = (day: string): string => day.slice(0, 4);
  override getFirstDayOfWeek = (): number => FIRST_DAY[figuresShownIn().weekBegins];
  override getNumDaysInMonth = (day: string): number =>
    new Date(Date.UTC(this.getYear(day), this.getMonth(day) + 1, 0)).getUTCDate();
  override clone = (day: string): string => day;
  override createDate = (year: number, month: number, date: number): string =>
    `${String(year).padStart(4, '0')}-${two(month + 1)}-${two(date)}`;
  override today = (): string => this.calendar.today();
  override parse = (value: unknown): string | null =>
    typeof value === 'string' ? (readDay(value, this.today()) ?? null) : null;
  override format = (day: string): string => formatDay(day, 'UTC');
  override addCalendarYears = (day: string, years: number): string => this.addCalendarMonths(day, years * 12);
  override addCalendarDays = (day: string, days: number): string => addDays(day, days);
  override toIso8601 = (day: string): string => day;
  override isDateInstance = (value: unknown): boolean => typeof value === 'string';
  override isValid = (day: string): boolean => !Number.isNaN(utc(day).getTime());
  override invalid = (): string => 'none';

  /** The same day of another month, or its last. */
  override addCalendarMonths = (day: string, months: number): string => {
    const first = new Date(Date.UTC(this.getYear(day), this.getMonth(day) + months, 1));
    const [year, month] = [first.getUTCFullYear(), first.getUTCMonth()];
    const last = this.getNumDaysInMonth(this.createDate(year, month, 1));
    return this.createDate(year, month, Math.min(last, this.getDate(day)));
  };
}

const LENGTHS = { long: 20, short: 3, narrow: 1 } as const;
