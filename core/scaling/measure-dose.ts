import type { DosedReagent } from '../bath/ph';
import { bathPh, doseToPh } from '../bath/ph';
import type { WaterFacts } from '../bath/water';
import type { StockMeasure } from '../quantity/amount';
import type { Balance } from '../quantity/balance';
import { weighableDose, weighingPortions } from '../quantity/balance';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { TaughtSpoon } from '../quantity/spoon';
import type { KitchenUnit, VolumeSystem } from '../quantity/volume';
import { formatVolume, kitchenUnitMl, sayKitchenUnit } from '../quantity/volume';
import { formatWeight } from '../quantity/weight';
import type { PacketFacts } from '../stock/conversion';
import { packetsFor } from '../stock/conversion';
import type { Dose } from '../recipe/dose';
import type { DoseUnknown } from './dose-unknown';

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
  | { readonly ok: true; readonly target: Figure; readonly measure: StockMeasure; readonly advice: readonly string[] }
  | { readonly ok: false; readonly unknown: DoseUnknown };

/** Liquids are measured with a cylinder or pipette to the millilitre. */
const LIQUID_STEP_ML = 1;
/** A stock solution is worth its trouble where the balance may be off by more than this share. */
const DOUBTFUL_SHARE = 0.05;

type DoseBy<Way extends Dose['by']> = Extract<Dose, { readonly by: Way }>;

interface DoseContext {
  readonly material: DosedMaterial;
  readonly bath: DosedBath;
  readonly balance: Balance;
  readonly source: string;
}

const wofInput = (bath: DosedBath) => ({
  name: 'weight of fibre',
  value: round(bath.wofG),
  unit: 'g',
  source: 'this bath, dry',
});

/**
 * Turns a dose, in whichever of the ways it is written, into what to measure out for one bath: grams rounded to the
 * balance, millilitres, or whole packets, with its working. Says why it can't be where something is not
 * known: an untaught spoon, a packet without its facts, a water without a pH.
 * @param source the recipe line it comes from, for the working
 */
export function measureDose(
  dose: Dose,
  material: DosedMaterial,
  bath: DosedBath,
  balance: Balance,
  source: string,
): MeasuredDose {
  const context = { material, bath, balance, source };
  switch (dose.by) {
    case 'percentOwf':
      return withRange(
        dose,
        weighed(context, (dose.percentOwf * bath.wofG) / 100, 'per cent of fibre × weight of fibre ÷ 100', [
          { name: 'per cent of fibre', value: dose.percentOwf, unit: '% WOF', source },
          wofInput(bath),
        ]),
      );
    case 'gPerLitre':
      return weighed(context, (dose.gPerL * bath.liquorMl) / 1000, 'grams to the litre × litres of bath', [
        { name: 'grams to the litre', value: dose.gPerL, unit: 'g/l', source },
        { name: 'bath', value: bath.liquorMl / 1000, unit: 'l', source: 'this bath' },
      ]);
    case 'perPiece':
      return weighed(context, dose.gPerPiece * bath.pieces, 'grams a piece × pieces', [
        { name: 'a piece', value: dose.gPerPiece, unit: 'g', source },
        { name: 'pieces', value: bath.pieces, unit: '', source: 'in this bath' },
      ]);
    case 'solution':
      return solutionDose(dose, context);
    case 'packet':
      return packetDose(context);
    case 'spoons':
      return spoonDose(dose, context);
    case 'perBath':
      return bathDose(dose, context);
    case 'count':
      return countDose(dose, context);
    case 'allThere':
      return allThereDose(context);
    case 'liquor':
      return liquorDose(context);
    case 'toPh':
      return phDose(dose, context);
  }
}

