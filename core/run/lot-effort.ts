import type { LotPlan } from '../scaling/lot-plan';
import type { PlanEffort } from '../scaling/plan-effort';
import { planEffort } from '../scaling/plan-effort';
import type { StepRecord } from './step-record';

/**
 * What a lot took so far: heat and water of the baths of steps that were done, and hands as long as they stayed where a
 * step is stayed with; of the others, the touches its plan has. What was done anew counts once.
 * @param records one a step, in the plan's order
 */
export const effortSoFar = (
  plan: Pick<LotPlan, 'steps'>,
  records: readonly StepRecord[],
): Omit<PlanEffort, 'throughMin'> => {
  const { throughMin: _throughMin, ...took } = planEffort(plan, (step) => {
    const { startedAt, finishedAt, pausedMs = 0, skippedReason } = records[step.index] ?? {};
    const stayedMs =
      startedAt === undefined || finishedAt === undefined
        ? step.durationMin * MINUTE_MS
        : Date.parse(finishedAt) - Date.parse(startedAt) - pausedMs;
    return { isDone: finishedAt !== undefined && skippedReason === undefined, stayedMin: stayedMs / MINUTE_MS };
  });
  return took;
};

const MINUTE_MS = 60_000;
