import { worded } from '../words/worded';
import { figuresShownIn } from './shown-in';
import { WRITTEN_NUMBER, readNumberText } from './number-text';
import { BETWEEN_PARTS, trimZeros, withoutGuess } from './weight';

/** Which gallon, cup and spoon a bare word means. A studio chooses one; until it has, the word is asked back. */
export const VOLUME_SYSTEMS = ['metric', 'us', 'imperial'] as const;
/** One of `VOLUME_SYSTEMS`. */
export type VolumeSystem = (typeof VOLUME_SYSTEMS)[number];

/** How each system of measures is said on screen. */
export const VOLUME_SYSTEM_LABELS: Readonly<Record<VolumeSystem, string>> = worded(() => ({
  metric: $localize`metric`,
  us: 'US',
  imperial: $localize`imperial`,
}));

const ML_PER_METRIC_UNIT: Readonly<Record<string, number>> = {
  ml: 1,
  mls: 1,
  cc: 1,
  ccs: 1,
  cl: 10,
  dl: 100,
  l: 1000,
  ltr: 1000,
  ltrs: 1000,
  lt: 1000,
  litre: 1000,
  litres: 1000,
  liter: 1000,
  liters: 1000,
};

/**
 * US gallon 231 in³ exactly (NIST Handbook 44, app. C); imperial gallon 4.546 09 l exactly (UK Units of Measurement
 * Regulations 1995).
 */
const US_GALLON_ML = 3785.411784;
const IMPERIAL_GALLON_ML = 4546.09;

/** Spoons, cups and the like, whose size depends on the country. */
export const KITCHEN_UNITS = ['tsp', 'tbsp', 'flOz', 'cup', 'pint', 'quart', 'gallon'] as const;
/** One of `KITCHEN_UNITS`. */
export type KitchenUnit = (typeof KITCHEN_UNITS)[number];

const ML_PER_KITCHEN_UNIT: Readonly<Record<VolumeSystem, Readonly<Partial<Record<KitchenUnit, number>>>>> = {
  metric: { tsp: 5, tbsp: 15, cup: 250 },
  us: {
    tsp: US_GALLON_ML / 768,
    tbsp: US_GALLON_ML / 256,
    flOz: US_GALLON_ML / 128,
    cup: US_GALLON_ML / 16,
    pint: US_GALLON_ML / 8,
    quart: US_GALLON_ML / 4,
    gallon: US_GALLON_ML,
  },
  imperial: {
    tsp: IMPERIAL_GALLON_ML / 768,
    tbsp: IMPERIAL_GALLON_ML / 256,
    flOz: IMPERIAL_GALLON_ML / 160,
    cup: IMPERIAL_GALLON_ML / 16,
    pint: IMPERIAL_GALLON_ML / 8,
    quart: IMPERIAL_GALLON_ML / 4,
    gallon: IMPERIAL_GALLON_ML,
  },
};

const KITCHEN_LABELS: Readonly<Record<string, KitchenUnit>> = {
  // As people write them in German.
  tl: 'tsp',
  el: 'tbsp',
  tasse: 'cup',
  tassen: 'cup',
  tsp: 'tsp',
  tsps: 'tsp',
  teaspoon: 'tsp',
  teaspoons: 'tsp',
  tbsp: 'tbsp',
  tbsps: 'tbsp',
  tbs: 'tbsp',
  tblsp: 'tbsp',
  tablespoon: 'tbsp',
  tablespoons: 'tbsp',
  'fl oz': 'flOz',
  floz: 'flOz',
  'fluid ounce': 'flOz',
  'fluid ounces': 'flOz',
  cup: 'cup',
  cups: 'cup',
  pint: 'pint',
  pints: 'pint',
  pt: 'pint',
  pts: 'pint',
  quart: 'quart',
  quarts: 'quart',
  qt: 'quart',
  qts: 'quart',
  gal: 'gallon',
  gals: 'gallon',
  gallon: 'gallon',
  gallons: 'gallon',
};
const SYSTEM_LABELS: Readonly<Record<string, VolumeSystem>> = {
  us: 'us',
  american: 'us',
  imp: 'imperial',
  imperial: 'imperial',
  uk: 'imperial',
  metric: 'metric',
};

