import type { Hazard } from './hazards';

/** Pairs that must not stand where a leak or a spill would bring them together, and why. */
const APART: readonly (readonly [Hazard, Hazard, string])[] = [
  ['acid', 'chlorineBleach', 'acid on chlorine bleach sets free poisonous chlorine gas'],
  ['ammonia', 'chlorineBleach', 'ammonia on chlorine bleach sets free poisonous gas'],
  ['acid', 'carbonate', 'acid on carbonate foams over'],
  ['acid', 'caustic', 'acid and caustic heat up and spit when they meet'],
  ['flammable', 'oxidiser', 'an oxidiser makes what burns burn fiercely'],
];

export interface ShelvedMaterial {
  readonly id: string;
  readonly name: string;
  readonly place: string;
  readonly hazards: readonly Hazard[];
}

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
  for (const jar of shelf)
    if (jar.place.trim() !== '' && jar.hazards.length > 0)
      byPlace.set(jar.place.trim(), [...(byPlace.get(jar.place.trim()) ?? []), jar]);
  for (const [place, jars] of byPlace) {
    jars.forEach((first, i) => {
      for (const second of jars.slice(i + 1)) {
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
