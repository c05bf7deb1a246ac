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

/** Until which day a pot is out of order. */
export interface PotTimes {
  readonly vesselId: string;
  readonly outUntil: string;
}

/** What there is room for at once; `null` where nobody has to wait for it. */
export interface HouseRoom {
  /** Pieces on the drying line. */
  readonly dryingPieces: number | null;
  /** Pots that steep or soak cold, off the burners. */
  readonly coldPots: number | null;
  readonly balances: number | null;
}

/** When the house is open, who works when, what works and what there is room for. */
export interface HouseTimes {
  readonly week: WeekHours;
  readonly closed: readonly DaysAway[];
  readonly people: readonly PersonTimes[];
  readonly heat: readonly HeatTimes[];
  readonly pots: readonly PotTimes[];
  readonly room: HouseRoom;
}

/** Before anybody said anything. */
export const TIMES_AT_FIRST: HouseTimes = {
  week: WEEK_AT_FIRST,
  closed: [],
  people: [],
  heat: [],
  pots: [],
  room: { dryingPieces: null, coldPots: null, balances: null },
};
