import { Chance } from '@vestigia/core';

/** Chance from a seed, so that the demo studio is the same on every machine. */
export class Random extends Chance {
  between(low: number, high: number): number {
    return low + (high - low) * this.next();
  }

  /** Roughly normal, mean 0, the given standard deviation. */
  spread(deviation: number): number {
    return this.normal() * deviation;
  }

  pick<T>(of: readonly T[]): T {
    return of[Math.floor(this.next() * of.length)] as T;
  }

  /** A UUIDv7 for this moment, from the seed. */
  id(atMs: number): string {
    const time = Math.floor(atMs).toString(16).padStart(12, '0');
    const hex = (length: number): string =>
      Array.from({ length }, () => Math.floor(this.next() * 16).toString(16)).join('');
    return `${time.slice(0, 8)}-${time.slice(8)}-7${hex(3)}-${'89ab'[Math.floor(this.next() * 4)]}${hex(3)}-${hex(12)}`;
  }
}
