import { readNumberText, WRITTEN_NUMBER } from './number-text';

/** Centimetres in each unit of length. Yard, foot, inch: international yard and pound agreement, 1959. */
const CM: Readonly<Record<string, number>> = {
  m: 100,
  metre: 100,
  metres: 100,
  meter: 100,
  meters: 100,
  cm: 1,
  mm: 0.1,
  yd: 91.44,
  yds: 91.44,
  yard: 91.44,
  yards: 91.44,
  ft: 30.48,
  foot: 30.48,
  feet: 30.48,
  in: 2.54,
  inch: 2.54,
  inches: 2.54,
};
/** More than a studio lays out at once. */
const MAX_CM = 200_000;

const PART = new RegExp(String.raw`(${WRITTEN_NUMBER})\s*([a-z]+)\.?`, 'giy');

/** A length as it was written, cm; `undefined` where it is none. `2 m`, `3 yd 18 in`, `1,5 metres`. */
export function readLength(text: string): number | undefined {
  const written = text.trim().toLowerCase();
  let totalCm = 0;
  let position = 0;
  while (position < written.length) {
    PART.lastIndex = position;
    const part = PART.exec(written);
    const value = part ? readNumberText(part[1] ?? '') : undefined;
    const unit = part && Object.hasOwn(CM, part[2] ?? '') ? CM[part[2] ?? ''] : undefined;
    if (value === undefined || unit === undefined || value < 0) return undefined;
    totalCm += value * unit;
    position = PART.lastIndex;
    position += /^(?:\s+|\s*(?:,|\+|and)\s*)?/.exec(written.slice(position))?.[0].length ?? 0;
  }
  return totalCm > 0 && totalCm <= MAX_CM ? totalCm : undefined;
}

/** What so much cloth or yarn weighs, g, from its weight by the metre. */
export const weightOfLength = (lengthCm: number, gPerM: number): number => (lengthCm / 100) * gPerM;
