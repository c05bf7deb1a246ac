import { convertGramsToMilligrams, convertMicrolitresToMillilitres, convertMilligramsToGrams, convertMillilitresToMicrolitres } from './smallest-units';
import { formatVolume, formatWeight, readWeight } from './weight';
import { WRITTEN_NUMBER, readWrittenNumber } from './written-number';

/** What a material is counted in: by weight (mg in the ledger) or by volume (µl in the ledger). */
export const STOCK_MEASURES = ['weight', 'volume'] as const;
export type StockMeasure = (typeof STOCK_MEASURES)[number];

export type AmountReading = { readonly ok: true; readonly amount: number } | { readonly ok: false; readonly sentence: string };

const MOST_ML = 1_000_000;
const ML_PER_UNIT: Readonly<Record<string, number>> = { ml: 1, cl: 10, dl: 100, l: 1000, litre: 1000, litres: 1000 };
const VOLUME = new RegExp(String.raw`^(${WRITTEN_NUMBER})\s*([a-z]*)$`, 'i');
const NOTHING = new RegExp(String.raw`^0+([.,]0+)?\s*[a-z]*$`, 'i');

/**
 * Reads a stock amount as written, into whole smallest units (mg or µl).
 * @param allowNothing an empty jar may be counted as 0
 */
export function readAmount(text: string, measure: StockMeasure, { allowNothing = false }: { allowNothing?: boolean } = {}): AmountReading {
  if (allowNothing && NOTHING.test(text.trim())) return { ok: true, amount: 0 };
  if (measure === 'weight') {
    const weight = readWeight(text);
    return weight.ok ? { ok: true, amount: convertGramsToMilligrams(weight.weightG) } : weight;
  }
  const refuse = (sentence: string): AmountReading => ({ ok: false, sentence });
  const match = VOLUME.exec(text.trim());
  const value = match ? readWrittenNumber(match[1] ?? '') : undefined;
  if (!match || value === undefined) return refuse('Write a volume with its unit, for example “500 ml” or “1.5 l”.');
  const unit = (match[2] ?? '').toLowerCase();
  if (unit === '') return refuse(`Which unit is “${text.trim().slice(0, 40)}” in? Write ml or l after the number.`);
  const perUnit = Object.hasOwn(ML_PER_UNIT, unit) ? ML_PER_UNIT[unit] : undefined;
  if (perUnit === undefined) return refuse(`“${unit.slice(0, 40)}” is not a unit of volume known here. Use ml, cl, dl or l.`);
  const volumeMl = value * perUnit;
  if (volumeMl <= 0) return refuse('A volume must be above zero. Write what the jug shows.');
  if (volumeMl > MOST_ML) return refuse(`${formatVolume(volumeMl)} is more than a studio can hold. Check the unit.`);
  return { ok: true, amount: convertMillilitresToMicrolitres(volumeMl) };
}

/** Writes a ledger amount for reading, in the studio's units. */
export function formatAmount(amount: number, measure: StockMeasure): string {
  return measure === 'weight' ? formatWeight(convertMilligramsToGrams(amount)) : formatVolume(convertMicrolitresToMillilitres(amount));
}
