import { readLength } from './length';
import { describe, expect, it } from 'vitest';
import { readMoney } from '../stock/valuation';
import { readAmount } from './amount';
import { readLotSize } from './lot-size';
import { readNumberText } from './number-text';
import { readTemperatureC } from './temperature';
import type { VolumeSystem } from './volume';
import { readVolume } from './volume';
import { GRAMS_PER_OUNCE, GRAMS_PER_POUND, readWeight } from './weight';

/** Numbers as people write them, each tried with every unit below. */
const NUMBERS: readonly (readonly [string, number])[] = [
  ['3', 3],
  ['3.5', 3.5],
  ['3,5', 3.5],
  ['.5', 0.5],
  ['1/2', 0.5],
  ['1⁄2', 0.5],
  ['½', 0.5],
  ['2½', 2.5],
  ['1 1/2', 1.5],
  ['1-1/2', 1.5],
  ['3-5/8', 3.625],
  ['2 3/4', 2.75],
];
const WEIGHT_UNITS: readonly (readonly [string, number])[] = [
  ['g', 1],
  ['g.', 1],
  ['gm', 1],
  ['gms', 1],
  ['grams', 1],
  ['grammes', 1],
  ['kg', 1000],
  ['kg.', 1000],
  ['kgs', 1000],
  ['kilos', 1000],
  ['oz', GRAMS_PER_OUNCE],
  ['oz.', GRAMS_PER_OUNCE],
  ['ounces', GRAMS_PER_OUNCE],
  ['lb', GRAMS_PER_POUND],
  ['lb.', GRAMS_PER_POUND],
  ['lbs', GRAMS_PER_POUND],
  ['pounds', GRAMS_PER_POUND],
];
const CROSSED = NUMBERS.flatMap(([number, value]) =>
  WEIGHT_UNITS.map(([unit, grams]) => [`${number} ${unit}`, value * grams] as const),
);

describe('weights as people write them', () => {
  it.each(CROSSED)('%s', (text, grams) => {
    const read = readWeight(text);
    expect(read.ok && read.weightG).toBeCloseTo(grams, 6);
  });

  it.each<[string, number]>([
    ['3lb 4oz', 3 * GRAMS_PER_POUND + 4 * GRAMS_PER_OUNCE],
    ['3 lb. 4 oz', 3 * GRAMS_PER_POUND + 4 * GRAMS_PER_OUNCE],
    ['3 lb, 4 oz.', 3 * GRAMS_PER_POUND + 4 * GRAMS_PER_OUNCE],
    ['3 lb and 4 oz', 3 * GRAMS_PER_POUND + 4 * GRAMS_PER_OUNCE],
    ['1 kg + 250 g', 1250],
    ['1 kg & 250 g', 1250],
    ['1kg 250g', 1250],
    ['1 500 g', 1500],
    ['1’500 g', 1500],
    ["1'500 g", 1500],
    ['1\u00a0500 g', 1500],
    ['1\u202f500 g', 1500],
    ['12 500 g', 12500],
    ['1 500,5 g', 1500.5],
    ['1,234.5 g', 1234.5],
    ['1.234,5 g', 1234.5],
    ['1.25 kg', 1250],
    ['0.250 kg', 250],
    ['0,125 kg', 125],
    ['250G', 250],
    ['2 KG', 2000],
    ['500mg', 0.5],
  ])('%s', (text, grams) => {
    const read = readWeight(text);
    expect(read.ok && read.weightG).toBeCloseTo(grams, 6);
  });

  it.each(['about 2 kg', 'approx. 2 kg', 'ca. 2 kg', 'circa 2 kg', 'roughly 2 kg', '~2 kg', '≈ 2 kg'])(
    '%s is kept as a guess',
    (text) => {
      expect(readWeight(text)).toEqual({ ok: true, weightG: 2000, guess: true });
      expect(readAmount(text, 'weight')).toEqual({ ok: true, amount: 2_000_000, note: 'a guess' });
    },
  );

  it.each<[string, string]>([
    ['1,500 g', 'ambiguousNumber'],
    ['1.500 g', 'ambiguousNumber'],
    ['2.250 g', 'ambiguousNumber'],
    ['12.500 g', 'ambiguousNumber'],
    ['21/2 lb', 'ambiguousNumber'],
    ['33/4 oz', 'ambiguousNumber'],
    ['1,500,000 g', 'ambiguousNumber'],
    ['12', 'noUnit'],
    ['12 stone', 'unknownUnit'],
    ['about', 'empty'],
    ['2 kg -', 'notANumber'],
    ['−2 kg', 'notPositive'],
  ])('%s is asked back: %s', (text, code) => {
    const read = readWeight(text);
    expect(read.ok ? '' : read.code).toBe(code);
    expect(read.ok ? '' : read.message).toMatch(/[.?]$/);
  });
});

