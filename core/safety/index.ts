export type { Hazard } from './hazards';
export { HAZARD_LABELS, HAZARDS } from './hazards';
export type { BadNeighbours, ShelvedMaterial } from './neighbours';
export { findBadNeighbours } from './neighbours';
