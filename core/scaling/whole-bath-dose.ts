import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import { kitchenUnitMl, sayKitchenUnit } from '../quantity/volume';
import type { DoseBy, DoseContext, MeasuredDose } from './dose-context';
import { measuredMl, round, weighed, wofInput } from './dose-context';

/** So much for each bath, whatever is in it. */
export function bathDose({ amount, unit, system }: DoseBy<'perBath'>, context: DoseContext): MeasuredDose {
  const { material, bath, source } = context;
  const turns = bath.turns ?? 1;
  const doesNotFit: MeasuredDose = {
    ok: false,
    unknown: { code: 'unitDoesNotFit', materialName: material.name, measure: material.measure },
  };
  const inputs = (each: number, of: string) => [
    { name: $localize`for the bath`, value: each, unit: of, source },
    ...(turns > 1 ? [{ name: $localize`baths one after another`, value: turns, unit: '' }] : []),
  ];
  if (unit === 'g')
    return material.measure === 'weight'
      ? weighed(context, amount * turns, $localize`amount for a bath × baths`, inputs(amount, 'g'))
      : doesNotFit;
  if (unit === 'pieces')
    return material.measure === 'pieces'
      ? counted(Math.ceil(amount * turns), $localize`amount for a bath × baths`, inputs(amount, ''))
      : doesNotFit;
  if (material.measure === 'volume') {
    const ml = unit === 'ml' ? amount : amount * (kitchenUnitMl(unit, system) ?? NaN);
    return Number.isFinite(ml)
      ? measuredMl(Math.round(ml * turns), $localize`amount for a bath × baths`, inputs(Math.round(ml), 'ml'))
      : doesNotFit;
  }
  if (unit === 'ml' || material.measure === 'pieces') return doesNotFit;
  const taught = material.spoons.find((s) => s.unit === unit && s.system === system);
  if (!taught) return { ok: false, unknown: { code: 'spoonNotTaught', materialName: material.name, unit, system } };
  return weighed(context, amount * turns * taught.meanG, $localize`amount for a bath × what one weighs × baths`, [
    ...inputs(amount, sayKitchenUnit(unit, system)),
    {
      name: $localize`one weighs`,
      value: round(taught.meanG),
      unit: 'g',
      source: $localize`${taught.weighings} weighings`,
    },
  ]);
}

const counted = (pieces: number, formula: string, inputs: Figure['working']['inputs']): MeasuredDose => ({
  ok: true,
  measure: 'pieces',
  advice: [],
  target: figure(pieces, '', formula, inputs, [$localize`whole pieces`]),
});

/** Whole pieces by the weight of fibre: so many stones to the pound. */
export function countDose({ piecesPer100G }: DoseBy<'count'>, { material, bath, source }: DoseContext): MeasuredDose {
  if (material.measure !== 'pieces')
    return {
      ok: false,
      unknown: { code: 'unitDoesNotFit', materialName: material.name, measure: material.measure },
    };
  return counted(
    Math.ceil((piecesPer100G * bath.wofG) / 100 - 1e-9),
    $localize`pieces per 100 g × weight of fibre ÷ 100`,
    [{ name: $localize`pieces`, value: piecesPer100G, unit: 'per 100 g of fibre', source }, wofInput(bath)],
  );
}

/** All that is free, shared by the weight of fibre; where nothing is there, it is short by one step. */
export function allThereDose({ material, bath, balance, source }: DoseContext): MeasuredDose {
  const step = material.measure === 'weight' ? balance.resolutionG : 1;
  const free = Math.floor((bath.free ?? 0) / step + 1e-6) * step;
  const unit = material.measure === 'weight' ? 'g' : material.measure === 'volume' ? 'ml' : '';
  return {
    ok: true,
    measure: material.measure,
    advice: [$localize`As much as there is: what it was is written down with the lot.`],
    target: figure(round(Math.max(step, free)), unit, $localize`all that is free × this bath’s share of the fibre`, [
      { name: $localize`free for this bath`, value: round(bath.free ?? 0), unit, source: $localize`on the shelf` },
      { ...wofInput(bath), source },
    ]),
  };
}

/** A kept bath as the liquor: as much as the bath needs, as far as it goes. */
export function liquorDose({ material, bath, source }: DoseContext): MeasuredDose {
  if (material.measure !== 'volume') return { ok: false, unknown: { code: 'notALiquor', materialName: material.name } };
  const ml = Math.max(1, Math.floor(Math.min(bath.liquorMl, bath.free ?? 0) + 1e-6));
  return measuredMl(ml, $localize`the bath’s liquor, or all that is kept where that is less`, [
    { name: $localize`liquor`, value: bath.liquorMl, unit: 'ml', source },
    {
      name: $localize`kept, for this bath`,
      value: Math.round(bath.free ?? 0),
      unit: 'ml',
      source: $localize`on the shelf`,
    },
  ]);
}
