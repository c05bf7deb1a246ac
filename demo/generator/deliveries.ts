import { isInSeason, nearestInSeason } from './harvest';
import { SUPPLIES } from './saltgrass-supplies';
import type { Delivery, Dyehouse } from './dyehouse';
import { DAY_MS, iso } from './dyehouse';

/** A harvest has to last until the next: it brings this much more than a delivery would. */
const HARVEST_TIMES = 2;

export function planDeliveries(house: Dyehouse): Delivery[] {
  const deliveries = SUPPLIES.flatMap((supply, s) => {
    const everyMs = supply.everyMonths * house.sim.supplyEvery * 30.4 * DAY_MS;
    const times: Delivery[] = [];
    for (
      let atMs = house.startMs + (s % 4) * DAY_MS * 0.5, n = 0;
      atMs < house.endMs - DAY_MS;
      n += 1, atMs = house.startMs + n * everyMs + house.random.between(-6, 6) * DAY_MS * Math.sign(n)
    ) {
      const strength = supply.strengths[n % supply.strengths.length] ?? 1;
      // What is grown or gathered comes in its season; what was on the shelf when the story begins was brought over.
      const season = supply.pence === 0 && n > 0 ? house.seasonOf(supply.material) : null;
      const inSeasonMs = season ? nearestInSeason(atMs, season) : atMs;
      if (inSeasonMs >= house.startMs && inSeasonMs < house.endMs - DAY_MS)
        times.push({
          supply: season ? { ...supply, each: supply.each * HARVEST_TIMES } : supply,
          atMs: inSeasonMs,
          strength,
        });
    }
    return times;
  });
  return deliveries.sort((a, b) => a.atMs - b.atMs);
}

export function deliver(house: Dyehouse, { supply, atMs, strength }: Delivery): void {
  const materialId = house.materialId(supply.material);
  const stem = supply.material
    .replace(/[^A-Za-z]/g, '')
    .slice(0, 3)
    .toUpperCase();
  const number = (house.tagNumbers.get(stem) ?? 0) + 1;
  house.tagNumbers.set(stem, number);
  const receivedOn = iso(atMs).slice(0, 10);
  const bestBefore =
    supply.keepsMonths === null
      ? null
      : iso(atMs + supply.keepsMonths * house.sim.supplyEvery * 30.4 * DAY_MS).slice(0, 10);
  const id = house.random.id(atMs);
  const amount = Math.round((supply.each * house.sim.supplyScale * house.random.between(0.9, 1.1)) / 5) * 5 * 1000;
  const grown = supply.pence === 0;
  const season = house.seasonOf(supply.material);
  const isGathered = grown && (season === null || isInSeason(atMs, season));
  const first = number === 1;
  // A harvest is known to be weak once a strip was dyed with it; the first of a dyestuff is what the others are told
  // against.
  const strengths =
    supply.strengths.length < 2
      ? {}
      : first
        ? { reference: true, strengthPercent: 100, strengthBasis: 'the first we had' }
        : number % 2 === 0
          ? { strengthPercent: Math.round(strength * 100), strengthBasis: 'strip test against the first' }
          : {};
  house.doc.stockLots.push({
    id,
    materialId,
    tag: `${stem}-${number}`,
    receivedOn,
    bestBefore,
    place: supply.place,
    source: supply.source,
    note: strength < 0.95 ? 'Wet summer: smells faint.' : '',
    costMinor: grown ? null : Math.round((supply.pence * amount) / 1000),
    facts: {
      ...(grown
        ? {
            origin: 'harvest' as const,
            form: 'dried' as const,
            gathering: supply.source.includes('leave')
              ? { permission: 'the owner of the carr', sharePercent: 20, note: '' }
              : { ownGround: true, sharePercent: 60, note: '' },
          }
        : {}),
      ...strengths,
      ...(amount < 5_000_000 ? { container: 'glass jar', tareMg: 380_000 + (number % 3) * 45_000 } : {}),
    },
  });
  house.doc.movements.push({
    id: house.random.id(atMs),
    stockLotId: id,
    kind: isGathered ? 'gather' : 'receive',
    amount,
    lotId: null,
    runEntryId: null,
    reversesId: null,
    note: grown && !isGathered ? `last season’s, from ${supply.source}` : supply.source,
    byId: house.personId(),
    at: iso(atMs),
  });
  house.stockLots.push({
    id,
    materialId,
    receivedOn,
    bestBefore,
    strength,
    onHand: amount,
    reserved: 0,
    weighings: 0,
  });
}
