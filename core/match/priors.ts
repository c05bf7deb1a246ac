/**
 * What is held true of dyeing before anything was dyed here. Standard deviations of natural logarithms, unless another
 * unit is said; docs/match.md says where they come from.
 */
export const PRIORS = {
  /** How deep a dyestuff dyes, and how that differs from band to band. */
  depth: 1.2,
  band: 1,
  /** What another fibre, another mordant or one colourway’s ways do to all dyestuffs: how much is taken, how hues turn. */
  common: 0.35,
  commonHue: 0.1,
  /** And to one dyestuff besides. */
  affinity: 0.15,
  affinityHue: 0.07,
  /** One dyestuff in the company of one colourway’s others, besides. */
  mix: 0.12,
  mixHue: 0.06,
  /** What company does to any dyestuff, and to one besides: nobody knows before blends were read. */
  company: 0.3,
  companyOwn: 0.15,
  companyHue: 0.07,
  /** How soon a build-up levels off, and how steep it is before. */
  levelsOff: 1,
  steepness: 0.12,
  /** What another dyestuff in the bath takes away. */
  crowding: 0.1,
  /** How fast it goes on, 1/min at 80 °C, and how much heat helps (10 kJ/mol). */
  rate: 0.7,
  heat: 1.2,
  /** What a dip leaves for the next. */
  leaves: 0.4,
  /** What a longer bath keeps back. */
  liquor: 0.15,
  /** One jar beside the first of its material: strength, hue. */
  jar: 0.22,
  jarHue: 0.07,
  /** A year in the jar. */
  age: 0.09,
  ageHue: 0.05,
  /** Water: to 10 °dH, one pH, a tenth of a milligram of iron. */
  water: 0.05,
  waterHue: 0.035,
  /** A pot of another metal. */
  metal: 0.08,
  metalHue: 0.06,
  /** One lot of the base beside the others. */
  base: 0.05,
  baseHue: 0.02,
  /** How the mordant’s dose carries over. */
  mordant: 0.2,
  mordantHue: 0.08,
  /** What a modifier or an assistant does to what is on the fibre, and to bare fibre. */
  modifier: 0.6,
  modifierHue: 0.25,
  modifierOwn: 0.25,
  bare: 1,
  /** What the model gets wrong of a whole colourway, in channels. */
  family: 1.2,
  /** A strip or a strike-off beside a lot: a small pot. */
  smallPot: 0.03,
  /** What one day’s jars, water and fibre do together that nothing above tells. */
  day: 0.03,
  dayHue: 0.01,
} as const;

/** One of `PRIORS`. */
export type PriorGroup = keyof typeof PRIORS;

/** What scatters: a batch’s luck, and what a reader says twice. */
export const SCATTER = {
  luck: 0.025,
  luckHue: 0.008,
  /** In channels: a reader and whatever is left. */
  reading: 0.28,
  /** The same band by band, where more is left that no number follows. */
  readingByBand: 0.5,
} as const;
