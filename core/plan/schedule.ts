import type { Compiled, CompiledStep, Way } from './compile-problem';
import type { Evenings, InUse, StepFit } from './step-fit';
import { isOtherWay, liesElsewhere } from './lot-cost';
import { EVENING_BEGINS, EVENING_ENDS, fitStep } from './step-fit';
import { neededUntil } from './plan-problem';
import { Timeline } from './timeline';

/** What is chosen beside the order in which steps look for a place, step by step. */
export interface Choices {
  /** Which hands may be asked for out of hours. */
  readonly evenings: Evenings[];
  /** The way it is done in; -1: whichever costs least where it stands. */
  readonly way: number[];
  /** Whose hands it is done by, by number; -1: whoever is free first. */
  readonly who: number[];
  /** Whether it looks for its place no earlier than where the accepted plan has it. */
  readonly keep: boolean[];
}

/** A step in its place. */
export interface Stands extends StepFit {
  readonly way: Way;
}

/** Moments a step was found to have to wait for, while its lot is being placed. */
interface Floors {
  readonly start: Map<number, number>;
  readonly end: Map<number, number>;
  /** By step and the thing a hold of it would take. */
  readonly withThing: Map<string, number>;
}

/** So often a lot's earlier steps are moved on for a later one before it counts as having no place. */
const MOST_BUMPS = 400;

/** Steps in their places, and what that leaves free. Facts stand in it from the first and never go. */
export class Schedule {
  readonly stands: (Stands | undefined)[];
  readonly holdOn: (number | undefined)[];
  private readonly holdTo: number[];
  /** How many steps of its queue each lot has placed. */
  readonly cursor: number[];
  /** The step that found no place, of a lot that has none. */
  readonly stuck: (number | undefined)[];
  private readonly floors: Floors[];
  readonly resources: readonly Timeline[];
  readonly people: readonly Timeline[];

  constructor(
    private readonly c: Compiled,
    private readonly choices: Choices,
  ) {
    this.resources = c.problem.resources.map((r) => new Timeline(r.capacity, r.out));
    this.people = c.problem.people.map(() => new Timeline(1));
    this.stands = c.steps.map(() => undefined);
    this.holdOn = c.holds.map(() => undefined);
    this.holdTo = c.holds.map(() => 0);
    this.cursor = c.queues.map(() => 0);
    this.stuck = c.queues.map(() => undefined);
    this.floors = c.queues.map(freshFloors);
    this.standFacts();
  }

  private standFacts(): void {
    this.c.steps.forEach((s, n) => {
      const fact = s.step.fixed;
      if (!fact) return;
      const person = (id: string | null): number | undefined => {
        const i = this.c.problem.people.findIndex((p) => p.id === id);
        return i < 0 ? undefined : i;
      };
      const thing = (id: string): number => this.c.problem.resources.findIndex((r) => r.id === id);
      const holds = s.begins.map((h) =>
        thing(this.c.holds[h]?.hold.fixedTo ?? this.c.holds[h]?.hold.resourceIds[0] ?? ''),
      );
      this.stand(n, {
        startMin: fact.startMin,
        aloneFromMin: fact.aloneFromMin,
        aloneToMin: fact.aloneToMin,
        endMin: fact.endMin,
        beginBy: person(fact.beginBy),
        endBy: person(fact.endBy),
        outOfHours: 0,
        way: { needs: fact.resourceIds.map(thing), holds, extraMin: 0, heatWh: 0 },
      });
    });
  }

  /** Takes a lot out, all but what is fixed. */
  clear(lot: number): void {
    for (const n of this.c.queues[lot] ?? []) this.take(n);
    this.cursor[lot] = 0;
    this.stuck[lot] = undefined;
    this.floors[lot] = freshFloors();
    for (const n of this.c.lotSteps[lot] ?? []) if (this.stands[n]) this.extendHolds(n);
  }

  /** Places all that is left of a lot; false where it has no place, and then none of it stands. */
  placeLot(lot: number): boolean {
    const queue = this.c.queues[lot] ?? [];
    while ((this.cursor[lot] ?? 0) < queue.length) if (!this.placeNext(lot)) return false;
    return true;
  }

