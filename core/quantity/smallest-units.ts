/**
 * Stores and ledgers count whole milligrams, microlitres and pieces so that sums never drift.
 * These pairs convert at the edges. Results are rounded to the nearest smallest unit.
 */
export const MILLIGRAMS_PER_GRAM = 1000;
export const MICROLITRES_PER_ML = 1000;

export function convertGramsToMilligrams(weightG: number): number {
  return Math.round(weightG * MILLIGRAMS_PER_GRAM);
}

export function convertMilligramsToGrams(weightMg: number): number {
  return weightMg / MILLIGRAMS_PER_GRAM;
}

export function convertMillilitresToMicrolitres(volumeMl: number): number {
  return Math.round(volumeMl * MICROLITRES_PER_ML);
}

export function convertMicrolitresToMillilitres(volumeUl: number): number {
  return volumeUl / MICROLITRES_PER_ML;
}
