import type { PlannedPick } from './lot-plan';

/**
 * Shares what stock lots give over the weighings that need it, both sums kept exactly.
 * By default every weighing gets the same mix of stock lots, so that batches stay alike when jars differ in strength;
 * `inOrder` empties one stock lot before the next (whole pieces of fibre can't be mixed).
 * @param needsMg what each weighing needs; their sum is the sum of `picks`
 * @param stepMg shares are whole steps of the balance where the sums allow
 */
export function sharePicks(
  needsMg: readonly number[],
  picks: readonly PlannedPick[],
  { stepMg, inOrder }: { stepMg: number; inOrder: boolean },
): PlannedPick[][] {
  const left = picks.map((p) => p.amount);
  return needsMg.map((needMg) => {
    const shares: PlannedPick[] = [];
    let toGive = needMg;
    let leftFromHere = left.reduce((sum, amount) => sum + amount, 0);
    picks.forEach((pick, i) => {
      const here = left[i] ?? 0;
      const max = Math.min(here, toGive);
      const min = Math.max(0, toGive - (leftFromHere - here));
      const even = leftFromHere === 0 ? 0 : (toGive * here) / leftFromHere;
      const wanted = inOrder ? max : Math.round(even / stepMg) * stepMg;
      const amount = Math.min(max, Math.max(min, wanted));
      leftFromHere -= here;
      left[i] = here - amount;
      toGive -= amount;
      if (amount > 0) shares.push({ stockLotId: pick.stockLotId, amount });
    });
    return shares;
  });
}
