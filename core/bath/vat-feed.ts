import { trimZeros } from '../quantity/weight';
import { sayPh } from '../quantity/say-ph';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { VatReading } from './vat';
import { VAT_FACTS, VAT_LABELS } from './vat';

/** Share of its dyestuff’s first reducer that a vat gone green is given. General practice. */
const REFRESH_SHARE = 0.25;

/** What to feed a vat: dyestuff, reducer and alkali, g. */
export interface VatFeed {
  readonly dyestuff: Figure;
  readonly reducer: Figure;
  readonly alkali: Figure;
}

/**
 * What brings a vat to a strength: the dyestuff that is missing, and reducer and alkali in proportion to it; where it
 * has gone green or blue, a quarter of the first reducer again for the dye that is in it.
 * @param volumeMl above zero @param dyeG dyestuff in it now, g @param gPerL the strength wanted, g/l, above zero
 */
export function feedVat(
  { kind, look }: Pick<VatReading, 'kind' | 'look'>,
  { volumeMl, dyeG, gPerL }: { readonly volumeMl: number; readonly dyeG: number; readonly gPerL: number },
): VatFeed {
  if (!(volumeMl > 0) || !(dyeG >= 0) || !(gPerL > 0))
    throw new RangeError('volumeMl and gPerL must be above zero, and dyeG nothing or more');
  const facts = VAT_FACTS[kind];
  const missingG = round(Math.max(0, (gPerL * volumeMl) / 1000 - dyeG));
  const again = look === 'green' || look === 'blue' ? REFRESH_SHARE : 0;
  const missing = { name: $localize`dyestuff to add`, value: missingG, unit: 'g' };
  const inIt = { name: $localize`dyestuff in it`, value: round(dyeG), unit: 'g', source: $localize`estimate` };
  return {
    dyestuff: figure(missingG, 'g', $localize`strength wanted × litres − dyestuff in it`, [
      { name: $localize`strength wanted`, value: gPerL, unit: 'g/l' },
      { name: $localize`vat`, value: volumeMl / 1000, unit: 'l' },
      inIt,
    ]),
    reducer: figure(
      round(facts.reducer.perDyeG * (missingG + again * dyeG)),
      'g',
      again > 0
        ? $localize`for each gram of dyestuff × (dyestuff to add + a quarter of what is in it)`
        : $localize`for each gram of dyestuff × dyestuff to add`,
      [
        { name: $localize`${facts.reducer.name} for a gram of dyestuff`, value: facts.reducer.perDyeG, unit: 'g' },
        missing,
        ...(again > 0 ? [inIt] : []),
      ],
      [$localize`as a ${VAT_LABELS[kind]} vat is set; go by its look after a rest of ${facts.restMin} min`],
    ),
    alkali: figure(
      round(facts.alkali.perDyeG * missingG),
      'g',
      $localize`for each gram of dyestuff × dyestuff to add`,
      [
        { name: $localize`${facts.alkali.name} for a gram of dyestuff`, value: facts.alkali.perDyeG, unit: 'g' },
        missing,
      ],
      [$localize`in small doses, to ${sayPh(facts.phLow)} – ${trimZeros(facts.phHigh, 2)}`],
    ),
  };
}

const round = (value: number): number => Math.round(value * 1000) / 1000;
