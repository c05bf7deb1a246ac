const collator = new Intl.Collator(undefined, { numeric: true });

/** Rows by what `of` says of each; those of which it says the same stay as they stood. */
export const inOrder = <T>(rows: readonly T[], of: (row: T) => number | string | null, up: boolean): T[] =>
  [...rows].sort((a, b) => compare(of(a), of(b), up ? 1 : -1));

/** What isn’t known stands last, whichever way. */
function compare(a: number | string | null, b: number | string | null, sign: number): number {
  if (a === null || b === null) return a === b ? 0 : a === null ? 1 : -1;
  return sign * (typeof a === 'string' ? collator.compare(a, String(b)) : a - Number(b));
}
