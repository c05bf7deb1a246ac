import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sayMinutes } from './duration';
import { explainLength, readLength, readMinutes } from './length-text';

describe('a length of time as people write it', () => {
  it.each<[string, number | undefined]>([
    ['40 min', 40],
    ['40m', 40],
    ['1 h', 60],
    ['1 h 30', 90],
    ['1h30', 90],
    ['1 h 30 min', 90],
    ['1,5 h', 90],
    ['1½ hours', 90],
    ['½ h', 30],
    ['an hour and a half', 90],
    ['an hour', 60],
    ['half an hour', 30],
    ['half a day', 720],
    ['a quarter of an hour', 15],
    ['three quarters of an hour', 45],
    ['two hours and 5 minutes', 125],
    ['2 d 4 h', 3120],
    ['a day', 1440],
    ['3 days', 4320],
    ['two weeks', 20_160],
    ['a week, 2 days', 12_960],
    ['Twelve hours', 720],
    ['30', undefined],
    ['', undefined],
    ['soon', undefined],
    ['2 h 75', undefined],
    ['2 h 3 d', undefined],
    ['1 h 1 h', undefined],
    ['30 min 20', undefined],
    ['some hours', undefined],
    ['a month', undefined],
  ])('%s', (text, minutes) => expect(readLength(text)).toBe(minutes));

  it('takes a bare number as minutes where a field asks for them, and nothing below none', () => {
    expect([readMinutes('90'), readMinutes('0'), readMinutes('-5'), readMinutes('x')]).toEqual([
      90,
      0,
      undefined,
      undefined,
    ]);
    expect(explainLength(' ages ')).toMatch(/^“ages” is no length of time/);
  });

  it('reads back what is written out, to the minute below two days and to the hour beyond', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60 * 24 * 60 }), (minutes) => {
        const read = readMinutes(sayMinutes(minutes)) ?? NaN;
        expect(Math.abs(read - minutes)).toBeLessThanOrEqual(minutes < 48 * 60 ? 0 : 30);
      }),
    );
  });
});
