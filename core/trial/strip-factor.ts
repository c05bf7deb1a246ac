import { worded } from '../words/worded';

/** What strips of a trial can differ in. */
export const STRIP_FACTORS = ['dose', 'source', 'mordant', 'time', 'water', 'modifier', 'liquor'] as const;
/** One of `STRIP_FACTORS`. */
export type StripFactor = (typeof STRIP_FACTORS)[number];
/** How each is said on screen. */
export const STRIP_FACTOR_LABELS: Readonly<Record<StripFactor, string>> = worded(() => ({
  dose: $localize`dose of dyestuff`,
  source: $localize`source of dyestuff`,
  mordant: $localize`mordant`,
  time: $localize`time in the dye bath`,
  water: $localize`water`,
  modifier: $localize`modifier`,
  liquor: $localize`liquor in the bowl`,
}));
