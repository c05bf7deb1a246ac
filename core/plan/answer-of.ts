import type { Compiled } from './compile-problem';
import { lotCost } from './lot-cost';
import type { PlacedHold, PlanAnswer, PlanCost } from './plan-answer';
import type { PlacedStep } from './plan-problem';
import type { Schedule } from './schedule';

/** What stands, by the problem's own names. */
export function answerOf(c: Compiled, schedule: Schedule, bound: number, rounds: number): PlanAnswer {
  const { people, resources, lots } = c.problem;
  const placed = c.steps.flatMap(({ step }, n): PlacedStep[] => {
    const s = schedule.stands[n];
    if (!s) return [];
    return [
      {
        stepId: step.id,
        startMin: s.startMin,
        aloneFromMin: s.aloneFromMin,
        aloneToMin: s.aloneToMin,
        endMin: s.endMin,
        beginBy: people[s.beginBy ?? -1]?.id ?? null,
        endBy: people[s.endBy ?? -1]?.id ?? null,
        resourceIds: s.way.needs.map((thing) => resources[thing]?.id ?? ''),
      },
    ];
  });
  const holds = c.holds.flatMap(({ hold, from }, h): PlacedHold[] => {
    const thing = schedule.holdOn[h];
    const began = schedule.stands[from];
    if (thing === undefined || !began) return [];
    return [
      {
        holdId: hold.id,
        resourceId: resources[thing]?.id ?? '',
        fromMin: began.startMin,
        toMin: schedule.heldUntil(h),
      },
    ];
  });
  const costs = lots.map((_, i) => lotCost(c, schedule, i));
  const unplaced = lots.flatMap((lot, i) => {
    const stuck = schedule.stuck[i];
    return stuck === undefined ? [] : [{ lotId: lot.id, stepId: c.steps[stuck]?.step.id ?? '' }];
  });
  const over = (of: (cost: (typeof costs)[number]) => number): number => costs.reduce((sum, cost) => sum + of(cost), 0);
  const cost: PlanCost = {
    lateMin: over((x) => x.lateMin),
    finishMin: over((x) => x.finishMin),
    outOfHours: over((x) => x.outOfHours),
    heatWh: over((x) => x.heatWh),
    moved: over((x) => x.moved),
    total: over((x) => x.total),
  };
  return {
    format: 'vestigia-plan',
    version: 1,
    placed,
    holds,
    lots: lots.map((lot, i) => ({
      lotId: lot.id,
      finishMin: costs[i]?.finishMin ?? 0,
      lateMin: costs[i]?.lateMin ?? 0,
    })),
    unplaced,
    cost,
    bound,
    rounds,
    proven: unplaced.length === 0 && cost.total <= bound + 1e-6,
  };
}
