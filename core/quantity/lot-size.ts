import { countLabel, pluralOf } from './word-list';
import type { WeightReading } from './weight';
import { formatWeight, readWeight } from './weight';
import { readLength, weightOfLength } from './length';
import { WRITTEN_NUMBER, readNumberText } from './number-text';

/** So many pieces, each of so much dry fibre. */
export interface LotSize {
  readonly pieces: number;
  readonly pieceWeightG: number;
  /** How the writing was understood, for echoing back. */
  readonly understoodAs: string;
}

/** A base, as far as a size is read by it: its piece, and what a metre of it weighs where that is known, g. */
export interface SizedBase {
  readonly usualPieceWeightG: number;
  readonly pieceWord: string;
  readonly gPerM?: number | null | undefined;
}

/** A lot size as it was written; or why it can't be used. */
export type LotSizeReading =
  | { readonly ok: true; readonly size: LotSize }
  | { readonly ok: false; readonly code: string; readonly message: string };

/** The heaviest single piece that a small studio can lift wet (a rug, a stage cloth). */
export const HEAVIEST_PIECE_G = 25_000;
/** More pieces than this are taken for a slip of the pen. */
export const MAX_PIECES = 2000;

const COUNTED = String.raw`(${WRITTEN_NUMBER}|[a-z]+)`;
const PIECES_OF = new RegExp(
  String.raw`^${COUNTED}\s*(?:([\p{L}]+)?\s*(?:of|à|at|@|zu|von)\s+|(?:[\p{L}]+\s*)?[x×*]\s*|[\p{L}]+\s*,\s*)(.+?)(?:\s*(?:each|apiece))?$`,
  'iu',
);
/** So many pieces and no weight: each of the base's usual weight. */
const PIECES_ALONE = new RegExp(String.raw`^${COUNTED}\s*([\p{L}]{3,})$`, 'iu');
const NUMBER_WORDS = [
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];

/** A count in figures or in a word up to twelve. */
function readCount(text: string): number | undefined {
  const word = text.trim().toLowerCase();
  if (word === 'dozen') return 12;
  return NUMBER_WORDS.includes(word) ? NUMBER_WORDS.indexOf(word) + 1 : readNumberText(text);
}

const refuse = (code: string, message: string): LotSizeReading => ({ ok: false, code, message });

/**
 * Reads the size of a lot as people write it: `12 hanks of 8 oz`, `12 x 100 g`, `12 hanks, 100 g each`, `twelve
 * hanks of 8 oz`, `1 skein`, `2.4 kg`, `3 lengths of 2 m`.
 * A bare weight is divided into pieces near `usualPieceWeightG` (the base's usual hank or length); the total is kept.
 * Refusals are values with a plain sentence.
 */
export function readLotSize(text: string, base: SizedBase): LotSizeReading {
  const { usualPieceWeightG, pieceWord } = base;
  const writtenText = text.trim();
  if (writtenText === '')
    return refuse(
      'empty',
      $localize`Say how many pieces of what dry weight, for example “12 ${pieceWord}s of 100 g” or “2.4 kg”.`,
    );
  const parts = writtenText.split(UNLIKE).map((part) => part.trim());
  if (parts.length > 1) return readUnlike(parts, base);
  if (writtenText.length > 80)
    return refuse('notASize', $localize`That is too long to be a size. Write it like “12 ${pieceWord}s of 100 g”.`);
  const match = PIECES_OF.exec(writtenText);
  const length = match ? undefined : readLength(writtenText);
  if (length !== undefined) return acceptLengths(1, length, base);
  if (!match) {
    const whole = readWeight(writtenText);
    const alone = whole.ok ? undefined : PIECES_ALONE.exec(writtenText);
    const count = alone && isPieceWord(alone[2] ?? '', pieceWord) ? readCount(alone[1] ?? '') : undefined;
    return count !== undefined && count > 0 && Number.isInteger(count) && count <= MAX_PIECES
      ? accept(count, usualPieceWeightG, pieceWord)
      : readWholeWeight(whole, writtenText, usualPieceWeightG, pieceWord);
  }

  const pieces = readCount(match[1] ?? '');
  if (pieces === undefined)
    return refuse('notANumber', $localize`“${match[1]}” is not a number of pieces. Write a whole number.`);
  if (pieces <= 0) return refuse('notPositive', $localize`A lot needs at least one piece.`);
  if (!Number.isInteger(pieces))
    return refuse(
      'notWhole',
      $localize`Pieces are whole: ${match[1]?.trim()} of a ${pieceWord} can’t be dyed. Write a whole number.`,
    );
  if (pieces > MAX_PIECES)
    return refuse(
      'tooMany',
      $localize`${pieces} pieces are more than one lot can hold. Make several lots of up to ${MAX_PIECES}.`,
    );
  const eachCm = readLength(match[3] ?? '');
  if (eachCm !== undefined) return acceptLengths(pieces, eachCm, base);
  const each = readWeight(match[3] ?? '');
  if (!each.ok) return refuse(each.code, each.message);
  if (each.weightG > HEAVIEST_PIECE_G) return refuse('pieceTooHeavy', tooHeavyMessage(each.weightG, pieceWord));
  return accept(pieces, each.weightG, pieceWord);
}

