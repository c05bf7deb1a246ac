/** Terms of the trade that explain themselves where they are met, in one sentence each. */
export const GLOSSARY = {
  wof: $localize`Weight of fibre: what the dry fibre weighs. A dose of 50 % WOF is half of that.`,
  dh: $localize`Degrees of German hardness: how much lime is in the water. Seven are 125 mg of calcium carbonate in a litre.`,
  deltaE: $localize`How far two colours are apart to the eye, worked out from their readings. About one is what a trained eye just sees side by side.`,
  thread: $localize`A lot drawn as one strand through its steps, in the colour it has at each: solid where it is done, open where it is planned, knotted where something went otherwise.`,
  liquorRatio: $localize`Millilitres of bath for each gram of dry fibre: 1:30 is 30 litres for a kilogram.`,
  promised: $localize`Set aside for lots that are planned and haven’t taken it yet.`,
} as const;

export type Term = keyof typeof GLOSSARY;
