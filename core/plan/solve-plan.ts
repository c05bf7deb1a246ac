import { Chance } from '../quantity/chance';
import type { PlacedHold, PlanAnswer, PlanCost } from './plan-answer';
import type { Compiled } from './compile-problem';
import { compileProblem } from './compile-problem';
import { lotCost, NO_PLACE } from './lot-cost';
import { earliestDone, planBound } from './plan-bound';
import type { PlacedStep, PlanProblem } from './plan-problem';
import type { Choices } from './schedule';
import { Schedule } from './schedule';
import type { Evenings } from './step-fit';
import { EVENING_BEGINS, EVENING_ENDS } from './step-fit';

/** How long to look for a plan, and whom to tell. */
export interface SolveAsked {
  /** The same seed gives the same plan after as many rounds. */
  readonly seed: number;
  /** Plans looked at, at most. */
  readonly rounds: number;
  /** Asked between rounds; `false` ends it with the best so far. */
  readonly goOn?: (() => boolean) | undefined;
  /** Told of each better plan. */
  readonly onBetter?: ((best: PlanAnswer) => void) | undefined;
}

const ALL_EVENINGS = EVENING_BEGINS + EVENING_ENDS;
/** Lots taken out and put back at once, at most. */
const MOST_LOTS_OUT = 6;
/** At first a plan this much dearer, as a share, is gone on from now and then; later none is. */
const WARMTH = 0.02;
/** So many rounds without a better one, and the search goes back to the best. */
const BACK_AFTER = 400;

/**
 * Places all lots so that promises are met first, then lots are done early, by the problem's weights.
 *
 * A first plan places lot after lot where each step fits earliest; of several orders the best is kept. Then, round by
 * round, some lots are taken out and put back in another order, or step by step between one another, now and then with
 * an evening, another burner or other hands (large neighbourhood search: Shaw 1998; acceptance as in simulated
 * annealing: Kirkpatrick, Gelatt and Vecchi 1983; serial placing with steps moved on for longest waits: Neumann,
 * Schwindt and Zimmermann 2003).
 * @param problem one that `problemFault` finds nothing wrong with
 */
export function solvePlan(problem: PlanProblem, asked: SolveAsked): PlanAnswer {
  return new Search(compileProblem(problem), asked).run();
}

class Search {
  private readonly chance: Chance;
  private readonly lots: readonly number[];
  private readonly bound: number;
  /** There is an accepted plan, and as much of it stays as can. */
  private readonly stays: boolean;
  /** Lots that don't stand where the accepted plan has them. */
  private unsettled: readonly number[] = [];
  private choices: Choices;
  private schedule: Schedule;
  private costs: number[];
  private best: PlanAnswer | undefined;
  private rounds = 0;

  constructor(
    private readonly c: Compiled,
    private readonly asked: SolveAsked,
  ) {
    this.chance = new Chance(asked.seed);
    this.lots = c.queues.flatMap((q, lot) => (q.length > 0 ? [lot] : []));
    this.bound = planBound(c);
    this.stays = c.problem.previous.length > 0;
    this.choices = this.freshChoices(0);
    this.schedule = new Schedule(c, this.choices);
    this.costs = [];
  }

  run(): PlanAnswer {
    this.begin();
    let atBest = 0;
    let kept = this.keepAll();
    while (this.hasWork() && this.rounds < this.asked.rounds && !this.isProven() && (this.asked.goOn?.() ?? true)) {
      const before = this.total();
      const improved = this.round(before);
      if (improved) {
        atBest = this.rounds;
        kept = this.keepAll();
      } else if (this.rounds - atBest > BACK_AFTER) {
        kept();
        atBest = this.rounds;
      }
    }
    return { ...(this.best ?? this.answer()), rounds: this.rounds };
  }

  private hasWork(): boolean {
    return this.stays ? this.unsettled.length > 0 : this.lots.length > 0;
  }

