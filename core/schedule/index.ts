export type { PotLine, PotSegment, RunningStep } from './pot-line';
export { layPotLine } from './pot-line';
export type { RemainingTime } from './remaining-time';
export { remainingTime } from './remaining-time';
