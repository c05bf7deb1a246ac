import {
  convertGramsToMilligrams,
  convertMicrolitresToMillilitres,
  convertMilligramsToGrams,
  convertMillilitresToMicrolitres,
} from './smallest-units';
import type { VolumeProblem, VolumeSystem } from './volume';
import { readVolume, speaksOfVolume, formatVolume } from './volume';
import type { WeightRefusal } from './weight';
import { formatWeight, readWeight } from './weight';
import { countLabel } from './word-list';
import { WRITTEN_NUMBER, readNumberText } from './number-text';

/** What a material is counted in: by weight (mg in the ledger), by volume (µl), or in whole pieces and packets. */
export const STOCK_MEASURES = ['weight', 'volume', 'pieces'] as const;
/** One of `STOCK_MEASURES`. */
export type StockMeasure = (typeof STOCK_MEASURES)[number];

/** Why a written amount was refused. */
export type AmountProblem = WeightRefusal['code'] | VolumeProblem | 'noDensity' | 'notWhole';

/** An amount as it was written, in smallest units of its measure; or why it can't be used. */
export type AmountReading =
  | {
      readonly ok: true;
      readonly amount: number;
      /** What had to be decided or converted on the way. */ readonly note?: string;
    }
  | { readonly ok: false; readonly code: AmountProblem; readonly message: string };

/**
 * How an amount is read here: whether nothing is allowed, whose spoons, and the density that turns a volume into a
 * weight.
 */
export interface AmountOptions {
  /** An empty jar may be counted as 0. */
  readonly allowNothing?: boolean;
  /** The studio's own spoon and gallon; without it a bare “cup” is asked back. */
  readonly system?: VolumeSystem | undefined;
  /** This material's own measured bulk density: the only way from a volume to a weight. */
  readonly bulkDensityGPerMl?: number | undefined;
}

const NOTHING = new RegExp(String.raw`^0+([.,]0+)?\s*[a-z ]*$`, 'i');
const PIECES = new RegExp(String.raw`^(${WRITTEN_NUMBER})\s*(?:x|×|pieces?|pcs|packets?|packs?|sachets?)?$`, 'i');
const MAX_PIECES = 1_000_000;

/** Reads a stock amount as written, into whole smallest units (mg, µl or pieces). */
export function readAmount(
  text: string,
  measure: StockMeasure,
  { allowNothing = false, system, bulkDensityGPerMl }: AmountOptions = {},
): AmountReading {
  if (allowNothing && NOTHING.test(text.trim())) return { ok: true, amount: 0 };
  if (measure === 'pieces') return readPieces(text);
  if (measure === 'volume') {
    const volume = readVolume(text, { system });
    return volume.ok
      ? {
          ok: true,
          amount: convertMillilitresToMicrolitres(volume.volumeMl),
          ...(volume.note ? { note: volume.note } : {}),
        }
      : volume;
  }
  if (!speaksOfVolume(text)) {
    const weight = readWeight(text);
    return weight.ok
      ? { ok: true, amount: convertGramsToMilligrams(weight.weightG), ...(weight.guess ? { note: 'a guess' } : {}) }
      : weight;
  }
  const volume = readVolume(text, { system });
  if (!volume.ok) return volume;
  if (bulkDensityGPerMl === undefined)
    return {
      ok: false,
      code: 'noDensity',
      message: $localize`A spoon or cup of this has no known weight. Weigh it, or teach it a spoon first: weigh a level spoonful a few times on the material’s page.`,
    };
  const weightG = volume.volumeMl * bulkDensityGPerMl;
  const density = $localize`${Math.round(bulkDensityGPerMl * 1000) / 1000} g/ml as weighed here`;
  return {
    ok: true,
    amount: convertGramsToMilligrams(weightG),
    note: [volume.note, density].filter(Boolean).join(', '),
  };
}

function readPieces(text: string): AmountReading {
  const match = PIECES.exec(text.trim());
  const value = match ? readNumberText(match[1] ?? '') : undefined;
  if (value === undefined)
    return {
      ok: false,
      code: 'notANumber',
      message: $localize`This is kept in whole pieces or packets. Write a number, for example “3 packets”.`,
    };
  if (value <= 0) return { ok: false, code: 'notPositive', message: $localize`Write how many there are, one or more.` };
  if (!Number.isInteger(value))
    return {
      ok: false,
      code: 'notWhole',
      message: $localize`Packets are opened whole and pieces are not cut here. Write a whole number.`,
    };
  if (value > MAX_PIECES)
    return { ok: false, code: 'tooMuch', message: $localize`That is more than a studio can hold. Check the number.` };
  return { ok: true, amount: value };
}

/** Writes a ledger amount for reading, in the studio's units. */
export function formatAmount(amount: number, measure: StockMeasure): string {
  if (measure === 'pieces') return countLabel(amount, 'piece');
  return measure === 'weight'
    ? formatWeight(convertMilligramsToGrams(amount))
    : formatVolume(convertMicrolitresToMillilitres(amount));
}
