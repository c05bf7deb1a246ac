import { orderChain } from '../recipe/chain';
import type { RecipeStep } from '../recipe/recipe-step';
import type { BathOfSteps } from './collect-baths';

/** Steps that have to wait for others beyond what the recipe says: by place in the recipe, those they wait for. */
export type ExtraWaits = ReadonlyMap<number, readonly number[]>;

/** Two baths one after the other. */
export interface Turn {
  readonly first: BathOfSteps;
  readonly second: BathOfSteps;
}

/** Which baths of a chain can be in use at the same time, and which wait for which. */
export interface BathOrder {
  /** Whether the two may be in use at the same time: neither is wholly over before the other begins. */
  readonly overlap: (a: BathOfSteps, b: BathOfSteps) => boolean;
  /** Whether one of the two could wait until the other is over. */
  readonly canTakeTurns: (a: BathOfSteps, b: BathOfSteps) => boolean;
  /** Lets one wait until the other is over, the earlier written first; `undefined` where neither can. */
  readonly putInTurn: (a: BathOfSteps, b: BathOfSteps) => Turn | undefined;
  /** What was put in turn so far. */
  readonly waits: () => ExtraWaits;
}

/** The order of the baths of a chain that has no fault. Steps are known by their place in the recipe. */
export function orderBaths(steps: readonly RecipeStep[]): BathOrder {
  const chain = orderChain(steps);
  const after = chain.ok ? chain.after.map((before) => [...before]) : steps.map(() => []);
  const waits = new Map<number, number[]>();
  let before = reachOf(after);

  const isBefore = (a: number, b: number): boolean => before[b]?.has(a) === true;
  const isOverBefore = (a: BathOfSteps, b: BathOfSteps): boolean =>
    a.liquorIndexes.every((i) => b.liquorIndexes.every((j) => isBefore(i, j)));
  const mayGoFirst = (first: BathOfSteps, second: BathOfSteps): boolean =>
    !first.liquorIndexes.some((i) => second.liquorIndexes.some((j) => isBefore(j, i)));
  const turnsOf = (a: BathOfSteps, b: BathOfSteps): Turn | undefined => {
    const [early, late] = Math.min(...a.liquorIndexes) <= Math.min(...b.liquorIndexes) ? [a, b] : [b, a];
    if (mayGoFirst(early, late)) return { first: early, second: late };
    return mayGoFirst(late, early) ? { first: late, second: early } : undefined;
  };
  const letWait = ({ first, second }: Turn): void => {
    const begins = second.liquorIndexes.filter((j) => !second.liquorIndexes.some((i) => isBefore(i, j)));
    for (const j of begins) {
      after[j]?.push(...first.liquorIndexes);
      waits.set(j, [...(waits.get(j) ?? []), ...first.liquorIndexes]);
    }
    before = reachOf(after);
  };
  return {
    overlap: (a, b) => a.liquor !== b.liquor && !isOverBefore(a, b) && !isOverBefore(b, a),
    canTakeTurns: (a, b) => turnsOf(a, b) !== undefined,
    putInTurn: (a, b) => {
      const turn = turnsOf(a, b);
      if (turn) letWait(turn);
      return turn;
    },
    waits: () => waits,
  };
}

/** For every step, all that come before it. Given what each follows, without circles. */
function reachOf(after: readonly (readonly number[])[]): Set<number>[] {
  const found: (Set<number> | undefined)[] = [];
  const beforeOf = (step: number): Set<number> => {
    const known = found[step];
    if (known) return known;
    const all = new Set<number>();
    for (const previous of after[step] ?? []) {
      all.add(previous);
      for (const earlier of beforeOf(previous)) all.add(earlier);
    }
    found[step] = all;
    return all;
  };
  return after.map((_, step) => beforeOf(step));
}
