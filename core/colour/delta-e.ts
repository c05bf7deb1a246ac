import { ciede2000 } from './ciede2000';
import { cmc } from './differences';
import type { Lab } from './lab';

/** What a colourway is judged by. CMC's tolerance is an ellipsoid round the standard, long in lightness at 2:1. */
export const DELTA_E_FORMULAS = ['de00', 'cmc21', 'cmc11'] as const;
/** One of `DELTA_E_FORMULAS`. */
export type DeltaEFormula = (typeof DELTA_E_FORMULAS)[number];
/** How each is written. */
export const DELTA_E_LABELS: Readonly<Record<DeltaEFormula, string>> = {
  de00: 'ΔE00',
  cmc21: 'CMC 2:1',
  cmc11: 'CMC 1:1',
};

/** How far a sample lies from a standard by a formula: CIEDE2000 at 1:1:1, or CMC (l:c) of ISO 105-J03. */
export function deltaEBy(formula: DeltaEFormula, standard: Lab, sample: Lab): number {
  switch (formula) {
    case 'de00':
      return ciede2000(standard, sample, { kL: 1, kC: 1, kH: 1 }).deltaE;
    case 'cmc21':
      return cmc(standard, sample, { l: 2, c: 1 }).deltaE;
    case 'cmc11':
      return cmc(standard, sample, { l: 1, c: 1 }).deltaE;
  }
}
