import type { Hazard } from './hazards';

/** Pairs that must not stand where a leak or a spill would bring them together, and why. */
const APART: readonly (readonly [Hazard, Hazard, string])[] = [
  ['acid', 'chlorineBleach', 'acid on chlorine bleach sets free poisonous chlorine gas'],
  ['ammonia', 'chlorineBleach', 'ammonia on chlorine bleach sets free poisonous gas'],
  ['acid', 'carbonate', 'acid on carbonate foams over'],
  ['acid', 'caustic', 'acid and caustic heat up and spit when they meet'],
  ['flammable', 'oxidiser', 'an oxidiser makes what burns burn fiercely'],
];

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
        const pair = APART.find(
          ([a, b]) =>
            (first.hazards.includes(a) && second.hazards.includes(b)) ||
            (first.hazards.includes(b) && second.hazards.includes(a)),
        );
        if (pair) found.push({ place, first, second, why: pair[2] });
      }
    });
  }
  return found;
}
