import { said } from '../words/said';
import type { WaterAsk, WaterFacts } from './water';
import { chalkToHarden, convertHardness, HARD_FROM_DH, hardnessFits, IRON_STAINS_MG_PER_L } from './water';

/** Something about a water that a recipe's asking brings up, as facts. Hardness in °dH, chalk in g. */
export type WaterRemark =
  | { readonly code: 'noneChosen'; readonly asks: 'soft' | 'hard' }
  | { readonly code: 'iron'; readonly name: string; readonly ironMgPerL: number }
  | { readonly code: 'hardnessUnknown'; readonly name: string; readonly asks: 'soft' | 'hard' }
  | {
      readonly code: 'tooHard';
      readonly name: string;
      readonly hardnessDh: number;
      /** Sources of the studio that would do. */
      readonly others: readonly string[];
    }
  | {
      readonly code: 'tooSoft';
      readonly name: string;
      readonly hardnessDh: number;
      readonly chalkG: number;
      readonly litres: number;
      readonly others: readonly string[];
    };

/**
 * What a source answers to what a recipe asks: chalk to add to soft water, another source where it is too hard,
 * and what to expect otherwise. Others are named only if they fit. Nothing where the water suits.
 * @param litres all the water of the baths that ask for it
 * @param chalkGivenG chalk that the recipe puts in by itself, g
 */
export function answerWater(
  ask: WaterAsk,
  water: WaterFacts | null,
  litres: number,
  others: readonly WaterFacts[] = [],
  chalkGivenG = 0,
): WaterRemark[] {
  const { asks } = ask;
  if (water === null) return asks === 'any' ? [] : [{ code: 'noneChosen', asks }];
  const { name } = water;
  const ironMgPerL = water.ironMgPerL ?? 0;
  const iron: WaterRemark[] = ironMgPerL > IRON_STAINS_MG_PER_L ? [{ code: 'iron', name, ironMgPerL }] : [];
  if (asks === 'any' || hardnessFits(ask, water.hardnessDh) === true) return iron;
  if (water.hardnessDh === null) return [...iron, { code: 'hardnessUnknown', name, asks }];
  const suits = (o: WaterFacts): boolean =>
    o.name !== name && (o.ironMgPerL ?? 0) <= IRON_STAINS_MG_PER_L && hardnessFits(ask, o.hardnessDh) === true;
  const facts = { name, hardnessDh: water.hardnessDh, others: others.filter(suits).map((o) => o.name) };
  if (asks === 'soft') return [...iron, { code: 'tooHard', ...facts }];
  const chalkG = chalkToHarden(water.hardnessDh, ask.hardnessDh ?? HARD_FROM_DH, litres, chalkGivenG).value;
  return chalkG === 0 ? iron : [...iron, { code: 'tooSoft', ...facts, chalkG, litres: Math.round(litres) }];
}

/** A remark on water in a sentence that says what to do or to expect. */
export function sayWaterRemark(remark: WaterRemark): string {
  switch (remark.code) {
    case 'noneChosen':
      return $localize`The recipe asks for ${said(remark.asks)} water, and no water was chosen. Choose the source.`;
    case 'iron':
      return $localize`${remark.name} carries ${remark.ironMgPerL} mg/l of iron: expect everything duller and greyer.`;
    case 'hardnessUnknown':
      return $localize`The recipe asks for ${said(remark.asks)} water and the hardness of ${remark.name} is not known. Test it, or dye a strip first.`;
    case 'tooHard':
      return $localize`${remark.name} is too hard at ${sayHardness(remark.hardnessDh)} for a recipe that asks for soft water: expect it duller and browner.${sayOthers(remark.others)}`;
    case 'tooSoft':
      return $localize`${remark.name} is too soft at ${sayHardness(remark.hardnessDh)} for a recipe that asks for hard water: add ${remark.chalkG} g of chalk to ${remark.litres} l, or expect it paler.${sayOthers(remark.others)}`;
  }
}

const sayOthers = (names: readonly string[]): string =>
  names.length > 0 ? $localize` ${names.join($localize` or `)} would do.` : '';

const sayHardness = (dh: number): string =>
  $localize`${dh} °dH (${Math.round(convertHardness(dh, 'dh', 'ppm'))} ppm CaCO₃)`;