/** From a solution of known strength, to the millilitre; or the powder that it would hold. */
function solutionDose(dose: DoseBy<'solution'>, context: DoseContext): MeasuredDose {
  const { material, bath, source } = context;
  const ml = Math.max(LIQUID_STEP_ML, Math.round((dose.mlPer100G * bath.wofG) / 100 / LIQUID_STEP_ML) * LIQUID_STEP_ML);
  const inputs = [
    { name: 'solution', value: dose.mlPer100G, unit: 'ml per 100 g of fibre', source },
    ...(dose.gPerL === null ? [] : [{ name: 'its strength', value: dose.gPerL, unit: 'g/l', source }]),
    wofInput(bath),
  ];
  if (material.measure === 'volume') {
    const holds =
      dose.gPerL === null
        ? 'of a strength nobody knows: lots dosed with it can’t be compared by it'
        : `holds ${formatWeight((ml * dose.gPerL) / 1000)}`;
    return measuredMl(ml, 'ml per 100 g of fibre × weight of fibre ÷ 100', inputs, [holds, 'to the millilitre']);
  }
  if (dose.gPerL === null) return { ok: false, unknown: { code: 'strengthUnknown', materialName: material.name } };
  const grams = (ml * dose.gPerL) / 1000;
  const created = weighed(context, grams, 'ml per 100 g of fibre × weight of fibre ÷ 100 × strength', inputs);
  return created.ok
    ? {
        ...created,
        advice: [`Dissolve it in ${formatVolume(ml)}, or take ${formatVolume(ml)} of a solution of ${dose.gPerL} g/l.`],
      }
    : created;
}

/** By the packet: whole ones only. */
function packetDose(context: DoseContext): MeasuredDose {
  const { material, bath } = context;
  if (!material.packet) return { ok: false, unknown: { code: 'packetUnknown', materialName: material.name } };
  const { packets } = packetsFor(bath.wofG, material.packet);
  return { ok: true, measure: 'pieces', target: packets, advice: [] };
}

const measuredMl = (
  ml: number,
  formula: string,
  inputs: Figure['working']['inputs'],
  notes: readonly string[] = [],
): MeasuredDose => ({ ok: true, measure: 'volume', advice: [], target: figure(ml, 'ml', formula, inputs, notes) });

/** A per cent chosen from a range is told as such. */
function withRange(dose: DoseBy<'percentOwf'>, measured: MeasuredDose): MeasuredDose {
  if (!measured.ok || dose.toPercentOwf === undefined) return measured;
  const range = `The recipe gives a range: ${dose.percentOwf} % was taken, up to ${dose.toPercentOwf} % is meant.`;
  return { ...measured, advice: [range, ...measured.advice] };
}

/** So much for each bath, whatever is in it. */
function bathDose({ amount, unit, system }: DoseBy<'perBath'>, context: DoseContext): MeasuredDose {
  const { material, bath, source } = context;
  const turns = bath.turns ?? 1;
  const doesNotFit: MeasuredDose = {
    ok: false,
    unknown: { code: 'unitDoesNotFit', materialName: material.name, measure: material.measure },
  };
  const inputs = (each: number, of: string) => [
    { name: 'for the bath', value: each, unit: of, source },
    ...(turns > 1 ? [{ name: 'baths one after another', value: turns, unit: '' }] : []),
  ];
  if (unit === 'g')
    return material.measure === 'weight'
      ? weighed(context, amount * turns, 'amount for a bath × baths', inputs(amount, 'g'))
      : doesNotFit;
  if (unit === 'pieces')
    return material.measure === 'pieces'
      ? counted(Math.ceil(amount * turns), 'amount for a bath × baths', inputs(amount, ''))
      : doesNotFit;
  if (material.measure === 'volume') {
    const ml = unit === 'ml' ? amount : amount * (kitchenUnitMl(unit, system) ?? NaN);
    return Number.isFinite(ml)
      ? measuredMl(Math.round(ml * turns), 'amount for a bath × baths', inputs(Math.round(ml), 'ml'))
      : doesNotFit;
  }
  if (unit === 'ml' || material.measure === 'pieces') return doesNotFit;
  const taught = material.spoons.find((s) => s.unit === unit && s.system === system);
  if (!taught) return { ok: false, unknown: { code: 'spoonNotTaught', materialName: material.name, unit, system } };
  return weighed(context, amount * turns * taught.meanG, 'amount for a bath × what one weighs × baths', [
    ...inputs(amount, sayKitchenUnit(unit, system)),
    { name: 'one weighs', value: round(taught.meanG), unit: 'g', source: `${taught.weighings} weighings` },
  ]);
}

const counted = (pieces: number, formula: string, inputs: Figure['working']['inputs']): MeasuredDose => ({
  ok: true,
  measure: 'pieces',
  advice: [],
  target: figure(pieces, '', formula, inputs, ['whole pieces']),
});