/**
 * Millilitres in a spoon, cup or gallon of a system; `undefined` where that system has none (there is no metric
 * gallon).
 */
export function kitchenUnitMl(unit: KitchenUnit, system: VolumeSystem): number | undefined {
  return ML_PER_KITCHEN_UNIT[system][unit];
}

/** How a kitchen unit is named in a sentence: “US tsp”, “imperial fl oz”. */
export function sayKitchenUnit(unit: KitchenUnit, system: VolumeSystem): string {
  return `${VOLUME_SYSTEM_LABELS[system]} ${unit === 'flOz' ? $localize`fl oz` : unit}`;
}

/** Why a written volume was refused. */
export type VolumeProblem = 'notAVolume' | 'noUnit' | 'unknownUnit' | 'whichSystem' | 'notPositive' | 'tooMuch';

/** A volume as it was written, ml; or why it can't be used. */
export type VolumeReading =
  | {
      readonly ok: true;
      readonly volumeMl: number;
      /** Which spoon, cup or gallon was taken, where that had to be decided. */ readonly note?: string;
    }
  | {
      readonly ok: false;
      readonly code: VolumeProblem;
      readonly message: string;
    };

const PART = new RegExp(String.raw`(${WRITTEN_NUMBER})\s*((?:[a-z.]+\s*)*)`, 'giy');
const MAX_ML = 1_000_000;

const refuse = (code: VolumeProblem, message: string): VolumeReading => ({
  ok: false,
  code,
  message,
});

/**
 * Reads a volume as people write it: `500 ml`, `1,5 l`, `1/2 tsp`, `2 US gal`, `1 imperial pint 3 fl oz`. Cups,
 * spoons, fluid ounces and gallons differ between systems: a bare word takes `system`, and without one is asked back.
 * Above 0 up to 1000 litres. Refusals are values, never exceptions.
 */
