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

/** What stands between groups of three digits where it isn't a comma or a point: a space of any width, an apostrophe. */
const GROUPED = String.raw`\d{1,3}(?:[ \u00a0\u2009\u202f'’]\d{3})+(?:[.,]\d+)?`;

/**
 * The pattern of a number as people write it: `12`, `2.4`, `1,5`, `1 500`, `1’500`, `1 1/2`, `1-1/2`, `3/4`, `2½`,
 * `½`, with an optional sign. No capturing group is used, so that it can stand inside larger patterns.
 */
export const WRITTEN_NUMBER = String.raw`[-+−]?(?:\d+(?:\s+|\s*-\s*)\d+\s*[/⁄]\s*\d+|\d+\s*[/⁄]\s*\d+|${GROUPED}|\d+(?:[.,]\d+)*\s*[½⅓⅔¼¾⅛⅜⅝⅞]?|[.,]\d+|[½⅓⅔¼¾⅛⅜⅝⅞])`;

const IS_GROUPED = new RegExp(`^${GROUPED}$`);

/**
 * Reads one number as written. A lone comma is a decimal comma; commas before groups of three digits
 * followed by a point are thousands marks, and so are spaces and apostrophes. Anything that could be read two ways
 * gives `undefined` (`1,500`: one and a half, or fifteen hundred? `1.500` likewise; `21/2`: ten and a half, or two
 * and a half?).
 */
export function readNumberText(text: string): number | undefined {
  const trimmed = text.trim().replace('−', '-').replaceAll('⁄', '/');
  const sign = trimmed.startsWith('-') ? -1 : 1;
  const body = trimmed.replace(/^[-+]/, '').trim();
  const mixed = /^(?:(\d+)(?:\s+|\s*-\s*))?(\d+)\s*\/\s*(\d+)$/.exec(body);
  if (mixed) return readFraction(sign, mixed[1], mixed[2] ?? '', Number(mixed[3]));
  const vulgar = /^(\d*)\s*([½⅓⅔¼¾⅛⅜⅝⅞])$/.exec(body);
  if (vulgar) return sign * (Number(vulgar[1] || 0) + (VULGAR_FRACTIONS[vulgar[2] ?? ''] ?? 0));
  if (IS_GROUPED.test(body)) return sign * Number(body.replace(/[^\d.,]/g, '').replace(',', '.'));
  if (/^\d{1,3}(?:,\d{3})+\.\d+$/.test(body)) return sign * Number(body.replaceAll(',', ''));
  if (/^\d{1,3}(?:\.\d{3})+,\d+$/.test(body)) return sign * Number(body.replaceAll('.', '').replace(',', '.'));
  // Nobody writes a nought at the end of a decimal that a comma or point before three digits might not be.
  if (/^[1-9]\d{0,2}(?:,\d{3})+$/.test(body) || /^[1-9]\d{0,2}(?:\.\d{3})*\.\d\d0$/.test(body)) return undefined;
  if (/^\d*[.,]\d+$/.test(body) || /^\d+$/.test(body)) return sign * Number(body.replace(',', '.'));
  return undefined;
}

/** `21/2` might be two and a half, run together: a top of several digits over a smaller bottom is asked about. */
function readFraction(sign: number, whole: string | undefined, top: string, bottom: number): number | undefined {
  if (bottom === 0) return undefined;
  const runTogether =
    whole === undefined &&
    top.length > 1 &&
    Number(top) > bottom &&
    Number(top.slice(1)) > 0 &&
    Number(top.slice(1)) < bottom;
  return runTogether ? undefined : sign * (Number(whole ?? 0) + Number(top) / bottom);
}

/** Why something typed is no number, or which two it could be, in a sentence that says what to write. */
export function explainNumber(text: string): string {
  const shown = text.trim().length > 20 ? `${text.trim().slice(0, 20)}…` : text.trim();
  return /^[-+−]?[\d.,’'\s/½⅓⅔¼¾⅛⅜⅝⅞-]+$/.test(shown)
    ? $localize`“${shown}” can be read in two ways. Write it without marks between thousands, for example 1500 or 1.5.`
    : $localize`“${shown}” is not a number. Write figures alone, for example 12.5.`;
}
