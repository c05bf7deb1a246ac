export type { PotLine, PotSegment, RunningStep } from './pot-line';
export { layPotLine } from './pot-line';
