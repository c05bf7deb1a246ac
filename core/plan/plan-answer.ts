import type { PlacedStep } from './plan-problem';

/** What a hold has in use, and from when until when. */
export interface PlacedHold {
  readonly holdId: string;
  readonly resourceId: string;
  readonly fromMin: number;
  readonly toMin: number;
}

/** What a plan costs, part by part, and by the problem's weights in one number. */
export interface PlanCost {
  /** Minutes lots are late, summed. */
  readonly lateMin: number;
  /** Minutes from the beginning until lots are done, summed. */
  readonly finishMin: number;
  /** Touches that lie out of hours. */
  readonly outOfHours: number;
  readonly heatWh: number;
  /** Steps of the accepted plan that lie elsewhere. */
  readonly moved: number;
  readonly total: number;
}

/** Why a lot stands in no plan. */
export interface Unplaced {
  readonly lotId: string;
  /** The step that found no place. */
  readonly stepId: string;
}

/** A plan: where every step lies, what is held when, what it costs, and how near that is to the least there is. */
export interface PlanAnswer {
  readonly format: 'vestigia-plan';
  readonly version: 1;
  readonly placed: readonly PlacedStep[];
  readonly holds: readonly PlacedHold[];
  readonly lots: readonly { readonly lotId: string; readonly finishMin: number; readonly lateMin: number }[];
  /** Lots without a place before the horizon; none of their steps that aren't fixed is placed. */
  readonly unplaced: readonly Unplaced[];
  readonly cost: PlanCost;
  /** No plan costs less than this. */
  readonly bound: number;
  /** Plans looked at: the same seed and as many rounds give the same plan. */
  readonly rounds: number;
  /** Every plan there is was weighed against it, or it costs no more than the bound. */
  readonly proven: boolean;
}
