const LOCALE = 'en-GB';
const ISO_DAY = /^\d{4}-\d{2}-\d{2}$/;

const formats = new Map<string, Intl.DateTimeFormat>();

/** Making a format costs far more than using it, so each is kept. */
function formatIn(zone: string, name: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${zone} ${name}`;
  const known = formats.get(key);
  if (known) return known;
  const format = new Intl.DateTimeFormat(LOCALE, { ...options, timeZone: zone });
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
  const format = formatIn(bare ? 'UTC' : zone, 'day', { day: 'numeric', month: 'short', year: 'numeric' });
  return format.format(new Date(bare ? `${at}T00:00:00Z` : at));
}

/**
 * A moment of a day: “Thu 5 Nov, 09:40”, by the studio's clock.
 * @param at ISO instant
 * @param zone IANA name
 */
export function formatMoment(at: string, zone: string): string {
  return formatIn(zone, 'moment', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  }).format(new Date(at));
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
