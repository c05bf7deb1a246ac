import type { StockLedgerLine, StockLot } from '@vestigia/contract';
import type { Veil } from '../studio/veil';
import { privateLot } from '../studio/veil';

/** Lines of a jar's ledger as they are shown to somebody from whom lots are kept: the amounts stand, the lots don't. */
export const veiledLines = (lines: readonly StockLedgerLine[], veil: Veil | undefined): StockLedgerLine[] =>
  lines.map((line) =>
    line.lot !== null && veil?.lotIds.has(line.lot.id ?? '') ? { ...line, lot: { id: null, tag: privateLot() } } : line,
  );

/** A jar likewise: what it went into is told but for the private lots. */
export function veiledStockLot(jar: StockLot, veil: Veil | undefined): StockLot {
  if (!veil) return jar;
  const isOfPrivateLot = jar.facts.fromLotId !== null && veil.lotIds.has(jar.facts.fromLotId);
  return {
    ...jar,
    ...(isOfPrivateLot ? { facts: { ...jar.facts, fromLotId: null }, row: { ...jar.row, source: privateLot() } } : {}),
    lines: veiledLines(jar.lines, veil),
    wentInto: jar.wentInto.filter((w) => !veil.lotIds.has(w.lot.id)),
    reservations: jar.reservations.filter((r) => !veil.lotIds.has(r.lot.id)),
  };
}
