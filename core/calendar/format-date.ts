import { figuresShownIn } from '../quantity/shown-in';
import type { Language } from '../words/language';
import { languageNow } from '../words/language';

const LOCALES: Readonly<Record<Language, string>> = { en: 'en-GB', de: 'de-DE' };
const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;

const formats = new Map<string, Intl.DateTimeFormat>();

/** Making a format costs far more than using it, so each is kept. */
function formatIn(zone: string, name: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const locale = LOCALES[languageNow()];
  const key = `${zone} ${name} ${locale}`;
  const known = formats.get(key);
  if (known) return known;
  const format = new Intl.DateTimeFormat(locale, { ...options, timeZone: zone });
  formats.set(key, format);
  return format;
}

/**
 * A day as people read it: “5 Nov 2026”. A bare date is that day in every zone; an instant is the studio's day.
 * @param at ISO date, or ISO instant
 * @param zone IANA name
 */
export function formatDay(at: string, zone: string): string {
  const bare = ISO_DAY.test(at);
  const [day, month, year] = partsOf(bare ? `${at}T00:00:00Z` : at, bare ? 'UTC' : zone);
  switch (figuresShownIn().days) {
    case 'yearMonthDay':
      return `${year} ${month} ${day}`;
    case 'monthDayYear':
      return `${month} ${day}, ${year}`;
    case 'dayMonthYear':
      return `${ordinal(day)} ${month} ${year}`;
  }
}

/** A day before the name of its month. */
const ordinal = (day: string): string => (languageNow() === 'de' ? `${day}.` : day);

/** Day, month and year as they are written. */
function partsOf(at: string, zone: string): [string, string, string] {
  const parts = formatIn(zone, 'day', { day: 'numeric', month: 'short', year: 'numeric' }).formatToParts(new Date(at));
  const of = (type: Intl.DateTimeFormatPartTypes): string => parts.find((p) => p.type === type)?.value ?? '';
  return [of('day'), of('month'), of('year')];
}

/**
 * A moment of a day: “Thu 5 Nov, 09:40”, by the studio's clock.
 * @param at ISO instant
 * @param zone IANA name
 */
export function formatMoment(at: string, zone: string): string {
  return `${formatWeekday(at, zone)}, ${formatClock(at, zone)}`;
}

/**
 * A day that is near, with its weekday and without its year: “Thu 5 Nov”.
 * @param at ISO instant
 * @param zone IANA name
 */
export function formatWeekday(at: string, zone: string): string {
  const [day, month] = partsOf(at, zone);
  const weekday = formatIn(zone, 'weekday', { weekday: 'short' }).format(new Date(at));
  const date = figuresShownIn().days === 'dayMonthYear' ? `${ordinal(day)} ${month}` : `${month} ${day}`;
  return `${weekday} ${date}`;
}

/**
 * The studio's clock alone: “09:40”.
 * @param at ISO instant
 * @param zone IANA name
 */
export function formatClock(at: string, zone: string): string {
  return formatIn(zone, 'clock', { hour: '2-digit', minute: '2-digit' }).format(new Date(at));
}

/**
 * The name of a month.
 * @param month 1 to 12
 */
export function monthName(month: number): string {
  return formatIn('UTC', 'month', { month: 'long' }).format(new Date(Date.UTC(2000, month - 1, 1)));
}
