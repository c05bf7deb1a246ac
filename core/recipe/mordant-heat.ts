import type { FibreKind } from '../bath/fibre';
import type { HeatLeg } from './course';
import type { RecipeStep } from './recipe-step';

const OVERNIGHT_MIN = 12 * 60;
const COLD_MORDANT_MIN = 3 * 1440;
const WARM_MIN = 60;

/**
 * How hot a mordant bath is brought, °C, and never above: alum at a simmer, cooler where silk is in it; acetate and
 * lactate lose acid in the heat and are worked warm. General practice.
 */
const ALUM = { temperatureC: 82, ceilingC: 88 };
const SILK = { temperatureC: 60, ceilingC: 70 };
const ACETATE = { temperatureC: 45, ceilingC: 55 };

/** What decides the heat of a mordant bath. */
export interface MordantBath {
  readonly fibres: readonly FibreKind[];
  readonly isAcetate: boolean;
}

type Heated = Pick<
  RecipeStep,
  'title' | 'temperatureC' | 'ceilingC' | 'course' | 'durationMin' | 'attended' | 'instruction'
>;

/** A hot mordant bath, as hot as its salt and its fibre bear. Minutes, °C. */
export function hotMordant({ fibres, isAcetate }: MordantBath): Heated {
  const heat = isAcetate ? ACETATE : fibres.includes('silk') ? SILK : ALUM;
  const course: HeatLeg[] = [
    { do: 'raise', toC: heat.temperatureC, minutes: 45 },
    { do: 'hold', toC: heat.temperatureC, minutes: WARM_MIN },
    { do: 'cool', minutes: OVERNIGHT_MIN },
  ];
  return {
    title: isAcetate ? $localize`Mordant warm` : $localize`Mordant hot`,
    ...heat,
    course,
    durationMin: WARM_MIN,
    attended: false,
    instruction: $localize`Dissolve the salt in hot water; bath lukewarm before the fibre goes in. Raise slowly, hold, cool in the bath.`,
  };
}

/** A cold mordant bath: days, and no burner. */
export const coldMordant = (): Heated => ({
  title: $localize`Mordant cold`,
  temperatureC: undefined,
  ceilingC: 30,
  course: [{ do: 'steep', minutes: COLD_MORDANT_MIN }],
  durationMin: COLD_MORDANT_MIN,
  attended: false,
  instruction: $localize`Dissolve the salt in hot water, make up cool, then the fibre. Cover, turn once a day.`,
});