/** Whole pieces by the weight of fibre: so many stones to the pound. */
function countDose({ piecesPer100G }: DoseBy<'count'>, { material, bath, source }: DoseContext): MeasuredDose {
  if (material.measure !== 'pieces')
    return {
      ok: false,
      unknown: { code: 'unitDoesNotFit', materialName: material.name, measure: material.measure },
    };
  return counted(Math.ceil((piecesPer100G * bath.wofG) / 100 - 1e-9), 'pieces per 100 g × weight of fibre ÷ 100', [
    { name: 'pieces', value: piecesPer100G, unit: 'per 100 g of fibre', source },
    wofInput(bath),
  ]);
}

/** All that is free, shared by the weight of fibre; where nothing is there, it is short by one step. */
function allThereDose({ material, bath, balance, source }: DoseContext): MeasuredDose {
  const step = material.measure === 'weight' ? balance.resolutionG : 1;
  const free = Math.floor((bath.free ?? 0) / step + 1e-6) * step;
  const unit = material.measure === 'weight' ? 'g' : material.measure === 'volume' ? 'ml' : '';
  return {
    ok: true,
    measure: material.measure,
    advice: ['As much as there is: what it was is written down with the lot.'],
    target: figure(round(Math.max(step, free)), unit, 'all that is free × this bath’s share of the fibre', [
      { name: 'free for this bath', value: round(bath.free ?? 0), unit, source: 'on the shelf' },
      { ...wofInput(bath), source },
    ]),
  };
}

/** A kept bath as the liquor: as much as the bath needs, as far as it goes. */
function liquorDose({ material, bath, source }: DoseContext): MeasuredDose {
  if (material.measure !== 'volume') return { ok: false, unknown: { code: 'notALiquor', materialName: material.name } };
  const ml = Math.max(1, Math.floor(Math.min(bath.liquorMl, bath.free ?? 0) + 1e-6));
  return measuredMl(ml, 'the bath’s liquor, or all that is kept where that is less', [
    { name: 'liquor', value: bath.liquorMl, unit: 'ml', source },
    { name: 'kept, for this bath', value: Math.round(bath.free ?? 0), unit: 'ml', source: 'on the shelf' },
  ]);
}

/** By a spoon that was taught what it weighs. */
function spoonDose(dose: DoseBy<'spoons'>, context: DoseContext): MeasuredDose {
  const { material, bath, source } = context;
  const name = sayKitchenUnit(dose.unit, dose.system);
  const unitMl = kitchenUnitMl(dose.unit, dose.system);
  if (material.measure === 'volume' && unitMl !== undefined)
    return measuredMl(
      Math.max(1, Math.round((dose.spoonsPer100G * bath.wofG * unitMl) / 100)),
      'spoons per 100 g of fibre × weight of fibre ÷ 100 × what one holds',
      [
        { name, value: dose.spoonsPer100G, unit: 'per 100 g of fibre', source },
        wofInput(bath),
        { name: `one ${name}`, value: round(unitMl), unit: 'ml' },
      ],
    );
  const taught = material.spoons.find((s) => s.unit === dose.unit && s.system === dose.system);
  if (!taught) {
    const { unit, system } = dose;
    return { ok: false, unknown: { code: 'spoonNotTaught', materialName: material.name, unit, system } };
  }
  const spoons = (dose.spoonsPer100G * bath.wofG) / 100;
  const created = weighed(
    context,
    spoons * taught.meanG,
    'spoons per 100 g of fibre × weight of fibre ÷ 100 × what one weighs',
    [
      { name: name, value: dose.spoonsPer100G, unit: 'per 100 g of fibre', source },
      wofInput(bath),
      {
        name: `one ${name} weighs`,
        value: round(taught.meanG),
        unit: 'g',
        source: `${taught.weighings} weighings`,
      },
    ],
  );
  return created.ok
    ? {
        ...created,
        advice: [...created.advice, `That is ${round(spoons)} level ${name}; weighed, it is right every time.`],
      }
    : created;
}

