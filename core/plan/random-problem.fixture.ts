import { Chance } from '../quantity/chance';
import type { PlanFollows, PlanHold, PlanLot, PlanNeed, PlanProblem, PlanStep, Span } from './plan-problem';
import { PLAN_WEIGHTS } from './plan-problem';

const DAY = 1440;

export interface RandomAsked {
  readonly lots: number;
  readonly stepsALot: number;
  readonly vessels: number;
  readonly burners: number;
  readonly people: number;
  readonly days: number;
  /** All times are multiples of it. */
  readonly gridMin: number;
  /** There is a line of so many places and one balance, and steps want them. */
  readonly linePlaces?: number;
}

/** A studio as one finds them, made up: days with hours and evenings, chains with pots held and fires, dates promised. */
export function randomProblem(seed: number, asked: RandomAsked): PlanProblem {
  const chance = new Chance(seed);
  const whole = (from: number, to: number): number => from + Math.floor(chance.next() * (to - from + 1));
  const often = (share: number): boolean => chance.next() < share;
  const grid = asked.gridMin;
  const round = (minutes: number): number => Math.max(grid, Math.round(minutes / grid) * grid);
  const days = Array.from({ length: asked.days }, (_, day) => day).filter((day) => asked.days < 7 || day % 7 !== 6);
  const spans = (fromH: number, toH: number, left: () => boolean = () => false): Span[] =>
    days.filter(() => !left()).map((day) => [day * DAY + fromH * 60, day * DAY + toH * 60]);
  const vessels = Array.from({ length: asked.vessels }, (_, i) => `pot ${i + 1}`);
  const burners = Array.from({ length: asked.burners }, (_, i) => `burner ${i + 1}`);

  /** One pot that alone will do, or two. */
  const somePots = (): string[] => {
    const first = whole(0, vessels.length - 1);
    const second = (first + 1) % vessels.length;
    return [...new Set([first, ...(often(0.5) ? [second] : [])])].map((i) => vessels[i] ?? '');
  };

  const lot = (l: number): PlanLot => {
    const id = (s: number): string => `${l + 1}.${s + 1}`;
    const steps = Array.from({ length: asked.stepsALot }, (_, s): PlanStep => {
      const hot = often(0.35);
      const watched = !hot && often(0.2);
      const aloneMin = watched ? round(whole(20, 60)) : hot ? round(whole(60, 120)) : round(whole(60, 14 * 60));
      const aloneMaxMin = hot ? aloneMin + round(30) : often(0.4) ? aloneMin + round(18 * 60) : null;
      const after: PlanFollows[] =
        s === 0
          ? []
          : [{ stepId: id(s - 1), minMin: often(0.2) ? round(120) : 0, maxMin: often(0.15) ? round(18 * 60) : null }];
      const needs: PlanNeed[] = hot
        ? [
            {
              amount: 1,
              options: burners.map((resourceId, i) => ({
                resourceId,
                extraMin: i === 0 ? 0 : round(30),
                heatWh: 600 + 200 * i,
              })),
            },
          ]
        : [];
      return {
        id: id(s),
        title: hot ? 'Simmer' : watched ? 'Stir' : 'Steep',
        beginHandsMin: watched || often(0.85) ? round(15) : 0,
        aloneMin,
        aloneMaxMin: watched ? aloneMin : aloneMaxMin,
        endHandsMin: often(0.6) ? round(10) : 0,
        watched,
        overnight: !hot,
        hazards: often(0.15) ? ['dust'] : [],
        needs,
        after,
        notBeforeMin: s === 0 && often(0.3) ? round(whole(0, asked.days * 200)) : 0,
        notAfterMin: null,
        fixed: null,
      };
    });
    const holds: PlanHold[] = [];
    for (let from = 0; from < steps.length;) {
      const to = Math.min(steps.length - 1, from + whole(0, 2));
      if (often(0.7))
        holds.push({
          id: `hold ${id(from)}`,
          resourceIds: somePots(),
          amount: 1,
          fromStepId: id(from),
          toStepId: id(to),
          fixedTo: null,
        });
      from = to + 1;
    }
    const dueMin = often(0.7) ? Math.round((asked.days * DAY * (0.25 + 0.6 * chance.next())) / grid) * grid : null;
    return { id: `lot ${l + 1}`, name: `Lot ${l + 1}`, dueMin, steps, holds };
  };

  const problem: PlanProblem = {
    format: 'vestigia-plan-problem',
    version: 1,
    origin: '2026-06-01T00:00:00.000Z',
    horizonMin: asked.days * DAY,
    open: spans(8, 18),
    people: Array.from({ length: asked.people }, (_, i) => ({
      id: `person ${i + 1}`,
      name: `Person ${i + 1}`,
      hours: spans(8 + (i % 2), 17 + (i % 2), () => asked.days > 7 && often(0.1)),
      evenings: i === 0 ? spans(19, 22) : [],
      may: i === 0 ? ['dust'] : [],
    })),
    resources: [
      ...vessels.map((id) => ({ id, name: id, kind: 'vessel' as const, capacity: 1, out: [] })),
      ...burners.map((id) => ({ id, name: id, kind: 'heat' as const, capacity: 1, out: [] })),
    ],
    lots: Array.from({ length: asked.lots }, (_, l) => lot(l)),
    weights: PLAN_WEIGHTS,
    previous: [],
    previousHolds: [],
  };
  return asked.linePlaces === undefined ? problem : withRoom(problem, seed, asked.linePlaces);
}

/** The same with a line and a balance: some cold steps hang on the one, most that are begun by hand weigh on the other. */
function withRoom(problem: PlanProblem, seed: number, linePlaces: number): PlanProblem {
  const chance = new Chance(seed + 1_000_003);
  const on = (resourceId: string, amount: number, onlyToBegin: boolean): PlanNeed => ({
    amount,
    options: [{ resourceId, extraMin: 0, heatWh: 0 }],
    onlyToBegin,
  });
  const wants = (s: PlanStep): PlanNeed[] => [
    ...(s.overnight && !s.watched && chance.next() < 0.4
      ? [on('line', 1 + Math.floor(chance.next() * linePlaces), false)]
      : []),
    ...(s.beginHandsMin > 0 && chance.next() < 0.7 ? [on('balance', 1, true)] : []),
  ];
  return {
    ...problem,
    resources: [
      ...problem.resources,
      { id: 'line', name: 'Drying line', kind: 'space', capacity: linePlaces, out: [] },
      { id: 'balance', name: 'Balance', kind: 'balance', capacity: 1, out: [] },
    ],
    lots: problem.lots.map((l) => ({ ...l, steps: l.steps.map((s) => ({ ...s, needs: [...s.needs, ...wants(s)] })) })),
  };
}
