import type { Figure, FigureInput } from './figure';
import { figure } from './figure';
import { formatWeight } from './weight';

/** One balance, and what it can do. */
export interface OneBalance {
  readonly name: string;
  readonly resolutionG: number;
  readonly capacityG: number;
}

/** What a studio weighs on: the bench balance, and a fine one for small doses where there is one. */
export interface Balance extends OneBalance {
  readonly fine?: OneBalance | null | undefined;
}

/** The balance a dose is weighed on: the fine one, where the bench one would be off and the fine one carries it. */
export function balanceFor(exactG: number, balance: Balance): OneBalance {
  const { fine } = balance;
  const doubtful = exactG > 0 && balance.resolutionG / exactG > DOUBTFUL_SHARE;
  return fine && doubtful && exactG <= fine.capacityG && fine.resolutionG < balance.resolutionG ? fine : balance;
}

/** The ledger's smallest unit. */
const MILLIGRAM_G = 0.001;

/** A dose is doubtful on a balance when one step of the display is more than this share of it. */
const DOUBTFUL_SHARE = 0.05;

/** Further than this from a half, and with fewer steps than that, twelve digits round as all of them do. */
const NEAR_HALF = 1e-4;
const MANY_STEPS = 1e7;

/** Rounds a weight to the nearest step of the balance. Both in grams; the result has no floating dust. */
export function roundToResolution(weightG: number, resolutionG: number): number {
  if (!(resolutionG > 0)) throw new RangeError(`resolutionG must be above zero, got ${resolutionG}`);
  const exact = weightG / resolutionG;
  // 12.35 ÷ 0.1 is 123.499… in binary: twelve digits are more than any balance has, and put the half where it belongs.
  const isNearHalf = Math.abs(exact - Math.floor(exact) - 0.5) < NEAR_HALF || Math.abs(exact) > MANY_STEPS;
  const steps = Math.round(isNearHalf ? Number(exact.toPrecision(12)) : exact);
  return Math.round(steps * resolutionG * 1e6) / 1e6;
}

/**
 * Turns an exact dose into what this balance can weigh, saying what rounding cost and where the balance is at its
 * limits. A dose that the balance can't show stays as it is: it is measured from a stock solution, never left out.
 * @param exactG dose in grams before rounding
 */
export function weighableDose(
  exactG: number,
  balances: Balance,
  formula: string,
  inputs: readonly FigureInput[],
): Figure {
  const balance = balanceFor(exactG, balances);
  const roundedG = roundToResolution(exactG, balance.resolutionG);
  if (exactG > 0 && roundedG === 0)
    return figure(Math.max(MILLIGRAM_G, roundToResolution(exactG, MILLIGRAM_G)), 'g', formula, inputs, [
      $localize`less than half the ${formatWeight(balance.resolutionG)} step of the ${balance.name}:name:: measure it from a stock solution`,
    ]);
  const notes = [roundedTo(balance)];
  if (exactG > 0 && balance.resolutionG / exactG > DOUBTFUL_SHARE) {
    notes.push(
      $localize`near the step of the balance: it may be ${Math.round((balance.resolutionG / 2 / exactG) * 100)} % off. A stock solution measures it better.`,
    );
  }
  if (roundedG > balance.capacityG) {
    notes.push(
      $localize`over the ${formatWeight(balance.capacityG)} the balance carries`,
      ...weighingPortions(roundedG, balance),
    );
  }
  return figure(roundedG, 'g', formula, inputs, notes);
}

const roundings = new WeakMap<OneBalance, string>();

/** The note of every dose that is rounded: said once for a balance. */
function roundedTo(balance: OneBalance): string {
  const said =
    roundings.get(balance) ??
    $localize`rounded to the ${formatWeight(balance.resolutionG)} step of the ${balance.name}`;
  roundings.set(balance, said);
  return said;
}

/** How near a weighing must come where a recipe doesn't say, per cent. */
export const DEFAULT_WEIGH_WITHIN_PERCENT = 2;

/**
 * How far from its target a weighing may be before it counts as a deviation: one step of the balance,
 * or so many per cent of the target, whichever is more. Grams.
 */
export function weighingToleranceG(
  targetG: number,
  resolutionG: number,
  withinPercent = DEFAULT_WEIGH_WITHIN_PERCENT,
): number {
  return Math.max(resolutionG, (targetG * withinPercent) / 100);
}

/**
 * Portions to weigh a dose in that is over what the balance carries, listed: as alike as its steps allow. Empty where
 * it carries it.
 */
export function weighingPortions(weightG: number, balance: Balance): string[] {
  if (weightG <= balance.capacityG) return [];
  const portions = Math.ceil(weightG / balance.capacityG);
  const each = roundToResolution(weightG / portions, balance.resolutionG);
  const last = roundToResolution(weightG - each * (portions - 1), balance.resolutionG);
  // Rounding each up must not leave the last, or any, over the capacity.
  const sizes =
    Math.max(each, last) <= balance.capacityG
      ? [...Array<number>(portions - 1).fill(each), last]
      : [
          ...Array<number>(portions - 1).fill(balance.capacityG),
          roundToResolution(weightG - balance.capacityG * (portions - 1), balance.resolutionG),
        ];
  return [$localize`Weigh it in ${portions} portions: ${sizes.map((g) => formatWeight(g)).join(', ')}.`];
}
