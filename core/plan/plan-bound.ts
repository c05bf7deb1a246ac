import type { Compiled, CompiledStep } from './compile-problem';
import { earliestWithin } from './spans';

/**
 * What no plan can cost less than: each lot as if the whole house were its own, every pot free and every pair of hands,
 * in hours and evenings, waiting for nobody. What that leaves out can only cost more.
 */
export function planBound(c: Compiled): number {
  const { weights, lots } = c.problem;
  return lots.reduce((sum, lot, i) => {
    const { endMin, heatWh } = alone(c, c.lotSteps[i] ?? []);
    const lateMin = lot.dueMin === null ? 0 : Math.max(0, endMin - lot.dueMin);
    return sum + endMin * weights.finish + lateMin * weights.late + (heatWh / 1000) * weights.heatKwh;
  }, 0);
}

/** When a lot could be done at the earliest with the house to itself, minutes from the beginning. */
export function earliestDone(c: Compiled, lot: number): number {
  return alone(c, c.lotSteps[lot] ?? []).endMin;
}

function alone(c: Compiled, own: readonly number[]): { endMin: number; heatWh: number } {
  const ends = new Map<number, number>();
  const left = new Set(own);
  let heatWh = 0;
  while (left.size > 0)
    for (const n of left) {
      const s = c.steps[n];
      if (!s || s.after.some((a) => left.has(a.step))) continue;
      const from = Math.max(s.step.notBeforeMin, 0, ...s.after.map((a) => (ends.get(a.step) ?? 0) + a.minMin));
      ends.set(n, s.step.fixed?.endMin ?? earliestEnd(c, s, from));
      if (!s.step.fixed) heatWh += Math.min(...s.ways.map((w) => w.heatWh));
      left.delete(n);
    }
  return { endMin: Math.max(0, ...ends.values()), heatWh };
}

/** When a step could end that may begin from a moment on: never earlier where it may only begin later. */
function earliestEnd(c: Compiled, s: CompiledStep, fromMin: number): number {
  const { step } = s;
  const extra = Math.min(...s.ways.map((w) => w.extraMin));
  const hands = (at: number, length: number): number =>
    length === 0 ? at : Math.min(...s.people.map((p) => earliestWithin(c.anyHours[p] ?? [], at, length)));
  if (step.watched) {
    const length = step.beginHandsMin + step.aloneMin + extra + step.endHandsMin;
    return hands(fromMin, length) + length;
  }
  const aloneFrom = hands(fromMin, step.beginHandsMin) + step.beginHandsMin;
  const alone = step.aloneMin + extra;
  const opens = step.overnight || alone === 0 ? aloneFrom : earliestWithin(c.open, aloneFrom, alone);
  return hands(opens + alone, step.endHandsMin) + step.endHandsMin;
}
