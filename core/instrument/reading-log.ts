/** Readings of one instrument in order of time, packed: an eight-hour run of ten a second takes a few megabytes. */
export class ReadingLog {
  private timesMs = new Float64Array(1024);
  private values = new Float32Array(1024);
  private count = 0;

  get length(): number {
    return this.count;
  }

  /** Adds a reading. One that is older than the newest is left out: a log runs one way. */
  add(atMs: number, value: number): void {
    if (
      !Number.isFinite(atMs) ||
      !Number.isFinite(value) ||
      (this.count > 0 && atMs < (this.timesMs[this.count - 1] ?? 0))
    )
      return;
    if (this.count === this.timesMs.length) {
      const times = new Float64Array(this.count * 2);
      times.set(this.timesMs);
      this.timesMs = times;
      const values = new Float32Array(this.count * 2);
      values.set(this.values);
      this.values = values;
    }
    this.timesMs[this.count] = atMs;
    this.values[this.count] = value;
    this.count += 1;
  }

  at(index: number): { readonly atMs: number; readonly value: number } {
    if (index < 0 || index >= this.count) throw new RangeError(`no reading ${index}`);
    return { atMs: this.timesMs[index] ?? 0, value: this.values[index] ?? 0 };
  }

  last(): { readonly atMs: number; readonly value: number } | undefined {
    return this.count === 0 ? undefined : this.at(this.count - 1);
  }

  /** Index of the first reading at or after a time; `length` when there is none. */
  indexFrom(atMs: number): number {
    let [low, high] = [0, this.count];
    while (low < high) {
      const middle = (low + high) >>> 1;
      if ((this.timesMs[middle] ?? 0) < atMs) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Readings from a time on, plain. */
  since(atMs: number): { readonly atMs: number; readonly value: number }[] {
    return Array.from({ length: this.count - this.indexFrom(atMs) }, (_, i) => this.at(this.indexFrom(atMs) + i));
  }

  /**
   * At most about `most` points that still show every peak and trough: time is cut into equal stretches, and of each
   * the lowest and the highest reading are kept, with the first and last of all. @param most at least 4
   */
  sampled(max: number, fromMs = -Infinity, toMs = Infinity): (readonly [number, number])[] {
    const from = this.indexFrom(fromMs);
    const to = this.indexFrom(toMs);
    const point = (i: number): readonly [number, number] => [this.timesMs[i] ?? 0, this.values[i] ?? 0];
    if (to - from <= max) return Array.from({ length: to - from }, (_, i) => point(from + i));
    const stretches = Math.max(1, Math.floor((max - 2) / 2));
    const startMs = this.timesMs[from] ?? 0;
    const widthMs = ((this.timesMs[to - 1] ?? 0) - startMs) / stretches || 1;
    const points: (readonly [number, number])[] = [point(from)];
    let i = from;
    for (let stretch = 0; stretch < stretches; stretch += 1) {
      const endMs = stretch === stretches - 1 ? Infinity : startMs + (stretch + 1) * widthMs;
      let low = -1;
      let high = -1;
      for (; i < to && (this.timesMs[i] ?? 0) < endMs; i += 1) {
        if (low === -1 || (this.values[i] ?? 0) < (this.values[low] ?? 0)) low = i;
        if (high === -1 || (this.values[i] ?? 0) > (this.values[high] ?? 0)) high = i;
      }
      if (low !== -1)
        points.push(...(low === high ? [point(low)] : [point(Math.min(low, high)), point(Math.max(low, high))]));
    }
    points.push(point(to - 1));
    return points;
  }
}
