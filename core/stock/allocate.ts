/** A stock lot as the allocator sees it. Amounts in whole smallest units; dates ISO, absent where nothing goes off. */
export interface AvailableStock {
  readonly stockLotId: string;
  readonly free: number;
  readonly receivedOn: string;
  readonly bestBefore?: string;
}

/** An amount from one stock lot, in smallest units. */
export interface Pick {
  readonly stockLotId: string;
  readonly amount: number;
}

/** Which stock lots give an amount, what nothing covers, and how it was chosen. */
export interface Allocation {
  readonly picks: readonly Pick[];
  /** What no stock lot can give; 0 when all is covered. Never taken from anywhere. */
  readonly short: number;
  readonly notes: readonly string[];
}

/** The order of first expired, first out: earliest best-before, then those that keep, oldest receipt first. */
export function byExpiryThenReceipt(a: AvailableStock, b: AvailableStock): number {
  return (
    compare(a.bestBefore ?? '9999', b.bestBefore ?? '9999') ||
    compare(a.receivedOn, b.receivedOn) ||
    compare(a.stockLotId, b.stockLotId)
  );
}

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/**
 * Decides which stock lots give an amount: first expired, first out, and nothing past its best-before on `today`.
 * With `preferOneLot` (fibre of one colour lot should be one base lot) the first lot in that order that can give
 * everything alone is taken, if there is one.
 * @param amount whole smallest units, 0 or more
 * @param today ISO date
 */
export function allocate(
  amount: number,
  stock: readonly AvailableStock[],
  { today, preferOneLot = false }: { today: string; preferOneLot?: boolean },
): Allocation {
  if (!Number.isSafeInteger(amount) || amount < 0)
    throw new RangeError(`amount must be a whole number of 0 or more, got ${amount}`);
  const expired = stock.filter((s) => s.free > 0 && s.bestBefore !== undefined && s.bestBefore < today);
  const inOrder = stock.filter((s) => s.free > 0 && !expired.includes(s)).sort(byExpiryThenReceipt);
  const notes = ['first expired, first out'];
  if (expired.length > 0) notes.push(`${expired.length} past best before, left out`);
  if (amount === 0) return { picks: [], short: 0, notes };

  const alone = preferOneLot ? inOrder.find((s) => s.free >= amount) : undefined;
  if (alone)
    return {
      picks: [{ stockLotId: alone.stockLotId, amount }],
      short: 0,
      notes: [...notes, 'one base lot, so that the pieces are alike'],
    };

  const picks: Pick[] = [];
  let left = amount;
  for (const s of inOrder) {
    if (left === 0) break;
    const taken = Math.min(left, s.free);
    picks.push({ stockLotId: s.stockLotId, amount: taken });
    left -= taken;
  }
  if (preferOneLot && picks.length > 1) notes.push('from more than one base lot: they may take the dye differently');
  return { picks, short: left, notes };
}
