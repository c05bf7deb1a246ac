import type { ShownIn } from './shown-in';
import { figuresShownIn, withDecimalMark } from './shown-in';
import { WRITTEN_NUMBER, readNumberText } from './number-text';

/** International avoirdupois pound, exact: 0.453 592 37 kg (yard and pound agreement of 1959). */
export const GRAMS_PER_POUND = 453.59237;
/** Avoirdupois ounce, a sixteenth of the international pound (1959). */
export const GRAMS_PER_OUNCE = GRAMS_PER_POUND / 16;

const GRAMS_PER_UNIT: Readonly<Record<string, number>> = {
  mg: 0.001,
  mgs: 0.001,
  g: 1,
  gs: 1,
  gr: 1,
  gm: 1,
  gms: 1,
  grm: 1,
  gram: 1,
  grams: 1,
  gramme: 1,
  grammes: 1,
  kg: 1000,
  kgs: 1000,
  kilo: 1000,
  kilos: 1000,
  kilogram: 1000,
  kilograms: 1000,
  oz: GRAMS_PER_OUNCE,
  ozs: GRAMS_PER_OUNCE,
  ounce: GRAMS_PER_OUNCE,
  ounces: GRAMS_PER_OUNCE,
  lb: GRAMS_PER_POUND,
  lbs: GRAMS_PER_POUND,
  pound: GRAMS_PER_POUND,
  pounds: GRAMS_PER_POUND,
};

const PART = new RegExp(String.raw`(${WRITTEN_NUMBER})\s*([a-z]*)\.?`, 'giy');

/** Why a written weight was refused. `sentence` says it plainly and says what to do. */
export interface WeightRefusal {
  readonly code:
    'empty' | 'notANumber' | 'ambiguousNumber' | 'noUnit' | 'unknownUnit' | 'notPositive' | 'tooHeavy' | 'tooLight';
  readonly message: string;
}

/** A weight as it was written, g; or why it can't be used. */
export type WeightReading =
  | {
      readonly ok: true;
      readonly weightG: number;
      /** It was written as a guess: “about 2 kg”. */ readonly guess?: true;
    }
  | ({ readonly ok: false } & WeightRefusal);

const GUESS = /^(?:(?:about|approximately|approx|roughly|circa|ca|c|around)\b\.?|[~≈])\s*/i;

/** A written amount without the word that says it is a guess; and whether there was one. */
export const withoutGuess = (text: string): { readonly text: string; readonly guess: boolean } => ({
  text: text.trim().replace(GUESS, ''),
  guess: GUESS.test(text.trim()),
});

/** What may stand between the parts of an amount: `3 lb, 4 oz`, `1 kg + 250 g`, `1 lb and 2 oz`. */
export const BETWEEN_PARTS = /(?:[\s,+&]|\band\b)*/y;

const refuse = (code: WeightRefusal['code'], message: string): WeightReading => ({ ok: false, code, message });

/**
 * Reads a weight as people write it (`2.4 kg`, `1,5 kg`, `8 oz.`, `3 lb. 4 oz`, `1-1/2 lb`, `1 kg + 250 g`,
 * `about 2 kg`) into grams.
 * Range accepted: 1 mg up to `maximumG` (default 500 kg, more than a small studio can hold).
 * Refusals are values, never exceptions.
 */
export function readWeight(text: string, { maximumG = 500_000 }: { maximumG?: number } = {}): WeightReading {
  const { text: bare, guess } = withoutGuess(text);
  const writtenText = bare.toLowerCase();
  if (writtenText === '')
    return refuse('empty', $localize`Write a weight with its unit, for example “250 g” or “8 oz”.`);
  let totalG = 0;
  let position = 0;
  PART.lastIndex = 0;
  while (position < writtenText.length) {
    PART.lastIndex = position;
    const part = PART.exec(writtenText);
    if (!part)
      return refuse(
        'notANumber',
        $localize`“${shorten(text)}” is not a weight. Write a number and a unit, for example “250 g” or “3 lb 4 oz”.`,
      );
    const amount = readNumberText(part[1] ?? '');
    if (amount === undefined)
      return refuse(
        'ambiguousNumber',
        $localize`“${shorten(part[1] ?? '')}” can be read in two ways. Write it without marks between thousands, for example “1500 g” or “1.5 kg”.`,
      );
    const unit = part[2] ?? '';
    if (unit === '')
      return refuse('noUnit', $localize`Which unit is “${shorten(text)}” in? Write g, kg, oz or lb after the number.`);
    const perUnit = Object.hasOwn(GRAMS_PER_UNIT, unit) ? GRAMS_PER_UNIT[unit] : undefined;
    if (perUnit === undefined)
      return refuse(
        'unknownUnit',
        $localize`“${shorten(unit)}” is not a unit of weight known here. Use mg, g, kg, oz or lb.`,
      );
    if (amount < 0) return refuse('notPositive', $localize`A weight can’t be below zero. Take the minus sign away.`);
    totalG += amount * perUnit;
    position = PART.lastIndex;
    BETWEEN_PARTS.lastIndex = position;
    position += BETWEEN_PARTS.exec(writtenText)?.[0].length ?? 0;
  }
  if (totalG <= 0)
    return refuse('notPositive', $localize`A weight of nothing can’t be used. Write what the balance shows.`);
  if (totalG < 0.001)
    return refuse(
      'tooLight',
      $localize`That is less than a milligram, which no balance here can weigh. Check the unit.`,
    );
  if (totalG > maximumG)
    return refuse(
      'tooHeavy',
      $localize`${formatWeight(totalG)} is more than this can be. Check the unit: did you mean grams?`,
    );
  return { ok: true, weightG: totalG, ...(guess ? { guess } : {}) };
}

const OUNCES_PER_POUND = 16;

const shorten = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);

/**
 * Writes a weight for reading, as the studio reads it: kilograms from 1000 g up, else grams, with no more decimals than
 * `decimals` (default: 3 below 10 g, 2 below 100 g, 1 below 1 kg); or pounds and ounces, to less than the same step.
 * @param system another than the studio reads
 */
export function formatWeight(
  weightG: number,
  { decimals, system = figuresShownIn().weight }: { decimals?: number; system?: ShownIn['weight'] } = {},
): string {
  const size = Math.abs(weightG);
  if (system === 'pounds') return formatPounds(weightG);
  if (size >= 1000) return `${trimZeros(weightG / 1000, 3)} kg`;
  return `${trimZeros(weightG, decimals ?? (size < 10 ? 3 : size < 100 ? 2 : 1))} g`;
}

/** Ounces below a pound, to a thousandth; from there pounds and ounces to a hundredth: finer than the balance's step. */
function formatPounds(weightG: number): string {
  const ounces = weightG / GRAMS_PER_OUNCE;
  if (Math.abs(ounces) < OUNCES_PER_POUND) return `${trimZeros(ounces, 3)} oz`;
  const hundredths = Math.round(Math.abs(ounces) * 100);
  const pounds = Math.floor(hundredths / (100 * OUNCES_PER_POUND));
  const rest = trimZeros(hundredths / 100 - pounds * OUNCES_PER_POUND, 2);
  return `${ounces < 0 ? '-' : ''}${pounds} lb${rest === '0' ? '' : ` ${rest} oz`}`;
}

/** A number with at most so many decimals, without zeros at its end, with the studio's decimal mark. */
export function trimZeros(value: number, decimals: number): string {
  const fixed = value.toFixed(decimals);
  const trimmed = fixed.includes('.') ? fixed.replace(/\.?0+$/, '') : fixed;
  return trimmed === '-0' ? '0' : withDecimalMark(trimmed);
}
