import { worded } from '../words/worded';

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
export const HAZARD_LABELS: Readonly<Record<Hazard, string>> = worded(() => ({
  dust: $localize`fine powder: dust mask, goggles, no draught`,
  caustic: $localize`caustic: gloves and goggles`,
  acid: $localize`acid: gloves and goggles; never with bleach; foams on carbonate`,
  irritant: $localize`irritates skin, eyes or lungs: gloves, airflow`,
  poisonous: $localize`poisonous if swallowed: keep from children and animals`,
  ironSalt: $localize`iron salt: dangerous to small children and animals, locked away`,
  copperSalt: $localize`copper salt: hazardous, harmful to water life; consider doing without`,
  flammable: $localize`flammable: away from flame and heat`,
  chlorineBleach: $localize`chlorine bleach: never with acid or ammonia, which set free poisonous gas`,
  carbonate: $localize`carbonate: foams over with acid`,
  ammonia: $localize`ammonia: airflow, goggles; never with bleach`,
  oxidiser: $localize`oxidiser: away from what burns and from reducers`,
  reducer: $localize`reducer: never with acid, bleach or peroxide; dry, airflow`,
}));
