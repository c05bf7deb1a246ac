import { trimZeros } from '../quantity/weight';
import { sayPh, sayPhBetween } from '../quantity/say-ph';
import { fibreFamily, fibresIn } from '../bath/fibre';
import type { StepRecord } from './step-record';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import type { Gravity } from '../safety/reactions';
import { takesPieces } from '../recipe/step-kind';
import { liquorSteps } from '../scaling/liquor-steps';

/**
 * Where protein fibre is comfortable: outside it scales open and silk dulls, so a bath made for something else is
 * brought back first.
 */
export const PROTEIN_RANGE = { low: 4, high: 8 } as const;

/** What protein fibre bears for a while, where somebody has a reason; beyond it nobody has. */
export const BORNE_RANGE = { low: 2.5, high: 9 } as const;

/** Why protein fibre may not go into a bath yet. A stop can't be gone past; a caution can, with a reason. */
export interface PhLock {
  readonly message: string;
  /** The step of the bath at which its pH is taken. */
  readonly stepIndex: number;
  readonly gravity: Gravity;
}

/**
 * Why protein fibre may not go into a bath yet: its last pH is outside the range asked for (the recipe's own, else where it is
 * comfortable), or nobody took it though the chain asks. `undefined` where it may.
 */
export function phLock(plan: LotPlan, records: readonly StepRecord[], step: PlannedStep): PhLock | undefined {
  const fibres = plan.groups.flatMap(fibresIn);
  if (
    !step.usesBath ||
    step.kind === 'fibre' ||
    !takesPieces(step) ||
    !fibres.some((f) => fibreFamily(f) === 'protein')
  )
    return undefined;
  const before = liquorSteps(plan, step).filter((s) => s.index !== step.index);
  const asks = [...before].reverse().find((s) => s.targetPh !== null && records[s.index]?.skippedReason === undefined);
  const range = asks?.targetPh ?? PROTEIN_RANGE;
  const last = before
    .flatMap((s) => records[s.index]?.phs ?? [])
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
    .at(-1);
  const stepIndex = (asks ?? before.at(-1) ?? step).index;
  if (!last)
    return asks
      ? {
          stepIndex,
          gravity: 'stop',
          message: $localize`“${asks.title}” asks for ${sayPhBetween(range)}, and nobody has taken it. Take the pH there before protein fibre goes in.`,
        }
      : undefined;
  if (last.ph >= range.low && last.ph <= range.high) return undefined;
  const borne = last.ph >= BORNE_RANGE.low && last.ph <= BORNE_RANGE.high;
  return {
    stepIndex,
    gravity: borne ? 'caution' : 'stop',
    message: $localize`The bath reads ${sayPh(last.ph)}, and protein fibre waits until it is back between ${trimZeros(range.low, 2)} and ${trimZeros(range.high, 2)}. Bring it back in small doses and take the pH again${borne ? $localize`, or say why it goes in all the same` : ''}.`,
  };
}
