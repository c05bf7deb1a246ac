/** What moves stock. Promises and their release stand in a ledger of their own: they bind stock without moving it. */
export const MOVEMENT_KINDS = ['receive', 'gather', 'use', 'count', 'spoil', 'give', 'convert', 'reverse'] as const;
/** One of `MOVEMENT_KINDS`. */
export type MovementKind = (typeof MOVEMENT_KINDS)[number];

/** One line of the ledger. Amounts are whole smallest units (mg, µl, pieces): in is positive, out is negative. */
export interface Movement {
  readonly id: string;
  readonly stockLotId: string;
  readonly kind: MovementKind;
  readonly amount: number;
}

/** A movement with its moment; `at` in ISO, which sorts as text when all are UTC. */
export interface DatedMovement {
  readonly stockLotId: string;
  readonly amount: number;
  readonly at: string;
}

/**
 * Sums movements into what is on hand by stock lot. Order does not matter. Throws RangeError on an amount that is not
 * whole.
 */
export function foldOnHand(movements: Iterable<Pick<Movement, 'stockLotId' | 'amount'>>): Map<string, number> {
  const onHand = new Map<string, number>();
  for (const m of movements) {
    if (!Number.isSafeInteger(m.amount))
      throw new RangeError(`amount must be a whole number of smallest units, got ${m.amount}`);
    onHand.set(m.stockLotId, (onHand.get(m.stockLotId) ?? 0) + m.amount);
  }
  return onHand;
}

/** What was on hand by stock lot at a moment (ISO, inclusive), whatever the order in which the movements arrived. */
export function onHandAt(movements: Iterable<DatedMovement>, at: string): Map<string, number> {
  return foldOnHand([...movements].filter((m) => m.at <= at));
}

/**
 * Finds the first moment at which a stock lot would have held less than nothing. Movements of one moment count
 * together, since nobody can say which came first.
 */
export function firstOverdraft(
  movements: Iterable<DatedMovement>,
): { stockLotId: string; at: string; balance: number } | undefined {
  const inOrder = [...movements].sort((a, b) => compare(a.stockLotId, b.stockLotId) || compare(a.at, b.at));
  let balance = 0;
  for (const [i, m] of inOrder.entries()) {
    balance = inOrder[i - 1]?.stockLotId === m.stockLotId ? balance + m.amount : m.amount;
    const next = inOrder[i + 1];
    if (balance < 0 && !(next?.stockLotId === m.stockLotId && next.at === m.at))
      return { stockLotId: m.stockLotId, at: m.at, balance };
  }
  return undefined;
}

/** The amount that a count must book so that the shelf's figure becomes the counted one. 0: nothing to book. */
export function countDifference(onHand: number, counted: number): number {
  if (!Number.isSafeInteger(counted) || counted < 0)
    throw new RangeError(`counted must be a whole number of 0 or more, got ${counted}`);
  return counted - onHand;
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
