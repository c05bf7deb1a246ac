import type { PlannedStep } from '../scaling/lot-plan';
import type { StepRecord } from '../run/step-record';
import type { Hazard } from '../safety/hazards';
import type { HouseTimes } from './house-times';
import type { StepTimes } from './step-times';

/** A step of a lot as the accepted plan has it. Times ISO in UTC. */
export interface KeptPlace {
  readonly lotId: string;
  readonly stepIndex: number;
  readonly startAt: string;
  readonly aloneFromAt: string;
  readonly aloneToAt: string;
  readonly endAt: string;
  readonly beginBy: string | null;
  readonly endBy: string | null;
  readonly resourceIds: readonly string[];
  /** Somebody put it there: it stays. */
  readonly locked: boolean;
}

/** The plan a studio goes by. */
export interface HousePlan {
  readonly places: readonly KeptPlace[];
  readonly holds: readonly { readonly holdId: string; readonly resourceId: string }[];
}

/** A planned step as a plan goes by it. */
export interface PlannableStep {
  readonly index: number;
  readonly kind: PlannedStep['kind'];
  readonly title: string;
  readonly times: StepTimes;
  /** Pots it is done in; none where it needs none. */
  readonly vesselIds: readonly string[];
  /** Whether something is weighed at its beginning. */
  readonly weighs: boolean;
  /** Names the liquor in them: steps of one liquor share it. */
  readonly liquor: string;
  readonly after: readonly number[];
  readonly wait: PlannedStep['wait'];
  readonly hazards: readonly Hazard[];
  /** The day what it weighs is to be there, ISO; `null` where it is. */
  readonly beginFromOn: string | null;
  /** The last day what it weighs is still good, ISO; `null` where that is no matter. */
  readonly beginByOn: string | null;
}

/** What of a step's record a plan goes by. */
export type PlannableRecord = Pick<StepRecord, 'startedAt' | 'finishedAt' | 'skippedReason'>;

/** A lot that isn't done yet. */
export interface PlannableLot {
  readonly id: string;
  readonly tag: string;
  readonly pieces: number;
  /** The day it is promised for, ISO; `null` where nobody waits. */
  readonly wantedOn: string | null;
  readonly steps: readonly PlannableStep[];
  readonly records: readonly PlannableRecord[];
}

/** All a plan is made of, as the studio's record has it. */
export interface PlanFacts {
  /** ISO in UTC. */
  readonly now: string;
  readonly zone: string;
  readonly times: HouseTimes;
  readonly people: readonly { readonly id: string; readonly name: string }[];
  readonly vessels: readonly { readonly id: string; readonly name: string; readonly heatSourceId: string | null }[];
  readonly heatSources: readonly { readonly id: string; readonly name: string; readonly powerW: number }[];
  readonly lots: readonly PlannableLot[];
  readonly accepted: HousePlan | null;
}
