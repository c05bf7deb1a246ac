import type { DaysAway, WeekHours } from '../calendar/week-hours';
import { WEEK_AT_FIRST } from '../calendar/week-hours';
import type { Hazard } from '../safety/hazards';

/** When somebody works, and what they don't handle. */
export interface PersonTimes {
  readonly personId: string;
  /** `null`: as the house is open. */
  readonly week: WeekHours | null;
  /** Until when they would stay or come in on a day they work, `21:00`; `null`: not at all. */
  readonly eveningsUntil: string | null;
  readonly away: readonly DaysAway[];
  /** Hazards others have to handle for them. */
  readonly leaves: readonly Hazard[];
}

/** How many pots stand on a burner at once, and until which day it is out of order. */
export interface HeatTimes {
  readonly heatSourceId: string;
  readonly potsAtOnce: number;
  /** Its last day out of order, ISO; `null` where it works. */
  readonly outUntil: string | null;
}

/** When the house is open, who works when, and what works. */
export interface HouseTimes {
  readonly week: WeekHours;
  readonly closed: readonly DaysAway[];
  readonly people: readonly PersonTimes[];
  readonly heat: readonly HeatTimes[];
}

/** Before anybody said anything. */
export const TIMES_AT_FIRST: HouseTimes = { week: WEEK_AT_FIRST, closed: [], people: [], heat: [] };