describe('volumes as people write them', () => {
  it.each<[string, VolumeSystem | undefined, number]>([
    ['20 cc', undefined, 20],
    ['20cc', undefined, 20],
    ['250 mls', undefined, 250],
    ['250 ml.', undefined, 250],
    ['2 ltr', undefined, 2000],
    ['2 ltrs', undefined, 2000],
    ['1,5 l', undefined, 1500],
    ['1 l + 250 ml', undefined, 1250],
    ['1 l and 250 ml', undefined, 1250],
    ['1 500 ml', undefined, 1500],
    ['1’500 ml', undefined, 1500],
    ['2 tbs', 'us', 29.574],
    ['3 tsps', 'us', 14.787],
    ['2 tbsps', 'metric', 30],
    ['1-1/2 tsp', 'metric', 7.5],
    ['1½ cups', 'metric', 375],
    ['2 pts', 'imperial', 1136.52],
    ['2 qts', 'us', 1892.71],
    ['2 gal (US)', undefined, 7570.82],
    ['2 gal. (US)', undefined, 7570.82],
    ['2 gallons (imperial)', undefined, 9092.18],
    ['1 cup + 2 tbsp', 'us', 266.16],
    ['1 cup and 2 tbsp', 'us', 266.16],
    ['1 US cup + 2 tbsp', undefined, 266.16],
    ['8 fl. oz.', 'us', 236.588],
    ['about 2 l', undefined, 2000],
  ])('%s (%s)', (text, system, ml) => {
    const read = readVolume(text, { system });
    expect(read.ok && read.volumeMl).toBeCloseTo(ml, 1);
  });
  it.each<[string, string]>([
    ['2 gal', 'whichSystem'],
    ['1 cup + 2 tbsp', 'whichSystem'],
    ['1.500 ml', 'notAVolume'],
    ['2 (US)', 'noUnit'],
  ])('%s is asked back: %s', (text, code) => expect(readVolume(text)).toMatchObject({ ok: false, code }));
});

describe('lengths as people write them', () => {
  const cloth = { usualPieceWeightG: 250, pieceWord: 'length', gPerM: 125 };
  it.each<[string, number, number]>([
    ['2 m', 1, 250],
    ['2,5 metres', 1, 312.5],
    ['150 cm', 1, 187.5],
    ['3 lengths of 2 m', 3, 250],
    ['4 x 1.2 m', 4, 150],
    ['6 lengths, 2 m each', 6, 250],
    ['3 yd', 1, 342.9],
    ['2 yards 18 in', 1, 285.75],
    ['5 ft', 1, 190.5],
    ['three pieces of 1 yard', 3, 114.3],
  ])('%s', (text, pieces, pieceWeightG) => {
    const read = readLotSize(text, cloth);
    expect(read.ok && [read.size.pieces, Math.round(read.size.pieceWeightG * 100) / 100]).toEqual([
      pieces,
      pieceWeightG,
    ]);
  });
  it('are asked back where nobody weighed a metre, and are no weights', () => {
    const read = readLotSize('2 m', { ...cloth, gPerM: null });
    expect(read).toMatchObject({ ok: false, code: 'lengthUnknown', message: expect.stringMatching(/what a metre/) });
    expect(readLength('2 kg')).toBeUndefined();
    expect(readLength('-2 m')).toBeUndefined();
    expect(readLength('90 km')).toBeUndefined();
  });
});

describe('pieces of unlike weight', () => {
  const base = { usualPieceWeightG: 100, pieceWord: 'hank' };
  it.each<[string, number, number, string]>([
    ['33 g + 35 g', 2, 34, '1 hank of 33 g + 1 hank of 35 g, 68 g dry'],
    ['2 hanks of 100 g + 1 hank of 60 g', 3, 260 / 3, '2 hanks of 100 g + 1 hank of 60 g, 260 g dry'],
    ['2 x 50 g plus 1 x 80 g', 3, 60, '2 hanks of 50 g + 1 hank of 80 g, 180 g dry'],
  ])('%s', (text, pieces, weightG, understoodAs) => {
    const read = readLotSize(text, base);
    expect(read.ok && [read.size.pieces, read.size.understoodAs]).toEqual([pieces, understoodAs]);
    expect(read.ok && read.size.pieceWeightG).toBeCloseTo(weightG, 9);
  });
  it.each(['33 g +', '33 g + some', '+ 33 g'])('%s is asked back', (text) =>
    expect(readLotSize(text, base).ok).toBe(false),
  );
});

