import { fibresIn } from '../bath/fibre';
import { cautionsForStep } from './step-cautions';
import { houseHints, practiceOf } from './house-practice';
import type { PlannedBath, PlannedGroup, PlannedStep, PlannedWeighing } from './lot-plan';
import { forWhom, goesThrough } from './plan-groups';
import type { PlanInput } from './plan-input';
import { materialById } from './plan-input';
import { zonesAt } from './placed-zones';
import { hottestC, stepMinutes } from '../recipe/course';
import type { RecipeStep } from '../recipe/recipe-step';

/** Where a step stands in a lot, and what is measured out and filled for it. */
export interface StepPlace {
  readonly index: number;
  /** Key of the recipe step. */
  readonly key: string;
  readonly after: readonly number[];
  readonly weighings: readonly PlannedWeighing[];
  readonly baths: readonly PlannedBath[];
  readonly liquor: string;
  readonly groups: readonly PlannedGroup[];
  readonly input: PlanInput;
}

/** Which pieces it is for, in words and as keys; nothing where it is for all of them. */
const whose = (label: string, groups: readonly PlannedGroup[]): Pick<PlannedStep, 'forWhom' | 'groups'> =>
  label === '' ? { forWhom: '' } : { forWhom: label, groups: groups.map((g) => g.key) };

/** A step of the recipe as it is done in this lot. */
export function planStep(
  step: RecipeStep,
  { index, key, after, weighings, baths, liquor, groups, input }: StepPlace,
): PlannedStep {
  const {
    kind,
    title,
    instruction,
    ceilingC,
    attended,
    lookFor,
    usesBath,
    finishedBy,
    wait,
    course,
    repeats,
    strain,
    targetPh,
  } = step;
  const temperatureC = hottestC(step);
  const through = groups.filter((g) => goesThrough(step, g));
  const pieces = through.reduce((sum, g) => sum + g.pieces, 0);
  const zones = zonesAt(input.recipe.placed, input.recipe.steps, step, pieces, (id) => materialById(input, id).name);
  const hazards = step.doses.flatMap((d) => materialById(input, d.materialId).hazards);
  return {
    index,
    key,
    kind,
    title,
    instruction,
    durationMin: stepMinutes(step),
    attended,
    lookFor,
    usesBath,
    finishedBy,
    wait,
    course,
    repeats,
    strain,
    targetPh,
    after,
    weighings,
    baths,
    liquor,
    ...(temperatureC === undefined ? {} : { temperatureC }),
    ...(ceilingC === undefined ? {} : { ceilingC }),
    ...whose(forWhom(step, groups, input.recipe), through),
    ...(step.lookEveryMin === null ? {} : { lookEveryMin: step.lookEveryMin }),
    ...(zones.length === 0 ? {} : { zones }),
    cautions: [
      ...step.cautions.map((text) => ({ code: 'written' as const, text })),
      ...houseHints(step, [...new Set(groups.flatMap(fibresIn))], (key) =>
        practiceOf(input.recipe.practice, input.house ?? {}, key),
      ).map((hint) => ({ code: 'house' as const, hint })),
      ...cautionsForStep({ kind, temperatureC, usesBath }, hazards),
    ],
  };
}
