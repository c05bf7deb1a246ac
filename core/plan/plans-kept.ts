import { atMost } from '../quantity/at-most';
import { sayMinutes } from '../quantity/duration';
import { LEAST_HINDCASTS } from './hindcast';

/** A lot that is done: when the plan it was begun by said it would be, and when it was. ISO in UTC. */
export interface DoneByPlan {
  readonly saidAt: string;
  readonly doneAt: string;
}

/** By how many minutes lots were done later than the plan they were begun by; less than nothing: earlier. */
export interface PlansKept {
  readonly middleMin: number;
  readonly fourInFiveMin: number;
  readonly lots: number;
}

const MINUTE_MS = 60_000;
const SURE = 0.8;

/** How well plans were kept that people went by. `null` of fewer than `LEAST_HINDCASTS` lots. */
export function plansKept(done: readonly DoneByPlan[]): PlansKept | null {
  if (done.length < LEAST_HINDCASTS) return null;
  const lateMin = done.map((d) => Math.round((Date.parse(d.doneAt) - Date.parse(d.saidAt)) / MINUTE_MS));
  return { middleMin: atMost(lateMin, 0.5), fourInFiveMin: atMost(lateMin, SURE), lots: done.length };
}

/** The same in words. */
export function sayPlansKept({ lots, middleMin, fourInFiveMin }: PlansKept): string {
  return $localize`Of the ${lots} newest lots that were begun by a plan, half were done ${sayLater(middleMin)}, four in five ${sayLater(fourInFiveMin)}.`;
}

const sayLater = (minutes: number): string => {
  if (minutes === 0) return $localize`when it said, or sooner`;
  const long = sayMinutes(Math.abs(minutes));
  return minutes > 0
    ? $localize`no more than ${long} later than it said`
    : $localize`at least ${long} sooner than it said`;
};