/** As much as brings the bath to a pH, where the water’s own is known. */
function phDose(dose: DoseBy<'toPh'>, context: DoseContext): MeasuredDose {
  const { material, bath } = context;
  if (bath.water?.ph === null || bath.water === null)
    return {
      ok: false,
      unknown: { code: 'waterPhUnknown', materialName: material.name, targetPh: dose.targetPh },
    };
  const answer = doseToPh(
    { ph: bath.water.ph, hardnessDh: bath.water.hardnessDh ?? 0 },
    dose.targetPh,
    bath.liquorMl / 1000,
    dose.reagent,
    bath.before,
  );
  if (!answer.ok) {
    const { refusal } = answer;
    return refusal.code === 'thereAlready' || refusal.code === 'wrongWay'
      ? nothingToAdd(dose, context)
      : { ok: false, unknown: { code: 'ph', materialName: material.name, refusal } };
  }
  const advice = [`Add ${answer.firstThird} ${answer.unit} first, stir, take the pH, then the rest in small doses.`];
  if (answer.unit === 'ml' && material.measure === 'volume')
    return {
      ok: true,
      measure: 'volume',
      target: { ...answer.dose, value: Math.round(answer.dose.value) },
      advice,
    };
  const created = weighed(context, answer.dose.value, answer.dose.working.formula, answer.dose.working.inputs);
  return created.ok
    ? {
        ...created,
        target: {
          ...created.target,
          working: {
            ...created.target.working,
            notes: [...answer.dose.working.notes, ...created.target.working.notes],
          },
        },
        advice: [...advice, ...created.advice],
      }
    : created;
}

/** A bath that is there already, or past it on the reagent's own side, gets nothing: it is tested first. */
function nothingToAdd({ targetPh }: DoseBy<'toPh'>, { material, bath, source }: DoseContext): MeasuredDose {
  const { water, before = [] } = bath;
  const nowPh =
    water === null ? 7 : bathPh({ ph: water.ph ?? 7, hardnessDh: water.hardnessDh ?? 0 }, bath.liquorMl / 1000, before);
  return {
    ok: true,
    measure: material.measure,
    advice: [],
    target: figure(
      0,
      material.measure === 'volume' ? 'ml' : 'g',
      'nothing to add',
      [
        { name: 'pH now', value: nowPh, unit: '', source: water?.name ?? 'water' },
        { name: 'pH wanted', value: targetPh, unit: '', source },
      ],
      ['the bath is there already, or past it: test it before adding anything'],
    ),
  };
}

/** A dose that came out as a weight, rounded to what the balance can show. */
function weighed(
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
  return {
    ok: true,
    measure: 'weight',
    target,
    advice: [
      ...stockSolutionAdvice(exactG, balance, material.catalogueKey),
      ...weighingPortions(target.value, balance),
    ],
  };
}

/**
 * Where a dose is near the balance's step: a solution whose powder can be weighed within 1 %, and how much of it to
 * take.
 */
function stockSolutionAdvice(exactG: number, balance: Balance, catalogueKey: string | null | undefined): string[] {
  if (!(exactG > 0) || balance.resolutionG / exactG <= DOUBTFUL_SHARE) return [];
  if (INSOLUBLE.includes(catalogueKey ?? ''))
    return [
      'Near the step of the balance, and it doesn’t dissolve: weigh more of it, and divide that into equal parts.',
    ];
  const { dissolveG, inMl, takeMl } = proposeStockSolution(exactG, balance);
  return [
    `${exactG < balance.resolutionG / 2 ? 'Too little for the balance' : 'Near the step of the balance'}. Dissolve ${formatWeight(dissolveG)} in ${formatVolume(inMl)} and take ${takeMl} ml of it.`,
  ];
}

/** What no solution is made of. */
const INSOLUBLE = ['chalk', 'wheat-bran'];

/** A solution to take a small dose from: g per litre, and ml of it. */
export interface StockSolution {
  readonly dissolveG: number;
  readonly inMl: number;
  readonly takeMl: number;
}

/**
 * A solution for a dose too small to weigh: fifty steps of the balance or more of the powder (half a step is then 1
 * %), in as much water as makes the dose a volume of 20 ml or more. Amounts in round figures.
 */
export function proposeStockSolution(doseG: number, balance: Balance): StockSolution {
  if (!(doseG > 0)) throw new RangeError(`doseG must be above zero, got ${doseG}`);
  const dissolveG = roundUp(Math.max(50 * balance.resolutionG, doseG));
  const inMl = roundUp(Math.max(100, (20 * dissolveG) / doseG));
  return { dissolveG, inMl, takeMl: Math.round(((doseG * inMl) / dissolveG) * 10) / 10 };
}

/** The next 1, 2 or 5 of its decade. */
function roundUp(value: number): number {
  const decade = 10 ** Math.floor(Math.log10(value) + 1e-9);
  const step = [1, 2, 5, 10].find((s) => s * decade >= value * (1 - 1e-9)) ?? 10;
  return Number((step * decade).toPrecision(6));
}

const round = (value: number): number => Math.round(value * 1000) / 1000;
