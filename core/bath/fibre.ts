import { said } from '../words/said';
/** The fibres a base can be of. */
export const FIBRE_KINDS = [
  'wool',
  'alpaca',
  'cashmere',
  'mohair',
  'angora',
  'silk',
  'cotton',
  'linen',
  'hemp',
  'ramie',
  'jute',
  'viscose',
  'lyocell',
  'nylon',
  'synthetic',
] as const;
/** One of `FIBRE_KINDS`. */
export type FibreKind = (typeof FIBRE_KINDS)[number];
/**
 * How a fibre takes dye: like wool, like cotton, much as wool does though it is made (nylon), or not at all (polyester,
 * acrylic, polypropylene).
 */
export type FibreFamily = 'protein' | 'cellulose' | 'polyamide' | 'synthetic';

/**
 * Density of the dry fibre, g per ml. Source: Morton & Hearle, Physical Properties of Textile Fibres, 4th ed. 2008,
 * table 5.1 (dry values); fine hair fibres taken as wool, ramie and hemp as flax, lyocell as
 * viscose, and other synthetics as polyester.
 */
const DENSITY_G_PER_ML: Readonly<Record<FibreKind, number>> = {
  wool: 1.3,
  alpaca: 1.3,
  cashmere: 1.3,
  mohair: 1.3,
  angora: 1.3,
  silk: 1.34,
  cotton: 1.55,
  linen: 1.54,
  hemp: 1.54,
  ramie: 1.54,
  jute: 1.5,
  viscose: 1.52,
  lyocell: 1.52,
  nylon: 1.14,
  synthetic: 1.39,
};

const FAMILY: Readonly<Record<FibreKind, FibreFamily>> = {
  wool: 'protein',
  alpaca: 'protein',
  cashmere: 'protein',
  mohair: 'protein',
  angora: 'protein',
  silk: 'protein',
  cotton: 'cellulose',
  linen: 'cellulose',
  hemp: 'cellulose',
  ramie: 'cellulose',
  jute: 'cellulose',
  viscose: 'cellulose',
  lyocell: 'cellulose',
  nylon: 'polyamide',
  synthetic: 'synthetic',
};

/** Protein, cellulose, polyamide or synthetic: decides scour, mordant and what heat and alkali do. */
export function fibreFamily(kind: FibreKind): FibreFamily {
  return FAMILY[kind];
}

/** Volume that submerged fibre takes up, ml, from its dry weight in grams. */
export function fibreDisplacementMl(kind: FibreKind, weightG: number): number {
  return weightG / DENSITY_G_PER_ML[kind];
}

/** One fibre of a blend, and how much of it is that, per cent. */
export interface BlendShare {
  readonly fibre: FibreKind;
  readonly sharePercent: number;
}

/** What a base is of: its main fibre, and what else is in it where it is a blend. */
export interface OfFibre {
  readonly fibre: FibreKind;
  /** Every fibre of a blend with its share; nothing where it is of one fibre. */
  readonly blend?: readonly BlendShare[] | undefined;
}

/** Every fibre in a base, the main one first. */
export const fibresIn = ({ fibre, blend = [] }: OfFibre): FibreKind[] => [
  ...new Set([fibre, ...blend.map((b) => b.fibre)]),
];

/** Volume that a submerged base takes up, ml: each fibre of a blend by its share. */
export const baseDisplacementMl = ({ fibre, blend = [] }: OfFibre, weightG: number): number =>
  blend.length === 0
    ? fibreDisplacementMl(fibre, weightG)
    : blend.reduce((sum, b) => sum + fibreDisplacementMl(b.fibre, (weightG * b.sharePercent) / 100), 0);

/** How each kind is said on screen, where its name alone would mislead. */
export const fibreLabel = (kind: FibreKind): string =>
  kind === 'synthetic' ? $localize`polyester, acrylic or polypropylene` : said(kind);

/** How hot a fibre may get, °C: in a bath, and where it is rubbed and rinsed. `null` where boiling does it no harm. */
export interface FibreHeat {
  readonly bathC: number | null;
  readonly washC: number | null;
}

const BORN: FibreHeat = { bathC: 98, washC: 65 };
const TENDER: FibreHeat = { bathC: 85, washC: 50 };
const HEAT: Readonly<Partial<Record<FibreKind, FibreHeat>>> = {
  wool: BORN,
  alpaca: BORN,
  mohair: BORN,
  cashmere: TENDER,
  angora: TENDER,
  silk: { bathC: 85, washC: 60 },
};

/**
 * How hot a fibre may get. General practice: wool felts and weakens in rubbing heat, silk loses its lustre above a
 * simmer, cellulose bears the boil.
 */
export const fibreHeat = (kind: FibreKind): FibreHeat => HEAT[kind] ?? { bathC: null, washC: null };
