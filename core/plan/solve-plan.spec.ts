import { describe, expect, it } from 'vitest';
import { checkPlan } from './check-plan';
import type { PlanAnswer } from './plan-answer';
import { aLot, aProblem, aStep, DAY, onBurner } from './plan.fixture';
import type { PlacedStep, PlanProblem } from './plan-problem';
import { problemFault } from './problem-fault';
import { solvePlan } from './solve-plan';

const solve = (problem: PlanProblem, rounds = 400): PlanAnswer => {
  expect(problemFault(problem)).toBeUndefined();
  const plan = solvePlan(problem, { seed: 1, rounds });
  expect(checkPlan(problem, plan)).toEqual([]);
  return plan;
};
const at = (plan: PlanAnswer, id: string): PlacedStep => {
  const found = plan.placed.find((p) => p.stepId === id);
  if (!found) throw new Error(`${id} has no place`);
  return found;
};

describe('placing one lot', () => {
  it('begins when hands are there, goes on alone overnight, and is taken out when hands are there again', () => {
    const plan = solve(aProblem([aLot('a', [aStep('steep', { beginHandsMin: 30, aloneMin: 720, endHandsMin: 15 })])]));
    expect(at(plan, 'steep')).toMatchObject({ startMin: 480, aloneFromMin: 510, aloneToMin: 1230, endMin: 1245 });
    expect([plan.cost.outOfHours, plan.proven]).toEqual([1, false]);
  });
  it('doesn’t send anybody in at night for less than it is worth', () => {
    const lots = [aLot('a', [aStep('steep', { beginHandsMin: 30, aloneMin: 720, endHandsMin: 15 })])];
    const dear = solve(aProblem(lots, { weights: { ...aProblem([]).weights, outOfHours: 5000 } }));
    expect([dear.cost.outOfHours, at(dear, 'steep').endMin]).toEqual([0, DAY + 495]);
  });
  it('leaves nothing on the fire in a closed house', () => {
    const simmer = aStep('simmer', {
      beginHandsMin: 10,
      aloneMin: 300,
      aloneMaxMin: 330,
      overnight: false,
      needs: [onBurner],
    });
    const plan = solve(aProblem([aLot('a', [aStep('wet', { aloneMin: 900 }), simmer])]));
    expect(at(plan, 'simmer').aloneFromMin).toBe(DAY + 490);
  });
  it('begins later what may not be left long, rather than leave it too long', () => {
    const hot = aStep('hot', { beginHandsMin: 10, aloneMin: 60, aloneMaxMin: 90, endHandsMin: 10, overnight: true });
    const lateHour = aProblem([aLot('a', [{ ...hot, notBeforeMin: 1000 }])], {
      people: [{ ...(aProblem([]).people[0] as PlanProblem['people'][number]), evenings: [] }],
    });
    expect(at(solve(lateHour), 'hot').startMin).toBe(DAY + 480);
  });
  it('makes an earlier step later where what follows may not wait so long', () => {
    const [make, use] = [
      aStep('make', { beginHandsMin: 20, aloneMin: 60 }),
      aStep('use', { beginHandsMin: 20, notBeforeMin: 2 * DAY, after: [{ stepId: 'make', minMin: 0, maxMin: 120 }] }),
    ];
    const plan = solve(aProblem([aLot('a', [make, use])]));
    expect(at(plan, 'use').startMin).toBe(2 * DAY + 480);
    expect(at(plan, 'use').startMin - at(plan, 'make').endMin).toBeLessThanOrEqual(120);
  });
  it('leaves a watched step to the same hands all the while', () => {
    const plan = solve(aProblem([aLot('a', [aStep('stir', { beginHandsMin: 5, aloneMin: 40, watched: true })])]));
    expect(at(plan, 'stir')).toMatchObject({ startMin: 480, endMin: 525, beginBy: 'wenna', endBy: 'wenna' });
  });
  it('takes the burner that is quicker, and the weaker one where the quick one is out of order', () => {
    const strong = { resourceId: 'burner', extraMin: 0, heatWh: 500 };
    const weak = { resourceId: 'plate', extraMin: 90, heatWh: 500 };
    const dye = aStep('dye', { beginHandsMin: 10, aloneMin: 60, needs: [{ amount: 1, options: [strong, weak] }] });
    const resources = [
      ...aProblem([]).resources,
      { id: 'plate', name: 'Plate', kind: 'heat' as const, capacity: 1, out: [] },
    ];
    const fine = solve(aProblem([aLot('a', [dye])], { resources }));
    expect([at(fine, 'dye').resourceIds, at(fine, 'dye').endMin]).toEqual([['burner'], 550]);
    const broken = resources.map((r) => (r.id === 'burner' ? { ...r, out: [[0, 3 * DAY] as const] } : r));
    const weakly = solve(aProblem([aLot('a', [dye])], { resources: broken }));
    expect([at(weakly, 'dye').resourceIds, at(weakly, 'dye').endMin]).toEqual([['plate'], 640]);
  });
});

