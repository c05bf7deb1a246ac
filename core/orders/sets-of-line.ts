import { deltaEBy } from '../colour/delta-e';
import type { ColourConditions, Lab } from '../colour/lab';
import { sameConditions } from '../colour/lab';
import { withDecimalMark } from '../quantity/shown-in';
import { joinList } from '../quantity/word-list';
import type { GoodsOfLine } from './goods';

/** A set of a line: pieces that go to a customer as one, and have to match. */
export interface SetOfLine {
  /** From 1. */
  readonly set: number;
  readonly pieces: number;
  readonly isFull: boolean;
  readonly lotIds: readonly string[];
  /** Difference of the two lots in it that lie furthest apart, CIEDE2000; `null` of one lot, or where one wasn't read. */
  readonly apart: number | null;
}

/**
 * The sets of a line, as they were put together.
 * @param setOf pieces in a set
 * @param colours how each lot came out; `null` where nobody read it
 */
export function setsOfLine(
  goods: readonly GoodsOfLine[],
  setOf: number,
  colours: ReadonlyMap<string, (Lab & ColourConditions) | null>,
): readonly SetOfLine[] {
  const bySet = new Map<number, GoodsOfLine[]>();
  for (const g of goods) if (g.set !== null) bySet.set(g.set, [...(bySet.get(g.set) ?? []), g]);
  return [...bySet]
    .sort(([one], [other]) => one - other)
    .map(([set, all]) => {
      const pieces = all.reduce((sum, g) => sum + g.setAside + g.handedOver, 0);
      const lotIds = [...new Set(all.map((g) => g.lotId))];
      return { set, pieces, isFull: pieces === setOf, lotIds, apart: apartOf(lotIds, colours) };
    });
}

function apartOf(
  lotIds: readonly string[],
  colours: ReadonlyMap<string, (Lab & ColourConditions) | null>,
): number | null {
  if (lotIds.length < 2) return null;
  const labs = lotIds.map((id) => colours.get(id) ?? null);
  let worst = 0;
  for (const [i, one] of labs.entries())
    for (const other of labs.slice(i + 1)) {
      if (!one || !other || !sameConditions(one, other)) return null;
      worst = Math.max(worst, deltaEBy('de00', one, other));
    }
  return worst;
}

/** What to look at in a set before it goes out, in a sentence; `undefined` where there is nothing. */
export function saySetCaution(set: SetOfLine, setOf: number, tags: ReadonlyMap<string, string>): string | undefined {
  if (set.lotIds.length > 1) {
    const lots = joinList(set.lotIds.map((id) => tags.get(id) ?? ''));
    return set.apart === null
      ? $localize`Set ${set.set} holds pieces of ${lots}. Lay them beside each other in daylight before they go out as one.`
      : $localize`Set ${set.set} holds pieces of ${lots}, ΔE ${withDecimalMark(set.apart.toFixed(1))} apart. A set is better of one lot.`;
  }
  return set.pieces > setOf
    ? $localize`Set ${set.set} holds ${set.pieces} pieces, and a set is of ${setOf}. Put some back, or begin another set.`
    : undefined;
}
