import { takesPieces } from '../recipe/step-kind';
import { heldKwh } from './held-heat';
import type { LotPlan, PlannedBath, PlannedStep } from './lot-plan';

/** What became of a step: whether it was done, how long it took with all its turns, minutes, and how much hotter it got than
 * it was to, °C. */
export interface StepDone {
  readonly isDone: boolean;
  readonly tookMin: number;
  readonly hotterC: number;
}

/** What a lot asks of heat, water, hands and the calendar. */
export interface PlanEffort {
  /** To bring every bath to its temperature and keep it there, kWh, lids on. */
  readonly heatKwh: number;
  /** Fresh water for all its baths, litres. */
  readonly waterL: number;
  /** Minutes that need hands: attended steps, and a little at both ends of the others. */
  readonly handsMin: number;
  /** Minutes from beginning to end, with nobody ever late. */
  readonly throughMin: number;
}

/** To begin a step and to end it: fetching, lifting, looking. Minutes each time, by hand. */
const TOUCH_MIN = 5;

const asPlanned = (step: PlannedStep): StepDone => ({
  isDone: true,
  tookMin: step.durationMin * turnsOf(step),
  hotterC: 0,
});

/**
 * What a plan asks: what heats and fills each bath, once a filling, what keeps it hot, hands, and the time through the chain by its longest way.
 * Vessels that are filled several times are heated and tended as often, one after another.
 * @param did what became of each step, where it is asked what the lot took and not what it was to take
 */
export function planEffort(plan: Pick<LotPlan, 'steps'>, did: (step: PlannedStep) => StepDone = asPlanned): PlanEffort {
  const done = plan.steps.filter((step) => did(step).isDone);
  const hottest = new Map<string, PlannedBath>();
  const wettest = new Map<string, PlannedBath>();
  for (const step of done)
    for (const bath of step.baths) {
      const key = `${step.liquor || step.index} ${bath.vesselId} ${bath.batches.join()}`;
      if (kwhOf(bath) >= kwhOf(hottest.get(key))) hottest.set(key, bath);
      if (waterOf(bath) >= waterOf(wettest.get(key))) wettest.set(key, bath);
    }
  const sum = (fillings: ReadonlyMap<string, PlannedBath>, of: (bath: PlannedBath) => number): number =>
    [...fillings.values()].reduce((total, bath) => total + of(bath) * bath.turns, 0);
  const handsMin = done.reduce(
    (total, step) => total + (step.attended ? did(step).tookMin : 2 * TOUCH_MIN * turnsOf(step)),
    0,
  );
  const heldAll = done.reduce((total, step) => {
    const { tookMin, hotterC } = did(step);
    return total + heldKwh(step, tookMin / turnsOf(step), hotterC);
  }, 0);
  const ends: number[] = [];
  for (const step of plan.steps) {
    const begins = Math.max(0, ...step.after.map((i) => ends[i] ?? 0));
    ends[step.index] = begins + step.durationMin * turnsOf(step) + (step.wait?.minMinutes ?? 0);
  }
  return {
    heatKwh: Math.round((sum(hottest, kwhOf) + heldAll) * 100) / 100,
    waterL: Math.round(sum(wettest, waterOf)) / 1000,
    handsMin: Math.round(handsMin),
    throughMin: Math.max(0, ...ends),
  };
}

const kwhOf = (bath: PlannedBath | undefined): number => (bath?.heating?.ok ? bath.heating.energy.value : 0);
/** Water of a turn, ml. Plans kept before it was worked out tell the liquor alone. */
const waterOf = (bath: PlannedBath | undefined): number => (bath ? (bath.water ?? bath.liquor).value : 0);

/** How often a step is gone through, because a vessel doesn't hold all at once. */
export function turnsOf(step: PlannedStep): number {
  const byVessel = new Map<string, number>();
  for (const bath of step.baths) byVessel.set(bath.vesselId, (byVessel.get(bath.vesselId) ?? 0) + bath.turns);
  return takesPieces(step) ? Math.max(1, ...byVessel.values()) : 1;
}