  /** Places the next step of a lot, and whatever of the lot has to move on for it. */
  placeNext(lot: number): boolean {
    const queue = this.c.queues[lot] ?? [];
    const wanted = (this.cursor[lot] ?? 0) + 1;
    if (this.stuck[lot] !== undefined) return false;
    for (let bumps = 0; (this.cursor[lot] ?? 0) < wanted;) {
      const n = queue[this.cursor[lot] ?? 0];
      if (n === undefined) return true;
      const back = this.tryStep(n);
      if (back === n) {
        this.cursor[lot] = (this.cursor[lot] ?? 0) + 1;
        continue;
      }
      const to = back === undefined ? -1 : queue.indexOf(back);
      if (to < 0 || (bumps += 1) > MOST_BUMPS) {
        this.clear(lot);
        this.stuck[lot] = n;
        return false;
      }
      for (let i = to; i < (this.cursor[lot] ?? 0); i += 1) this.take(queue[i] ?? -1);
      this.cursor[lot] = to;
    }
    return true;
  }

  /**
   * Puts all of a lot exactly where the accepted plan has it; false where that can't be any more, and then none of it
   * stands.
   */
  placeAsBefore(lot: number): boolean {
    const queue = this.c.queues[lot] ?? [];
    for (const n of queue) {
      if (!this.standAsBefore(n)) {
        this.clear(lot);
        return false;
      }
      this.cursor[lot] = (this.cursor[lot] ?? 0) + 1;
    }
    return true;
  }

  private standAsBefore(n: number): boolean {
    const s = this.c.steps[n];
    const was = s?.previous;
    if (!s || !was || was.startMin < s.step.notBeforeMin || was.startMin > (s.step.notAfterMin ?? Infinity))
      return false;
    for (const a of s.after) {
      const waits = was.startMin - (this.stands[a.step]?.endMin ?? Infinity);
      if (waits < a.minMin || waits > a.maxMin) return false;
    }
    const { people } = this.c.problem;
    const person = (id: string | null): number => people.findIndex((p) => p.id === id);
    for (const way of s.ways) {
      if (isOtherWay(this.c, s, way)) continue;
      const fit = fitStep(this.c, s, way, this, {
        fromMin: was.startMin,
        endFromMin: was.endMin,
        evenings: EVENING_BEGINS + EVENING_ENDS,
        beginBy: person(was.beginBy),
        endBy: person(was.endBy),
      });
      if (fit?.startMin !== was.startMin || fit.endMin !== was.endMin) continue;
      this.stand(n, { ...fit, way });
      if (s.within.every((h) => this.isHeldAlone(h))) return true;
      this.take(n);
    }
    return false;
  }

  /** Whether a hold has its thing to itself, from its beginning until now. */
  private isHeldAlone(h: number): boolean {
    const hold = this.c.holds[h];
    const began = hold && this.stands[hold.from];
    const thing = this.holdOn[h];
    if (!began || thing === undefined) return true;
    const { amount } = hold.hold;
    return (
      this.resources[thing]?.blockedUntil(began.startMin, this.heldUntil(h), amount, this.holdOwner(h)) === undefined
    );
  }

  /**
   * Puts a step where it costs least.
   * @returns itself where it stands; an earlier step of its lot that has to move on first; nothing where neither helps
   */
  private tryStep(n: number): number | undefined {
    const s = this.c.steps[n];
    if (!s) return undefined;
    const floors = this.floors[s.lot] ?? freshFloors();
    const earliest = Math.max(
      s.step.notBeforeMin,
      floors.start.get(n) ?? 0,
      (this.choices.keep[n] ? s.previous?.startMin : undefined) ?? 0,
      ...s.after.map((a) => (this.stands[a.step]?.endMin ?? 0) + a.minMin),
    );
    const latest = Math.min(
      s.step.notAfterMin ?? Infinity,
      ...s.after.map((a) => (this.stands[a.step]?.endMin ?? 0) + a.maxMin),
    );
    const best = this.bestWay(n, s, earliest, latest, floors);
    if (!best) return undefined;
    if (best.startMin > latest) return this.moveOnBefore(s, best.startMin, floors);
    const inTheWay = this.heldUpBy(s, best.endMin, floors);
    if (inTheWay !== 'nothing') return inTheWay;
    this.stand(n, best);
    return n;
  }

