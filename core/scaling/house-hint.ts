import { worded } from '../words/worded';

/** What the house does at a step and a recipe doesn't say. */
export const HOUSE_HINTS = ['outOfSun', 'noFibreInExtraction', 'clothWithDyestuff', 'proteinOnceCool'] as const;
/** One of `HOUSE_HINTS`. */
export type HouseHint = (typeof HOUSE_HINTS)[number];

const HOUSE_HINT_LABELS: Readonly<Record<HouseHint, string>> = worded(() => ({
  outOfSun: $localize`Out of the sun`,
  noFibreInExtraction: $localize`No fibre in the pot until it is strained`,
  clothWithDyestuff: $localize`The cloth may go in with the dyestuff`,
  proteinOnceCool: $localize`Protein fibre only once the bath is cool`,
}));

/** A hint in a sentence that says whose it is. */
export const sayHouseHint = (hint: HouseHint): string => $localize`${HOUSE_HINT_LABELS[hint]}:hint:: house practice.`;
