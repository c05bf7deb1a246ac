import type { HeatSource } from './heating';

/** What vessels are made of. */
export const VESSEL_METALS = ['stainless', 'enamel', 'aluminium', 'iron', 'copper', 'glass', 'plastic'] as const;
/** One of `VESSEL_METALS`. */
export type VesselMetal = (typeof VESSEL_METALS)[number];

/** A vessel as planning needs it. Volume in ml, empty weight in g, the hottest it stands in °C. */
export interface Vessel {
  readonly id: string;
  readonly name: string;
  readonly metal: VesselMetal;
  /** What it may be filled to with room to turn the fibre, ml. */
  readonly workingMl: number;
  /** It once held iron, or is of it: it saddens whatever is dyed in it. */
  readonly heldIron?: boolean;
  /** Weight of it empty, g; `null` where nobody weighed it. */
  readonly emptyG?: number | null;
  /** The hottest it takes, °C; `null` where that is its material's own. */
  readonly maxC?: number | null;
  readonly heatSource?: HeatSource | null;
}

/**
 * What a vessel's material takes, °C, where nothing is said of the vessel: soft plastics sag in hot liquor, glass
 * cracks on a flame.
 */
const MATERIAL_MAX_C: Readonly<Partial<Record<VesselMetal, number>>> = { plastic: 60, glass: 95 };

/** The hottest liquor a vessel may hold, °C; `null` where boiling does no harm. */
export function maxC(vessel: Pick<Vessel, 'metal' | 'maxC'>): number | null {
  return vessel.maxC ?? MATERIAL_MAX_C[vessel.metal] ?? null;
}
