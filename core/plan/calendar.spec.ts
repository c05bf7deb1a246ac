import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MOST_CLOSED, readClosedDays, sayClosedFault } from './read-closed-days';
import { writeCalendar } from './write-calendar';

const AT = '2026-06-01T08:00:00.000Z';
const event = (title: string) => ({ uid: 'a', startAt: AT, endAt: '2026-06-01T08:25:00.000Z', title, note: '' });

describe('a calendar file', () => {
  it('has each event with its times in UTC, escaped, lines ended by CR LF', () => {
    const text = writeCalendar('Saltgrass', [event('Lot 9; Dye, long\nand slow')], AT);
    expect(text.split('\r\n')).toEqual([
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:-//Vestigia//Plan//EN',
      'CALSCALE:GREGORIAN',
      'X-WR-CALNAME:Saltgrass',
      'BEGIN:VEVENT',
      'UID:a',
      'DTSTAMP:20260601T080000Z',
      'DTSTART:20260601T080000Z',
      'DTEND:20260601T082500Z',
      'SUMMARY:Lot 9\\; Dye\\, long\\nand slow',
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ]);
  });
  it('folds no line over 75 octets and loses nothing by it, whatever is written', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (title) => {
        const text = writeCalendar('x', [event(title)], AT);
        for (const line of text.split('\r\n')) expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
        const unfolded = text.replace(/\r\n /g, '');
        const said = title.replace(/[\\;,]/g, (c) => `\\${c}`).replace(/\r?\n/g, '\\n');
        expect(unfolded).toContain(`SUMMARY:${said}\r\n`);
      }),
    );
  });
});

describe('days off out of a calendar file', () => {
  const file = (...events: string[]): string =>
    ['BEGIN:VCALENDAR', ...events.flatMap((e) => ['BEGIN:VEVENT', e, 'END:VEVENT']), 'END:VCALENDAR'].join('\r\n');
  it('are its whole days, the last one in it, in their order', () => {
    const read = readClosedDays(
      file(
        'DTSTART;VALUE=DATE:20261224\r\nDTEND;VALUE=DATE:20270102\r\nSUMMARY:Between the\r\n  years\\, closed',
        'DTSTART;VALUE=DATE:20260601\r\nSUMMARY:Holiday',
        'DTSTART:20260602T080000Z\r\nSUMMARY:Dentist',
        'DTSTART;VALUE=DATE:20260603\r\nRRULE:FREQ=YEARLY',
        'DTSTART;VALUE=DATE:20260230',
      ),
    );
    expect(read).toEqual({
      ok: true,
      left: 3,
      days: [
        { from: '2026-06-01', to: '2026-06-01', why: 'Holiday' },
        { from: '2026-12-24', to: '2027-01-01', why: 'Between the years, closed' },
      ],
    });
  });
  it.each([
    ['something else', 'hello', 'noCalendar'],
    ['no whole day', file('DTSTART:20260602T080000Z'), 'none'],
    ['a million rows', file(...Array.from({ length: MOST_CLOSED + 1 }, () => 'DTSTART:20260601')), 'tooMany'],
  ] as const)('is refused where it is %s', (_, text, reason) => {
    expect(readClosedDays(text)).toEqual({ ok: false, reason });
    expect(sayClosedFault(reason)).toMatch(/[.]$/);
  });
});
