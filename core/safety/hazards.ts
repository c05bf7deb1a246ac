/**
 * What a material can do to people. Words of the label, not a judgement of risk: the supplier's safety data sheet
 * decides.
 */
export const HAZARDS = [
  'dust',
  'caustic',
  'acid',
  'irritant',
  'poisonous',
  'ironSalt',
  'copperSalt',
  'flammable',
  'chlorineBleach',
  'carbonate',
  'ammonia',
  'oxidiser',
  'reducer',
] as const;
/** One of `HAZARDS`. */
export type Hazard = (typeof HAZARDS)[number];

/** Where skipping is unsafe, a caution is shown every time, whoever saw it today. */
export const EVERY_TIME_HAZARDS: readonly Hazard[] = [
  'caustic',
  'acid',
  'poisonous',
  'ironSalt',
  'copperSalt',
  'chlorineBleach',
  'ammonia',
  'oxidiser',
  'reducer',
];

/** What each hazard asks for, as the caution begins. */
export const HAZARD_LABELS: Readonly<Record<Hazard, string>> = {
  dust: 'fine powder: dust mask, goggles, no draught',
  caustic: 'caustic: gloves and goggles',
  acid: 'acid: gloves and goggles; never with bleach; foams on carbonate',
  irritant: 'irritates skin, eyes or lungs: gloves, airflow',
  poisonous: 'poisonous if swallowed: keep from children and animals',
  ironSalt: 'iron salt: dangerous to small children and animals, locked away',
  copperSalt: 'copper salt: hazardous, harmful to water life; consider doing without',
  flammable: 'flammable: away from flame and heat',
  chlorineBleach: 'chlorine bleach: never with acid or ammonia, which set free poisonous gas',
  carbonate: 'carbonate: foams over with acid',
  ammonia: 'ammonia: airflow, goggles; never with bleach',
  oxidiser: 'oxidiser: away from what burns and from reducers',
  reducer: 'reducer: never with acid, bleach or peroxide; dry, airflow',
};
