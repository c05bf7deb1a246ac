/**
 * From a moment up to another, whole minutes from the problem's beginning. Minutes run evenly: a night in which the
 * clocks change is an hour longer or shorter, and whoever makes the problem says so in its spans.
 */
export type Span = readonly [fromMin: number, toMin: number];

/** Kinds of things a step or a hold takes up. */
export const RESOURCE_KINDS = ['vessel', 'heat', 'space', 'balance'] as const;
/** A pot; a burner or hot plate; a drying line or cold space; a balance. */
export type ResourceKind = (typeof RESOURCE_KINDS)[number];

/** Something of which only so much can be used at once. */
export interface PlanResource {
  readonly id: string;
  readonly name: string;
  readonly kind: ResourceKind;
  /** How much of it can be in use at a time: 1 for a pot, the pots a burner carries, the places of a line. */
  readonly capacity: number;
  /** When it is out of order or away. */
  readonly out: readonly Span[];
}

/** Somebody with two hands: at one thing at a time. */
export interface PlanPerson {
  readonly id: string;
  readonly name: string;
  /** When they work. */
  readonly hours: readonly Span[];
  /** When they would come in beyond that, if it helps. */
  readonly evenings: readonly Span[];
  /** Hazards they may handle. */
  readonly may: readonly string[];
}

/** One of the things a need can be met with. */
export interface PlanOption {
  readonly resourceId: string;
  /** Minutes the step lasts longer with it, alone: heating up on a weak burner. */
  readonly extraMin: number;
  /** Energy it takes, Wh. */
  readonly heatWh: number;
}

/** What a step takes up, from its first touch to its last. */
export interface PlanNeed {
  readonly options: readonly PlanOption[];
  readonly amount: number;
  /** Only while the hands that begin it are at it: a balance to weigh on. */
  readonly onlyToBegin?: boolean | undefined;
}

/** Until when a step that is placed takes up what it needs. */
export const neededUntil = (
  need: PlanNeed | undefined,
  at: { readonly aloneFromMin: number; readonly endMin: number },
): number => (need?.onlyToBegin === true ? at.aloneFromMin : at.endMin);

/** What a step follows, and how long after it ended. */
export interface PlanFollows {
  readonly stepId: string;
  readonly minMin: number;
  /** `null`: as late as one likes. */
  readonly maxMin: number | null;
}

/** Where a step lies in time, what with and whose hands. */
export interface PlacedStep {
  readonly stepId: string;
  readonly startMin: number;
  /** When the hands leave it, and when hands take it up again. */
  readonly aloneFromMin: number;
  readonly aloneToMin: number;
  readonly endMin: number;
  /** Whose hands begin and end it; `null` where it needs none there. A watched step has the same at both. */
  readonly beginBy: string | null;
  readonly endBy: string | null;
  /** What each of its needs is met with, in their order. */
  readonly resourceIds: readonly string[];
}

/**
 * A step as it really goes: hands begin it, it goes on alone for so long (longer, if it may), hands end it. A watched
 * step has the same hands all the while.
 */
export interface PlanStep {
  readonly id: string;
  readonly title: string;
  readonly beginHandsMin: number;
  readonly aloneMin: number;
  /** The longest it may be left; `null` where it can't be too long. */
  readonly aloneMaxMin: number | null;
  readonly endHandsMin: number;
  readonly watched: boolean;
  /** Whether it may go on alone while the house is closed. */
  readonly overnight: boolean;
  readonly hazards: readonly string[];
  readonly needs: readonly PlanNeed[];
  readonly after: readonly PlanFollows[];
  /** Stock that must arrive, a lot that can't begin sooner. */
  readonly notBeforeMin: number;
  /** Fresh dyestuff spoils: it must have begun by then. */
  readonly notAfterMin: number | null;
  /** It runs or is done, or somebody locked it: it stays exactly there, whatever it gets in the way of. */
  readonly fixed: PlacedStep | null;
}

/** A thing held from the beginning of one step to the end of a later one, with all that lies between. */
export interface PlanHold {
  readonly id: string;
  readonly resourceIds: readonly string[];
  readonly amount: number;
  readonly fromStepId: string;
  readonly toStepId: string;
  /** What it is held by already, where its first step is fixed. */
  readonly fixedTo: string | null;
}

/** What is dyed together: its steps, what it holds over several of them, and when it is promised. */
export interface PlanLot {
  readonly id: string;
  readonly name: string;
  /** When it is promised; `null` where nobody waits. */
  readonly dueMin: number | null;
  readonly steps: readonly PlanStep[];
  readonly holds: readonly PlanHold[];
}

/** What a minute late, a minute later done, a touch out of hours, a kWh and a step moved cost, against one another. */
export interface PlanWeights {
  /** A minute a lot is done after it was promised. */
  readonly late: number;
  /** A minute a lot is done later. */
  readonly finish: number;
  readonly outOfHours: number;
  readonly heatKwh: number;
  /** A step that stood in an accepted plan and lies elsewhere in this one. */
  readonly moved: number;
}

/**
 * Promises first, by far. Then minutes until lots are done. Somebody comes in out of hours where that saves four hours
 * of a lot, not for a minute of it; a kWh is worth a quarter of an hour; a settled step is moved for eight hours, a
 * working day.
 */
export const PLAN_WEIGHTS: PlanWeights = { late: 1000, finish: 1, outOfHours: 240, heatKwh: 15, moved: 480 };

/** Everything that has to be placed, and what there is to place it with. */
export interface PlanProblem {
  readonly format: 'vestigia-plan-problem';
  readonly version: 1;
  /** The moment minute 0 is, ISO in UTC. */
  readonly origin: string;
  /** Nothing ends after it. */
  readonly horizonMin: number;
  /** When the house is open: what may not be left alone in a closed house goes on within one of these. */
  readonly open: readonly Span[];
  readonly people: readonly PlanPerson[];
  readonly resources: readonly PlanResource[];
  readonly lots: readonly PlanLot[];
  readonly weights: PlanWeights;
  /** The plan that was accepted, for steps that are not fixed: they stay there as far as they can. */
  readonly previous: readonly PlacedStep[];
  /** What its holds had. */
  readonly previousHolds: readonly { readonly holdId: string; readonly resourceId: string }[];
}