describe('sizes of a lot as people write them', () => {
  const base = { usualPieceWeightG: 100, pieceWord: 'hank' };
  it.each<[string, number, number]>([
    ['12 x 85 g', 12, 85],
    ['12x85g', 12, 85],
    ['12 × 85 g', 12, 85],
    ['12 hanks x 85 g', 12, 85],
    ['12 hanks, 100 g each', 12, 100],
    ['12 hanks of 100 g each', 12, 100],
    ['12 hanks at 100 g', 12, 100],
    ['12 hanks @ 100 g', 12, 100],
    ['twelve hanks of 8 oz', 12, 8 * GRAMS_PER_OUNCE],
    ['Three skeins of 50 g', 3, 50],
    ['dozen hanks of 50 g', 12, 50],
    ['1 skein', 1, 100],
    ['2 skeins', 2, 100],
    ['one hank', 1, 100],
    ['twelve hanks', 12, 100],
    ['5 pieces', 5, 100],
    ['5 hanks of 8 oz.', 5, 8 * GRAMS_PER_OUNCE],
    ['2 hanks of 1-1/2 lb', 2, 1.5 * GRAMS_PER_POUND],
    ['1 500 g', 15, 100],
    ['about 2 kg', 20, 100],
  ])('%s', (text, pieces, weightG) => {
    const read = readLotSize(text, base);
    expect(read.ok && [read.size.pieces, Math.round(read.size.pieceWeightG * 1e6) / 1e6]).toEqual([
      pieces,
      Math.round(weightG * 1e6) / 1e6,
    ]);
  });
  it.each([
    ['12'],
    ['hanks'],
    ['12 elephants'],
    ['zero hanks'],
    ['0 hanks'],
    ['2.5 hanks'],
    ['12 hanks of'],
    ['some wool'],
  ])('%s is asked back in a sentence', (text) => {
    const read = readLotSize(text, base);
    expect(read.ok).toBe(false);
    expect(read.ok ? '' : read.message).toMatch(/[.?]$/);
  });
});

describe('money as people write it', () => {
  it.each<[string, number | undefined]>([
    ['12p', 12],
    ['12 p', 12],
    ['80 cents', 80],
    ['£1,200', 120_000],
    ['1,200.50', 120_050],
    ['1 200,50', 120_050],
    ['1’200', 120_000],
    ['£8', 800],
    ['€ 8,50', 850],
    ['8.5', 850],
    ['12.50 GBP', 1250],
    ['12.505', undefined],
    ['-5', undefined],
    ['free', undefined],
  ])('%s', (text, minor) => expect(readMoney(text)).toBe(minor));
});

describe('numbers as people write them', () => {
  it.each<[string, number | undefined]>([
    ...NUMBERS.map(([text, value]): [string, number] => [text, value]),
    ['−3,5', -3.5],
    ['-1/2', -0.5],
    ['+4', 4],
    ['1 000', 1000],
    ['1 000 000', 1_000_000],
    ['7/2', 3.5],
    ['16/3', 16 / 3],
    ['21/2', undefined],
    ['1.500', undefined],
    ['1,500', undefined],
    ['1.25', 1.25],
    ['0.500', 0.5],
    ['1..5', undefined],
    ['1 50', undefined],
    ['12 500 0', undefined],
    ['1e3', undefined],
  ])('%s', (text, value) => expect(readNumberText(text)).toBe(value));
});

describe('temperatures as people write them', () => {
  it.each<[string, number | undefined]>([
    ['82', 82],
    ['82C', 82],
    ['82 °C', 82],
    ['82° c', 82],
    ['62,5', 62.5],
    ['170 F', 76.7],
    ['170F', 76.7],
    ['180°F', 82.2],
    ['32 °F', 0],
    ['212 f', 100],
    ['-5 C', -5],
    ['about 80', 80],
    ['80 K', undefined],
    ['warm', undefined],
    ['', undefined],
  ])('%s', (text, celsius) => expect(readTemperatureC(text)).toBe(celsius));
});
