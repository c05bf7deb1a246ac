import { afterEach, describe, expect, it } from 'vitest';
import { formatDay } from '../calendar/format-date';
import { readDay } from '../calendar/read-day';
import { readToldTime } from '../calendar/told-time';
import { readLength } from '../quantity/length-text';
import type { Language } from './language';
import { LANGUAGES, LANGUAGE_NAMES, speakAs } from './language';
import { said } from './said';
import { worded, wordedList } from './worded';

afterEach(() => speakAs(() => 'en'));

describe('a table of words', () => {
  const reads = (language: Language): void => speakAs(() => language);
  const made: Language[] = [];
  const NAMES: Readonly<Record<string, string>> = worded(() => LANGUAGE_NAMES);
  const HERE = worded(() => {
    const language = LANGUAGES.find((l) => LANGUAGE_NAMES[l] === NOW.name) ?? 'en';
    made.push(language);
    return { name: NOW.name, none: '' };
  });
  const NOW = { name: 'English' };
  const LIST = wordedList(() => [NOW.name, 'and more']);

  it('is said in the language of whoever reads it, and made once for each', () => {
    expect([HERE.name, HERE.name]).toEqual(['English', 'English']);
    NOW.name = 'Deutsch';
    reads('de');
    expect([HERE.name, LIST[0]]).toEqual(['Deutsch', 'Deutsch']);
    reads('en');
    expect(HERE.name).toBe('English');
    expect(made).toEqual(['en', 'de']);
  });

  it('reads, spreads and lists like the table itself', () => {
    expect(Object.entries(NAMES)).toEqual(Object.entries(LANGUAGE_NAMES));
    expect({ ...NAMES }).toEqual(LANGUAGE_NAMES);
    expect('de' in NAMES && !('fr' in NAMES)).toBe(true);
    expect(Array.isArray(LIST)).toBe(true);
    expect([LIST.length, LIST.map((w) => w.length), [...LIST].at(-1)]).toEqual([2, [7, 8], 'and more']);
  });
});

it('leaves a studio’s own words as they are', () => {
  expect([said('wool'), said('Faser von drüben')]).toEqual(['wool', 'Faser von drüben']);
});

describe('days and times as people write them, in either language', () => {
  it.each([
    ['5. Nov. 2026', '2026-11-05'],
    ['Do 5. November', '2026-11-05'],
    ['3. März', '2027-03-03'],
    ['24. Dez. 26', '2026-12-24'],
    ['1. Mai 2026', '2026-05-01'],
    ['gestern', '2026-11-29'],
    ['5. Foo', undefined],
  ])('%s', (text, day) => expect(readDay(text, '2026-11-30')).toBe(day));

  it.each([
    ['2 Wochen', 20_160],
    ['drei Tage', 4320],
    ['eine Stunde', 60],
    ['1 Std 30', 90],
    ['eine halbe Stunde', 30],
    ['2 Stunden und 15 Minuten', 135],
    ['zwei Äpfel', undefined],
  ])('%s', (text, minutes) => expect(readLength(text)).toBe(minutes));

  it.each([
    ['etwa 10', '10:00'],
    ['über Nacht', '08:00'],
    ['mittags', '12:00'],
    ['nachmittags', '15:00'],
  ])('%s', (text, clock) => expect(readToldTime(text)).toMatchObject({ by: 'clock', clock }));

  it('writes a day in German with its point, and reads that again', () => {
    speakAs(() => 'de');
    const written = formatDay('2026-11-05', 'UTC');
    expect(written).toMatch(/^5\. Nov\.? 2026$/);
    expect(readDay(written, '2026-11-30')).toBe('2026-11-05');
  });
});
