export type { Hazard } from './hazards';
export { HAZARD_LABELS, HAZARDS } from './hazards';
export type { BadNeighbours, ShelvedMaterial } from './neighbours';
export { findBadNeighbours } from './neighbours';
export type { Gravity, Reaction, ReactionCode, Trait } from './reactions';
export { findReaction, REACTIONS } from './reactions';
