import { describe, expect, it } from 'vitest';
import { asOf, asSlipped } from './as-of.fixture';
import { checkPlan } from './check-plan';
import { compileProblem } from './compile-problem';
import { inTheWayAround, inTheWayBack } from './in-the-way';
import type { PlanAnswer } from './plan-answer';
import { aLot, aProblem, aStep, DAY, onBurner } from './plan.fixture';
import type { PlanProblem } from './plan-problem';
import { problemFault } from './problem-fault';
import { randomProblem } from './random-problem.fixture';
import { Schedule } from './schedule';
import { solvePlan } from './solve-plan';

const SEEDS = Array.from({ length: 30 }, (_, i) => i + 1);
const asked = { lots: 10, stepsALot: 7, vessels: 4, burners: 2, people: 2, days: 16, gridMin: 5 };

/** Plans in whose middle a step runs on for ten hours. */
const slips = SEEDS.flatMap((seed) => {
  const problem = randomProblem(seed, asked);
  if (problemFault(problem)) return [];
  const plan = solvePlan(problem, { seed: 1, rounds: 150 });
  const middleMin = 3 * DAY;
  const running = plan.placed.find((p) => p.startMin < middleMin && p.endMin > middleMin);
  if (!running || plan.unplaced.length > 0) return [];
  return [{ seed, plan, problem: asSlipped(problem, plan, running, 600) }];
});
const elsewhere = (plan: PlanAnswer, before: PlanAnswer): Set<string> => {
  const stood = new Map(before.placed.map((p) => [p.stepId, p.startMin]));
  return new Set(plan.placed.flatMap((p) => (p.startMin === stood.get(p.stepId) ? [] : [p.stepId])));
};

describe('after a step ran on', () => {
  it('has enough plans to be tried on', () => expect(slips.length).toBeGreaterThan(15));
  it('holds to every rule, and is never worse off for looking on', () => {
    for (const { problem } of slips) {
      const [first, mended] = [1, 200].map((rounds) => solvePlan(problem, { seed: 1, rounds }));
      expect(checkPlan(problem, mended as PlanAnswer)).toEqual([]);
      expect(mended?.cost.total).toBeLessThanOrEqual(first?.cost.total ?? -Infinity);
    }
  });
  it('moves few that could have stayed where nobody has to wait for it, and others only for a promise or a place', () => {
    let [could, moved] = [0, 0];
    const pressed = { lateMin: 0, unplaced: 0, mendedLateMin: 0, mendedUnplaced: 0 };
    for (const { problem, plan } of slips) {
      const [first, mended] = [1, 200].map((rounds) => solvePlan(problem, { seed: 1, rounds }));
      if (!first || !mended) continue;
      if (first.cost.lateMin > 0 || first.unplaced.length > 0) {
        pressed.lateMin += first.cost.lateMin;
        pressed.unplaced += first.unplaced.length;
        pressed.mendedLateMin += mended.cost.lateMin;
        pressed.mendedUnplaced += mended.unplaced.length;
        continue;
      }
      const hadTo = elsewhere(first, plan);
      const others = problem.lots
        .filter((l) => !l.steps.some((s) => hadTo.has(s.id)))
        .flatMap((l) => l.steps.filter((s) => !s.fixed));
      could += others.length;
      moved += others.filter((s) => elsewhere(mended, plan).has(s.id)).length;
    }
    expect(could).toBeGreaterThan(250);
    expect(moved / could).toBeLessThan(0.05);
    expect(pressed.unplaced).toBeGreaterThan(5);
    expect(pressed.mendedUnplaced).toBeLessThan(pressed.unplaced / 2);
    expect(pressed.mendedLateMin).toBeLessThan(pressed.lateMin / 2);
  });
});

describe('where others are in the way', () => {
  const wool = aLot(
    'wool',
    [
      aStep('mordant', { beginHandsMin: 10, aloneMin: 60 }),
      aStep('dye', {
        beginHandsMin: 10,
        aloneMin: 60,
        needs: [onBurner],
        after: [{ stepId: 'mordant', minMin: 0, maxMin: 120 }],
      }),
    ],
    [],
    DAY,
  );
  const simmer = (id: string, notBeforeMin: number): ReturnType<typeof aLot> =>
    aLot(id, [aStep(`${id} simmer`, { beginHandsMin: 10, aloneMin: 240, notBeforeMin, needs: [onBurner] })]);
  const lots = [wool, simmer('silk', 630), simmer('linen', 3 * DAY)];
  const before = solvePlan(aProblem(lots), { seed: 1, rounds: 200 });
  const at = (plan: PlanAnswer, id: string): number | undefined => plan.placed.find((p) => p.stepId === id)?.startMin;
  const now = (): PlanProblem => {
    const mordant = before.placed.find((p) => p.stepId === 'mordant');
    if (!mordant) throw new Error('nothing is mordanted');
    return asSlipped(aProblem(lots), before, mordant, 90);
  };

  it('lets a lot have a place that can’t wait, and moves nobody else', () => {
    expect(['mordant', 'dye', 'silk simmer'].map((id) => at(before, id))).toEqual([480, 550, 630]);
    // The mordant came out at 640, when the silk had the burner, and by noon the wool should be in its dye.
    const asItLies = solvePlan(now(), { seed: 1, rounds: 1 });
    expect(asItLies.unplaced.map((u) => u.lotId)).toEqual(['wool']);
    const mended = solvePlan(now(), { seed: 1, rounds: 60 });
    expect(mended.unplaced).toEqual([]);
    expect(at(mended, 'dye')).toBeLessThanOrEqual(640 + 120);
    expect(at(mended, 'silk simmer')).toBeGreaterThan(640);
    expect(at(mended, 'linen simmer')).toBe(at(before, 'linen simmer'));
  });
  it('knows who is in the way of a place, and who only of another', () => {
    const c = compileProblem(asOf(aProblem(lots), before, 0));
    const schedule = new Schedule(c, { evenings: [0, 0, 0, 0], way: [-1, -1, -1, -1], who: [], keep: [] });
    for (const lot of [1, 2]) schedule.placeLot(lot);
    expect(inTheWayBack(c, schedule, 0)).toEqual([]);
    // One more hour of simmering and the dye stands in front of the silk.
    expect(inTheWayAround(c, schedule, 1, 600, 60)).toEqual([1]);
    expect(inTheWayAround(c, schedule, 1, 3 * DAY + 500, 60)).toEqual([2]);
    expect(inTheWayAround(c, schedule, 1, 2 * DAY, 60)).toEqual([]);
    schedule.clear(1);
    schedule.placeLot(0);
    expect(inTheWayBack(c, schedule, 1)).toEqual([]);
  });
});