  /** Several orders of lots, one after another; the best is gone on from. */
  private begin(): void {
    const { problem } = this.c;
    const alone = this.lots.map((lot) => earliestDone(this.c, lot));
    const begun = (lot: number): number => (this.c.lotSteps[lot]?.length === this.c.queues[lot]?.length ? 1 : 0);
    const due = (lot: number): number => problem.lots[lot]?.dueMin ?? Infinity;
    const slack = (lot: number): number => due(lot) - (alone[this.lots.indexOf(lot)] ?? 0);
    const stood = (lot: number): number =>
      Math.min(...(this.c.lotSteps[lot] ?? []).map((n) => this.c.steps[n]?.previous?.startMin ?? Infinity));
    const length = (lot: number): number => alone[this.lots.indexOf(lot)] ?? 0;
    const inOrderOf = (...keys: ((lot: number) => number)[]): number[] =>
      [...this.lots].sort((a, b) => {
        for (const key of [begun, ...keys]) {
          const [x, y] = [key(a), key(b)];
          if (x !== y) return x - y;
        }
        return a - b;
      });
    const orders = [
      inOrderOf(stood, due),
      inOrderOf(due, length),
      inOrderOf(slack),
      inOrderOf(length),
      inOrderOf((lot) => -length(lot)),
    ];
    for (const evenings of [ALL_EVENINGS, 0])
      for (const order of orders) {
        this.beginWith(order, evenings);
        if (this.stays || !(this.asked.goOn?.() ?? true)) return;
      }
  }

  /** Lot after lot; those of an accepted plan first where they stood, as far as they still can. */
  private beginWith(order: readonly number[], evenings: Evenings): void {
    const choices = this.freshChoices(evenings);
    const schedule = new Schedule(this.c, choices);
    const left = this.stays ? order.filter((lot) => !schedule.placeAsBefore(lot)) : order;
    for (const lot of left) schedule.placeLot(lot);
    const costs = this.c.queues.map((_, lot) => lotCost(this.c, schedule, lot).total);
    this.rounds += 1;
    if (this.best && sum(costs) >= this.best.cost.total) return;
    [this.choices, this.schedule, this.costs] = [choices, schedule, costs];
    this.unsettled = this.stays ? left : this.lots;
    this.tell();
  }

  private round(before: number): boolean {
    this.rounds += 1;
    const out = this.chooseLots();
    const were = out.map((lot) => this.schedule.remember(lot));
    const choices = out.map((lot) => this.rememberChoices(lot));
    for (const lot of out) this.schedule.clear(lot);
    for (const lot of out) this.changeChoices(lot);
    this.place(out);
    const costs = [...this.costs];
    for (const lot of out) costs[lot] = lotCost(this.c, this.schedule, lot).total;
    const after = sum(costs);
    const left = 1 - this.rounds / this.asked.rounds;
    const allowed = before + before * WARMTH * left * left * this.chance.next() ** 3;
    if (after < before || (after <= allowed && after < NO_PLACE)) {
      this.costs = costs;
      if (after < (this.best?.cost.total ?? Infinity)) {
        this.tell();
        return true;
      }
      return false;
    }
    for (const lot of out) this.schedule.clear(lot);
    out.forEach((lot, i) => {
      this.bringChoicesBack(lot, choices[i] ?? []);
      const was = were[i];
      if (was) this.schedule.putBack(lot, was);
    });
    return false;
  }

  /** Some at random, some that lie near one of them in time, and late ones more often than others. */
  private chooseLots(): number[] {
    // What was settled is only touched where what is not finds no other way.
    const settledToo = !this.stays || this.unsettled.length === 0 || (this.isPressed() && this.chance.next() < 0.2);
    const lots = settledToo ? this.lots : this.unsettled;
    const many = lots.length;
    const out = 1 + Math.floor(this.chance.next() * Math.min(MOST_LOTS_OUT, many));
    const pick = (): number => lots[Math.floor(this.chance.next() * many)] ?? 0;
    const first = this.chance.next() < 0.5 ? pick() : this.costliest(pick);
    const chosen = new Set([first]);
    const near = this.chance.next() < 0.6;
    while (chosen.size < out) {
      const [a, b] = [pick(), pick()];
      if (!near) chosen.add(a);
      else chosen.add(this.apart(first, a) < this.apart(first, b) ? a : b);
    }
    return this.shuffle([...chosen]);
  }

  /** Some lot is late, or has no place. */
  private isPressed(): boolean {
    return (this.best?.cost.lateMin ?? 0) > 0 || (this.best?.unplaced.length ?? 0) > 0;
  }

  private costliest(pick: () => number): number {
    const some = [pick(), pick(), pick()];
    return some.reduce((a, b) => ((this.costs[a] ?? 0) >= (this.costs[b] ?? 0) ? a : b));
  }

