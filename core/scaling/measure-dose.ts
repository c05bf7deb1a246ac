import type { Balance } from '../quantity/balance';
import { kitchenUnitMl, sayKitchenUnit, formatVolume } from '../quantity/volume';
import { formatWeight, trimZeros } from '../quantity/weight';
import type { Dose } from '../recipe/dose';
import { packetsFor } from '../stock/conversion';
import type { DoseBy, DoseContext, DosedBath, DosedMaterial, MeasuredDose } from './dose-context';
import { measuredMl, round, weighed, wofInput } from './dose-context';
import { phDose } from './ph-dose';
import { allThereDose, bathDose, countDose, liquorDose } from './whole-bath-dose';

/** Liquids are measured with a cylinder or pipette to the millilitre. */
const LIQUID_STEP_ML = 1;
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
        weighed(context, (dose.percentOwf * bath.wofG) / 100, $localize`per cent of fibre × weight of fibre ÷ 100`, [
          { name: $localize`per cent of fibre`, value: dose.percentOwf, unit: '% WOF', source },
          wofInput(bath),
        ]),
      );
    case 'gPerLitre':
      return weighed(context, (dose.gPerL * bath.liquorMl) / 1000, $localize`grams to the litre × litres of bath`, [
        { name: $localize`grams to the litre`, value: dose.gPerL, unit: 'g/l', source },
        { name: $localize`bath`, value: bath.liquorMl / 1000, unit: 'l', source: $localize`this bath` },
      ]);
    case 'perPiece':
      return weighed(context, dose.gPerPiece * bath.pieces, $localize`grams a piece × pieces`, [
        { name: 'a piece', value: dose.gPerPiece, unit: 'g', source },
        { name: $localize`pieces`, value: bath.pieces, unit: '', source: $localize`in this bath` },
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
    { name: $localize`solution`, value: dose.mlPer100G, unit: 'ml per 100 g of fibre', source },
    ...(dose.gPerL === null ? [] : [{ name: $localize`its strength`, value: dose.gPerL, unit: 'g/l', source }]),
    wofInput(bath),
  ];
  if (material.measure === 'volume') {
    const holds =
      dose.gPerL === null
        ? $localize`of a strength nobody knows: lots dosed with it can’t be compared by it`
        : $localize`holds ${formatWeight((ml * dose.gPerL) / 1000)}`;
    return measuredMl(ml, $localize`ml per 100 g of fibre × weight of fibre ÷ 100`, inputs, [
      holds,
      $localize`to the millilitre`,
    ]);
  }
  if (dose.gPerL === null) return { ok: false, unknown: { code: 'strengthUnknown', materialName: material.name } };
  const grams = (ml * dose.gPerL) / 1000;
  const created = weighed(context, grams, $localize`ml per 100 g of fibre × weight of fibre ÷ 100 × strength`, inputs);
  return created.ok
    ? {
        ...created,
        advice: [
          $localize`Dissolve it in ${formatVolume(ml)}, or take ${formatVolume(ml)} of a solution of ${dose.gPerL} g/l.`,
        ],
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

/** A per cent chosen from a range is told as such. */
function withRange(dose: DoseBy<'percentOwf'>, measured: MeasuredDose): MeasuredDose {
  if (!measured.ok || dose.toPercentOwf === undefined) return measured;
  const range = $localize`The recipe gives a range: ${trimZeros(dose.percentOwf, 3)} % was taken, up to ${trimZeros(dose.toPercentOwf, 3)} % is meant.`;
  return { ...measured, advice: [range, ...measured.advice] };
}

/** By a spoon that was taught what it weighs. */
function spoonDose(dose: DoseBy<'spoons'>, context: DoseContext): MeasuredDose {
  const { material, bath, source } = context;
  const name = sayKitchenUnit(dose.unit, dose.system);
  const unitMl = kitchenUnitMl(dose.unit, dose.system);
  if (material.measure === 'volume' && unitMl !== undefined)
    return measuredMl(
      Math.max(1, Math.round((dose.spoonsPer100G * bath.wofG * unitMl) / 100)),
      $localize`spoons per 100 g of fibre × weight of fibre ÷ 100 × what one holds`,
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
    $localize`spoons per 100 g of fibre × weight of fibre ÷ 100 × what one weighs`,
    [
      { name: name, value: dose.spoonsPer100G, unit: 'per 100 g of fibre', source },
      wofInput(bath),
      {
        name: $localize`one ${name} weighs`,
        value: round(taught.meanG),
        unit: 'g',
        source: $localize`${taught.weighings} weighings`,
      },
    ],
  );
  return created.ok
    ? {
        ...created,
        advice: [
          ...created.advice,
          $localize`That is ${round(spoons)} level ${name}; weighed, it is right every time.`,
        ],
      }
    : created;
}
