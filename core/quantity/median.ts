/** The middle value, or the mean of the two in the middle; 0 of none. Of any unit. */
export function median(values: readonly number[]): number {
  const sorted = [...values].sort((x, y) => x - y);
  const middle = sorted.length / 2;
  return ((sorted[Math.ceil(middle) - 1] ?? 0) + (sorted[Math.floor(middle)] ?? 0)) / 2;
}
