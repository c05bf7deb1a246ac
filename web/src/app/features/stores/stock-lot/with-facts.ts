import type { StockFacts, StockLot, StockLotEdit } from '@vestigia/contract';

/** A jar as it stands, with some of its facts otherwise. */
export const withFacts = ({ facts, row, note, version }: StockLot, changed: Partial<StockFacts>): StockLotEdit => ({
  version,
  place: row.place,
  note,
  bestBefore: row.bestBefore,
  facts: { ...facts, ...changed },
});
