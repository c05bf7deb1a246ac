import type { Observation } from './posterior';

/** Fewer readings of lots than this, of anything, and nothing is foretold. */
export const LEAST_READINGS = 3;

/** Too little was read to say anything: how much, and how much is needed. */
export interface TooFew {
  readonly state: 'tooFew';
  readonly readings: number;
  readonly needed: number;
}

/** What was really dyed and read; masters are no readings of lots. */
export const dyedAndRead = (readings: readonly Observation[]): Observation[] =>
  readings.filter((r) => r.isMaster !== true);

/** Says so where too little was read. */
export function tooFewRead(readings: readonly Observation[]): TooFew | undefined {
  const { length } = dyedAndRead(readings);
  return length < LEAST_READINGS ? { state: 'tooFew', readings: length, needed: LEAST_READINGS } : undefined;
}
