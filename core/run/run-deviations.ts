import type { StepRecord } from './step-record';
import { sayDeviation } from './deviation';
import { findDeviations } from './deviations';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { targetNow } from './rescale';
import type { RunEntry } from './run-entry';
import { foldRun } from './run-record';

/** Something that went otherwise than planned at a step of a run, in words. */
export interface Deviation {
  readonly stepIndex: number;
  readonly message: string;
}

/**
 * Everything done otherwise than planned in one run, step by step, by its records as folded. @param tagOf the tag of
 * a stock lot
 */
export function findRunDeviations(
  plan: LotPlan,
  entries: readonly RunEntry[],
  tagOf: (stockLotId: string) => string,
  records = foldRun(entries, plan.steps.length),
): Deviation[] {
  return plan.steps.flatMap((step) => {
    const record = records[step.index];
    return record
      ? findDeviations(step, record, {
          tagOf,
          readyAt: readyAt(records, step),
          targetOf: (w) => targetNow(w, step.index, entries),
        }).map((fact) => ({ stepIndex: step.index, message: sayDeviation(fact) }))
      : [];
  });
}

/** When the last of the steps it follows was finished; unknown while one isn't. */
function readyAt(records: readonly StepRecord[], step: PlannedStep): string | undefined {
  const ends = step.after.map((i) => records[i]?.finishedAt);
  return ends.length === 0 || ends.some((e) => e === undefined)
    ? undefined
    : ends.reduce((a, b) => ((a ?? '') > (b ?? '') ? a : b));
}
