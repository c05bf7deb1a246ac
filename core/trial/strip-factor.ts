/** What strips of a trial can differ in. */
export const STRIP_FACTORS = ['dose', 'source', 'mordant', 'time', 'water', 'modifier', 'liquor'] as const;
/** One of `STRIP_FACTORS`. */
export type StripFactor = (typeof STRIP_FACTORS)[number];
/** How each is said on screen. */
export const STRIP_FACTOR_LABELS: Readonly<Record<StripFactor, string>> = {
  dose: 'dose of dyestuff',
  source: 'source of dyestuff',
  mordant: 'mordant',
  time: 'time in the dye bath',
  water: 'water',
  modifier: 'modifier',
  liquor: 'liquor in the bowl',
};
