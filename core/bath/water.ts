import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';

/** A water source as tested. Unknown where `null`. */
export interface WaterFacts {
  readonly name: string;
  readonly ph: number | null;
  readonly hardnessDh: number | null;
  readonly ironMgPerL: number | null;
}

/** What a recipe asks of its water. */
export interface WaterAsk {
  readonly asks: 'any' | 'soft' | 'hard';
  /** At least or at most so hard, °dH, where the recipe says it in figures. */
  readonly hardnessDh: number | null;
}
/** A recipe that doesn't mind what water it gets. */
export const ANY_WATER: WaterAsk = { asks: 'any', hardnessDh: null };

/**
 * 1 °dH is 10 mg of CaO to the litre (DIN 38409-6), which is 17.85 mg of CaCO3 and 7.15 mg of calcium by molar masses
 * 56.08, 100.09 and 40.08.
 */
const CACO3_MG_PER_DH = (10 * 100.09) / 56.08;
const CALCIUM_MG_PER_DH = (10 * 40.08) / 56.08;
/**
 * WHO calls water up to 60 mg CaCO3/l soft and above 120 hard (Guidelines for drinking-water quality, hardness
 * background document 2011).
 */
export const SOFT_UP_TO_DH = 60 / CACO3_MG_PER_DH;
/** Water counts as hard from here, °dH: 120 mg/l as calcium carbonate. */
export const HARD_FROM_DH = 120 / CACO3_MG_PER_DH;
/** Above this iron stains (WHO, Iron in drinking-water 2003: stains laundry above 0.3 mg/l). */
export const IRON_STAINS_MG_PER_L = 0.3;

/** Units in which hardness is written: German degrees, mg/l as calcium carbonate, mg/l of calcium. */
export const HARDNESS_UNITS = ['dh', 'ppm', 'calcium'] as const;
/** One of `HARDNESS_UNITS`. */
export type HardnessUnit = (typeof HARDNESS_UNITS)[number];
/** How each unit of hardness is written on screen. */
export const HARDNESS_UNIT_LABELS: Readonly<Record<HardnessUnit, string>> = {
  dh: '°dH',
  ppm: 'ppm CaCO₃',
  calcium: 'mg/l calcium',
};
const PER_DH: Readonly<Record<HardnessUnit, number>> = { dh: 1, ppm: CACO3_MG_PER_DH, calcium: CALCIUM_MG_PER_DH };

/** Hardness from one unit to another: °dH, ppm CaCO3 (the same as mg/l CaCO3), mg/l calcium. 0 or more. */
export function convertHardness(value: number, from: HardnessUnit, to: HardnessUnit): number {
  if (!(value >= 0)) throw new RangeError(`hardness must be 0 or more, got ${value}`);
  return Math.round((value / PER_DH[from]) * PER_DH[to] * 100) / 100;
}

/** Whether a water suits what a recipe asks, and what to do where it doesn't, a sentence each. */
export interface WaterAnswer {
  /** The source gives what the recipe asks. */
  readonly fits: boolean;
  readonly lines: readonly string[];
  /** Chalk to add, where that is the way, grams in all. */
  readonly chalk: Figure | null;
}

/**
 * What a source answers to what a recipe asks: chalk to add to soft water, another source where it is too hard,
 * and what to expect otherwise. Others are named only if they fit.
 * @param litres all the water of the lot's baths
 */
export function answerWater(
  ask: WaterAsk,
  water: WaterFacts | null,
  litres: number,
  others: readonly WaterFacts[] = [],
  chalkGivenG = 0,
): WaterAnswer {
  const lines: string[] = [];
  if (water === null)
    return {
      fits: ask.asks === 'any',
      chalk: null,
      lines:
        ask.asks === 'any'
          ? []
          : [`The recipe asks for ${ask.asks} water, and no water was chosen. Choose the source.`],
    };
  const iron = water.ironMgPerL ?? 0;
  const ironFits = iron <= IRON_STAINS_MG_PER_L;
  if (!ironFits) lines.push(`${water.name} carries ${iron} mg/l of iron: expect everything duller and greyer.`);
  const clean = others.filter(
    (o) =>
      o.name !== water.name && (o.ironMgPerL ?? 0) <= IRON_STAINS_MG_PER_L && hardnessFits(ask, o.hardnessDh) === true,
  );
  const elsewhere = clean.length > 0 ? ` ${clean.map((o) => o.name).join(' or ')} would do.` : '';
  const fits = hardnessFits(ask, water.hardnessDh);
  if (fits === undefined)
    return {
      fits: false,
      chalk: null,
      lines: [
        ...lines,
        `The recipe asks for ${ask.asks} water and the hardness of ${water.name} is not known. Test it, or dye a strip first.`,
      ],
    };
  if (fits) return { fits: ironFits, chalk: null, lines };
  if (ask.asks === 'soft')
    return {
      fits: false,
      chalk: null,
      lines: [
        ...lines,
        `${water.name} is too hard at ${say(water.hardnessDh)} for a recipe that asks for soft water: expect it duller and browner.${elsewhere}`,
      ],
    };
  const wantedDh = ask.hardnessDh ?? HARD_FROM_DH;
  const chalk = chalkToHarden(water.hardnessDh ?? 0, wantedDh, litres, chalkGivenG);
  if (chalk.value === 0) return { fits: ironFits, chalk: null, lines };
  return {
    fits: false,
    chalk,
    lines: [
      ...lines,
      `${water.name} is too soft at ${say(water.hardnessDh)} for a recipe that asks for hard water: add ${chalk.value} g of chalk to ${Math.round(litres)} l, or expect it paler.${elsewhere}`,
    ],
  };
}

/**
 * Chalk (CaCO3) that brings water to a hardness, if all of it dissolves, which it does only in a slightly sour or
 * long-stirred bath.
 * @param givenG what the recipe puts in by itself
 */
export function chalkToHarden(hasDh: number, wantedDh: number, litres: number, givenG = 0): Figure {
  const grams = Math.max(0, (Math.max(0, wantedDh - hasDh) * CACO3_MG_PER_DH * litres) / 1000 - givenG);
  return figure(
    Math.round(grams * 10) / 10,
    'g',
    '(hardness wanted − hardness there) × 17.85 mg/l CaCO₃ × litres',
    [
      { name: 'wanted', value: Math.round(wantedDh * 10) / 10, unit: '°dH', source: 'recipe' },
      { name: 'there', value: hasDh, unit: '°dH', source: 'the source as tested' },
      { name: 'water', value: Math.round(litres * 10) / 10, unit: 'l', source: 'the baths that ask for it' },
      ...(givenG > 0 ? [{ name: 'given by the recipe', value: Math.round(givenG * 10) / 10, unit: 'g' }] : []),
    ],
    ['chalk dissolves slowly: stir it in early'],
  );
}

function hardnessFits(ask: WaterAsk, hardnessDh: number | null): boolean | undefined {
  if (ask.asks === 'any') return true;
  if (hardnessDh === null) return undefined;
  return ask.asks === 'soft'
    ? hardnessDh <= (ask.hardnessDh ?? SOFT_UP_TO_DH)
    : hardnessDh >= (ask.hardnessDh ?? HARD_FROM_DH);
}

const say = (dh: number | null): string =>
  `${dh ?? 0} °dH (${Math.round(convertHardness(dh ?? 0, 'dh', 'ppm'))} ppm CaCO₃)`;
