import type { OneBalance } from '../quantity/balance';
import { formatVolume } from '../quantity/volume';
import { formatWeight } from '../quantity/weight';

/** A stock solution is worth its trouble where the balance may be off by more than this share. */
const DOUBTFUL_SHARE = 0.05;

/**
 * Where a dose is near the balance's step: a solution whose powder can be weighed within 1 %, and how much of it to
 * take.
 */
export function stockSolutionAdvice(
  exactG: number,
  balance: OneBalance,
  catalogueKey: string | null | undefined,
): string[] {
  if (!isDoubtful(exactG, balance)) return [];
  const solution = solutionFor(exactG, balance, catalogueKey);
  if (!solution)
    return [
      $localize`Near the step of the balance, and it doesn’t dissolve: weigh more of it, and divide that into equal parts.`,
    ];
  const { dissolveG, inMl, takeMl } = solution;
  return [
    $localize`${exactG < balance.resolutionG / 2 ? $localize`Too little for the balance` : $localize`Near the step of the balance`}. Dissolve ${formatWeight(dissolveG)} in ${formatVolume(inMl)} and take ${takeMl} ml of it.`,
  ];
}

/** The solution to take a dose from that is near the balance’s step; `null` where it weighs well, or won’t dissolve. */
export const solutionFor = (
  exactG: number,
  balance: OneBalance,
  catalogueKey: string | null | undefined,
): StockSolution | null =>
  isDoubtful(exactG, balance) && !INSOLUBLE.includes(catalogueKey ?? '') ? proposeStockSolution(exactG, balance) : null;

const isDoubtful = (exactG: number, balance: OneBalance): boolean =>
  exactG > 0 && balance.resolutionG / exactG > DOUBTFUL_SHARE;

/** What no solution is made of. */
const INSOLUBLE = ['chalk', 'wheat-bran'];

/** A solution to take a small dose from: g per litre, and ml of it. */
export interface StockSolution {
  readonly dissolveG: number;
  readonly inMl: number;
  readonly takeMl: number;
}

/**
 * A solution for a dose too small to weigh: fifty steps of the balance or more of the powder (half a step is then 1
 * %), in as much water as makes the dose a volume of 20 ml or more. Amounts in round figures.
 */
export function proposeStockSolution(doseG: number, balance: OneBalance): StockSolution {
  if (!(doseG > 0)) throw new RangeError(`doseG must be above zero, got ${doseG}`);
  const dissolveG = roundUp(Math.max(50 * balance.resolutionG, doseG));
  const inMl = roundUp(Math.max(100, (20 * dissolveG) / doseG));
  return { dissolveG, inMl, takeMl: Math.round(((doseG * inMl) / dissolveG) * 10) / 10 };
}

/** The next 1, 2 or 5 of its decade. */
function roundUp(value: number): number {
  const decade = 10 ** Math.floor(Math.log10(value) + 1e-9);
  const step = [1, 2, 5, 10].find((s) => s * decade >= value * (1 - 1e-9)) ?? 10;
  return Number((step * decade).toPrecision(6));
}

/** The same solution, of which so many times as much is taken: a weaker jar’s gives more. */
export const takingOf = (solution: StockSolution, factor: number): StockSolution => ({
  ...solution,
  takeMl: Math.round(solution.takeMl * factor * 10) / 10,
});
