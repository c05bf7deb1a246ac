import { describe, expect, it } from 'vitest';
import { asOf } from './as-of.fixture';
import { checkPlan } from './check-plan';
import type { PlanBreach } from './check-plan';
import type { PlanAnswer } from './plan-answer';
import type { PlacedStep, PlanLot, PlanNeed } from './plan-problem';
import { aLot, aProblem, aStep } from './plan.fixture';
import { problemFault } from './problem-fault';
import { randomProblem } from './random-problem.fixture';
import { solvePlan } from './solve-plan';

const SEEDS = Array.from({ length: 40 }, (_, i) => i + 1);
const asked = { lots: 5, stepsALot: 5, vessels: 3, burners: 1, people: 2, days: 8, gridMin: 5 };
const problems = SEEDS.map((seed) => randomProblem(seed, asked)).filter((p) => !problemFault(p));

describe('laws of a plan', () => {
  it('has enough problems to be tried on', () => expect(problems.length).toBeGreaterThan(30));
  it('uses nothing twice, breaks no order, touches nothing in closed hours and leaves nothing too long', () => {
    for (const problem of problems)
      expect(checkPlan(problem, solvePlan(problem, { seed: 3, rounds: 120 }))).toEqual([]);
  });
  it('hangs no more on a line than it holds, and weighs one thing at a time on a balance', () => {
    const crowded = SEEDS.map((seed) => randomProblem(seed, { ...asked, linePlaces: 3 })).filter(
      (p) => !problemFault(p),
    );
    expect(crowded.length).toBeGreaterThan(30);
    for (const problem of crowded) expect(checkPlan(problem, solvePlan(problem, { seed: 3, rounds: 60 }))).toEqual([]);
  });
  it('is the same for a seed, and never dearer for more rounds, nor cheaper than its bound', () => {
    for (const problem of problems.slice(0, 12)) {
      const [few, again, more] = [60, 60, 300].map((rounds) => solvePlan(problem, { seed: 5, rounds }));
      expect(few).toEqual(again);
      expect(more?.cost.total).toBeGreaterThanOrEqual((more?.bound ?? Infinity) - 1e-6);
      const [first] = [solvePlan(problem, { seed: 5, rounds: 1 })];
      expect(more?.cost.total).toBeLessThanOrEqual(first?.cost.total ?? -Infinity);
    }
  });
  it('holds to all of it when it is planned anew in the middle', () => {
    for (const problem of problems) {
      const before = solvePlan(problem, { seed: 1, rounds: 40 });
      if (before.unplaced.length > 0) continue;
      const later = asOf(problem, before, 2 * 1440 + 700);
      const after = solvePlan(later, { seed: 1, rounds: 40 });
      expect(checkPlan(later, after)).toEqual([]);
      expect(after.cost.moved).toBe(0);
    }
  });
});

