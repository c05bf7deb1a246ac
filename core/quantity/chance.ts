/** Repeatable chance (mulberry32, 32 bits of state): the same seed always gives the same row, on every machine. */
export class Chance {
  constructor(private state: number) {}

  /** 0 up to, not including, 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  /** Roughly normal, mean 0, standard deviation 1: the sum of twelve uniform ones. */
  normal(): number {
    let sum = -6;
    for (let i = 0; i < 12; i += 1) sum += this.next();
    return sum;
  }
}
