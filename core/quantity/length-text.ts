import { readNumberText } from './number-text';

/** Numbers as words, in every language this is read in: people write as they speak. */
const COUNTED = [
  ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten', 'eleven', 'twelve'],
  ['ein', 'zwei', 'drei', 'vier', 'fünf', 'sechs', 'sieben', 'acht', 'neun', 'zehn', 'elf', 'zwölf'],
];
const IN_MINUTES: Readonly<Record<string, number>> = { m: 1, h: 60, s: 60, d: 1440, t: 1440, w: 10_080 };
const PART =
  /^(\d+(?:[.,]\d+)?½?|½|half an?|a quarter of an?|three quarters of an?|an?|eine[nr]?|(?:eine[nr]?\s)?halbe[nr]?|[a-zäöü]+)\s*(weeks?|wks?|wochen?|w|days?|d|tage?n?|t|hours?|hrs?|h|stunden?|std|minutes?|minuten?|mins?|m)(?![a-zäöü])\.?\s*/;

/**
 * Reads a length of time as people say it: `40 min`, `1 h 30`, `an hour and a half`, `2 d 4 h`, `two weeks`,
 * `half a day`. A bare number is none: it has no unit.
 * @param text as written by hand
 * @returns whole minutes; `undefined` where it is no length
 */
export function readLength(text: string): number | undefined {
  let rest = text
    .trim()
    .toLowerCase()
    .replace(/\s*(?:,(?!\d)|\b(?:and|und)\b)\s*/g, ' ');
  let minutes = 0;
  let each = 0;
  while (rest !== '') {
    const part = PART.exec(rest);
    if (part) {
      const many = countOf(part[1] ?? '');
      const next = IN_MINUTES[part[2]?.charAt(0) ?? ''] ?? 0;
      // From the large to the small, each once: “2 h 3 d” is a slip.
      if (many === undefined || (each !== 0 && next >= each)) return undefined;
      each = next;
      minutes += many * each;
      rest = rest.slice(part[0].length);
      continue;
    }
    // What follows hours without a unit is minutes, and “a half” is half of what it follows.
    if (each === 60 && /^\d{1,2}$/.test(rest) && Number(rest) < 60) minutes += Number(rest);
    else if (each > 1 && /^(?:a half|einhalb|½)$/.test(rest)) minutes += each / 2;
    else return undefined;
    rest = '';
  }
  return each === 0 ? undefined : Math.round(minutes);
}

function countOf(word: string): number | undefined {
  if (/^\d/.test(word)) return Number(word.replace(',', '.').replace('½', '')) + (word.endsWith('½') ? 0.5 : 0);
  if (word === '½' || word.startsWith('half') || word.includes('halbe')) return 0.5;
  if (word.startsWith('a quarter')) return 0.25;
  if (word.startsWith('three quarters')) return 0.75;
  if (word === 'a' || word === 'an' || word.startsWith('eine')) return 1;
  const place = Math.max(...COUNTED.map((words) => words.indexOf(word)));
  return place < 0 ? undefined : place + 1;
}

/**
 * Reads minutes as people write them into a field that asks for a length: as `readLength` does, or a bare number.
 * @returns minutes, never below nothing; `undefined` where it is none
 */
export function readMinutes(text: string): number | undefined {
  const bare = readNumberText(text);
  const minutes = bare ?? readLength(text);
  return minutes === undefined || minutes < 0 ? undefined : minutes;
}

/** Says what is wrong with a length that can't be read. */
export const explainLength = (text: string): string =>
  $localize`“${text.trim()}” is no length of time. Write it like 40 min, 1 h 30, 3 days or two weeks.`;
