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

/** So large a part of what is taken comes out of one stock lot. */
export interface NamedPart {
  readonly stockLotId: string;
  readonly part: number;
}

/** The order of first expired, first out: earliest best-before, then those that keep, oldest receipt first. */
export function byExpiryThenReceipt(a: AvailableStock, b: AvailableStock): number {
  return (
    compare(a.bestBefore ?? '9999', b.bestBefore ?? '9999') ||
    compare(a.receivedOn, b.receivedOn) ||
    compare(a.stockLotId, b.stockLotId)
  );
}

/** Of what is wanted, this share may be missing without a word, if it is less than a step as well. */
const DUST_SHARE = 0.02;

const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

/**
 * Decides which stock lots give an amount: first expired, first out, and nothing past its best-before on `today`.
 * With `preferOneLot` (fibre of one colour lot should be one base lot) the first lot in that order that can give
 * everything alone is taken, if there is one.
 *
 * What lies within one step of the balance is equal: a stock lot that lacks less than that gives all it has and is not
 * short, and no lot is asked for less than a step where another can give it.
 * @param amount whole smallest units, 0 or more
 * @param today ISO date
 * @param step the finest that can be measured out, smallest units
 */
export function allocate(
  amount: number,
  stock: readonly AvailableStock[],
  { today, preferOneLot = false, step = 1 }: { today: string; preferOneLot?: boolean; step?: number },
): Allocation {
  if (!Number.isSafeInteger(amount) || amount < 0)
    throw new RangeError(`amount must be a whole number of 0 or more, got ${amount}`);
  const expired = stock.filter((s) => s.free > 0 && s.bestBefore !== undefined && s.bestBefore < today);
  const inOrder = stock.filter((s) => s.free > 0 && !expired.includes(s)).sort(byExpiryThenReceipt);
  const notes = [$localize`first expired, first out`];
  if (expired.length > 0) notes.push($localize`${expired.length} past best before, left out`);
  if (amount === 0) return { picks: [], short: 0, notes };

  const alone = preferOneLot ? inOrder.find((s) => s.free >= amount) : undefined;
  if (alone)
    return {
      picks: [{ stockLotId: alone.stockLotId, amount }],
      short: 0,
      notes: [...notes, $localize`one base lot, so that the pieces are alike`],
    };

  const picks: Pick[] = [];
  const dust = Math.min(step - 1, Math.floor(amount * DUST_SHARE));
  let left = amount;
  for (const s of inOrder) {
    if (left === 0) break;
    const all = s.free + dust >= left;
    const taken = all ? Math.min(left, s.free) : left < step ? s.free : Math.floor(s.free / step) * step;
    if (taken === 0) continue;
    picks.push({ stockLotId: s.stockLotId, amount: taken });
    left = all ? 0 : left - taken;
  }
  if (preferOneLot && picks.length > 1)
    notes.push($localize`from more than one base lot: they may take the dye differently`);
  return { picks, short: left, notes };
}

/**
 * Takes an amount out of the stock lots that were asked for, in the parts that were asked for; what one of them lacks is
 * short, since another would be another shade. Nothing past its best-before on `today`.
 * @param amount whole smallest units, 0 or more
 * @param parts above 0, of any sum
 */
export function allocateParts(
  amount: number,
  stock: readonly AvailableStock[],
  parts: readonly NamedPart[],
  { today, step = 1 }: { today: string; step?: number },
): Allocation {
  const whole = parts.reduce((sum, p) => sum + p.part, 0);
  let left = amount;
  const picks = parts.flatMap((p, i): Pick[] => {
    const jar = stock.find((s) => s.stockLotId === p.stockLotId);
    const isExpired = jar?.bestBefore !== undefined && jar.bestBefore < today;
    const share = Math.round((amount * p.part) / whole / step) * step;
    const wanted = Math.min(left, i === parts.length - 1 ? left : share);
    const taken = isExpired ? 0 : Math.max(0, Math.min(wanted, jar?.free ?? 0));
    left -= wanted;
    return taken > 0 ? [{ stockLotId: p.stockLotId, amount: taken }] : [];
  });
  return {
    picks,
    short: amount - picks.reduce((sum, p) => sum + p.amount, 0),
    notes: [$localize`out of the jars that were asked for`],
  };
}