  private bestWay(n: number, s: CompiledStep, earliest: number, latest: number, floors: Floors): Stands | undefined {
    const { weights } = this.c.problem;
    const chosen = this.choices.way[n] ?? -1;
    let best: Stands | undefined;
    let least = Infinity;
    s.ways.forEach((way, i) => {
      if (chosen >= 0 && chosen !== i) return;
      const held = way.holds.map((thing) => floors.withThing.get(`${n} ${thing}`) ?? 0);
      const fit = fitStep(this.c, s, way, this, {
        fromMin: Math.max(earliest, ...held),
        endFromMin: floors.end.get(n) ?? 0,
        evenings: this.choices.evenings[n] ?? 0,
        beginBy: this.choices.who[n] ?? -1,
        endBy: this.choices.who[n] ?? -1,
      });
      if (!fit) return;
      const cost =
        fit.endMin * weights.finish +
        fit.outOfHours * weights.outOfHours +
        (way.heatWh / 1000) * weights.heatKwh +
        (liesElsewhere(this.c, s, fit.startMin, way) ? weights.moved : 0) +
        (fit.startMin > latest ? LATE_START : 0);
      if (cost < least) {
        least = cost;
        best = { ...fit, way };
      }
    });
    return best;
  }

  /** Makes what a step may not be so long after end later, so that the step can begin when it can. */
  private moveOnBefore(s: CompiledStep, startMin: number, floors: Floors): number | undefined {
    for (const a of s.after) {
      const stands = this.stands[a.step];
      const before = this.c.steps[a.step];
      if (!stands || !before) continue;
      const lacks = startMin - (stands.endMin + a.maxMin);
      if (lacks <= 0) continue;
      const { step } = before;
      if (step.fixed) return undefined;
      // It begins so much later, if there are hands then; else it stays on longer, if it may.
      const later = stands.startMin + lacks;
      const hands = this.fitAgain(a.step, before, stands.way, later);
      const mayStay = !step.watched && (step.aloneMaxMin ?? Infinity) > stands.aloneToMin - stands.aloneFromMin;
      if (mayStay && (hands?.startMin !== later || before.after.some((b) => b.maxMin < Infinity)))
        floors.end.set(a.step, stands.endMin + lacks);
      else floors.start.set(a.step, later);
      return a.step;
    }
    return undefined;
  }

  private fitAgain(n: number, s: CompiledStep, way: Way, fromMin: number): StepFit | undefined {
    return fitStep(this.c, s, way, NOTHING_IN_USE, {
      fromMin,
      endFromMin: 0,
      evenings: this.choices.evenings[n] ?? 0,
      beginBy: this.choices.who[n] ?? -1,
      endBy: this.choices.who[n] ?? -1,
    });
  }

  /** The step that began a hold whose thing somebody else has before this one ends, and until when it must wait. */
  private heldUpBy(s: CompiledStep, endMin: number, floors: Floors): number | undefined | 'nothing' {
    for (const h of s.within) {
      const hold = this.c.holds[h];
      const thing = this.holdOn[h];
      const began = hold && this.stands[hold.from];
      if (!hold || thing === undefined || !began) continue;
      const until = this.resources[thing]?.blockedUntil(began.startMin, endMin, hold.hold.amount, this.holdOwner(h));
      if (until === undefined) continue;
      if (this.c.steps[hold.from]?.step.fixed) return undefined;
      // Past what is in the way, or so late that the hold ends where it began to be in the way: never earlier than now.
      floors.withThing.set(`${hold.from} ${thing}`, Math.max(until, began.startMin + 1));
      return hold.from;
    }
    return 'nothing';
  }

