/** A ledger movement that a dye lot caused, as the trace sees it. Amounts in smallest units, out of stock negative. */
export interface TracedMovement {
  readonly stockLotId: string;
  readonly lotId: string | null;
  readonly amount: number;
}

/**
 * What a lot took from each stock lot, whole smallest units. Reversed takings cancel out; what nets to nothing is
 * left out.
 */
export function stockLotsInLot(movements: readonly TracedMovement[], lotId: string): Map<string, number> {
  return netTaken(
    movements.filter((m) => m.lotId === lotId),
    (m) => m.stockLotId,
  );
}

/** What each lot took from a stock lot, whole smallest units. */
export function lotsFromStockLot(movements: readonly TracedMovement[], stockLotId: string): Map<string, number> {
  return netTaken(
    movements.filter((m) => m.stockLotId === stockLotId && m.lotId !== null),
    (m) => m.lotId as string,
  );
}

function netTaken(movements: readonly TracedMovement[], keyOf: (m: TracedMovement) => string): Map<string, number> {
  const taken = new Map<string, number>();
  for (const m of movements) taken.set(keyOf(m), (taken.get(keyOf(m)) ?? 0) - m.amount);
  for (const [key, amount] of taken) if (amount === 0) taken.delete(key);
  return taken;
}
