import type { FibreKind } from './fibre';
import { bathVolumeMl } from './liquor';

export const VESSEL_METALS = ['stainless', 'enamel', 'aluminium', 'iron', 'copper', 'glass', 'plastic'] as const;
export type VesselMetal = (typeof VESSEL_METALS)[number];

export interface Vessel {
  readonly id: string;
  readonly name: string;
  readonly metal: VesselMetal;
  /** What it may be filled to with room to turn the fibre, ml. */
  readonly workingMl: number;
}

/** How many whole pieces of one weight the vessel takes at this liquor ratio. 0 if not even one. */
export function piecesThatFit(vessel: Pick<Vessel, 'workingMl'>, pieceWeightG: number, liquorRatio: number, fibre: FibreKind): number {
  // Rounding the liquor up to the jug makes room stepwise, so start from the smooth answer and step down.
  const perPieceMl = bathVolumeMl(pieceWeightG * 1000, liquorRatio, fibre) / 1000;
  let pieces = Math.floor(vessel.workingMl / perPieceMl) + 1;
  while (pieces > 0 && bathVolumeMl(pieces * pieceWeightG, liquorRatio, fibre) > vessel.workingMl) pieces -= 1;
  return pieces;
}
