import { worded } from '../words/worded';
import type { Hazard } from '../safety/hazards';
import { EVERY_TIME_HAZARDS, HAZARD_LABELS, HAZARDS } from '../safety/hazards';
import type { HouseHint } from './house-hint';
import { HOUSE_HINTS, sayHouseHint } from './house-hint';

/** Something to take care of at a step, as facts. */
export type StepCaution =
  /** By whoever wrote the recipe. */
  | { readonly code: 'written'; readonly text: string }
  | { readonly code: 'house'; readonly hint: HouseHint }
  | { readonly code: 'hazard'; readonly hazard: Hazard }
  | { readonly code: 'safetyDataSheet' }
  | { readonly code: 'hotLiquor' }
  | { readonly code: 'neverForFood' }
  | { readonly code: 'localDisposal' };

/** A caution in a sentence. */
export function sayStepCaution(caution: StepCaution): string {
  switch (caution.code) {
    case 'written':
      return caution.text;
    case 'house':
      return sayHouseHint(caution.hint);
    case 'hazard': {
      const label = HAZARD_LABELS[caution.hazard];
      return `${label[0]?.toUpperCase()}${label.slice(1)}.`;
    }
    case 'safetyDataSheet':
      return $localize`The supplier’s safety data sheet says what protection each material needs.`;
    case 'hotLiquor':
      return $localize`Steam and hot liquor: lid away from you, long gloves, window open, two people for a full pot.`;
    case 'neverForFood':
      return $localize`Dye pots and spoons are never used for food again.`;
    case 'localDisposal':
      return $localize`What goes down the drain or onto soil is for your local rules to say.`;
  }
}

/** Names a caution among all: what somebody puts away for the day. */
export function stepCautionKey(caution: StepCaution): string {
  switch (caution.code) {
    case 'written':
      return `written ${caution.text}`;
    case 'house':
      return `house ${caution.hint}`;
    case 'hazard':
      return `hazard ${caution.hazard}`;
    default:
      return caution.code;
  }
}

/**
 * Whether a caution is shown every time: those of materials that burn, poison or set free gas. All others can be put
 * away for the day.
 */
export const isShownEveryTime = (caution: StepCaution): boolean =>
  caution.code === 'hazard' && EVERY_TIME_HAZARDS.includes(caution.hazard);

/** What earlier plans kept as sentences, under the sentences they had. */
const BY_SENTENCE: Readonly<Record<string, StepCaution>> = worded(() =>
  Object.fromEntries(
    [
      ...HAZARDS.map((hazard) => ({ code: 'hazard' as const, hazard })),
      ...HOUSE_HINTS.map((hint) => ({ code: 'house' as const, hint })),
      { code: 'safetyDataSheet' as const },
      { code: 'hotLiquor' as const },
      { code: 'neverForFood' as const },
      { code: 'localDisposal' as const },
    ].map((caution) => [sayStepCaution(caution), caution] as const),
  ),
);

/** A step's caution as it may have been kept: by earlier plans, in a sentence. */
export const readStepCaution = (kept: StepCaution | string): StepCaution =>
  typeof kept === 'string' ? (BY_SENTENCE[kept] ?? { code: 'written', text: kept }) : kept;
