import type { Balance } from '../quantity/balance';
import { weighableDose } from '../quantity/balance';
import type { Figure } from '../quantity/figure';

/**
 * Grams of a material for so much fibre: per cent of the weight of fibre × WOF / 100, rounded to the balance.
 * @param percentOwf 0-2000 per cent of the weight of fibre
 * @param wofG dry weight of fibre, grams
 */
export function scaleDose(percentOwf: number, wofG: number, balance: Balance, { doseSource = 'recipe' }: { doseSource?: string } = {}): Figure {
  return weighableDose((percentOwf * wofG) / 100, balance, 'per cent of fibre × weight of fibre ÷ 100', [
    { name: 'per cent of fibre', value: percentOwf, unit: '% WOF', source: doseSource },
    { name: 'weight of fibre', value: wofG, unit: 'g', source: 'this batch, dry' },
  ]);
}
