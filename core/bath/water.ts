import { worded } from '../words/worded';
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
export const HARDNESS_UNIT_LABELS: Readonly<Record<HardnessUnit, string>> = worded(() => ({
  dh: '°dH',
  ppm: $localize`ppm CaCO₃`,
  calcium: $localize`mg/l calcium`,
}));
const PER_DH: Readonly<Record<HardnessUnit, number>> = { dh: 1, ppm: CACO3_MG_PER_DH, calcium: CALCIUM_MG_PER_DH };

/** Hardness from one unit to another: °dH, ppm CaCO3 (the same as mg/l CaCO3), mg/l calcium. 0 or more. */
export function convertHardness(value: number, from: HardnessUnit, to: HardnessUnit): number {
  if (!(value >= 0)) throw new RangeError(`hardness must be 0 or more, got ${value}`);
  return Math.round((value / PER_DH[from]) * PER_DH[to] * 100) / 100;
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
    $localize`(hardness wanted − hardness there) × 17.85 mg/l CaCO₃ × litres`,
    [
      { name: $localize`wanted`, value: Math.round(wantedDh * 10) / 10, unit: '°dH', source: $localize`recipe` },
      { name: $localize`there`, value: hasDh, unit: '°dH', source: $localize`the source as tested` },
      {
        name: $localize`water`,
        value: Math.round(litres * 10) / 10,
        unit: 'l',
        source: $localize`the baths that ask for it`,
      },
      ...(givenG > 0 ? [{ name: $localize`given by the recipe`, value: Math.round(givenG * 10) / 10, unit: 'g' }] : []),
    ],
    [$localize`chalk dissolves slowly: stir it in early`],
  );
}

/** Whether water of a hardness, °dH, is what a recipe asks; `undefined` where that isn't known. */
export function hardnessFits(ask: WaterAsk, hardnessDh: number | null): boolean | undefined {
  if (ask.asks === 'any') return true;
  if (hardnessDh === null) return undefined;
  return ask.asks === 'soft'
    ? hardnessDh <= (ask.hardnessDh ?? SOFT_UP_TO_DH)
    : hardnessDh >= (ask.hardnessDh ?? HARD_FROM_DH);
}
