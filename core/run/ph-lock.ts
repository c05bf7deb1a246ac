import { fibreFamily } from '../bath/fibre';
import type { StepRecord } from './step-record';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { takesPieces } from '../recipe/step-kind';

/**
 * Where protein fibre is comfortable: outside it scales open and silk dulls, so a bath made for something else is
 * brought back first.
 */
export const PROTEIN_RANGE = { low: 4, high: 8 } as const;

/**
 * Why protein fibre may not go into a bath yet: its last pH is outside the range asked for, or nobody took it though
 * the chain asks. `undefined` where it may.
 */
export function phLock(
  plan: LotPlan,
  records: readonly StepRecord[],
  step: PlannedStep,
):
  | { readonly message: string; /** The step of the bath at which its pH is taken. */ readonly stepIndex: number }
  | undefined {
  const fibres = plan.groups.map((g) => g.fibre);
  if (
    !step.usesBath ||
    step.kind === 'fibre' ||
    !takesPieces(step) ||
    !fibres.some((f) => fibreFamily(f) === 'protein')
  )
    return undefined;
  const before = bathSteps(plan, step).filter((s) => s.index !== step.index);
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
          message: `“${asks.title}” asks for pH ${range.low} to ${range.high}, and nobody has taken it. Take the pH there before protein fibre goes in.`,
        }
      : undefined;
  if (last.ph >= range.low && last.ph <= range.high) return undefined;
  return {
    stepIndex,
    message: `The bath reads pH ${last.ph}, and protein fibre waits until it is back between ${range.low} and ${range.high}. Bring it back in small doses and take the pH again.`,
  };
}

/**
 * The steps of one bath up to and with this one: those before it that it follows, as long as they are of the bath
 * alone.
 */
export function bathSteps(plan: LotPlan, step: PlannedStep): PlannedStep[] {
  const seen = new Set<number>();
  const stocktake = (s: PlannedStep): PlannedStep[] =>
    s.after.flatMap((i) => {
      const earlier = plan.steps[i];
      if (!earlier || seen.has(i) || takesPieces(earlier)) return [];
      seen.add(i);
      return [...stocktake(earlier), earlier];
    });
  return [...stocktake(step), step];
}
