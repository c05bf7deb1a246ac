import { countLabel } from './word-list';
import type { Figure } from './figure';
import { figure } from './figure';
import { studentT95 } from './student';
import { formatWeight } from './weight';

/** What several weighings of one level spoonful say. Weights in grams. */
export interface TaughtSpoon {
  readonly meanG: number;
  /** Standard deviation of one spoonful; 0 with a single weighing, which says nothing of the spread. */
  readonly spreadG: number;
  readonly weighings: number;
  readonly bulkDensity: Figure;
}

const FEWEST_WEIGHINGS = 3;
/** Nobody levels a spoon finer than a quarter. */
const SPOON_STEP = 0.25;

/**
 * Learns a spoon from weighings of level spoonfuls of one material.
 * @param weightsG each weighing, above zero
 * @param spoonMl what the spoon holds, level
 * @throws RangeError without weighings, or on one that is not above zero
 */
export function learnSpoon(weightsG: readonly number[], spoonMl: number): TaughtSpoon {
  if (weightsG.length === 0 || weightsG.some((w) => !(w > 0)))
    throw new RangeError('weightsG must hold at least one weight above zero');
  if (!(spoonMl > 0)) throw new RangeError(`spoonMl must be above zero, got ${spoonMl}`);
  const n = weightsG.length;
  const meanG = weightsG.reduce((sum, w) => sum + w, 0) / n;
  const spreadG = n < 2 ? 0 : Math.sqrt(weightsG.reduce((sum, w) => sum + (w - meanG) ** 2, 0) / (n - 1));
  const notes = [
    n < FEWEST_WEIGHINGS
      ? $localize`from ${countLabel(n, 'weighing')} only: weigh ${FEWEST_WEIGHINGS} or more to know the spread`
      : $localize`from ${n} weighings, one spoonful spreads by ${formatWeight(spreadG)}`,
  ];
  const bulkDensity = figure(
    Math.round((meanG / spoonMl) * 10_000) / 10_000,
    'g/ml',
    $localize`mean weight of a level spoonful ÷ what the spoon holds`,
    [
      {
        name: $localize`mean weight`,
        value: Math.round(meanG * 1000) / 1000,
        unit: 'g',
        source: $localize`${n} weighings`,
      },
      { name: $localize`the spoon holds`, value: Math.round(spoonMl * 100) / 100, unit: 'ml' },
    ],
    notes,
  );
  return { meanG, spreadG, weighings: n, bulkDensity };
}

/**
 * Plans a dose in level spoons, to the nearest quarter, with the error that brings: what rounding to quarters shifts,
 * and, nineteen times in twenty, that many spoonfuls (independent, so √n) and the mean's own uncertainty, by Student's
 * t of as many weighings as there were.
 * @param doseG above zero
 */
export function planInSpoons(doseG: number, spoon: TaughtSpoon, spoonName: string): Figure {
  if (!(doseG > 0)) throw new RangeError(`doseG must be above zero, got ${doseG}`);
  const spoons = Math.max(SPOON_STEP, Math.round(doseG / spoon.meanG / SPOON_STEP) * SPOON_STEP);
  const givenG = spoons * spoon.meanG;
  const deviationG = Math.sqrt(spoons * spoon.spreadG ** 2 + (spoons * spoon.spreadG) ** 2 / spoon.weighings);
  const t = spoon.weighings < FEWEST_WEIGHINGS ? 0 : studentT95(spoon.weighings - 1);
  const roundingPercent = ((givenG - doseG) / doseG) * 100;
  const notes = [
    $localize`gives ${formatWeight(givenG)}, ${Math.abs(roundingPercent) < 0.5 ? $localize`as wanted` : $localize`${Math.abs(roundingPercent).toFixed(0)} % ${roundingPercent > 0 ? $localize`more` : $localize`less`} than wanted`}`,
    spoon.weighings < FEWEST_WEIGHINGS
      ? $localize`the spread of this spoon is not known yet`
      : $localize`nineteen times in twenty within ${formatWeight(Math.max(0, givenG - t * deviationG))} to ${formatWeight(givenG + t * deviationG)}`,
    $localize`a balance measures it better`,
  ];
  return figure(
    spoons,
    spoonName,
    $localize`dose ÷ mean weight of a spoonful, to the nearest quarter`,
    [
      { name: $localize`dose`, value: doseG, unit: 'g' },
      {
        name: $localize`one spoonful`,
        value: Math.round(spoon.meanG * 1000) / 1000,
        unit: 'g',
        source: $localize`${spoon.weighings} weighings`,
      },
    ],
    notes,
  );
}
