import type { Compiled, CompiledStep, Way } from './compile-problem';
import type { Schedule } from './schedule';

/** What a lot costs as it stands, in its parts and in one number. */
export interface LotCost {
  readonly finishMin: number;
  readonly lateMin: number;
  readonly outOfHours: number;
  readonly heatWh: number;
  readonly moved: number;
  readonly total: number;
}

/** Beyond anything a placed lot may cost. */
export const NO_PLACE = 1e9;

/** What a lot costs where it stands. One without a place counts as done at the horizon. */
export function lotCost(c: Compiled, schedule: Schedule, lot: number): LotCost {
  const { lots, weights, horizonMin } = c.problem;
  const dueMin = lots[lot]?.dueMin ?? Infinity;
  let finishMin = 0;
  let outOfHours = 0;
  let heatWh = 0;
  let moved = 0;
  for (const n of c.lotSteps[lot] ?? []) {
    const stands = schedule.stands[n];
    const s = c.steps[n];
    if (!stands || !s) continue;
    finishMin = Math.max(finishMin, stands.endMin);
    outOfHours += stands.outOfHours;
    heatWh += stands.way.heatWh;
    if (!s.step.fixed && liesElsewhere(c, s, stands.startMin, stands.way)) moved += 1;
  }
  const isPlaced = (schedule.cursor[lot] ?? 0) === (c.queues[lot]?.length ?? 0);
  if (!isPlaced) finishMin = Math.max(finishMin, horizonMin);
  const lateMin = Math.max(0, finishMin - dueMin);
  const total =
    lateMin * weights.late +
    finishMin * weights.finish +
    outOfHours * weights.outOfHours +
    (heatWh / 1000) * weights.heatKwh +
    moved * weights.moved +
    (isPlaced ? 0 : NO_PLACE);
  return { finishMin, lateMin, outOfHours, heatWh, moved, total };
}

/** Whether a step that stood in the accepted plan begins at another moment, or with other things. */
export function liesElsewhere(c: Compiled, s: CompiledStep, startMin: number, way: Way): boolean {
  if (!s.previous) return false;
  return s.previous.startMin !== startMin || isOtherWay(c, s, way);
}

/** Whether a step takes other things than in the accepted plan. */
export const isOtherWay = (c: Compiled, s: CompiledStep, way: Way): boolean =>
  way.needs.some((thing, i) => c.problem.resources[thing]?.id !== s.previous?.resourceIds[i]) ||
  way.holds.some((thing, i) => s.previousHolds[i] !== -1 && s.previousHolds[i] !== thing);
