/**
 * What the next of the same kind stays at or below with at least this chance, by those there were: the order statistic
 * at ⌈share (n + 1)⌉, or the largest where that lies beyond them (split conformal prediction: Vovk, Gammerman and Shafer,
 * Algorithmic Learning in a Random World, 2005).
 * @param values of any unit, at least one; fewer than share / (1 - share) of them promise less than is said
 * @param share 0-1
 */
export function atMost(values: readonly number[], share: number): number {
  if (values.length === 0) throw new RangeError('nothing to go by');
  const sorted = [...values].sort((x, y) => x - y);
  return sorted[Math.min(sorted.length, Math.ceil(share * (sorted.length + 1))) - 1] ?? 0;
}
