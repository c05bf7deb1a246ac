import type { DosedReagent } from '../bath/ph';
import type { WaterFacts } from '../bath/water';
import type { StockMeasure } from '../quantity/amount';
import type { Balance } from '../quantity/balance';
import { balanceFor, weighableDose, weighingPortions } from '../quantity/balance';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { TaughtSpoon } from '../quantity/spoon';
import type { KitchenUnit, VolumeSystem } from '../quantity/volume';
import type { Dose } from '../recipe/dose';
import type { PacketFacts } from '../stock/conversion';
import type { DoseUnknown } from './dose-unknown';
import type { StockSolution } from './stock-solution';
import { solutionFor, stockSolutionAdvice } from './stock-solution';

/** What measuring needs to know of a material. */
export interface DosedMaterial {
  readonly name: string;
  readonly measure: StockMeasure;
  /** Which of the catalogue's materials it is, where that is known. */
  readonly catalogueKey?: string | null;
  readonly packet: PacketFacts | null;
  readonly spoons: readonly (TaughtSpoon & { readonly unit: KitchenUnit; readonly system: VolumeSystem })[];
}

/** The bath a dose goes into. */
export interface DosedBath {
  readonly wofG: number;
  readonly liquorMl: number;
  readonly pieces: number;
  /** Times the vessel is filled one after another; once where absent. */
  readonly turns?: number;
  /** Of what is free on the shelf, what falls to this bath by its fibre; in g, ml or pieces. Nothing where absent. */
  readonly free?: number;
  readonly water: WaterFacts | null;
  /** Acids and alkalis in it already. */
  readonly before?: readonly DosedReagent[];
}

/** A dose turned into what is measured out; or why it can't be. */
export type MeasuredDose =
  | {
      readonly ok: true;
      readonly target: Figure;
      readonly measure: StockMeasure;
      readonly advice: readonly string[];
      /** Where it is too little to weigh well, the solution to take it from. */
      readonly solution?: StockSolution | null;
    }
  | { readonly ok: false; readonly unknown: DoseUnknown };

/** A dose in one of its ways. */
export type DoseBy<Way extends Dose['by']> = Extract<Dose, { readonly by: Way }>;

/** What a dose is measured by: material, bath, balance, and the line it comes from. */
export interface DoseContext {
  readonly material: DosedMaterial;
  readonly bath: DosedBath;
  readonly balance: Balance;
  readonly source: string;
}

/** Weight of fibre as an input of a working. */
export const wofInput = (bath: DosedBath) => ({
  name: $localize`weight of fibre`,
  value: round(bath.wofG),
  unit: 'g',
  source: $localize`this bath, dry`,
});

/** A dose that came out as a volume, ml. */
export const measuredMl = (
  ml: number,
  formula: string,
  inputs: Figure['working']['inputs'],
  notes: readonly string[] = [],
): MeasuredDose => ({ ok: true, measure: 'volume', advice: [], target: figure(ml, 'ml', formula, inputs, notes) });

/** A dose that came out as a weight, rounded to what the balance can show. */
export function weighed(
  { material, balance }: DoseContext,
  exactG: number,
  formula: string,
  inputs: Figure['working']['inputs'],
): MeasuredDose {
  if (material.measure === 'volume')
    return { ok: false, unknown: { code: 'keptByVolume', materialName: material.name } };
  if (material.measure === 'pieces')
    return { ok: false, unknown: { code: 'countedInPackets', materialName: material.name } };
  const target = weighableDose(exactG, balance, formula, inputs);
  const on = balanceFor(exactG, balance);
  return {
    ok: true,
    measure: 'weight',
    target,
    solution: solutionFor(exactG, on, material.catalogueKey),
    advice: [
      ...(on === balance ? [] : [$localize`On the ${on.name}.`]),
      ...stockSolutionAdvice(exactG, on, material.catalogueKey),
      ...weighingPortions(target.value, on),
    ],
  };
}

/** To three decimals. */
export const round = (value: number): number => Math.round(value * 1000) / 1000;
