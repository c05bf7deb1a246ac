import { hottestC } from '../recipe/course';
import type { LotPlan } from '../scaling/lot-plan';
import type { PlanEffort } from '../scaling/plan-effort';
import { planEffort, turnsOf } from '../scaling/plan-effort';
import type { StepRecord } from './step-record';

/**
 * What a lot took so far: heat and water of the baths of steps that were done, kept as hot and as long as they were, and
 * hands as long as they stayed where a step is stayed with; of the others, the touches its plan has. What was done anew
 * counts once.
 * @param records one a step, in the plan's order
 */
export const effortSoFar = (
  plan: Pick<LotPlan, 'steps'>,
  records: readonly StepRecord[],
): Omit<PlanEffort, 'throughMin'> => {
  const { throughMin: _throughMin, ...took } = planEffort(plan, (step) => {
    const { startedAt, finishedAt, pausedMs = 0, skippedReason, temperaturesC = [] } = records[step.index] ?? {};
    const tookMs =
      startedAt === undefined || finishedAt === undefined
        ? step.durationMin * turnsOf(step) * MINUTE_MS
        : Date.parse(finishedAt) - Date.parse(startedAt) - pausedMs;
    // By the hottest anybody read, against the hottest it was to be.
    const hotterC = temperaturesC.length === 0 ? 0 : Math.max(...temperaturesC) - (hottestC(step) ?? Infinity);
    return { isDone: finishedAt !== undefined && skippedReason === undefined, tookMin: tookMs / MINUTE_MS, hotterC };
  });
  return took;
};

const MINUTE_MS = 60_000;
