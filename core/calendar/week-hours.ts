import { worded } from '../words/worded';
import { addDays, instantOf } from './studio-calendar';

/** From one clock time to a later one of the same day, `08:00` to `17:30`; `24:00` is the day's end. */
export type ClockSpan = readonly [from: string, to: string];
/** The spans of each day, Monday first. */
export type WeekHours = readonly (readonly ClockSpan[])[];

/** Days from one to another, both of them in it. ISO dates. */
export interface DaysAway {
  readonly from: string;
  readonly to: string;
  readonly why: string;
}

const DAYS_A_WEEK = 7;
/** Names of the days in every language this is read in, Monday first. Two letters tell them apart. */
const DAY_WORDS = [
  ['monday', 'montag'],
  ['tuesday', 'dienstag'],
  ['wednesday', 'mittwoch'],
  ['thursday', 'donnerstag'],
  ['friday', 'freitag'],
  ['saturday', 'samstag'],
  ['sunday', 'sonntag'],
];
const DAY_NAMES = worded(() => ({
  names: [
    $localize`Mon`,
    $localize`Tue`,
    $localize`Wed`,
    $localize`Thu`,
    $localize`Fri`,
    $localize`Sat`,
    $localize`Sun`,
  ],
}));

/** Monday to Friday, eight to six; Saturday morning. */
export const WEEK_AT_FIRST: WeekHours = [
  ...Array.from({ length: 5 }, (): ClockSpan[] => [['08:00', '18:00']]),
  [['09:00', '13:00']],
  [],
];

/**
 * Reads the hours of a week as people write them: `Mon–Fri 8–17, Sat 9–13`, `Tue, Thu 8:30-12 13-17`, `daily 8-18`;
 * several spans of a day stand beside one another. Days that aren’t named are free.
 * @returns `undefined` where it can’t be read
 */
export function readWeek(text: string): WeekHours | undefined {
  const week: ClockSpan[][] = Array.from({ length: DAYS_A_WEEK }, () => []);
  const written = text
    .trim()
    .toLowerCase()
    .replace(/[–—]/g, '-')
    .replace(/\s*-\s*/g, '-');
  if (written === '') return week;
  let days: number[] = [];
  let isNamed = false;
  for (const word of written.split(/[\s,;]+/).filter((w) => w !== '')) {
    const named = daysOf(word);
    if (named) {
      days = isNamed ? named : [...days, ...named];
      isNamed = false;
      continue;
    }
    const span = spanOf(word);
    if (!span || days.length === 0) return undefined;
    for (const day of days) {
      const before = week[day]?.at(-1);
      if (before && before[1] > span[0]) return undefined;
      week[day]?.push(span);
    }
    isNamed = true;
  }
  return isNamed ? week : undefined;
}

function daysOf(word: string): number[] | undefined {
  const plain = word.replace(/[.:]$/, '');
  if (['daily', 'täglich', 'every'].includes(plain)) return Array.from({ length: DAYS_A_WEEK }, (_, i) => i);
  const [from, to, more] = plain.split('-').map((w) => dayNumber(w.replace(/\.$/, '')));
  if (from === undefined || from < 0 || more !== undefined) return undefined;
  if (to === undefined) return plain.includes('-') ? undefined : [from];
  if (to < 0) return undefined;
  const many = ((to - from + DAYS_A_WEEK) % DAYS_A_WEEK) + 1;
  return Array.from({ length: many }, (_, i) => (from + i) % DAYS_A_WEEK);
}

const dayNumber = (word: string): number =>
  word.length < 2 ? -1 : DAY_WORDS.findIndex((names) => names.some((name) => name.startsWith(word)));

/**
 * Reads a time of day as people write it: `9`, `9:30`, `9.30`, `21h`.
 * @returns `09:30`; `undefined` where it is none
 */
export function readClock(text: string): string | undefined {
  const found = /^(\d{1,2})(?:[:.h](\d{2})?)?$/.exec(text.trim().toLowerCase());
  const [hour, minute] = [Number(found?.[1] ?? NaN), Number(found?.[2] ?? 0)];
  if (!(hour <= 24) || minute > 59 || (hour === 24 && minute > 0)) return undefined;
  return `${String(hour).padStart(2, '0')}:${String(minute).padStart(2, '0')}`;
}

/** Says that a time of day can’t be read, and how it is written. */
export const explainClock = (text: string): string =>
  $localize`“${text.trim()}” is no time of day. Write it like 9:30 or 21.`;

function spanOf(word: string): ClockSpan | undefined {
  const [from, to, more] = word.split('-').map(readClock);
  return from !== undefined && to !== undefined && more === undefined && from < to ? [from, to] : undefined;
}

/** The hours of a week, written as `readWeek` reads them. Days of the same hours stand together. */
export function sayWeek(week: WeekHours): string {
  const said = week.map((spans) => spans.map(([from, to]) => `${shortClock(from)}–${shortClock(to)}`).join(' '));
  const parts: string[] = [];
  for (let from = 0; from < DAYS_A_WEEK;) {
    let to = from;
    while (to + 1 < DAYS_A_WEEK && said[to + 1] === said[from]) to += 1;
    const names = DAY_NAMES.names;
    if (said[from]) parts.push(`${from === to ? names[from] : `${names[from]}–${names[to]}`} ${said[from]}`);
    from = to + 1;
  }
  return parts.join(', ');
}

const shortClock = (clock: string): string => clock.replace(/^0/, '').replace(/:00$/, '');

/** Says that hours can’t be read, and how they are written. */
export const explainWeek = (text: string): string =>
  $localize`“${text.trim()}” can’t be read as hours. Write them like: Mon–Fri 8–17, Sat 9–13.`;

/**
 * When a week’s hours are, from one instant to another, epoch ms; days away left out. Clock times are the studio’s own:
 * where the clocks change, a day is an hour longer or shorter.
 */
export function hoursBetween(
  week: WeekHours,
  { fromDay, toDay, zone, away }: { fromDay: string; toDay: string; zone: string; away: readonly DaysAway[] },
): [fromMs: number, toMs: number][] {
  const found: [number, number][] = [];
  for (let day = fromDay; day <= toDay; day = addDays(day, 1)) {
    if (away.some((a) => a.from <= day && day <= a.to)) continue;
    for (const [from, to] of week[weekdayOf(day)] ?? []) {
      const end = to === '24:00' ? instantOf(addDays(day, 1), '00:00', zone) : instantOf(day, to, zone);
      const start = instantOf(day, from, zone);
      if (end > start) found.push([start, end]);
    }
  }
  return found;
}

/** 0 for a Monday up to 6 for a Sunday. */
export function weekdayOf(day: string): number {
  // 1 January 2024 was a Monday.
  const days = Math.round((Date.parse(`${day}T00:00:00Z`) - Date.UTC(2024, 0, 1)) / 86_400_000);
  return ((days % DAYS_A_WEEK) + DAYS_A_WEEK) % DAYS_A_WEEK;
}