/** Pieces of unlike weight are written one after the other: `33 g + 35 g`, `2 hanks of 100 g + 1 hank of 60 g`. */
const UNLIKE = /\s*\+\s*|\s+plus\s+/iu;
const MAX_PARTS = 40;

/** Every part by itself, then together: the total is kept, and a piece weighs what they do on average. */
function readUnlike(parts: readonly string[], base: SizedBase): LotSizeReading {
  if (parts.length > MAX_PARTS)
    return refuse('notASize', $localize`That is more than ${MAX_PARTS} weights. Write those that are alike together.`);
  const readings = parts.map((part) => readLotSize(part, base));
  const refused = readings.find((r) => !r.ok);
  if (refused) return refused;
  const sizes = readings.flatMap((r) => (r.ok ? [r.size] : []));
  const pieces = sizes.reduce((sum, s) => sum + s.pieces, 0);
  const totalG = sizes.reduce((sum, s) => sum + s.pieces * s.pieceWeightG, 0);
  if (pieces > MAX_PIECES)
    return refuse(
      'tooMany',
      $localize`${pieces} pieces are more than one lot can hold. Make several lots of up to ${MAX_PIECES}.`,
    );
  const alike = sizes.map((s) => $localize`${countLabel(s.pieces, base.pieceWord)} of ${formatWeight(s.pieceWeightG)}`);
  const understoodAs = `${alike.join(' + ')}, ${formatWeight(totalG)} dry`;
  return { ok: true, size: { pieces, pieceWeightG: totalG / pieces, understoodAs } };
}

/** Lengths of cloth or yarn, by what a metre of the base weighs. */
function acceptLengths(pieces: number, lengthCm: number, { gPerM, pieceWord }: SizedBase): LotSizeReading {
  if (gPerM === undefined || gPerM === null)
    return refuse(
      'lengthUnknown',
      $localize`Nothing says what a metre of this base weighs. Weigh a measured length dry and write it on the base’s page, or write the weight.`,
    );
  const weightG = weightOfLength(lengthCm, gPerM);
  if (weightG > HEAVIEST_PIECE_G) return refuse('pieceTooHeavy', tooHeavyMessage(weightG, pieceWord));
  return accept(pieces, weightG, pieceWord);
}

/** What people call a piece, whatever the base calls it. */
const PIECE_WORDS = ['piece', 'hank', 'skein', 'length', 'reel', 'ball', 'cone', 'shawl', 'scarf', 'garment', 'item'];
const isPieceWord = (word: string, own: string): boolean =>
  [own.toLowerCase(), ...PIECE_WORDS].some((known) =>
    [known, `${known}s`, pluralOf(1, known), pluralOf(2, known)].some(
      (form) => form.toLowerCase() === word.toLowerCase(),
    ),
  );

function readWholeWeight(
  total: WeightReading,
  writtenText: string,
  usualPieceWeightG: number,
  pieceWord: string,
): LotSizeReading {
  if (!total.ok) {
    const bareNumber = readNumberText(writtenText);
    if (total.code === 'noUnit' && bareNumber !== undefined) {
      if (bareNumber <= 0)
        return refuse('notPositive', $localize`A lot needs some fibre: write a number above zero and its unit.`);
      return refuse(
        'noUnit',
        $localize`Is “${writtenText}” ${pieceWord}s, grams or kilograms? Write it out, for example “${writtenText} ${pieceWord}s of ${formatWeight(usualPieceWeightG)}” or “${writtenText} kg”.`,
      );
    }
    return refuse(total.code, total.message);
  }
  const pieces = Math.max(1, Math.round(total.weightG / usualPieceWeightG));
  if (pieces > MAX_PIECES)
    return refuse(
      'tooMany',
      $localize`${formatWeight(total.weightG)} would be ${pieces} ${pieceWord}s, more than one lot can hold. Make several lots.`,
    );
  const pieceWeightG = total.weightG / pieces;
  if (pieceWeightG > HEAVIEST_PIECE_G) return refuse('pieceTooHeavy', tooHeavyMessage(pieceWeightG, pieceWord));
  return accept(pieces, pieceWeightG, pieceWord);
}

function accept(pieces: number, pieceWeightG: number, pieceWord: string): LotSizeReading {
  const total = formatWeight(pieces * pieceWeightG);
  const understoodAs = $localize`${countLabel(pieces, pieceWord)} of ${formatWeight(pieceWeightG)}, ${total} dry`;
  return { ok: true, size: { pieces, pieceWeightG, understoodAs } };
}

const tooHeavyMessage = (weightG: number, pieceWord: string): string =>
  $localize`A ${pieceWord} of ${formatWeight(weightG)} can’t be right: nobody lifts that wet. Check the unit, or write the pieces, for example “12 ${pieceWord}s of 100 g”.`;