describe('what holds a plan to the rules', () => {
  const problem = randomProblem(2, asked);
  const plan = solvePlan(problem, { seed: 1, rounds: 30 });
  const codes = (changed: PlanAnswer): PlanBreach['code'][] => checkPlan(problem, changed).map((b) => b.code);
  const change = (id: string, by: (p: PlacedStep) => PlacedStep): PlanAnswer => ({
    ...plan,
    placed: plan.placed.map((p) => (p.stepId === id ? by(p) : p)),
  });
  const all = problem.lots.flatMap((l) => l.steps);
  const pick = (what: (s: (typeof all)[number]) => boolean): string => {
    const found = all.find(what);
    if (!found) throw new Error('the problem has no such step');
    return found.id;
  };
  const shifted =
    (by: number) =>
    (p: PlacedStep): PlacedStep => ({
      ...p,
      startMin: p.startMin + by,
      aloneFromMin: p.aloneFromMin + by,
      aloneToMin: p.aloneToMin + by,
      endMin: p.endMin + by,
    });
  it('sees nothing wrong with it as it is', () => expect(codes(plan)).toEqual([]));
  it('sees a step missing, twice, and one nobody asked for', () => {
    const [one] = plan.placed;
    if (!one) throw new Error('empty');
    expect(codes({ ...plan, placed: plan.placed.slice(1) })).toContain('missing');
    expect(codes({ ...plan, placed: [...plan.placed, one] })).toContain('twice');
    expect(codes({ ...plan, placed: [...plan.placed, { ...one, stepId: 'nobody’s' }] })).toContain('unknown');
  });
  it('sees a step before the one it follows', () => {
    expect(
      codes(
        change(
          pick((s) => s.after.length > 0),
          (p) => shifted(-p.startMin)(p),
        ),
      ),
    ).toContain('order');
  });
  it('sees hands at night, hands missing and hands that may not', () => {
    const touched = pick((s) => s.beginHandsMin > 0 && !s.watched);
    expect(codes(change(touched, (p) => shifted(2 * 60 - (p.startMin % 1440) + 1440)(p)))).toContain('hours');
    expect(codes(change(touched, (p) => ({ ...p, beginBy: null })))).toContain('handsMissing');
    const dusty = pick((s) => s.hazards.length > 0 && s.beginHandsMin > 0);
    expect(codes(change(dusty, (p) => ({ ...p, beginBy: 'person 2' })))).toContain('mayNot');
  });
  it('sees a fire left in a closed house, and a step shorter than it takes', () => {
    const hot = pick((s) => !s.overnight);
    expect(codes(change(hot, (p) => ({ ...p, aloneToMin: p.aloneToMin + 1440, endMin: p.endMin + 1440 })))).toEqual(
      expect.arrayContaining(['closed', 'length']),
    );
    expect(codes(change(hot, (p) => ({ ...p, aloneToMin: p.aloneFromMin, endMin: p.aloneFromMin })))).toContain(
      'length',
    );
  });
  it('sees a line that is too full, and lets a balance go with the hands', () => {
    const weighs = { onlyToBegin: true, amount: 1, options: [{ resourceId: 'balance', extraMin: 0, heatWh: 0 }] };
    const dries = { amount: 2, options: [{ resourceId: 'line', extraMin: 0, heatWh: 0 }] };
    const there = (needs: PlanNeed[], id: string): PlanLot =>
      aLot(id, [aStep(id, { beginHandsMin: 10, aloneMin: 120, needs })]);
    const room = aProblem([there([weighs, dries], 'x'), there([weighs, dries], 'y')], {
      people: [...aProblem([]).people, ...aProblem([]).people.map((p) => ({ ...p, id: 'corin' }))],
      resources: [
        { id: 'line', name: 'Line', kind: 'space', capacity: 4, out: [] },
        { id: 'balance', name: 'Balance', kind: 'balance', capacity: 1, out: [] },
      ],
    });
    const begun = solvePlan(room, { seed: 1, rounds: 20 });
    expect(checkPlan(room, begun)).toEqual([]);
    // The second is weighed once the first has left the balance, and hangs beside it.
    expect(begun.placed.map((p) => p.startMin)).toEqual([480, 490]);
    const narrow = { ...room, resources: room.resources.map((r) => ({ ...r, capacity: r.id === 'line' ? 3 : 1 })) };
    expect(checkPlan(narrow, begun)).toMatchObject([{ code: 'capacity', resourceId: 'line', atMin: 490 }]);
    expect(checkPlan(narrow, solvePlan(narrow, { seed: 1, rounds: 20 }))).toEqual([]);
    const atOnce = { ...begun, placed: begun.placed.map((p) => ({ ...p, startMin: 480, aloneFromMin: 490 })) };
    expect(checkPlan(room, atOnce).map((b) => b.code)).toContain('capacity');
  });
  it('sees two steps on one burner, two touches of one hand, and a pot let go too soon', () => {
    const [x, y] = all.filter((s) => s.needs.length > 0);
    const there = plan.placed.find((p) => p.stepId === x?.id);
    if (!there || !y) throw new Error('the problem has no two hot steps');
    const both = codes(change(y.id, () => ({ ...there, stepId: y.id })));
    expect(both).toEqual(expect.arrayContaining(['capacity', 'twoHands']));
    expect(codes({ ...plan, holds: plan.holds.map((h) => ({ ...h, toMin: h.fromMin })) })).toContain('hold');
    expect(codes(change(y.id, (p) => ({ ...p, resourceIds: ['nothing'] })))).toContain('noSuchOption');
  });
});
