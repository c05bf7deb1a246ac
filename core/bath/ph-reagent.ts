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
export const PH_REAGENT_LABELS: Readonly<Record<PhReagent, string>> = {
  vinegar5: 'vinegar, 5 % acetic acid',
  citricAcid: 'citric acid',
  tartaricAcid: 'tartaric acid',
  sodaAsh: 'soda ash',
  sodaCrystals: 'washing soda crystals',
  bicarbonate: 'bicarbonate of soda',
  ammonia10: 'ammonia water, 10 %',
};
