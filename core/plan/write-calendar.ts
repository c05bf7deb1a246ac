/** Something that stands in a calendar. Times ISO in UTC. */
export interface CalendarEvent {
  /** The same event has the same one each time it is written. */
  readonly uid: string;
  readonly startAt: string;
  readonly endAt: string;
  readonly title: string;
  readonly note: string;
}

const LINE_OCTETS = 75;

/**
 * Events as an iCalendar file (RFC 5545): times in UTC, text escaped (3.3.11), lines folded at 75 octets between
 * characters (3.1), ended by CR LF.
 * @param name what a calendar shows them under
 * @param writtenAt ISO in UTC, when they were as they are
 */
export function writeCalendar(name: string, events: readonly CalendarEvent[], writtenAt: string): string {
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Vestigia//Plan//EN',
    'CALSCALE:GREGORIAN',
    `X-WR-CALNAME:${escaped(name)}`,
    ...events.flatMap((e) => [
      'BEGIN:VEVENT',
      `UID:${escaped(e.uid)}`,
      `DTSTAMP:${utc(writtenAt)}`,
      `DTSTART:${utc(e.startAt)}`,
      `DTEND:${utc(e.endAt)}`,
      `SUMMARY:${escaped(e.title)}`,
      ...(e.note === '' ? [] : [`DESCRIPTION:${escaped(e.note)}`]),
      'END:VEVENT',
    ]),
    'END:VCALENDAR',
  ];
  return lines.map((line) => `${folded(line)}\r\n`).join('');
}

const utc = (at: string): string => `${new Date(at).toISOString().slice(0, 19).replace(/[-:]/g, '')}Z`;

const escaped = (text: string): string => text.replace(/[\\;,]/g, (c) => `\\${c}`).replace(/\r?\n/g, '\\n');

function folded(line: string): string {
  let out = '';
  let octets = 0;
  for (const char of line) {
    const size = octetsOf(char);
    if (octets + size > LINE_OCTETS) {
      out += '\r\n ';
      octets = 1;
    }
    out += char;
    octets += size;
  }
  return out;
}

/** Of one character in UTF-8. */
function octetsOf(char: string): number {
  const point = char.codePointAt(0) ?? 0;
  if (point < 0x80) return 1;
  if (point < 0x800) return 2;
  return point < 0x10000 ? 3 : 4;
}
