import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { DAY_FORMS, SHOWN_AT_FIRST, showFiguresIn } from '../quantity/shown-in';
import { formatDay } from './format-date';
import { explainDay, readDay } from './read-day';

const TODAY = '2026-11-30';
afterEach(() => showFiguresIn(SHOWN_AT_FIRST));

describe('a day as people write it', () => {
  it.each<[string, string | undefined]>([
    ['2026-11-05', '2026-11-05'],
    ['5 Nov 2026', '2026-11-05'],
    ['5th november', '2026-11-05'],
    ['Thu 5 Nov', '2026-11-05'],
    ['Nov 5, 2026', '2026-11-05'],
    ['Nov 5', '2026-11-05'],
    ['2026 Nov 5', '2026-11-05'],
    ['5.11.26', '2026-11-05'],
    ['5/11', '2026-11-05'],
    ['5. 11.', '2026-11-05'],
    ['5-11-2025', '2025-11-05'],
    ['11/25/26', '2026-11-25'],
    ['today', TODAY],
    ['yesterday', '2026-11-29'],
    ['tomorrow', '2026-12-01'],
    // Without a year it is the nearest: in late November, January is the next one.
    ['3 Jan', '2027-01-03'],
    ['3 July', '2026-07-03'],
    ['29 Feb', undefined],
    ['29 Feb 2028', '2028-02-29'],
    ['31 Nov', undefined],
    ['13/13/26', undefined],
    ['0 Nov', undefined],
    ['2026-11', undefined],
    ['soon', undefined],
    ['5', undefined],
    ['', undefined],
  ])('%s', (text, day) => expect(readDay(text, TODAY)).toBe(day));

  it('goes by the studio’s order where figures could be either', () => {
    expect(readDay('3/4/26', TODAY)).toBe('2026-04-03');
    showFiguresIn({ ...SHOWN_AT_FIRST, days: 'monthDayYear' });
    expect(readDay('3/4/26', TODAY)).toBe('2026-03-04');
    expect(readDay('25/4/26', TODAY)).toBe('2026-04-25');
    expect(explainDay(' soon ')).toBe('“soon” is no day. Write it like Nov 5, 2026 or 11/5/26.');
  });

  it('reads back every day as it is written out, in each form', () => {
    const days = fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true });
    fc.assert(
      fc.property(days, fc.constantFrom(...DAY_FORMS), (date, form) => {
        showFiguresIn({ ...SHOWN_AT_FIRST, days: form });
        const day = date.toISOString().slice(0, 10);
        expect(readDay(formatDay(day, 'UTC'), TODAY)).toBe(day);
      }),
    );
  });
});
