/** The fibres a base can be of. */
export const FIBRE_KINDS = [
  'wool',
  'alpaca',
  'cashmere',
  'silk',
  'cotton',
  'linen',
  'ramie',
  'viscose',
  'synthetic',
] as const;
/** One of `FIBRE_KINDS`. */
export type FibreKind = (typeof FIBRE_KINDS)[number];
/** How a fibre takes dye: like wool, like cotton, or not at all. */
export type FibreFamily = 'protein' | 'cellulose' | 'synthetic';

/**
 * Density of the dry fibre, g per ml. Source: Morton & Hearle, Physical Properties of Textile Fibres, 4th ed. 2008,
 * table 5.1 (dry values); fine hair fibres taken as wool, ramie as flax.
 */
const DENSITY_G_PER_ML: Readonly<Record<FibreKind, number>> = {
  wool: 1.3,
  alpaca: 1.3,
  cashmere: 1.3,
  silk: 1.34,
  cotton: 1.55,
  linen: 1.54,
  ramie: 1.54,
  viscose: 1.52,
  synthetic: 1.39,
};

const FAMILY: Readonly<Record<FibreKind, FibreFamily>> = {
  wool: 'protein',
  alpaca: 'protein',
  cashmere: 'protein',
  silk: 'protein',
  cotton: 'cellulose',
  linen: 'cellulose',
  ramie: 'cellulose',
  viscose: 'cellulose',
  synthetic: 'synthetic',
};

/** Protein, cellulose or synthetic: decides scour, mordant and what heat and alkali do. */
export function fibreFamily(kind: FibreKind): FibreFamily {
  return FAMILY[kind];
}

/** Volume that submerged fibre takes up, ml, from its dry weight in grams. */
export function fibreDisplacementMl(kind: FibreKind, weightG: number): number {
  return weightG / DENSITY_G_PER_ML[kind];
}
