import type { Dose } from './dose';
import type { RecipeStep } from './recipe-step';

/** How much of a material one lot takes, beside what its recipe says: 1.1 is a tenth more. */
export interface CorrectedDose {
  readonly materialId: string;
  readonly share: number;
}

/** A correction goes no further than this: beyond, it is another recipe. */
export const [LEAST_CORRECTED_SHARE, MOST_CORRECTED_SHARE] = [0.3, 3] as const;

function scaled(dose: Dose, share: number): Dose {
  switch (dose.by) {
    case 'percentOwf':
      return {
        ...dose,
        percentOwf: dose.percentOwf * share,
        ...(dose.toPercentOwf === undefined ? {} : { toPercentOwf: dose.toPercentOwf * share }),
      };
    case 'gPerLitre':
      return { ...dose, gPerL: dose.gPerL * share };
    case 'solution':
      return { ...dose, mlPer100G: dose.mlPer100G * share };
    case 'perPiece':
      return { ...dose, gPerPiece: dose.gPerPiece * share };
    case 'spoons':
      return { ...dose, spoonsPer100G: dose.spoonsPer100G * share };
    case 'perBath':
      return { ...dose, amount: dose.amount * share };
    // What is counted, poured whole or tried by pH has no share.
    case 'packet':
    case 'count':
    case 'toPh':
    case 'allThere':
    case 'liquor':
      return dose;
  }
}

/** Steps with their doses corrected for one lot; the recipe stays as it was proven. Shares from 0.3 to 3. */
export const correctDoses = <S extends RecipeStep>(steps: readonly S[], corrected: readonly CorrectedDose[]): S[] =>
  steps.map((step) => ({
    ...step,
    doses: step.doses.map((dose) => {
      const share = corrected.find((c) => c.materialId === dose.materialId)?.share ?? 1;
      return share === 1 ? dose : scaled(dose, share);
    }),
  }));

/** What one lot takes that its recipe doesn’t have: a little of another dyestuff, in the dye bath. */
export interface AddedToDye {
  readonly materialId: string;
  readonly percentOwf: number;
}

/** How long a lot may stay in the dye beside its recipe: beyond, it is another recipe. */
export const [LEAST_DYE_TIME_SHARE, MOST_DYE_TIME_SHARE] = [0.5, 2] as const;

/** Steps with a little more in the last dye bath; as they are where there is none. */
export function addToDye<S extends RecipeStep>(steps: readonly S[], added: readonly AddedToDye[]): S[] {
  const last = steps.map((s) => s.kind).lastIndexOf('dye');
  return steps.map((step, i) =>
    i === last && added.length > 0
      ? { ...step, doses: [...step.doses, ...added.map((a): Dose => ({ ...a, by: 'percentOwf' }))] }
      : step,
  );
}

/**
 * Steps with another stay in the dye, 0.5 to 2 times as long in all: what is longer or shorter is the hold, since a bath
 * can’t be heated faster.
 */
export function stretchDye<S extends RecipeStep>(steps: readonly S[], share: number): S[] {
  return steps.map((step) => {
    if (step.kind !== 'dye' || share === 1) return step;
    const hold = step.course.reduce((sum, leg) => sum + (leg.do === 'hold' ? leg.minutes : 0), 0);
    const whole = step.course.reduce((sum, leg) => sum + leg.minutes, 0);
    const by = hold > 0 ? Math.max(0.1, 1 + ((share - 1) * whole) / hold) : 1;
    return {
      ...step,
      durationMin: Math.round(step.durationMin * share),
      course: step.course.map((leg) => (leg.do === 'hold' ? { ...leg, minutes: Math.round(leg.minutes * by) } : leg)),
    };
  });
}
