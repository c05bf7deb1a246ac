import { worded } from '../words/worded';
/*
 * Short codes for tags that are read wet, in steam, and typed with a glove: a letter for what it is, a number, and a
 * sign that
 * catches any one mistyped character and nearly all that were swapped (a hybrid system as in ISO/IEC 7064, MOD 33,32:
 * 32 signs, none alike).
 */
const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
const RADIX = ALPHABET.length;

/** What can carry a code. */
export const TAG_KINDS = ['stockLot', 'vessel', 'lot', 'piece', 'bath'] as const;
/** One of `TAG_KINDS`. */
export type TagKind = (typeof TAG_KINDS)[number];
/** How each is said on screen. */
export const TAG_KIND_LABELS: Readonly<Record<TagKind, string>> = worded(() => ({
  stockLot: $localize`jar`,
  vessel: $localize`pot`,
  lot: $localize`lot`,
  piece: $localize`piece`,
  bath: $localize`bath`,
}));
const LETTERS: Readonly<Record<TagKind, string>> = { stockLot: 'J', vessel: 'V', lot: 'Q', piece: 'P', bath: 'B' };

/** Check sign of the characters before it: the recursive sum of ISO/IEC 7064's hybrid systems, for 32 signs. */
function checkSign(body: string): string {
  let product = RADIX;
  for (const character of body) {
    const sum = (product + ALPHABET.indexOf(character)) % RADIX || RADIX;
    product = (sum * 2) % (RADIX + 1);
  }
  return ALPHABET[(RADIX + 1 - product) % RADIX] ?? '0';
}

/** Writes a code: `J-00A7-X`. @param number 1 to 32⁴ − 1 */
export function writeTagCode(kind: TagKind, number: number): string {
  if (!Number.isInteger(number) || number < 1 || number >= RADIX ** 4)
    throw new RangeError(`number must be a whole number from 1 to ${RADIX ** 4 - 1}, got ${number}`);
  let digits = '';
  for (let rest = number; rest > 0; rest = Math.floor(rest / RADIX)) digits = (ALPHABET[rest % RADIX] ?? '') + digits;
  const body = LETTERS[kind] + digits.padStart(4, '0');
  return `${body[0]}-${body.slice(1)}-${checkSign(body)}`;
}

/** What a code stands for; or why it can't be read. */
export type TagReading =
  | { readonly ok: true; readonly kind: TagKind; readonly number: number; readonly code: string }
  | { readonly ok: false; readonly code: 'notATag' | 'mistyped'; readonly message: string };

/** Reads a code as typed or scanned: case, spaces and dashes don't matter; I and L are read as 1, O as 0, U as V. */
export function readTagCode(typed: string): TagReading {
  const plain = typed
    .trim()
    .toUpperCase()
    .replace(/^.*[#/]TAG[/:]/, '')
    .replace(/[\s-]/g, '');
  const kind = TAG_KINDS.find((k) => LETTERS[k] === plain[0]);
  const rest = plain.slice(1).replace(/[IL]/g, '1').replace(/O/g, '0').replace(/U/g, 'V');
  if (!kind || rest.length !== 5 || [...rest].some((c) => !ALPHABET.includes(c)))
    return {
      ok: false,
      code: 'notATag',
      message: $localize`That is no tag of this studio: a letter, four signs and one more to check them, like J-00A7-X.`,
    };
  const body = plain[0] + rest.slice(0, 4);
  if (checkSign(body) !== rest[4])
    return {
      ok: false,
      code: 'mistyped',
      message: $localize`One sign of that code is wrong or two are swapped. Read the tag again.`,
    };
  const number = [...rest.slice(0, 4)].reduce((sum, c) => sum * RADIX + ALPHABET.indexOf(c), 0);
  return number === 0
    ? { ok: false, code: 'notATag', message: $localize`That code was never given out. Read the tag again.` }
    : { ok: true, kind, number, code: `${body[0]}-${body.slice(1)}-${rest[4]}` };
}
