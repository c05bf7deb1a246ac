export const MOVEMENT_KINDS = ['receive', 'use', 'count', 'reverse'] as const;
export type MovementKind = (typeof MOVEMENT_KINDS)[number];

/** One line of the ledger. Amounts are whole smallest units (mg, µl, pieces): in is positive, out is negative. */
export interface Movement {
  readonly id: string;
  readonly stockLotId: string;
  readonly kind: MovementKind;
  readonly amount: number;
}

export interface LedgerLine<M extends Movement> {
  readonly movement: M;
  /** On hand in that stock lot after this movement. */
  readonly balance: number;
}

/** Sums movements into what is on hand by stock lot. Order does not matter. Throws RangeError on an amount that is not whole. */
export function foldOnHand(movements: Iterable<Pick<Movement, 'stockLotId' | 'amount'>>): Map<string, number> {
  const onHand = new Map<string, number>();
  for (const m of movements) {
    if (!Number.isSafeInteger(m.amount)) throw new RangeError(`amount must be a whole number of smallest units, got ${m.amount}`);
    onHand.set(m.stockLotId, (onHand.get(m.stockLotId) ?? 0) + m.amount);
  }
  return onHand;
}

/** One stock lot's movements, in ledger order, each with the balance after it. */
export function ledgerLines<M extends Movement>(movements: readonly M[]): LedgerLine<M>[] {
  let balance = 0;
  return movements.map((movement) => ({ movement, balance: (balance += movement.amount) }));
}

/** The amount that a count must book so that the shelf's figure becomes the counted one. 0: nothing to book. */
export function countDifference(onHand: number, counted: number): number {
  if (!Number.isSafeInteger(counted) || counted < 0) throw new RangeError(`counted must be a whole number of 0 or more, got ${counted}`);
  return counted - onHand;
}
