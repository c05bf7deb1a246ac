const VULGAR_FRACTIONS: Readonly<Record<string, number>> = {
  '½': 1 / 2,
  '⅓': 1 / 3,
  '⅔': 2 / 3,
  '¼': 1 / 4,
  '¾': 3 / 4,
  '⅛': 1 / 8,
  '⅜': 3 / 8,
  '⅝': 5 / 8,
  '⅞': 7 / 8,
};

/**
 * The pattern of a number as people write it: `12`, `2.4`, `1,5`, `1 1/2`, `3/4`, `2½`, `½`, with an optional sign.
 * One capturing group is not used, so that it can stand inside larger patterns.
 */
export const WRITTEN_NUMBER = String.raw`[-+−]?(?:\d+\s+\d+\s*/\s*\d+|\d+\s*/\s*\d+|\d+(?:[.,]\d+)*\s*[½⅓⅔¼¾⅛⅜⅝⅞]?|[.,]\d+|[½⅓⅔¼¾⅛⅜⅝⅞])`;

/**
 * Reads one number as written. A lone comma is a decimal comma; commas before groups of three digits
 * followed by a point are thousands marks. Anything that could be read two ways gives `undefined`
 * (`1,500`: one and a half, or fifteen hundred?).
 */
export function readNumberText(text: string): number | undefined {
  const trimmed = text.trim().replace('−', '-');
  const sign = trimmed.startsWith('-') ? -1 : 1;
  const body = trimmed.replace(/^[-+]/, '').trim();
  const mixed = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(body);
  if (mixed) {
    const bottom = Number(mixed[3]);
    if (bottom === 0) return undefined;
    return sign * (Number(mixed[1] ?? 0) + Number(mixed[2]) / bottom);
  }
  const vulgar = /^(\d*)\s*([½⅓⅔¼¾⅛⅜⅝⅞])$/.exec(body);
  if (vulgar) return sign * (Number(vulgar[1] || 0) + (VULGAR_FRACTIONS[vulgar[2] ?? ''] ?? 0));
  if (/^\d{1,3}(?:,\d{3})+\.\d+$/.test(body)) return sign * Number(body.replaceAll(',', ''));
  if (/^\d{1,3}(?:\.\d{3})+,\d+$/.test(body)) return sign * Number(body.replaceAll('.', '').replace(',', '.'));
  if (/^[1-9]\d{0,2}(?:,\d{3})+$/.test(body)) return undefined;
  if (/^\d*[.,]\d+$/.test(body) || /^\d+$/.test(body)) return sign * Number(body.replace(',', '.'));
  return undefined;
}

/** Why something typed is no number, or which two it could be, in a sentence that says what to write. */
export function explainNumber(text: string): string {
  const shown = text.trim().length > 20 ? `${text.trim().slice(0, 20)}…` : text.trim();
  return /^[-+−]?[\d.,’'\s/½⅓⅔¼¾⅛⅜⅝⅞-]+$/.test(shown)
    ? `“${shown}” can be read in two ways. Write it without marks between thousands, for example 1500 or 1.5.`
    : `“${shown}” is not a number. Write figures alone, for example 12.5.`;
}
