import type { Span } from './plan-problem';

/** A stretch in which some of a thing is in use, and whose it is. */
interface Use {
  readonly from: number;
  readonly to: number;
  readonly amount: number;
  readonly owner: number;
}

/** What of one thing is in use when. Uses stand by their beginning; owners are numbers, so that they can be taken out. */
export class Timeline {
  private readonly uses: Use[] = [];
  /** No use is longer: a search begins no further back. */
  private longest = 0;

  constructor(
    private readonly capacity: number,
    out: readonly Span[] = [],
  ) {
    for (const [from, to] of out) this.add(from, to, capacity, -1);
  }

  /** Takes a stretch into use, whether it is free or not: what runs already asks nobody. */
  add(from: number, to: number, amount: number, owner: number): void {
    if (to <= from) return;
    let at = this.uses.length;
    while (at > 0 && (this.uses[at - 1]?.from ?? 0) > from) at -= 1;
    this.uses.splice(at, 0, { from, to, amount, owner });
    this.longest = Math.max(this.longest, to - from);
  }

  /** How many stretches are in use. */
  get many(): number {
    return this.uses.length;
  }

  /** Takes out what an owner took from that moment on. */
  remove(owner: number, from: number): void {
    for (let i = this.firstFrom(from); this.uses[i]?.from === from; i += 1)
      if (this.uses[i]?.owner === owner) {
        this.uses.splice(i, 1);
        return;
      }
  }

  /** Whose it is in a stretch. */
  ownersWithin(from: number, to: number): number[] {
    const owners: number[] = [];
    for (let i = this.firstFrom(from - this.longest); i < this.uses.length; i += 1) {
      const use = this.uses[i];
      if (!use || use.from >= to) break;
      if (use.to > from) owners.push(use.owner);
    }
    return owners;
  }

  /** The earliest moment from `at` on at which all of it is free for so long. */
  earliestFree(at: number, length: number): number {
    let start = at;
    for (let i = this.firstFrom(at - this.longest); i < this.uses.length; i += 1) {
      const use = this.uses[i];
      if (!use || use.from >= start + length) break;
      if (use.to > start) start = use.to;
    }
    return start;
  }

  /**
   * When the first thing that is in the way of a stretch ends; nothing where it is free. Of a thing with room for
   * several, the first of those that together leave too little.
   */
  blockedUntil(from: number, to: number, amount = 1, ignoring = -2): number | undefined {
    if (to <= from) return undefined;
    const over: Use[] = [];
    for (let i = this.firstFrom(from - this.longest); i < this.uses.length; i += 1) {
      const use = this.uses[i];
      if (!use || use.from >= to) break;
      if (use.to <= from || use.owner === ignoring) continue;
      if (use.amount + amount > this.capacity) return use.to;
      over.push(use);
    }
    if (over.length < 2) return undefined;
    // Load only rises where a use begins.
    for (const { from: begins } of over) {
      const moment = Math.max(begins, from);
      const together = over.filter((u) => u.from <= moment && u.to > moment);
      if (together.reduce((sum, u) => sum + u.amount, amount) > this.capacity)
        return Math.min(...together.map((u) => u.to));
    }
    return undefined;
  }

  private firstFrom(moment: number): number {
    let low = 0;
    let high = this.uses.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if ((this.uses[middle]?.from ?? Infinity) >= moment) high = middle;
      else low = middle + 1;
    }
    return low;
  }
}
