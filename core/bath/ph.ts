import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { PhReagent } from './ph-reagent';
import { PH_REAGENT_LABELS } from './ph-reagent';
import type { PhRefusal } from './ph-refusal';

/**
 * Acid dissociation at 25 °C, as pKa; molar mass, g/mol (CRC Handbook of Chemistry and Physics, 97th ed., 5-87 and
 * 5-88).
 */
const PK_CARBONIC: readonly [number, number] = [6.35, 10.33];
const PK_WATER = 14;
interface Acid {
  readonly pKa: readonly number[];
  /** Negative charge the substance as weighed brings with its own sodium. */
  readonly sodium: number;
  readonly molarMass: number;
  /** Share of the substance in what is measured out: grams of it in a gram, or in a ml of solution. */
  readonly share: number;
  readonly unit: 'g' | 'ml';
}
const REAGENTS: Readonly<Record<PhReagent, Acid>> = {
  vinegar5: { pKa: [4.756], sodium: 0, molarMass: 60.05, share: 0.05, unit: 'ml' },
  citricAcid: { pKa: [3.13, 4.76, 6.4], sodium: 0, molarMass: 192.12, share: 1, unit: 'g' },
  tartaricAcid: { pKa: [2.98, 4.34], sodium: 0, molarMass: 150.09, share: 1, unit: 'g' },
  // Ten waters to a carbonate: 286.14 g of crystals hold 105.99 g of it.
  sodaCrystals: { pKa: PK_CARBONIC, sodium: 2, molarMass: 105.99, share: 105.99 / 286.14, unit: 'g' },
  sodaAsh: { pKa: PK_CARBONIC, sodium: 2, molarMass: 105.99, share: 1, unit: 'g' },
  bicarbonate: { pKa: PK_CARBONIC, sodium: 1, molarMass: 84.01, share: 1, unit: 'g' },
  ammonia10: { pKa: [9.25], sodium: 1, molarMass: 17.03, share: 0.1, unit: 'ml' },
};
/** 1 °dH of carbonate hardness is 0.357 milliequivalents of alkalinity to the litre. */
const ALKALINITY_MEQ_PER_DH = 0.357;
const LOWEST_PH = 3;
const HIGHEST_PH = 11.5;

/** An acid or alkali that is in a bath already: grams, or millilitres of what comes dissolved. */
export interface DosedReagent {
  readonly reagent: PhReagent;
  readonly amount: number;
}

/** How much of a reagent brings a bath to a pH, in g or ml; or why it can't. */
export type PhDose =
  | { readonly ok: true; readonly dose: Figure; readonly unit: 'g' | 'ml'; readonly firstThird: number }
  | { readonly ok: false; readonly refusal: PhRefusal };

/** Mean negative charge on an acid's anions at a pH: sum of k × its share with k protons gone. */
function meanCharge(pKa: readonly number[], ph: number): number {
  let weight = 1;
  let sum = 1;
  let charge = 0;
  for (const [i, pk] of pKa.entries()) {
    weight *= 10 ** (ph - pk);
    sum += weight;
    charge += (i + 1) * weight;
  }
  return charge / sum;
}

/** Charge that free hydroxide and hydrogen ions carry, mol/l, negative counted up. */
const freeCharge = (ph: number): number => 10 ** (ph - PK_WATER) - 10 ** -ph;

/** Moles to the litre of what was dosed. */
const molPerLitre = ({ reagent, amount }: DosedReagent, litres: number): number =>
  (amount * REAGENTS[reagent].share) / REAGENTS[reagent].molarMass / litres;

/** Charge, mol/l, that a mole of a reagent brings to a bath of this pH: above zero it raises the pH. */
const chargeOf = (reagent: PhReagent, ph: number): number =>
  REAGENTS[reagent].sodium - meanCharge(REAGENTS[reagent].pKa, ph);

/** Charge missing for a bath to stand at a pH, mol/l; below zero it has too much. */
function missingCharge(
  water: { ph: number; hardnessDh: number },
  ph: number,
  litres: number,
  before: readonly DosedReagent[],
): number {
  const alkalinity = (water.hardnessDh * ALKALINITY_MEQ_PER_DH) / 1000;
  const carbonate = Math.max(0, (alkalinity - freeCharge(water.ph)) / meanCharge(PK_CARBONIC, water.ph));
  const brought = before.reduce((sum, b) => sum + molPerLitre(b, litres) * chargeOf(b.reagent, ph), 0);
  return carbonate * meanCharge(PK_CARBONIC, ph) + freeCharge(ph) - alkalinity - brought;
}

