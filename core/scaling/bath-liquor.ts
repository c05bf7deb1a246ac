import { liquorVolume } from '../bath/liquor';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { BathOfSteps } from './collect-baths';

/** What makes up the liquor of a bath. */
export type LiquorOf = Pick<BathOfSteps, 'liquorRatio' | 'pouredMlPerG' | 'pouredMl' | 'keptMlPerG' | 'soakedMlPerG'>;

/** Solutions and liquors that go into a bath, ml, for so much fibre; a kept bath as far as the liquor needs it. */
export function pouredInto(bath: LiquorOf, wofG: number): number {
  const poured = bath.pouredMlPerG * wofG + bath.pouredMl;
  const missing = Math.max(0, liquorVolume(wofG, bath.liquorRatio).value - poured);
  return poured + Math.min(bath.keptMlPerG * wofG, missing);
}

/**
 * Liquor of a bath, ml: by its ratio, or all that is poured into it where that is more.
 * @param wofG dry weight of fibre in it, g
 */
export function bathLiquor(bath: LiquorOf, wofG: number): Figure {
  const byRatio = liquorVolume(wofG, bath.liquorRatio);
  const poured = pouredInto(bath, wofG);
  if (poured <= byRatio.value) return byRatio;
  return figure(
    Math.round(poured),
    'ml',
    $localize`all that is poured in`,
    [{ name: $localize`solutions and liquors`, value: Math.round(poured), unit: 'ml', source: $localize`recipe` }],
    [$localize`more than the ${byRatio.value} ml that the liquor ratio asks for`],
  );
}

/**
 * Fresh water to draw for a bath, ml: its liquor less what is poured in or stands in the pot already, and what spent
 * dyestuff keeps when it is lifted out.
 * @param standingMl liquor of an earlier dip that is in the pot
 */
export function waterToDraw(bath: LiquorOf, wofG: number, liquorMl: number, standingMl = 0): Figure {
  const poured = Math.round(pouredInto(bath, wofG));
  const soaked = Math.round(bath.soakedMlPerG * wofG);
  const inputs = [
    { name: $localize`liquor`, value: liquorMl, unit: 'ml', source: $localize`this bath` },
    { name: $localize`solutions and liquors poured in`, value: poured, unit: 'ml', source: $localize`recipe` },
    { name: $localize`in the pot from the dip before`, value: standingMl, unit: 'ml' },
    {
      name: $localize`kept by spent dyestuff`,
      value: soaked,
      unit: 'ml',
      source: $localize`topped up after straining`,
    },
  ];
  return figure(
    Math.max(0, liquorMl - poured - standingMl) + soaked,
    'ml',
    $localize`liquor − poured in − in the pot already + what spent dyestuff keeps`,
    inputs.filter((i) => i.value > 0),
  );
}
