import type { Hazard } from './hazards';
import { findReaction } from './reactions';

/** A material with its place on the shelf. */
export interface ShelvedMaterial {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly hazards: readonly Hazard[];
}

/** Two materials that must not stand together, why, and where they do. */
export interface BadNeighbours {
  readonly place: string;
  readonly first: ShelvedMaterial;
  readonly second: ShelvedMaterial;
  readonly why: string;
}

/** Jars that share a place and shouldn't. Each pair once for its gravest reason; jars without a place are left out. */
export function findBadNeighbours(shelf: readonly ShelvedMaterial[]): BadNeighbours[] {
  const found: BadNeighbours[] = [];
  const byPlace = new Map<string, ShelvedMaterial[]>();
  for (const stockLot of shelf)
    if (stockLot.place.trim() !== '' && stockLot.hazards.length > 0)
      byPlace.set(stockLot.place.trim(), [...(byPlace.get(stockLot.place.trim()) ?? []), stockLot]);
  for (const [place, stockLots] of byPlace) {
    stockLots.forEach((first, i) => {
      for (const second of stockLots.slice(i + 1)) {
        const reaction = findReaction(first.hazards, second.hazards, (r) => r.onShelf);
        if (reaction) found.push({ place, first, second, why: reaction.why });
      }
    });
  }
  return found;
}
