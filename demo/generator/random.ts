/** A small seeded generator (mulberry32), so that the demo studio is the same on every machine. */
export class Random {
  constructor(private state: number) {}

  /** 0 up to, not including, 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  between(low: number, high: number): number {
    return low + (high - low) * this.next();
  }

  /** Roughly normal, mean 0, the given standard deviation (sum of twelve). */
  spread(deviation: number): number {
    let sum = -6;
    for (let i = 0; i < 12; i += 1) sum += this.next();
    return sum * deviation;
  }

  pick<T>(of: readonly T[]): T {
    return of[Math.floor(this.next() * of.length)] as T;
  }

  /** A UUIDv7 for this moment, from the seed. */
  id(atMs: number): string {
    const time = Math.floor(atMs).toString(16).padStart(12, '0');
    const hex = (length: number): string => Array.from({ length }, () => Math.floor(this.next() * 16).toString(16)).join('');
    return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-${'89ab'[Math.floor(this.next() * 4)]}${hex(3)}-${hex(12)}`;
  }
}
