/** The value under which this share of them lie. */
export const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? NaN;

export const report = (what: string, aim: string, found: string): void =>
  console.log(`${what.padEnd(58)} aim ${aim.padEnd(14)} ${found}`);

export const spread = (ms: readonly number[]): string =>
  `p50 ${percentile(ms, 0.5).toFixed(1)} ms, p95 ${percentile(ms, 0.95).toFixed(1)} ms, n ${ms.length}`;
