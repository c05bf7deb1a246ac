/** “a, b and c”. */
export function joinList(items: readonly string[], last = 'and'): string {
  return items.length < 2 ? (items[0] ?? '') : `${items.slice(0, -1).join(', ')} ${last} ${items.at(-1)}`;
}

/** “1 hank”, “12 hanks”. */
export const countLabel = (n: number, word: string): string => `${n} ${word}${n === 1 ? '' : 's'}`;
