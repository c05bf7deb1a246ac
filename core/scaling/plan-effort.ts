import { takesPieces } from '../recipe/step-kind';
import type { LotPlan, PlannedBath, PlannedStep } from './lot-plan';

/** What a lot asks of heat, hands and the calendar. */
export interface PlanEffort {
  /** To bring every bath to its temperature, kWh; holding comes on top. */
  readonly heatKwh: number;
  /** Minutes that need hands: attended steps, and a little at both ends of the others. */
  readonly handsMin: number;
  /** Minutes from beginning to end, with nobody ever late. */
  readonly throughMin: number;
}

/** To begin a step and to end it: fetching, lifting, looking. Minutes each time, by hand. */
const TOUCH_MIN = 5;

/**
 * What a plan asks: heat of each filling once, hands, and the time through the chain by its longest way. Vessels that
 * are filled several times are heated and tended as often, one after another.
 */
export function planEffort(plan: Pick<LotPlan, 'steps'>): PlanEffort {
  const fillings = new Map<string, PlannedBath>();
  for (const step of plan.steps)
    for (const bath of step.baths) {
      const key = `${step.liquor || step.index} ${bath.vesselId} ${bath.batches.join()}`;
      const known = fillings.get(key);
      if (!known || kwhOf(bath) > kwhOf(known)) fillings.set(key, bath);
    }
  const heatKwh = [...fillings.values()].reduce((sum, bath) => sum + kwhOf(bath) * bath.turns, 0);
  const handsMin = plan.steps.reduce((sum, step) => sum + handsOf(step) * timesOf(step), 0);
  const ends: number[] = [];
  for (const step of plan.steps) {
    const begins = Math.max(0, ...step.after.map((i) => ends[i] ?? 0));
    ends[step.index] = begins + step.durationMin * timesOf(step) + (step.wait?.minMinutes ?? 0);
  }
  return { heatKwh: Math.round(heatKwh * 100) / 100, handsMin: Math.round(handsMin), throughMin: Math.max(0, ...ends) };
}

const kwhOf = ({ heating }: PlannedBath): number => (heating?.ok ? heating.energy.value : 0);

const handsOf = (step: PlannedStep): number => (step.attended ? step.durationMin : 2 * TOUCH_MIN);

/** How often a step is gone through, because a vessel doesn't hold all at once. */
function timesOf(step: PlannedStep): number {
  const byVessel = new Map<string, number>();
  for (const bath of step.baths) byVessel.set(bath.vesselId, (byVessel.get(bath.vesselId) ?? 0) + bath.turns);
  return takesPieces(step) ? Math.max(1, ...byVessel.values()) : 1;
}
