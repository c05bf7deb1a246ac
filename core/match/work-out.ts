import { ciede2000 } from '../colour/ciede2000';
import { describeDifference } from '../colour/describe';
import type { Lab } from '../colour/lab';
import { sayLab } from '../colour/say-lab';
import type { Figure, FigureInput } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { Dyeing } from './dyeing';
import { shadeFor } from './forward';
import { outOfReference } from './lot-dyeing';
import type { Posterior } from './posterior';
import { effectBetween } from './predict';
import type { LetterNames } from './write-letter';
import { decimals } from '../quantity/shown-in';

/** One thing of a dyeing that makes it other than the recipe out of reference jars, in middling water, at 1:20. */
export type WorkedOf =
  | {
      readonly of: 'jar';
      readonly materialId: string;
      readonly stockLotIds: readonly string[];
      readonly readings: number;
    }
  | { readonly of: 'water'; readonly waterId: string }
  | { readonly of: 'bath'; readonly liquorRatio: number }
  | { readonly of: 'base' }
  /** What was struck off or dyed the same day out of the same jars says beside all that. */
  | { readonly of: 'day' };

/** What one thing more does to the shade. */
export interface WorkedStep {
  readonly what: WorkedOf;
  readonly from: Lab;
  readonly to: Lab;
  readonly deltaE00: number;
  readonly within80: number;
}

/** How a foretold shade comes about: from the recipe as it was proven, one thing after another, to the lot as it will be. */
export interface WorkedShade {
  readonly start: Lab;
  readonly steps: readonly WorkedStep[];
  readonly end: Lab;
  readonly readings: number;
}

const EVEN = { kL: 1, kC: 1, kH: 1 };
const MIDDLING = { ph: 7, hardnessDh: 10, ironMgPerL: 0 };
const USUAL_RATIO = 20;
const NO_BASE_LOT = 'no lot in particular';
/** What does less than this is not worth a line, ΔE00. */
const WORTH_A_LINE = 0.05;

/**
 * Works a foretold shade out, one thing after another, each step beside the one before.
 * @param end the shade as it was foretold
 */
export function workOutShade(
  posterior: Posterior,
  plan: Dyeing,
  end: Lab,
  readings: readonly { readonly dyeing: Dyeing }[],
): WorkedShade {
  const start: Dyeing = {
    ...outOfReference(plan),
    water: { ...plan.water, ...MIDDLING },
    liquorRatio: USUAL_RATIO,
    baseLotId: NO_BASE_LOT,
  };
  const stages: [WorkedOf, Dyeing][] = [];
  let now = start;
  const then = (what: WorkedOf, change: Partial<Dyeing>): void => {
    now = { ...now, ...change };
    stages.push([what, now]);
  };
  for (const materialId of new Set(plan.doses.map((d) => d.materialId))) {
    const own = plan.doses.filter((d) => d.materialId === materialId);
    const stockLotIds = [...new Set(own.map((d) => d.stockLotId))];
    const isDyed = (d: Dyeing): boolean => d.doses.some((x) => stockLotIds.includes(x.stockLotId));
    then(
      { of: 'jar', materialId, stockLotIds, readings: readings.filter((r) => isDyed(r.dyeing)).length },
      { doses: [...now.doses.filter((d) => d.materialId !== materialId), ...own] },
    );
  }
  then({ of: 'water', waterId: plan.water.id }, { water: plan.water });
  then({ of: 'bath', liquorRatio: plan.liquorRatio }, { liquorRatio: plan.liquorRatio });
  then({ of: 'base' }, { baseLotId: plan.baseLotId });
  let before = start;
  const steps = stages.map(([what, dyeing]): WorkedStep => {
    const effect = effectBetween(posterior, before, dyeing);
    before = dyeing;
    return { what, ...effect };
  });
  const reached = shadeFor(posterior, now);
  const { deltaE } = ciede2000(reached, end, EVEN);
  const day: WorkedStep = { what: { of: 'day' }, from: reached, to: end, deltaE00: deltaE, within80: 0 };
  return {
    start: shadeFor(posterior, start),
    steps: deltaE >= WORTH_A_LINE ? [...steps, day] : steps,
    end,
    readings: readings.length,
  };
}

function sayWorked(what: WorkedOf, names: LetterNames): string {
  switch (what.of) {
    case 'jar':
      return $localize`${names.material(what.materialId)} out of ${what.stockLotIds.map(names.jar).join($localize` and `)}`;
    case 'water':
      return names.water(what.waterId);
    case 'bath':
      return $localize`in a bath of 1:${Math.round(what.liquorRatio)}`;
    case 'base':
      return $localize`on this lot of the base`;
    case 'day':
      return $localize`what was dyed out of the same jars before`;
  }
}

/** The difference from a standard that is foretold, with how it was worked out. */
export function figureOfShade(worked: WorkedShade, standard: Lab, within80: number, names: LetterNames): Figure {
  const steps = worked.steps
    .filter((s) => s.deltaE00 >= WORTH_A_LINE)
    .map(({ what, from, to, deltaE00, within80: give }): FigureInput => {
      const stands =
        what.of === 'jar'
          ? $localize`, ${what.readings === 1 ? $localize`1 reading` : $localize`${what.readings} readings`} of it`
          : '';
      return {
        name: sayWorked(what, names),
        value: describeDifference(from, to).summary,
        unit: '',
        source: `ΔE00 ${decimals(deltaE00, 1)}${give > 0 ? $localize`, give or take ${decimals(give, 1)}` : ''}${stands}`,
      };
    });
  return figure(
    ciede2000(standard, worked.end, EVEN).deltaE,
    'ΔE00',
    $localize`what the shade foretold lies from the master, by CIEDE2000`,
    [
      {
        name: $localize`As the recipe gives it out of the reference jars, in middling water`,
        value: sayLab(worked.start),
        unit: '',
      },
      ...steps,
      { name: $localize`Foretold`, value: sayLab(worked.end), unit: '' },
      { name: $localize`The master`, value: sayLab(standard), unit: '' },
    ],
    [
      $localize`Learnt from ${worked.readings} readings by one model of all of them.`,
      $localize`Four times in five within ΔE00 ${decimals(within80, 1)} of what is foretold: what isn’t known of jars, water and build-up, and a batch’s luck.`,
    ],
  );
}
