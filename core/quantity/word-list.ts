/** “a, b and c”. */
export function joinList(items: readonly string[], last = 'and'): string {
  return items.length < 2 ? (items[0] ?? '') : `${items.slice(0, -1).join(', ')} ${last} ${items.at(-1)}`;
}

/** The form of a word that goes with a count. @param many where it isn't the word with an s */
export const pluralOf = (n: number, one: string, many = `${one}s`): string => (Math.abs(n) === 1 ? one : many);

/** “1 hank”, “12 hanks”, “2 batches”. @param many where it isn't the word with an s */
export const countLabel = (n: number, one: string, many = `${one}s`): string => `${n} ${pluralOf(n, one, many)}`;
