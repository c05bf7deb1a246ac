import { wholeCourse } from '../recipe/course';
import type { PlannedStep } from './lot-plan';

type HeldStep = Pick<PlannedStep, 'baths' | 'course' | 'durationMin' | 'repeats' | 'temperatureC'>;

/** A stretch in which a bath is kept hot: minutes, and at what temperature, °C. */
interface Held {
  readonly minutes: number;
  readonly atC: number;
}

/**
 * What a step’s baths ask to be kept as hot as they are to be, kWh drawn, lids on: by the legs of its course that hold,
 * or by all of it where it has none. What heats up is counted by the bath, what cools or steeps asks nothing.
 * @param tookMin how long a turn of it took, minutes: what it ran on goes to its last leg
 * @param hotterC how much hotter it got than it was to, °C
 */
export function heldKwh(step: HeldStep, tookMin: number, hotterC = 0): number {
  const stretches = heldStretches(step, tookMin);
  let kwh = 0;
  for (const bath of step.baths) {
    const holding = bath.heating?.ok ? bath.heating.holding : undefined;
    if (!holding) continue;
    for (const { minutes, atC } of stretches) {
      const above = Math.max(0, atC + hotterC - holding.roomC);
      kwh += ((holding.wPerK * above * minutes) / MINUTES_IN_H / W_IN_KW) * bath.turns;
    }
  }
  return kwh;
}

const MINUTES_IN_H = 60;
const W_IN_KW = 1000;

function heldStretches(step: HeldStep, tookMin: number): Held[] {
  const legs = wholeCourse(step);
  if (legs.length === 0) return step.temperatureC === undefined ? [] : [{ minutes: tookMin, atC: step.temperatureC }];
  const held: Held[] = [];
  let [atC, leftMin]: [number | undefined, number] = [step.temperatureC, tookMin];
  for (const [i, leg] of legs.entries()) {
    const minutes = i === legs.length - 1 ? leftMin : Math.min(leg.minutes, leftMin);
    leftMin -= minutes;
    atC = leg.toC ?? atC;
    if (leg.do === 'hold' && atC !== undefined) held.push({ minutes, atC });
  }
  return held;
}
