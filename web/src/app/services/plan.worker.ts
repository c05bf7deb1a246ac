import '@angular/localize/init';
import type { HelpTried, LateLot, PlanFacts, PlanProblem, PlannedHouse, WantedPlace } from '@vestigia/core';
import { planHouse, whatWouldMakeIt } from '@vestigia/core';

/** What is to be planned, from which moment, and where somebody wants steps. */
export interface PlanAsk {
  readonly facts: PlanFacts;
  readonly origin: string;
  readonly wanted: readonly WantedPlace[];
}

/** Which lot is late, in which problem. */
export interface HelpAsk {
  readonly problem: PlanProblem;
  readonly late: LateLot;
}
/** What would let it be done by its day. */
export interface HelpTold {
  readonly helps: readonly HelpTried[];
}

/** A first plan, each better one, and then the best that was found. */
export interface PlanTold {
  readonly found: PlannedHouse;
  readonly isLast: boolean;
}

const SEED = 1;
/** So many plans are looked at for each open lot, and for no longer than that. */
const ROUNDS_A_LOT = 300;
const MOST_MS = 15_000;
/** Plans looked at for each thing that might help. */
const ROUNDS_A_HELP = 60;
/** A better plan is told no oftener: it is drawn for somebody to look at. */
const LEAST_BETWEEN_MS = 700;

addEventListener('message', ({ data }: MessageEvent<PlanAsk | HelpAsk>) => {
  if ('late' in data) {
    const helps = whatWouldMakeIt(data.problem, data.late, { seed: SEED, rounds: ROUNDS_A_HELP });
    postMessage({ helps } satisfies HelpTold);
    return;
  }
  const { facts, origin, wanted } = data;
  const began = performance.now();
  const tell = (rounds: number, isLast: boolean): void => {
    const goOn = (): boolean => performance.now() - began < MOST_MS;
    let toldMs = performance.now();
    const onBetter = (best: () => PlannedHouse): void => {
      if (!isLast || performance.now() - toldMs < LEAST_BETWEEN_MS) return;
      toldMs = performance.now();
      postMessage({ found: best(), isLast: false } satisfies PlanTold);
    };
    const found = planHouse(facts, { seed: SEED, rounds, goOn }, { origin, wanted, onBetter });
    postMessage({ found, isLast } satisfies PlanTold);
  };
  tell(1, false);
  tell(ROUNDS_A_LOT * Math.max(1, facts.lots.length), true);
});
