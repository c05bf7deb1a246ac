import type { Hazard } from './hazards';
import { HAZARD_LABELS } from './hazards';

/** Where skipping is unsafe, a caution is shown every time, whoever saw it today. */
const EVERY_TIME: readonly Hazard[] = [
  'caustic',
  'acid',
  'poisonous',
  'ironSalt',
  'copperSalt',
  'chlorineBleach',
  'ammonia',
  'oxidiser',
];

/** A hazard as a caution in a sentence of its own. */
export const hazardCaution = (hazard: Hazard): string =>
  `${HAZARD_LABELS[hazard][0]?.toUpperCase()}${HAZARD_LABELS[hazard].slice(1)}.`;

/**
 * Whether a caution is shown every time: those of materials that burn, poison or set free gas. All others can be put
 * away for the day.
 */
export function isShownEveryTime(caution: string): boolean {
  return EVERY_TIME.some((hazard) => caution === hazardCaution(hazard));
}
