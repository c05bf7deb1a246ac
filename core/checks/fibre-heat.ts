import { said } from '../words/said';
import { formatTemperature } from '../quantity/temperature';
import type { FibreKind } from '../bath/fibre';
import { fibreHeat, fibresIn } from '../bath/fibre';
import { hottestC } from '../recipe/course';
import { takesPieces } from '../recipe/step-kind';
import { goesThrough } from '../scaling/plan-groups';
import type { Gravity } from '../safety/reactions';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, line, stop } from './finding';

/** This far past what a fibre bears, no reason is good enough, K. */
const FAR_PAST_C = 10;
const RUBBED = ['scour', 'wash', 'rinse'];

interface HeatFinding {
  readonly code: 'fibreHeat';
  readonly gravity: Gravity;
  readonly title: string;
  readonly fibre: FibreKind;
  readonly toC: number;
  readonly bearsC: number;
  readonly cites: string;
}

function findHeat({ plan, recipe }: CheckInput): HeatFinding[] {
  return recipe.steps.flatMap((step) => {
    const toC = hottestC(step);
    if (toC === undefined || !step.usesBath || !takesPieces(step)) return [];
    const fibres = [...new Set(plan.groups.filter((g) => goesThrough(step, g)).flatMap(fibresIn))];
    return fibres.flatMap((fibre) => {
      const { bathC, washC } = fibreHeat(fibre);
      const bearsC = RUBBED.includes(step.kind) ? washC : bathC;
      if (bearsC === null || toC <= bearsC) return [];
      const gravity: Gravity = toC > bearsC + FAR_PAST_C ? 'stop' : 'caution';
      return [
        { code: 'fibreHeat' as const, gravity, title: step.title, fibre, toC, bearsC, cites: line(recipe, step) },
      ];
    });
  });
}

function sayHeat(f: HeatFinding): CheckText {
  const message = $localize`“${f.title}” goes to ${formatTemperature(f.toC)}; ${said(f.fibre)} bears about ${formatTemperature(f.bearsC)} there.`;
  const why =
    f.fibre === 'silk'
      ? $localize`Silk loses its lustre and its strength above a simmer.`
      : $localize`Hair felts, yellows and grows harsh in too much heat, soonest where it is washed and rinsed.`;
  return f.gravity === 'stop' ? stop(message, why, f.cites) : caution(message, why, f.cites);
}

/** Whether each fibre bears the heat of every bath it goes into. */
export const fibreHeatChecks = checkFamily(findHeat, sayHeat);
