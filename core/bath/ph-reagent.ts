import { worded } from '../words/worded';

/** Acids and alkalis whose strength is known well enough to dose by. */
export const PH_REAGENTS = [
  'vinegar5',
  'citricAcid',
  'tartaricAcid',
  'sodaAsh',
  'sodaCrystals',
  'bicarbonate',
  'ammonia10',
] as const;
/** One of `PH_REAGENTS`. */
export type PhReagent = (typeof PH_REAGENTS)[number];
/** What each reagent is called on screen. */
export const PH_REAGENT_LABELS: Readonly<Record<PhReagent, string>> = worded(() => ({
  vinegar5: $localize`vinegar, 5 % acetic acid`,
  citricAcid: $localize`citric acid`,
  tartaricAcid: $localize`tartaric acid`,
  sodaAsh: $localize`soda ash`,
  sodaCrystals: $localize`washing soda crystals`,
  bicarbonate: $localize`bicarbonate of soda`,
  ammonia10: $localize`ammonia water, 10 %`,
}));
