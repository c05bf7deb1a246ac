import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import type { VesselUsed } from './run-entry';
import { isOver } from './run-record';
import type { StepRecord } from './step-record';

/** A pot that holds a liquor: made up, and not emptied yet. */
export interface PotInUse {
  readonly vesselId: string;
  readonly vesselName: string;
  /** The step that was begun in it last. */
  readonly title: string;
  /** Names the liquor within its lot. */
  readonly liquor: string;
  /** Tag of the lot it is of. */
  readonly lotTag: string;
}

/** Names a step's liquor: its own where the plan doesn't say. */
const liquorOf = (step: PlannedStep): string => (step.liquor === '' ? $localize`step ${step.index}` : step.liquor);

/** Pots a step is done in, of all its batches or of one: those planned, or those used instead. */
export function potsOf(
  step: PlannedStep,
  used: readonly VesselUsed[] | undefined,
  batch?: number,
): Pick<PotInUse, 'vesselId' | 'vesselName'>[] {
  return step.baths
    .filter((bath) => batch === undefined || bath.batches.includes(batch))
    .map((bath) => used?.find((u) => bath.batches.includes(u.batch)) ?? bath);
}

/**
 * Pots that a lot holds: from the first step begun in a liquor until its last step is over. A step done in its own
 * pot holds it while it runs.
 */
export function potsInUse(plan: LotPlan, records: readonly StepRecord[], lotTag: string): PotInUse[] {
  const inBaths = plan.steps.filter((s) => s.baths.length > 0);
  return [...new Set(inBaths.map(liquorOf))].flatMap((liquor) => {
    const steps = inBaths.filter((s) => liquorOf(s) === liquor);
    const begun = steps.filter((s) => records[s.index]?.startedAt !== undefined);
    const last = begun.at(-1);
    if (!last || steps.every((s) => isOver(records[s.index]))) return [];
    return potsOf(last, records[last.index]?.vessels).map(({ vesselId, vesselName }) => ({
      vesselId,
      vesselName,
      title: last.title,
      liquor,
      lotTag,
    }));
  });
}

/** The pot, of those a step would be begun in, that holds another liquor; `undefined` where all are free. */
export function potTaken(
  step: PlannedStep,
  used: readonly VesselUsed[] | undefined,
  { own, elsewhere }: { readonly own: readonly PotInUse[]; readonly elsewhere: readonly PotInUse[] },
): PotInUse | undefined {
  const others = [...own.filter((p) => p.liquor !== liquorOf(step)), ...elsewhere];
  return others.find((p) => potsOf(step, used).some((mine) => mine.vesselId === p.vesselId));
}
