import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';

/**
 * Liquor whose dye a gram of fibre takes at one dip, ml: what it holds when squeezed, and what it draws. An assumption
 * until strips from this vat say more.
 */
const TAKES_ML_PER_G = 3;

/** What dips in a vat come to: dyestuff on the fibre in % of its weight, and what is left in the vat, g. */
export interface VatDips {
  readonly onFibrePercentOwf: Figure;
  readonly leftG: Figure;
}

/**
 * What so many dips bring onto fibre: each takes the same share of what is there, 1 − e^(−3 ml × fibre ÷ vat), so that
 * the first gives most. Nothing is taken off for what rubs or rinses away.
 * @param wofG dry fibre, above zero @param dips whole, 1 or more
 */
export function vatDips(
  { dyeG, volumeMl }: { readonly dyeG: number; readonly volumeMl: number },
  { wofG, dips }: { readonly wofG: number; readonly dips: number },
): VatDips {
  if (!(wofG > 0) || !(volumeMl > 0) || !(dyeG >= 0)) throw new RangeError('wofG and volumeMl must be above zero');
  if (!Number.isInteger(dips) || dips < 1)
    throw new RangeError(`dips must be a whole number of 1 or more, got ${dips}`);
  const share = vatDipShare(wofG, volumeMl);
  const leftG = dyeG * (1 - share) ** dips;
  const inputs = [
    { name: $localize`dyestuff in the vat`, value: round(dyeG), unit: 'g', source: $localize`estimate` },
    {
      name: $localize`share taken by a dip`,
      value: Math.round(share * 1000) / 10,
      unit: '%',
      source: $localize`assumed`,
    },
    { name: $localize`dips`, value: dips, unit: '' },
  ];
  const notes = [$localize`by an assumed uptake; a strip dipped as often says more`];
  return {
    onFibrePercentOwf: figure(
      Math.round(((dyeG - leftG) / wofG) * 10_000) / 100,
      '% WOF',
      $localize`in the vat × (1 − (1 − share)^dips) ÷ dry fibre × 100`,
      [...inputs, { name: $localize`dry fibre`, value: wofG, unit: 'g' }],
      notes,
    ),
    leftG: figure(round(leftG), 'g', $localize`in the vat × (1 − share)^dips`, inputs, notes),
  };
}

/** Share of a vat’s dye that fibre takes at one dip, 0 to 1. */
export const vatDipShare = (wofG: number, volumeMl: number): number =>
  1 - Math.exp((-TAKES_ML_PER_G * wofG) / volumeMl);

/** The fewest dips that bring so much onto the fibre; `null` where the vat does not hold enough for it. */
export function dipsFor(
  percentOwf: number,
  vat: { readonly dyeG: number; readonly volumeMl: number },
  wofG: number,
): number | null {
  const wantedG = (percentOwf * wofG) / 100;
  if (!(wantedG > 0) || !(wofG > 0) || wantedG >= vat.dyeG) return null;
  const dips = Math.ceil(Math.log(1 - wantedG / vat.dyeG) / Math.log(1 - vatDipShare(wofG, vat.volumeMl)) - 1e-9);
  return dips <= MOST_DIPS ? Math.max(1, dips) : null;
}

/** Nobody dips more often than this: the vat is too weak then. */
const MOST_DIPS = 30;

const round = (value: number): number => Math.round(value * 1000) / 1000;
