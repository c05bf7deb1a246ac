import { Chance } from '../quantity/chance';
import { answerOf } from './answer-of';
import type { PlanAnswer } from './plan-answer';
import type { Compiled } from './compile-problem';
import { compileProblem } from './compile-problem';
import { inTheWayAround, inTheWayBack } from './in-the-way';
import type { LotCost } from './lot-cost';
import { lotCost, NO_PLACE } from './lot-cost';
import { earliestDone, planBound } from './plan-bound';
import type { PlanProblem } from './plan-problem';
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
  /** Told of each better plan: it is written out when asked for, then and there. */
  readonly onBetter?: ((best: () => PlanAnswer) => void) | undefined;
}

const ALL_EVENINGS = EVENING_BEGINS + EVENING_ENDS;
/** Lots taken out and put back at once, at most. */
const MOST_LOTS_OUT = 6;
/** At first a plan this much dearer, as a share, is gone on from now and then; later none is. */
const WARMTH = 0.02;
/** How far around the place of a step that gives trouble others are looked for; doubled up to four times. */
const SMALLEST_MARGIN_MIN = 90;
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
  /** How late the accepted plan had each lot. */
  private readonly lateBefore: readonly number[];
  private choices: Choices;
  private schedule: Schedule;
  private costs: LotCost[];
  /** What the best plan cost, and how to stand as it did. */
  private best: { readonly total: number; readonly bringBack: () => void } | undefined;
  private rounds = 0;

  constructor(
    private readonly c: Compiled,
    private readonly asked: SolveAsked,
  ) {
    this.chance = new Chance(asked.seed);
    this.lots = c.queues.flatMap((q, lot) => (q.length > 0 ? [lot] : []));
    this.bound = planBound(c);
    this.stays = c.problem.previous.length > 0;
    this.lateBefore = c.problem.lots.map((lot, i) => lateBefore(c, i, lot.dueMin ?? Infinity));
    this.choices = this.freshChoices(0);
    this.schedule = new Schedule(c, this.choices);
    this.costs = [];
  }

  run(): PlanAnswer {
    this.begin();
    let atBest = 0;
    while (this.hasWork() && this.rounds < this.asked.rounds && !this.isProven() && (this.asked.goOn?.() ?? true)) {
      if (this.round()) atBest = this.rounds;
      else if (this.rounds - atBest > BACK_AFTER) {
        this.best?.bringBack();
        atBest = this.rounds;
      }
    }
    this.best?.bringBack();
    return this.answer();
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
    const costs = this.c.queues.map((_, lot) => lotCost(this.c, schedule, lot));
    this.rounds += 1;
    if (this.best && totalOf(costs) >= this.best.total) return;
    [this.choices, this.schedule, this.costs] = [choices, schedule, costs];
    this.unsettled = this.stays ? left : this.lots;
    this.tell();
  }

  /** @returns whether it found the best plan so far */
  private round(): boolean {
    this.rounds += 1;
    const before = totalOf(this.costs);
    const turn = this.chooseTurn();
    const { out } = turn;
    const were = out.map((lot) => this.schedule.remember(lot));
    const choices = out.map((lot) => this.rememberChoices(lot));
    for (const lot of out) this.schedule.clear(lot);
    turn.place();
    const costs = [...this.costs];
    for (const lot of out) costs[lot] = lotCost(this.c, this.schedule, lot);
    const after = totalOf(costs);
    if (after < before || (after <= before + this.allowed(before) && after < NO_PLACE)) {
      this.costs = costs;
      if (after < (this.best?.total ?? Infinity)) {
        this.tell();
        return true;
      }
      return false;
    }
    for (const lot of out) this.schedule.clear(lot);
    out.forEach((lot, i) => {
      const [chosen, was] = [choices[i], were[i]];
      if (chosen) this.bringChoicesBack(lot, chosen);
      if (was) this.schedule.putBack(lot, was);
    });
    return false;
  }

  /** How much dearer a plan may be and still be gone on from. What an accepted plan is moved for is always a gain. */
  private allowed(before: number): number {
    if (this.stays) return 0;
    const left = 1 - this.rounds / this.asked.rounds;
    return before * WARMTH * left * left * this.chance.next() ** 3;
  }

  private chooseTurn(): Turn {
    const chance = this.stays ? this.chance.next() : 1;
    const mended = chance < 0.8 ? this.chooseTroubled() : undefined;
    if (mended !== undefined) return chance < 0.4 ? this.goBack(mended) : this.giveWay(mended);
    const out = this.chooseLots();
    return {
      out,
      place: () => {
        for (const lot of out) this.changeChoices(lot);
        this.place(out);
      },
    };
  }

  /** A lot that is later than it was, has no place, or doesn't stand where it stood: worse ones more often. */
  private chooseTroubled(): number | undefined {
    const troubled = this.lots.filter((lot) => this.trouble(lot) > 0);
    if (troubled.length === 0) return undefined;
    const pick = (): number => troubled[this.below(troubled.length)] ?? 0;
    const some = this.chance.next() < 0.5 ? [pick()] : [pick(), pick(), pick()];
    return some.reduce((a, b) => (this.trouble(a) >= this.trouble(b) ? a : b));
  }

  private trouble(lot: number): number {
    const { late, moved } = this.c.problem.weights;
    const cost = this.costs[lot];
    if (!cost) return 0;
    const later = Math.max(0, cost.lateMin - (this.lateBefore[lot] ?? 0));
    return cost.moved * moved + later * late + (cost.total >= NO_PLACE ? NO_PLACE : 0);
  }

  /** A lot goes back where it stood; what has come to stand there gives way, as little as it can. */
  private goBack(lot: number): Turn {
    const out = [lot, ...this.some(inTheWayBack(this.c, this.schedule, lot), 1 + this.below(MOST_LOTS_OUT))];
    return { out, place: () => this.placeAsBefore(out) };
  }

  /** A lot looks for another place where some that lie in its way have gone; those go back where they stood, or near. */
  private giveWay(lot: number): Turn {
    const queue = this.c.queues[lot] ?? [];
    const n = this.schedule.stuck[lot] ?? queue[this.below(queue.length)] ?? 0;
    const before = Math.max(0, ...(this.c.steps[n]?.after ?? []).map((a) => this.schedule.stands[a.step]?.endMin ?? 0));
    const atMin = this.schedule.stands[n]?.startMin ?? this.c.steps[n]?.previous?.startMin ?? before;
    const marginMin = SMALLEST_MARGIN_MIN * 2 ** this.below(5);
    const others = inTheWayAround(this.c, this.schedule, n, atMin, marginMin);
    const out = [lot, ...this.some(others, 1 + this.below(1 + this.below(MOST_LOTS_OUT)))];
    return {
      out,
      place: () => {
        this.changeChoices(lot);
        this.schedule.placeLot(lot);
        this.placeAsBefore(out.slice(1));
      },
    };
  }

  /** Each where it stood, if it still can; then those that can't. */
  private placeAsBefore(lots: readonly number[]): void {
    for (const lot of lots.filter((l) => !this.schedule.placeAsBefore(l))) this.schedule.placeLot(lot);
  }

  private some(of: readonly number[], most: number): number[] {
    return this.shuffle([...of]).slice(0, most);
  }

  private below(count: number): number {
    return Math.floor(this.chance.next() * count);
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
    return this.costs.some((cost) => cost.lateMin > 0 || cost.total >= NO_PLACE);
  }

  private costliest(pick: () => number): number {
    const some = [pick(), pick(), pick()];
    return some.reduce((a, b) => ((this.costs[a]?.total ?? 0) >= (this.costs[b]?.total ?? 0) ? a : b));
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

  private rememberChoices(lot: number): Choices {
    const queue = this.c.queues[lot] ?? [];
    const of = <T>(all: readonly T[]): T[] => {
      const own: T[] = [];
      for (const n of queue) own[n] = all[n] as T;
      return own;
    };
    const { evenings, way, who, keep } = this.choices;
    return { evenings: of(evenings), way: of(way), who: of(who), keep: of(keep) };
  }

  private bringChoicesBack(lot: number, were: Choices): void {
    for (const n of this.c.queues[lot] ?? []) {
      this.choices.evenings[n] = were.evenings[n] ?? 0;
      this.choices.way[n] = were.way[n] ?? -1;
      this.choices.who[n] = were.who[n] ?? -1;
      this.choices.keep[n] = were.keep[n] ?? true;
    }
  }

  private keepAll(): () => void {
    const were = this.lots.map((lot) => ({ lot, was: this.schedule.remember(lot) }));
    const { evenings, way, who, keep } = this.choices;
    const [costs, choices] = [
      [...this.costs],
      { evenings: [...evenings], way: [...way], who: [...who], keep: [...keep] },
    ];
    return () => {
      for (const { lot } of were) this.schedule.clear(lot);
      for (const { lot, was } of were) this.schedule.putBack(lot, was);
      for (const lot of this.lots) this.bringChoicesBack(lot, choices);
      this.costs = [...costs];
    };
  }

  private shuffle(all: number[]): number[] {
    for (let i = all.length - 1; i > 0; i -= 1) {
      const j = Math.floor(this.chance.next() * (i + 1));
      [all[i], all[j]] = [all[j] ?? 0, all[i] ?? 0];
    }
    return all;
  }

  private isProven(): boolean {
    return (this.best?.total ?? Infinity) <= this.bound + 1e-6;
  }

  private tell(): void {
    this.best = { total: totalOf(this.costs), bringBack: this.keepAll() };
    this.asked.onBetter?.(() => this.answer());
  }

  private answer(): PlanAnswer {
    return answerOf(this.c, this.schedule, this.bound, this.rounds);
  }
}

/** Lots that are taken out, and how they are put back. */
interface Turn {
  readonly out: readonly number[];
  readonly place: () => void;
}

const totalOf = (costs: readonly LotCost[]): number => costs.reduce((sum, cost) => sum + cost.total, 0);

const lateBefore = (c: Compiled, lot: number, dueMin: number): number =>
  Math.max(
    0,
    ...(c.lotSteps[lot] ?? []).map((n) => c.steps[n]?.previous?.endMin ?? 0).map((endMin) => endMin - dueMin),
  );
