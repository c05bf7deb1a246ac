import { withDecimalMark } from './shown-in';
import { APART_SPACE } from './temperature';
import type { KitchenUnit } from './volume';
import { formatVolume, kitchenUnitMl } from './volume';
import { formatWeight, GRAMS_PER_OUNCE, GRAMS_PER_POUND } from './weight';

/** A figure with its unit inside a text, and what it is in the units the studio doesn’t read. */
export interface FigureElsewhere {
  /** Where it begins in the text, and where the next sign after it stands. */
  readonly from: number;
  readonly to: number;
  readonly other: string;
}

const NUMBER = String.raw`\d+(?:[.,]\d+)?`;
/** Strengths and rates (`g/l`, `mg/l`) are no amounts, and a word that begins as a unit does is none. */
const ENDS = String.raw`(?![\w/])`;
const WEIGHT = String.raw`(?:${NUMBER}\s(?:lb(?:\s${NUMBER}\soz)?|mg|kg|g|oz))${ENDS}`;
const VOLUME = String.raw`${NUMBER}\s(?:ml|l|(?:US|imperial)\s(?:gal|qt|fl\soz))${ENDS}`;
const TEMPERATURE = String.raw`(?:(?<low>${NUMBER})(?: ?[–-] ?| to ))?(?<high>${NUMBER})(?<space>\s)°(?<scale>[CF])${ENDS}`;
const FIGURE = new RegExp(
  String.raw`(?<![\w.,])(?:(?<weight>${WEIGHT})|(?<volume>${VOLUME})|(?<temperature>${TEMPERATURE}))`,
  'g',
);
/**
 * Every weight, volume and temperature in a text as this program writes them, with what it is in the other units:
 * pounds and ounces for a studio that reads grams, gallons of both kinds for litres, °F for °C, and the other way.
 */
export function figuresElsewhere(text: string): FigureElsewhere[] {
  return [...text.matchAll(FIGURE)].map((match) => ({
    from: match.index,
    to: match.index + match[0].length,
    other: otherOf(match.groups ?? {}),
  }));
}

function otherOf({ weight, volume, low, high = '', space, scale }: Partial<Record<string, string>>): string {
  if (weight !== undefined) return otherWeight(weight);
  if (volume !== undefined) return otherVolume(volume);
  // 2 °C apart are 3.6 °F.
  const isApart = space === APART_SPACE;
  const [from, to] = [low, high].map((n) => (n === undefined ? '' : otherDegrees(n, scale === 'F', isApart)));
  return `${from === '' ? '' : `${from} – `}${to} °${scale === 'F' ? 'C' : 'F'}`;
}

function otherWeight(text: string): string {
  let weightG = 0;
  for (const [, amount = '', unit = ''] of text.matchAll(PART)) weightG += numberOf(amount) * (GRAMS[unit] ?? 0);
  return formatWeight(weightG, { system: /lb|oz/.test(text) ? 'metric' : 'pounds' });
}

function otherVolume(text: string): string {
  const [, amount = '', system, unit = ''] = LIQUID.exec(text) ?? [];
  if (system === 'US' || system === 'imperial')
    return formatVolume(
      numberOf(amount) * (kitchenUnitMl(UNITS[unit] ?? 'flOz', system === 'US' ? 'us' : system) ?? 0),
      'metric',
    );
  const volumeMl = numberOf(amount) * (unit === 'l' ? 1000 : 1);
  return `${formatVolume(volumeMl, 'us')} · ${formatVolume(volumeMl, 'imperial')}`;
}

function otherDegrees(text: string, isFahrenheit: boolean, isApart: boolean): string {
  const nil = isApart ? 0 : 32;
  const other = isFahrenheit ? ((numberOf(text) - nil) * 5) / 9 : (numberOf(text) * 9) / 5 + nil;
  return withDecimalMark(String(isApart || isFahrenheit ? Math.round(other * 10) / 10 : Math.round(other)));
}

const PART = new RegExp(String.raw`(${NUMBER})\s(mg|kg|g|oz|lb)`, 'g');
const GRAMS: Readonly<Record<string, number>> = {
  mg: 0.001,
  g: 1,
  kg: 1000,
  oz: GRAMS_PER_OUNCE,
  lb: GRAMS_PER_POUND,
};
const LIQUID = new RegExp(String.raw`(${NUMBER})\s(?:(US|imperial)\s)?(gal|qt|fl|ml|l)`);
const UNITS: Readonly<Record<string, KitchenUnit>> = { gal: 'gallon', qt: 'quart', fl: 'flOz' };
/** This program writes no mark between thousands, so that either mark stands before a fraction. */
const numberOf = (text: string): number => Number(text.replace(',', '.'));
