import type { Dyehouse } from './dyehouse';
import { HOUR_MS, iso } from './dyehouse';

const LOSSES = [
  { material: 'Buckthorn berries', kind: 'spoil', grams: 120, note: 'Moth under the lid: thrown out' },
  { material: 'Cutch', kind: 'give', grams: 80, note: 'To the school, for their strips' },
] as const;

/** What left the shelf without a lot in the last days: spoilt, given away. */
export function loseSome(house: Dyehouse): void {
  const atMs = house.endMs - 2 * HOUR_MS;
  for (const { material, kind, grams, note } of LOSSES) {
    const amount = grams * 1000;
    const jar = house.stockLots.find(
      (j) => j.materialId === house.materialId(material) && j.onHand - j.reserved > amount,
    );
    if (!jar) throw new Error(`no jar of ${material} holds ${grams} g to spare`);
    jar.onHand -= amount;
    house.doc.movements.push({
      id: house.random.id(atMs),
      stockLotId: jar.id,
      kind,
      amount: -amount,
      lotId: null,
      runEntryId: null,
      reversesId: null,
      note,
      byId: house.personId(),
      at: iso(atMs),
    });
  }
}
