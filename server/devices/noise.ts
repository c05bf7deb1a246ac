/** Repeatable noise for simulated instruments (mulberry32): the same seed always wobbles the same. */
export class Noise {
  constructor(private state: number) {}

  /** 0 up to, not including, 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  }

  /** Normal deviate, near enough: twelve uniform ones. */
  normal(): number {
    let sum = -6;
    for (let i = 0; i < 12; i += 1) sum += this.next();
    return sum;
  }
}