describe('placing several', () => {
  const dye = (id: string, minutes: number): ReturnType<typeof aStep> =>
    aStep(id, { beginHandsMin: 10, aloneMin: minutes, endHandsMin: 10 });
  it('holds a pot from its filling to its emptying, nights and waits between', () => {
    const two = [
      aLot('a', [dye('a1', 60), aStep('a2', { aloneMin: 600 }), dye('a3', 30)], ['pot']),
      aLot('b', [dye('b1', 60)], ['pot']),
    ];
    const plan = solve(aProblem(two));
    const [a, b] = ['a pot', 'b pot'].map((id) => plan.holds.find((h) => h.holdId === id));
    expect((b?.toMin ?? 0) <= (a?.fromMin ?? 0) || (a?.toMin ?? 0) <= (b?.fromMin ?? 0)).toBe(true);
  });
  it('keeps promises before anything else, though others are done later for it', () => {
    const plan = solve(
      aProblem([aLot('short', [dye('s', 60)], ['pot']), aLot('promised', [dye('p', 300)], ['pot'], 480 + 320)]),
    );
    expect(plan.cost.lateMin).toBe(0);
    expect(at(plan, 'p').startMin).toBe(480);
  });
  it('says which step found no place, and by how much a lot is late', () => {
    const plan = solve(
      aProblem([aLot('a', [dye('a', 60)], ['pot'], 500), aLot('b', [dye('long', 5 * DAY - 600)], ['pot'])]),
    );
    expect(plan.lots.find((l) => l.lotId === 'a')?.lateMin).toBe(480 + 80 - 500);
    expect(plan.unplaced).toEqual([{ lotId: 'b', stepId: 'long' }]);
  });
  it('leaves facts where they are, and plans round them', () => {
    const fact: PlacedStep = {
      stepId: 'a',
      startMin: -30,
      aloneFromMin: -20,
      aloneToMin: 700,
      endMin: 710,
      beginBy: 'wenna',
      endBy: 'wenna',
      resourceIds: [],
    };
    const running = { ...aLot('a', [{ ...dye('a', 60), fixed: fact }], ['pot']) };
    const plan = solve(aProblem([running, aLot('b', [dye('b', 60)], ['pot'])]));
    expect(at(plan, 'a')).toEqual(fact);
    expect(at(plan, 'b').startMin).toBe(710);
  });
});

describe('planning anew', () => {
  const lots = ['a', 'b', 'c', 'd'].map((id) =>
    aLot(
      id,
      [
        aStep(`${id}1`, { beginHandsMin: 20, aloneMin: 200, endHandsMin: 10 }),
        aStep(`${id}2`, { beginHandsMin: 20, aloneMin: 120, aloneMaxMin: 180, overnight: false, needs: [onBurner] }),
      ],
      ['pot'],
    ),
  );
  const first = solve(aProblem(lots), 2000);
  const standing = (problem: PlanProblem): PlanProblem => ({
    ...problem,
    previous: first.placed,
    previousHolds: first.holds,
  });
  it('moves nothing where nothing changed', () => {
    const again = solve(standing(aProblem(lots)));
    expect([again.placed, again.cost.moved]).toEqual([first.placed, 0]);
  });
  it('moves what can’t stay, and what comes before it not at all', () => {
    const order = [...lots].sort((x, y) => at(first, `${x.id}1`).startMin - at(first, `${y.id}1`).startMin);
    const last = order.at(-1)?.id ?? '';
    const outFrom = at(first, `${last}2`).startMin;
    const broken = aProblem(lots).resources.map((r) =>
      r.id === 'burner' ? { ...r, out: [[outFrom, outFrom + 700] as const] } : r,
    );
    const again = solve(standing(aProblem(lots, { resources: broken })));
    const moved = again.placed.filter((p) => p.startMin !== at(first, p.stepId).startMin).map((p) => p.stepId);
    expect(moved).toContain(`${last}2`);
    expect(moved.every((id) => id.startsWith(last))).toBe(true);
  });
});
