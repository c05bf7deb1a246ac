/**
 * Stores and ledgers count whole milligrams, microlitres and pieces so that sums never drift.
 * These pairs convert at the edges. Results are rounded to the nearest smallest unit.
 */
export const MILLIGRAMS_PER_GRAM = 1000;
/** Microlitres in a millilitre. */
export const MICROLITRES_PER_ML = 1000;

/** Grams to whole milligrams, rounded. */
export function convertGramsToMilligrams(weightG: number): number {
  return Math.round(weightG * MILLIGRAMS_PER_GRAM);
}

/** Milligrams to grams. */
export function convertMilligramsToGrams(weightMg: number): number {
  return weightMg / MILLIGRAMS_PER_GRAM;
}

/** Millilitres to whole microlitres, rounded. */
export function convertMillilitresToMicrolitres(volumeMl: number): number {
  return Math.round(volumeMl * MICROLITRES_PER_ML);
}

/** Microlitres to millilitres. */
export function convertMicrolitresToMillilitres(volumeUl: number): number {
  return volumeUl / MICROLITRES_PER_ML;
}
