import type { PlanLot, PlanProblem, PlanStep } from './plan-problem';
import { PLAN_WEIGHTS } from './plan-problem';

export const DAY = 1440;

/** A step with nothing said of it but what a test says. */
export const aStep = (id: string, said: Partial<PlanStep> = {}): PlanStep => ({
  id,
  title: id,
  beginHandsMin: 0,
  aloneMin: 0,
  aloneMaxMin: null,
  endHandsMin: 0,
  watched: false,
  overnight: true,
  hazards: [],
  needs: [],
  after: [],
  notBeforeMin: 0,
  notAfterMin: null,
  fixed: null,
  ...said,
});

/** A lot whose steps follow one another, with pots held over all of them. */
export function aLot(
  id: string,
  steps: readonly PlanStep[],
  pots: readonly string[] = [],
  dueMin: number | null = null,
): PlanLot {
  return {
    id,
    name: id,
    dueMin,
    steps: steps.map((s, i) => {
      const before = steps[i - 1];
      return s.after.length > 0 || !before ? s : { ...s, after: [{ stepId: before.id, minMin: 0, maxMin: null }] };
    }),
    holds:
      pots.length === 0
        ? []
        : [
            {
              id: `${id} pot`,
              resourceIds: pots,
              amount: 1,
              fromStepId: steps[0]?.id ?? '',
              toStepId: steps.at(-1)?.id ?? '',
              fixedTo: null,
            },
          ],
  };
}

/** Five days, open from eight to six, one person from eight to five who comes in until ten, one pot, one burner. */
export function aProblem(lots: readonly PlanLot[], said: Partial<PlanProblem> = {}): PlanProblem {
  const days = [0, 1, 2, 3, 4];
  return {
    format: 'vestigia-plan-problem',
    version: 1,
    origin: '2026-06-01T00:00:00.000Z',
    horizonMin: 5 * DAY,
    open: days.map((d) => [d * DAY + 480, d * DAY + 1080] as const),
    people: [
      {
        id: 'wenna',
        name: 'Wenna',
        hours: days.map((d) => [d * DAY + 480, d * DAY + 1020] as const),
        evenings: days.map((d) => [d * DAY + 1020, d * DAY + 1320] as const),
        may: [],
      },
    ],
    resources: [
      { id: 'pot', name: 'Pot', kind: 'vessel', capacity: 1, out: [] },
      { id: 'burner', name: 'Burner', kind: 'heat', capacity: 1, out: [] },
    ],
    lots,
    weights: PLAN_WEIGHTS,
    previous: [],
    previousHolds: [],
    ...said,
  };
}

export const onBurner = { amount: 1, options: [{ resourceId: 'burner', extraMin: 0, heatWh: 500 }] };
