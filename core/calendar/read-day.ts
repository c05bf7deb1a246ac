import { worded } from '../words/worded';
import { Temporal } from 'temporal-polyfill';
import type { ShownIn } from '../quantity/shown-in';
import { figuresShownIn } from '../quantity/shown-in';

/** Months by the beginnings of their names, in every language this is read in: people write as they speak. */
const MONTHS = ['jan', 'feb', 'mar mär mrz', 'apr', 'may mai', 'jun', 'jul', 'aug', 'sep', 'oct okt', 'nov', 'dec dez'];
const SAID: Readonly<Record<string, number>> = {
  today: 0,
  yesterday: -1,
  tomorrow: 1,
  heute: 0,
  gestern: -1,
  morgen: 1,
};
const WEEKDAY = /^(?:(?:mon|tue|wed|thu|fri|sat|sun|die|mit|don|fre|sam|son)[a-z]*|mo|di|mi|do|fr|sa|so)\.?,?\s+/;

interface Parts {
  readonly year: number | undefined;
  readonly month: number;
  readonly day: number;
}

/**
 * Reads a day as people write it: `5 Nov`, `Nov 5, 2026`, `5.11.26`, `2026-11-05`, `yesterday`. Day and month in
 * figures go by the studio's order, unless only the other order gives a day. Where no year is said, it is the one that
 * lies nearest to today; two figures are of this century.
 * @param text as written by hand
 * @param today ISO date
 * @returns ISO date; `undefined` where it is none
 */
export function readDay(text: string, today: string): string | undefined {
  const written = text.trim().toLowerCase().replace(WEEKDAY, '');
  const said = SAID[written];
  if (said !== undefined) return Temporal.PlainDate.from(today).add({ days: said }).toString();
  for (const parts of partsOf(written, figuresShownIn().days)) {
    const day = dayOf(parts, today);
    if (day !== undefined) return day;
  }
  return undefined;
}

/** What may be meant, the likeliest first. */
function partsOf(written: string, order: ShownIn['days']): Parts[] {
  const figures = /^(\d{1,4})\s*[-./ ]\s*(\d{1,2})(?:\s*[-./ ]\s*(\d{1,4}))?\.?$/.exec(written);
  if (figures) {
    const [first, second, third] = figures.slice(1);
    if ((first ?? '').length > 2)
      return third === undefined ? [] : [{ year: Number(first), month: Number(second), day: Number(third) }];
    const year = yearOf(third);
    const dayFirst = { year, month: Number(second), day: Number(first) };
    const monthFirst = { year, month: Number(first), day: Number(second) };
    return order === 'dayMonthYear' ? [dayFirst, monthFirst] : [monthFirst, dayFirst];
  }
  const named =
    /^(\d{1,2})(?:st|nd|rd|th)?\.?\s*([a-zä]{3,9})\.?,?\s*(\d{2}|\d{4})?$/.exec(written) ??
    swapped(/^([a-zä]{3,9})\.?\s*(\d{1,2})(?:st|nd|rd|th)?,?(?:\s+(\d{2}|\d{4}))?$/.exec(written)) ??
    yearFirst(/^(\d{4})\s+([a-zä]{3,9})\.?\s+(\d{1,2})$/.exec(written));
  if (!named) return [];
  const month = MONTHS.findIndex((names) => names.split(' ').includes((named[2] ?? '').slice(0, 3))) + 1;
  return month === 0 ? [] : [{ year: yearOf(named[3]), month, day: Number(named[1]) }];
}

const swapped = (m: RegExpExecArray | null): (string | undefined)[] | undefined =>
  m ? [m[0], m[2], m[1], m[3]] : undefined;
const yearFirst = (m: RegExpExecArray | null): (string | undefined)[] | undefined =>
  m ? [m[0], m[3], m[2], m[1]] : undefined;

const yearOf = (text: string | undefined): number | undefined =>
  text === undefined ? undefined : Number(text) + (text.length <= 2 ? 2000 : 0);

function dayOf({ year, month, day }: Parts, today: string): string | undefined {
  const now = Temporal.PlainDate.from(today);
  const years = year === undefined ? [now.year - 1, now.year, now.year + 1] : [year];
  const days = years.flatMap((y) => {
    try {
      return [Temporal.PlainDate.from({ year: y, month, day }, { overflow: 'reject' })];
    } catch {
      return [];
    }
  });
  const far = (d: Temporal.PlainDate): number => Math.abs(now.until(d).days);
  return days.sort((a, b) => far(a) - far(b))[0]?.toString();
}

/** Says what is wrong with a day that can't be read, and how one is written here. */
export const explainDay = (text: string): string =>
  $localize`“${text.trim()}” is no day. Write it like ${EXAMPLES[figuresShownIn().days]}.`;

const EXAMPLES: Readonly<Record<ShownIn['days'], string>> = worded(() => ({
  dayMonthYear: $localize`5 Nov 2026 or 5.11.26`,
  monthDayYear: $localize`Nov 5, 2026 or 11/5/26`,
  yearMonthDay: '2026-11-05',
}));