  private apart(a: number, b: number): number {
    const middle = (lot: number): number => {
      const own = this.c.lotSteps[lot] ?? [];
      const from = this.schedule.stands[own[0] ?? -1]?.startMin ?? 0;
      return (from + (this.schedule.stands[own.at(-1) ?? -1]?.endMin ?? 0)) / 2;
    };
    return Math.abs(middle(a) - middle(b));
  }

  /** One after another; or step by step, so that each gives way to the others somewhere. */
  private place(out: readonly number[]): void {
    if (this.chance.next() < 0.5) {
      for (const lot of out) this.schedule.placeLot(lot);
      return;
    }
    const turns = this.shuffle(out.flatMap((lot) => (this.c.queues[lot] ?? []).map(() => lot)));
    for (const lot of turns) this.schedule.placeNext(lot);
  }

  private changeChoices(lot: number): void {
    const kind = this.chance.next();
    const rate = this.chance.next() < 0.5 ? 0.1 : 0.4;
    const evening = Math.floor(this.chance.next() * (ALL_EVENINGS + 1));
    for (const n of this.c.queues[lot] ?? []) {
      const s = this.c.steps[n];
      if (!s) continue;
      if (kind < 0.25) this.choices.evenings[n] = evening;
      else if (kind < 0.4 && this.chance.next() < rate)
        this.choices.evenings[n] = Math.floor(this.chance.next() * (ALL_EVENINGS + 1));
      if (this.chance.next() < rate / 2 && s.ways.length > 1)
        this.choices.way[n] = Math.floor(this.chance.next() * (s.ways.length + 1)) - 1;
      if (this.chance.next() < rate / 2 && s.people.length > 1) {
        const who = Math.floor(this.chance.next() * (s.people.length + 1)) - 1;
        this.choices.who[n] = s.people[who] ?? -1;
      }
      if (s.previous && kind > 0.8) this.choices.keep[n] = this.chance.next() < 0.5;
    }
  }

  private freshChoices(evenings: Evenings): Choices {
    return {
      evenings: this.c.steps.map(() => evenings),
      way: this.c.steps.map(() => -1),
      who: this.c.steps.map(() => -1),
      keep: this.c.steps.map(() => true),
    };
  }

  private rememberChoices(lot: number): readonly ChosenForStep[] {
    return (this.c.queues[lot] ?? []).map((n) => ({
      n,
      evenings: this.choices.evenings[n] ?? 0,
      way: this.choices.way[n] ?? -1,
      who: this.choices.who[n] ?? -1,
      keep: this.choices.keep[n] ?? true,
    }));
  }

  private bringChoicesBack(lot: number, were: readonly ChosenForStep[]): void {
    for (const { n, evenings, way, who, keep } of were) {
      this.choices.evenings[n] = evenings;
      this.choices.way[n] = way;
      this.choices.who[n] = who;
      this.choices.keep[n] = keep;
    }
  }

  private keepAll(): () => void {
    const were = this.lots.map((lot) => ({
      lot,
      was: this.schedule.remember(lot),
      choices: this.rememberChoices(lot),
    }));
    const costs = [...this.costs];
    return () => {
      for (const { lot } of were) this.schedule.clear(lot);
      for (const { lot, was, choices } of were) {
        this.bringChoicesBack(lot, choices);
        this.schedule.putBack(lot, was);
      }
      this.costs = costs;
    };
  }

  private shuffle(all: number[]): number[] {
    for (let i = all.length - 1; i > 0; i -= 1) {
      const j = Math.floor(this.chance.next() * (i + 1));
      [all[i], all[j]] = [all[j] ?? 0, all[i] ?? 0];
    }
    return all;
  }

  private total(): number {
    return sum(this.costs);
  }

  private isProven(): boolean {
    return (this.best?.cost.total ?? Infinity) <= this.bound + 1e-6;
  }

  private tell(): void {
    this.best = this.answer();
    this.asked.onBetter?.(this.best);
  }

  private answer(): PlanAnswer {
    return answerOf(this.c, this.schedule, this.bound, this.rounds);
  }
}

interface ChosenForStep {
  readonly n: number;
  readonly evenings: Evenings;
  readonly way: number;
  readonly who: number;
  readonly keep: boolean;
}

const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);

/** What stands, by the problem's own names. */
function answerOf(c: Compiled, schedule: Schedule, bound: number, rounds: number): PlanAnswer {
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
  const over = (of: (cost: (typeof costs)[number]) => number): number => sum(costs.map(of));
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
