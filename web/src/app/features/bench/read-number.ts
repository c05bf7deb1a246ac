/** A number as typed at the bench, with a comma or a point; `undefined` where it is none. */
export function readNumber(text: string): number | undefined {
  const value = Number(text.trim().replace(',', '.').replace(/\s*(?:°?\s*c|ml|g|l|min)$/i, ''));
  return text.trim() === '' || !Number.isFinite(value) ? undefined : value;
}
