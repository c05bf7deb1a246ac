import { withDecimalMark } from '../quantity/shown-in';
/** How stock is valued: first in, first out; or at the running average. */
export const VALUATION_METHODS = ['fifo', 'average'] as const;
/** One of `VALUATION_METHODS`. */
export type ValuationMethod = (typeof VALUATION_METHODS)[number];

/** A movement as valuation sees it: in order of time, without pairs that were reversed. */
export interface ValuedMovement<Id = string> {
  readonly id: Id;
  readonly materialId: string;
  /** Whole smallest units; in is positive. */
  readonly amount: number;
  /** What the whole of a coming-in cost, in minor units of money; `null` for what came free or was found. */
  readonly costMinor: number | null;
  /** What comes out of a conversion carries the value of what went in. */
  readonly conversionId: string | null;
}

/** One material's stock in money. Minor units; `onHand + used = received`, exactly. */
export interface Valuation {
  readonly onHandMinor: number;
  readonly usedMinor: number;
  readonly receivedMinor: number;
}

interface Purse {
  receive(amount: number, costMinor: number): void;
  /** Value of an amount taken. What is taken beyond all there is carries nothing. */
  take(amount: number): number;
}

/**
 * Oldest first: what goes out carries the cost of the oldest layer still there; a shortage is met by the next to
 * come.
 */
function layers(): Purse {
  const heap: { amount: number; costMinor: number }[] = [];
  let first = 0;
  let owed = 0;
  const take = (wanted: number): number => {
    let minor = 0;
    let left = wanted;
    while (left > 0 && first < heap.length) {
      const layer = heap[first] as (typeof heap)[number];
      const amount = Math.min(left, layer.amount);
      const part = amount === layer.amount ? layer.costMinor : Math.round(layer.costMinor * (amount / layer.amount));
      layer.amount -= amount;
      layer.costMinor -= part;
      minor += part;
      left -= amount;
      if (layer.amount === 0) first += 1;
    }
    owed += left;
    return minor;
  };
  return {
    take,
    receive(amount, costMinor) {
      const covered = Math.min(owed, amount);
      owed -= covered;
      if (covered === amount) {
        // All of it was used before it was booked in: its cost stays with the next layer, or with none.
        const next = heap[heap.length - 1];
        if (next && next.amount > 0) next.costMinor += costMinor;
        else heap.push({ amount: 0, costMinor });
      } else heap.push({ amount: amount - covered, costMinor });
    },
  };
}

/** Moving average: each coming-in mixes with what is there, each going-out takes its share of the whole. */
function mixture(): Purse {
  let onHand = 0;
  let value = 0;
  return {
    receive(amount, costMinor) {
      onHand += amount;
      value += costMinor;
    },
    take(amount) {
      const minor = onHand <= amount ? value : Math.round(value * (amount / onHand));
      value -= minor;
      onHand -= amount;
      return minor;
    },
  };
}

/**
 * Values stock first in first out, or at its moving average. Exact in minor units: what is on hand and what was used
 * always add up to what was received, for each material. A conversion passes value on: what comes out is received at
 * the value of what went in, less nothing.
 * @returns by material, minor units
 * @param movements any number of materials, in order of time; of one conversion, what goes in before what comes out
 * @param took hears what each movement out took with it, minor units
 */
export function valueStock<Id>(
  movements: Iterable<ValuedMovement<Id>>,
  method: ValuationMethod,
  took?: (id: Id, minor: number) => void,
): ReadonlyMap<string, Valuation> {
  const purses = new Map<string, Purse & { received: number; used: number }>();
  const passedOn = new Map<string, number>();
  for (const m of movements) {
    let purse = purses.get(m.materialId);
    if (!purse) {
      purse = { ...(method === 'fifo' ? layers() : mixture()), received: 0, used: 0 };
      purses.set(m.materialId, purse);
    }
    if (m.amount > 0) {
      const cost = m.conversionId === null ? (m.costMinor ?? 0) : (passedOn.get(m.conversionId) ?? 0);
      if (m.conversionId !== null) passedOn.set(m.conversionId, 0);
      purse.received += cost;
      purse.receive(m.amount, cost);
    } else if (m.amount < 0) {
      const minor = purse.take(-m.amount);
      purse.used += minor;
      took?.(m.id, minor);
      if (m.conversionId !== null) passedOn.set(m.conversionId, (passedOn.get(m.conversionId) ?? 0) + minor);
    }
  }
  return new Map(
    [...purses].map(([id, { received, used }]) => [
      id,
      { receivedMinor: received, usedMinor: used, onHandMinor: received - used },
    ]),
  );
}

/** Leaves out movements that were reversed, and their reversals: together they are as if they had never been. */
export function withoutReversed<
  M extends { readonly id: string | number; readonly reversesId: string | number | null },
>(movements: readonly M[]): readonly M[] {
  const reversals = movements.filter((m) => m.reversesId !== null);
  if (reversals.length === 0) return movements;
  const there = new Set(movements.map((m) => m.id));
  const reversed = new Set(reversals.flatMap(({ reversesId: id }) => (id !== null && there.has(id) ? [id] : [])));
  return movements.filter((m) => !reversed.has(m.id) && !(m.reversesId !== null && there.has(m.reversesId)));
}

/**
 * Reads an amount of money as written (`12.50`, `12,5`, `£8`, `12p`, `£1,200`) into minor units of a currency with two decimals.
 * `undefined` when it can't be read or is below zero.
 */
export function readMoney(text: string): number | undefined {
  const trimmed = text.trim();
  if (/[-−]/.test(trimmed)) return undefined;
  const minor = /^(\d{1,9})\s*(?:p|c|ct|cents?|pence)$/i.exec(trimmed);
  if (minor) return Number(minor[1]);
  const match = /^\D{0,3}?\s*(\d{1,3}(?:[ '’,]\d{3})+|\d{1,9})(?:[.,](\d{1,2}))?\s*\D{0,3}$/.exec(trimmed);
  if (!match) return undefined;
  return Number(match[1]?.replace(/\D/g, '')) * 100 + Number((match[2] ?? '').padEnd(2, '0') || 0);
}

/** Writes minor units as money, as people write it: `£12.50`, `−€0.05`. @param currency ISO 4217 code */
export function formatMoney(minor: number, currency: string): string {
  const sign = minor < 0 ? '−' : '';
  return `${sign}${signOf(currency)}${withDecimalMark((Math.abs(minor) / 100).toFixed(2))}`;
}

const signs = new Map<string, string>();

/** A currency's sign; where it has none of its own, its code and a space. */
function signOf(currency: string): string {
  let sign = signs.get(currency);
  if (sign === undefined) {
    const parts = new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'narrowSymbol' });
    const found = parts.formatToParts(1).find((p) => p.type === 'currency')?.value ?? currency;
    sign = found === currency ? `${currency}\u00a0` : found;
    signs.set(currency, sign);
  }
  return sign;
}
