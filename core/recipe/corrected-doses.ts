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
