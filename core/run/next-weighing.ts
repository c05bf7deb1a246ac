import type { PlannedPick, PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import { smallestIn } from '../scaling/lot-plan';
import { targetNow } from './rescale';
import type { RunEntry } from './run-entry';
import type { StepRecord } from './step-record';

/** A jar to weigh from: all of this pick, and what of it is weighed already, smallest units. */
export interface WeighingToDo {
  readonly weighing: PlannedWeighing;
  readonly pick: PlannedPick;
  readonly target: number;
  readonly soFar: number;
  /** The how manieth portion it is. */
  readonly portion: number;
}

/** The next jar to weigh from at a step; `undefined` when all is weighed or left out. */
export function nextWeighing(
  step: PlannedStep,
  record: StepRecord,
  entries: readonly RunEntry[],
): WeighingToDo | undefined {
  for (const weighing of step.weighings) {
    const open = isLeftOut(record, weighing) ? undefined : nextPickOf(step, weighing, record, entries);
    if (open) return open;
  }
  return undefined;
}

const isLeftOut = ({ leftOut = [] }: StepRecord, { batch, materialId }: PlannedWeighing): boolean =>
  leftOut.some((l) => l.batch === batch && l.materialId === materialId);

/**
 * The next pick of one weighing. Weighings that answered a pick are laid against the picks in order, so that a weighing
 * from another jar answers the pick it was meant for; a portion leaves the pick open with the rest as its target.
 */
export function nextPickOf(
  step: PlannedStep,
  weighing: PlannedWeighing,
  record: StepRecord,
  entries: readonly RunEntry[],
): WeighingToDo | undefined {
  const weighed = record.weighings.filter((w) => w.batch === weighing.batch && w.materialId === weighing.materialId);
  const planned = weighing.target.value * smallestIn(weighing.measure);
  const factor = planned > 0 ? targetNow(weighing, step.index, entries) / planned : 1;
  const unanswered = [...weighed];
  for (const pick of weighing.picks) {
    if (pick.amount <= 0) continue;
    const answer: typeof weighed = [];
    // Portions of one pick end with the one that is not followed by more.
    let at = unanswered.findIndex((w) => w.stockLotId === pick.stockLotId);
    if (at === -1 && unanswered.length > 0 && weighed.length >= weighing.picks.length) at = 0;
    if (at === -1 && weighing.picks.length === 1 && unanswered.length > 0) at = 0;
    while (at !== -1 && at < unanswered.length) {
      const [taken] = unanswered.splice(at, 1);
      if (!taken) break;
      answer.push(taken);
      if (taken.more !== true) break;
    }
    if (answer.length === 0 || answer.at(-1)?.more === true)
      return {
        weighing,
        pick,
        target: Math.round(pick.amount * factor),
        soFar: answer.reduce((sum, w) => sum + w.amount, 0),
        portion: answer.length + 1,
      };
  }
  return undefined;
}