export function readVolume(text: string, { system }: { system?: VolumeSystem | undefined } = {}): VolumeReading {
  const { text: bare, guess } = withoutGuess(text);
  // “2 gal (US)” is “2 US gal”.
  const writtenText = bare.toLowerCase().replace(/((?:[a-z]+\.?\s*)+)\(\s*([a-z]+)\s*\)/g, '$2 $1');
  let totalMl = 0;
  let position = 0;
  let named: VolumeSystem | undefined;
  const notes = new Set<string>();
  while (position < writtenText.length) {
    PART.lastIndex = position;
    const part = PART.exec(writtenText);
    const value = part ? readNumberText(part[1] ?? '') : undefined;
    if (!part || value === undefined)
      return refuse(
        'notAVolume',
        $localize`Write a volume with its unit, for example “500 ml”, “1.5 l” or “1/2 US cup”.`,
      );
    if (value < 0) return refuse('notPositive', $localize`A volume can’t be below zero. Take the minus sign away.`);
    const label = (part[2] ?? '')
      .replaceAll('.', ' ')
      .replace(/\band\b/g, ' ')
      .trim()
      .replace(/\s+/g, ' ');
    if (label === '')
      return refuse('noUnit', $localize`Which unit is “${shorten(text)}” in? Write ml or l after the number.`);
    const first = label.split(' ')[0] ?? '';
    const own = Object.hasOwn(SYSTEM_LABELS, first) ? SYSTEM_LABELS[first] : undefined;
    const unitWord = own === undefined ? label : label.slice(first.length).trim();
    named = own ?? named;
    const metric = Object.hasOwn(ML_PER_METRIC_UNIT, unitWord) ? ML_PER_METRIC_UNIT[unitWord] : undefined;
    const unit = Object.hasOwn(KITCHEN_LABELS, unitWord) ? KITCHEN_LABELS[unitWord] : undefined;
    if (metric !== undefined) totalMl += value * metric;
    else if (unit === undefined)
      return refuse(
        'unknownUnit',
        $localize`“${shorten(unitWord)}” is not a unit of volume known here. Use ml, cl, dl, l, tsp, tbsp, cup, fl oz, pint, quart or gallon.`,
      );
    else {
      const chosen = named ?? system;
      if (chosen === undefined)
        return refuse(
          'whichSystem',
          $localize`Which ${unitWord}? A US, an imperial and a metric one differ. Write “US ${unitWord}”, “imperial ${unitWord}” or “metric ${unitWord}”, or set the studio’s own under Studio.`,
        );
      const perUnit = kitchenUnitMl(unit, chosen);
      if (perUnit === undefined)
        return refuse(
          'unknownUnit',
          $localize`There is no metric ${unitWord}. Write “US ${unitWord}” or “imperial ${unitWord}”, or use ml.`,
        );
      totalMl += value * perUnit;
      notes.add($localize`${sayKitchenUnit(unit, chosen)} of ${Math.round(perUnit * 100) / 100} ml`);
    }
    position = PART.lastIndex;
    BETWEEN_PARTS.lastIndex = position;
    position += BETWEEN_PARTS.exec(writtenText)?.[0].length ?? 0;
  }
  if (writtenText === '')
    return refuse('notAVolume', $localize`Write a volume with its unit, for example “500 ml” or “1.5 l”.`);
  if (totalMl <= 0) return refuse('notPositive', $localize`A volume must be above zero. Write what the jug shows.`);
  if (totalMl > MAX_ML)
    return refuse(
      'tooMuch',
      $localize`That is more than a thousand litres, which a studio can’t hold. Check the unit.`,
    );
  if (guess) notes.add('a guess');
  return { ok: true, volumeMl: totalMl, ...(notes.size > 0 ? { note: [...notes].join(', ') } : {}) };
}

/** Whether a written amount speaks of volume (litres, spoons, cups) rather than weight. */
export function speaksOfVolume(text: string): boolean {
  const label = text.toLowerCase().match(/[a-z]+(?:\s+oz)?/g) ?? [];
  return label.some((w) => Object.hasOwn(ML_PER_METRIC_UNIT, w) || Object.hasOwn(KITCHEN_LABELS, w));
}

const shorten = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
/**
 * Writes a liquor volume for reading, as the studio reads it: litres from 1000 ml up, else millilitres; or gallons from
 * one up, quarts from one up, else fluid ounces, of the system said.
 * @param system another than the studio reads
 */
export function formatVolume(volumeMl: number, system: VolumeSystem = figuresShownIn().volume): string {
  if (system !== 'metric') return formatGallons(volumeMl, system);
  return Math.abs(volumeMl) >= 1000
    ? `${trimZeros(volumeMl / 1000, 2)} l`
    : `${trimZeros(volumeMl, Math.abs(volumeMl) < 10 ? 2 : 0)} ml`;
}

/** Gallons and quarts to a hundredth, fluid ounces to a tenth. */
function formatGallons(volumeMl: number, system: 'us' | 'imperial'): string {
  for (const [unit, decimals] of [
    ['gallon', 2],
    ['quart', 2],
    ['flOz', 1],
  ] as const) {
    const size = volumeMl / (ML_PER_KITCHEN_UNIT[system][unit] ?? 1);
    if (Math.abs(size) >= 1 || unit === 'flOz')
      return `${trimZeros(size, decimals)} ${VOLUME_SYSTEM_LABELS[system]} ${unit === 'gallon' ? $localize`gal` : unit === 'quart' ? $localize`qt` : $localize`fl oz`}`;
  }
  return '';
}