  private stand(n: number, stands: Stands): void {
    const s = this.c.steps[n];
    if (!s) return;
    this.stands[n] = stands;
    if (s.step.watched) this.book(stands.beginBy, stands.startMin, stands.endMin, n);
    else {
      this.book(stands.beginBy, stands.startMin, stands.aloneFromMin, n);
      this.book(stands.endBy, stands.aloneToMin, stands.endMin, n);
    }
    stands.way.needs.forEach((thing, i) => {
      const need = s.step.needs[i];
      this.resources[thing]?.add(stands.startMin, neededUntil(need, stands), need?.amount ?? 1, n);
    });
    s.begins.forEach((h, i) => {
      this.holdOn[h] = stands.way.holds[i];
      this.holdUntil(h, Math.max(stands.endMin, stands.startMin + (this.c.holds[h]?.leastMin ?? 0)));
    });
    this.extendHolds(n);
  }

  private extendHolds(n: number): void {
    const endMin = this.stands[n]?.endMin ?? 0;
    for (const h of this.c.steps[n]?.within ?? []) if (endMin > (this.holdTo[h] ?? 0)) this.holdUntil(h, endMin);
  }

  private holdUntil(h: number, toMin: number): void {
    const hold = this.c.holds[h];
    const thing = this.holdOn[h];
    const began = hold && this.stands[hold.from];
    if (!hold || thing === undefined || !began) return;
    this.resources[thing]?.remove(this.holdOwner(h), began.startMin);
    this.resources[thing]?.add(began.startMin, toMin, hold.hold.amount, this.holdOwner(h));
    this.holdTo[h] = toMin;
  }

  private take(n: number): void {
    const stands = this.stands[n];
    const s = this.c.steps[n];
    if (!stands || !s) return;
    this.stands[n] = undefined;
    this.people[stands.beginBy ?? -1]?.remove(n, stands.startMin);
    if (!s.step.watched) this.people[stands.endBy ?? -1]?.remove(n, stands.aloneToMin);
    for (const thing of stands.way.needs) this.resources[thing]?.remove(n, stands.startMin);
    for (const h of s.begins) {
      this.resources[this.holdOn[h] ?? -1]?.remove(this.holdOwner(h), stands.startMin);
      this.holdOn[h] = undefined;
      this.holdTo[h] = 0;
    }
    for (const h of s.within) this.shortenHold(h);
  }

  /** A hold lasts as long as what of it still stands. */
  private shortenHold(h: number): void {
    const hold = this.c.holds[h];
    const began = hold && this.stands[hold.from];
    if (!hold || !began) return;
    const ends = [...hold.through].map((n) => this.stands[n]?.endMin ?? 0);
    this.holdUntil(h, Math.max(began.endMin, began.startMin + hold.leastMin, ...ends));
  }

  private book(person: number | undefined, from: number, to: number, n: number): void {
    if (person !== undefined) this.people[person]?.add(from, to, 1, n);
  }

  private holdOwner(h: number): number {
    return this.c.steps.length + h;
  }

  /** Until when a hold has its thing. */
  heldUntil(h: number): number {
    return this.holdTo[h] ?? 0;
  }

  /** A lot as it stands, to be put back. */
  remember(lot: number): Remembered {
    return {
      stands: (this.c.queues[lot] ?? []).map((n) => this.stands[n]),
      cursor: this.cursor[lot] ?? 0,
      stuck: this.stuck[lot],
    };
  }

  /** Puts a lot back as it stood; what has come to stand there since must have gone. */
  putBack(lot: number, was: Remembered): void {
    this.clear(lot);
    (this.c.queues[lot] ?? []).forEach((n, i) => {
      const stands = was.stands[i];
      if (stands) this.stand(n, stands);
    });
    this.cursor[lot] = was.cursor;
    this.stuck[lot] = was.stuck;
  }
}

/** A lot as it stood, step by step of its queue. */
export interface Remembered {
  readonly stands: readonly (Stands | undefined)[];
  readonly cursor: number;
  readonly stuck: number | undefined;
}

const NOTHING_IN_USE: InUse = { resources: [], people: [] };
/** A way in which it could begin in time goes before any in which it can't. */
const LATE_START = 1e9;

const freshFloors = (): Floors => ({ start: new Map(), end: new Map(), withThing: new Map() });
