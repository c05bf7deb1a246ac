import { keyOf } from './chain';
import type { RecipeStep } from './recipe-step';

/** A dose that a recipe leaves open: from so much to so much, per cent of fibre. */
export interface RangedDose {
  readonly stepKey: string;
  readonly stepTitle: string;
  readonly materialId: string;
  readonly fromPercentOwf: number;
  readonly toPercentOwf: number;
}

/** What was chosen of a range for one lot, per cent of fibre. */
export interface ChosenDose {
  readonly stepKey: string;
  readonly materialId: string;
  readonly percentOwf: number;
}

/** Every dose that is chosen for each lot, in the order of the steps. */
export const rangedDoses = (steps: readonly RecipeStep[]): RangedDose[] =>
  steps.flatMap((step, i) =>
    step.doses.flatMap((dose) =>
      dose.by === 'percentOwf' && dose.toPercentOwf !== undefined
        ? [
            {
              stepKey: keyOf(step, i),
              stepTitle: step.title,
              materialId: dose.materialId,
              fromPercentOwf: dose.percentOwf,
              toPercentOwf: dose.toPercentOwf,
            },
          ]
        : [],
    ),
  );

/** Steps with what was chosen of their ranges; the least where nothing was. A choice outside its range is left out. */
export function chooseDoses<S extends RecipeStep>(steps: readonly S[], chosen: readonly ChosenDose[]): S[] {
  return steps.map((step, i) => ({
    ...step,
    doses: step.doses.map((dose) => {
      const choice = chosen.find((c) => c.stepKey === keyOf(step, i) && c.materialId === dose.materialId);
      if (!choice || dose.by !== 'percentOwf' || dose.toPercentOwf === undefined) return dose;
      return isWithin(choice.percentOwf, dose.percentOwf, dose.toPercentOwf)
        ? { ...dose, percentOwf: choice.percentOwf }
        : dose;
    }),
  }));
}

/** What was chosen outside what its recipe allows; `undefined` where all is within. */
export const findChoiceOutside = (
  steps: readonly RecipeStep[],
  chosen: readonly ChosenDose[],
): RangedDose | undefined =>
  rangedDoses(steps).find((range) =>
    chosen.some(
      (c) =>
        c.stepKey === range.stepKey &&
        c.materialId === range.materialId &&
        !isWithin(c.percentOwf, range.fromPercentOwf, range.toPercentOwf),
    ),
  );

const isWithin = (value: number, from: number, to: number): boolean => value >= from - 1e-9 && value <= to + 1e-9;
