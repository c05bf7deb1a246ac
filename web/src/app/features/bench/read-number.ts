import { readNumberText } from '@vestigia/core';

/** A figure as typed at the bench, with or without its unit; `undefined` where it is none. */
export function readNumber(text: string): number | undefined {
  return readNumberText(text.trim().replace(/\s*(?:°?\s*c|ml|g|l|min)$/i, ''));
}
