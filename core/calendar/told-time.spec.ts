import { describe, expect, it } from 'vitest';
import { readToldTime } from './told-time';

describe('a time as it was told', () => {
  it.each([
    ['9:40', '09:40'],
    ['9.40', '09:40'],
    ['0940', '09:40'],
    ['14h05', '14:05'],
    ['9h30', '09:30'],
    ['2 pm', '14:00'],
    ['12 pm', '12:00'],
  ])('%s is on the clock', (text, clock) =>
    expect(readToldTime(text)).toEqual({ by: 'clock', clock, nextDay: false, about: null }),
  );

  it.each([
    ['about 9', '09:00', false],
    ['~9:40', '09:40', false],
    ['9:30 or so', '09:30', false],
    ['noon', '12:00', false],
    ['in the evening', '19:00', false],
    ['Overnight', '08:00', true],
  ])('%s is about right, and keeps its words', (text, clock, nextDay) =>
    expect(readToldTime(text)).toEqual({ by: 'clock', clock, nextDay, about: text }),
  );

  it.each([
    ['40 min', 40, null],
    ['2 h', 120, null],
    ['1 h 30', 90, null],
    ['1h30', 90, null],
    ['1,5 hours', 90, null],
    ['half an hour', 30, null],
    ['an hour or so', 60, 'an hour or so'],
    ['about 2 hours', 120, 'about 2 hours'],
    ['an hour and a half', 90, null],
    ['two days', 2880, null],
  ])('%s is so long', (text, minutes, about) => expect(readToldTime(text)).toEqual({ by: 'length', minutes, about }));

  it.each(['', '9', '25:00', '9:75', 'when it was done', '2 days 30', 'later'])('“%s” is none', (text) =>
    expect(readToldTime(text)).toBeUndefined(),
  );
});
