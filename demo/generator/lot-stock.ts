import type { DocLot, Jar, Dyehouse } from './dyehouse';
import { iso } from './dyehouse';

export function countOneStockLot(house: Dyehouse, stockLot: Jar, atMs: number): void {
  const lossMg = Math.round(((stockLot.onHand - stockLot.reserved) * house.random.between(0, 0.004)) / 100) * 100;
  if (lossMg <= 0) return;
  house.doc.movements.push({
    id: house.random.id(atMs),
    stockLotId: stockLot.id,
    kind: 'count',
    amount: -lossMg,
    lotId: null,
    runEntryId: null,
    reversesId: null,
    note: 'Dust at the scoop, most likely',
    byId: house.personId(),
    at: iso(atMs),
  });
  stockLot.onHand -= lossMg;
}

export function releaseLeftOver(house: Dyehouse, lot: DocLot, stepIndex: number, atMs: number): void {
  const later = new Set(
    lot.plan.steps.filter((s) => s.index > stepIndex).flatMap((s) => s.weighings.map((w) => w.materialId)),
  );
  for (const m of lot.plan.materials) {
    if (later.has(m.materialId)) continue;
    for (const p of m.picks)
      if (p.stockLotId !== null) reservation(house, lot, p.stockLotId, -reservedFor(house, lot, p.stockLotId), atMs);
  }
}

export function reservation(
  house: Dyehouse,
  lot: DocLot,
  stockLotId: string | null,
  amount: number,
  atMs: number,
): void {
  if (stockLotId === null || amount === 0) return;
  house.stockLot(stockLotId).reserved += amount;
  house.doc.reservations.push({
    id: house.random.id(atMs),
    lotId: lot.id,
    stockLotId: stockLotId,
    amount,
    byId: lot.byId,
    at: iso(atMs),
  });
}

export function reservedFor(house: Dyehouse, lot: DocLot, stockLotId: string): number {
  let sum = 0;
  for (let i = house.doc.reservations.length - 1; i >= 0; i -= 1) {
    const p = house.doc.reservations[i];
    if (p?.lotId === lot.id && p.stockLotId === stockLotId) sum += p.amount;
    if (p && p.lotId !== lot.id) break;
  }
  return sum;
}
