import { addDays } from '../calendar/studio-calendar';
import type { DaysAway } from '../calendar/week-hours';

/** More days off than that are no studio’s. */
export const MOST_CLOSED = 1000;

/** Days off out of a calendar file; or why none can be read out of it. */
export type ReadClosed =
  | { readonly ok: true; readonly days: readonly DaysAway[]; readonly left: number }
  | { readonly ok: false; readonly reason: 'noCalendar' | 'tooMany' | 'none' };

/**
 * Reads whole days out of an iCalendar file (RFC 5545) as days off: each event with a DTSTART that is a date, up to the
 * day before its DTEND. What has a time of day, repeats or was called off is left; how many is told.
 * @param text the file
 */
export function readClosedDays(text: string): ReadClosed {
  if (!/^\uFEFF?BEGIN:VCALENDAR/i.test(text)) return { ok: false, reason: 'noCalendar' };
  const days: DaysAway[] = [];
  let left = 0;
  for (const event of eventsOf(text)) {
    const day = readEvent(event);
    if (!day) left += 1;
    else if (days.push(day) > MOST_CLOSED) return { ok: false, reason: 'tooMany' };
  }
  if (days.length === 0) return { ok: false, reason: 'none' };
  return { ok: true, days: days.sort((a, b) => (a.from < b.from ? -1 : 1)), left };
}

/** In a sentence, and what to do. */
export function sayClosedFault(reason: Extract<ReadClosed, { ok: false }>['reason']): string {
  switch (reason) {
    case 'noCalendar':
      return $localize`That is no calendar file. Save the calendar as .ics and choose that.`;
    case 'tooMany':
      return $localize`That calendar has more than ${MOST_CLOSED} days off. Choose one with the days the house is closed only.`;
    case 'none':
      return $localize`That calendar has no whole day in it. Days off are entries that last all day.`;
  }
}

/** Event after event, as lines unfolded; a file of any length is gone through once. */
function* eventsOf(text: string): Generator<readonly string[]> {
  let event: string[] | undefined;
  for (let at = 0; at < text.length;) {
    let end = text.indexOf('\n', at);
    // A line that goes on begins with a blank.
    while (end >= 0 && (text[end + 1] === ' ' || text[end + 1] === '\t')) end = text.indexOf('\n', end + 1);
    const line = text
      .slice(at, end < 0 ? text.length : end)
      .replace(/\r?\n[ \t]/g, '')
      .replace(/\r$/, '');
    at = end < 0 ? text.length : end + 1;
    if (line === 'BEGIN:VEVENT') event = [];
    else if (line === 'END:VEVENT') {
      if (event) yield event;
      event = undefined;
    } else event?.push(line);
  }
}

function readEvent(lines: readonly string[]): DaysAway | undefined {
  const value = (name: string): string | undefined =>
    lines.find((l) => l.startsWith(`${name}:`) || l.startsWith(`${name};`))?.replace(/^[^:]*:/, '');
  if (value('RRULE') !== undefined || value('STATUS') === 'CANCELLED') return undefined;
  const from = isoOf(value('DTSTART'));
  if (from === undefined) return undefined;
  const end = isoOf(value('DTEND'));
  const to = end !== undefined && end > from ? addDays(end, -1) : from;
  const why = (value('SUMMARY') ?? '').replace(/\\n/gi, ' ').replace(/\\(.)/g, '$1').replace(/[<>]/g, '').trim();
  return { from, to, why: why.slice(0, 200) };
}

function isoOf(date: string | undefined): string | undefined {
  const found = /^(\d{4})(\d{2})(\d{2})$/.exec(date ?? '');
  if (!found) return undefined;
  const iso = `${found[1]}-${found[2]}-${found[3]}`;
  const real = new Date(`${iso}T00:00:00Z`);
  return !Number.isNaN(real.getTime()) && real.toISOString().startsWith(iso) ? iso : undefined;
}