/**
 * The pH of a bath with what was dosed into it, by the charge balance of `doseToPh`: the pH at which no charge is
 * missing. Its own pH where nothing was dosed.
 * @param litres of bath, above zero
 */
export function bathPh(
  water: { ph: number; hardnessDh: number },
  litres: number,
  before: readonly DosedReagent[],
): number {
  if (before.length === 0) return water.ph;
  let [low, high] = [0, PK_WATER];
  for (let i = 0; i < 60; i += 1) {
    const middle = (low + high) / 2;
    if (missingCharge(water, middle, litres, before) > 0) high = middle;
    else low = middle;
  }
  return Math.round(((low + high) / 2) * 100) / 100;
}

/** A pH this near is there already: no strip tells it apart. */
const THERE_PH = 0.05;

/**
 * What it takes to bring a bath to a pH, by its charge balance with its carbonate held in (Stumm & Morgan, Aquatic
 * Chemistry, 3rd ed. 1996, ch. 4): the source's alkalinity and pH give its carbonate, acids and alkalis dosed before
 * bring their charge; at the new pH, what is missing in charge is what the reagent must bring. An estimate: dyestuff
 * and fibre buffer as well, so a third goes in first and pH is taken between.
 * @param water pH of the source and its carbonate hardness, °dH
 * @param litres of bath, above zero
 * @param before acids and alkalis in the bath already
 */
export function doseToPh(
  water: { ph: number; hardnessDh: number },
  targetPh: number,
  litres: number,
  reagent: PhReagent,
  before: readonly DosedReagent[] = [],
): PhDose {
  const refuse = (refusal: PhRefusal): PhDose => ({ ok: false, refusal });
  if (!(targetPh >= LOWEST_PH && targetPh <= HIGHEST_PH))
    return refuse({ code: 'outOfRange', targetPh, lowestPh: LOWEST_PH, highestPh: HIGHEST_PH });
  const acid = REAGENTS[reagent];
  const label = PH_REAGENT_LABELS[reagent];
  const nowPh = bathPh(water, litres, before);
  if (Math.abs(nowPh - targetPh) < THERE_PH) return refuse({ code: 'thereAlready', nowPh });
  const raises = chargeOf(reagent, nowPh) > 0;
  if (raises !== targetPh > nowPh) return refuse({ code: 'wrongWay', nowPh, targetPh, reagent });
  const missing = missingCharge(water, targetPh, litres, before);
  const molPerL = missing / chargeOf(reagent, targetPh);
  if (!(molPerL > 0)) return refuse({ code: 'outOfReach', targetPh, reagent, why: 'stopsShort' });
  const amountPerL = (molPerL * acid.molarMass) / acid.share;
  if (!Number.isFinite(amountPerL) || amountPerL > 100)
    return refuse({ code: 'outOfReach', targetPh, reagent, why: 'tooMuch' });
  const amount = round(amountPerL * litres);
  const dose = figure(
    amount,
    acid.unit,
    $localize`charge missing at the new pH ÷ charge a mole of it brings × molar mass ÷ its share`,
    [
      {
        name: $localize`pH now`,
        value: nowPh,
        unit: '',
        source: before.length === 0 ? $localize`water source` : $localize`water source and what was dosed before`,
      },
      { name: $localize`pH wanted`, value: targetPh, unit: '', source: $localize`recipe` },
      {
        name: $localize`carbonate hardness`,
        value: water.hardnessDh,
        unit: '°dH',
        source: $localize`water source, all of it taken as carbonate`,
      },
      { name: $localize`bath`, value: round(litres), unit: 'l' },
      { name: label, value: round(amountPerL), unit: `${acid.unit}/l` },
    ],
    [
      $localize`an estimate for the water alone: add ${round(amount / 3)} ${acid.unit} first, stir, test, and the rest in small doses`,
    ],
  );
  return { ok: true, dose, unit: acid.unit, firstThird: round(amount / 3) };
}

const round = (value: number): number => Math.round(value * 100) / 100;
