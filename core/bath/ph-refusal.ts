import { trimZeros } from '../quantity/weight';
import { sayPh } from '../quantity/say-ph';
import type { PhReagent } from './ph-reagent';
import { PH_REAGENT_LABELS } from './ph-reagent';

/** Why a pH can't be dosed to, as facts. */
export type PhRefusal =
  | { readonly code: 'outOfRange'; readonly targetPh: number; readonly lowestPh: number; readonly highestPh: number }
  | { readonly code: 'thereAlready'; readonly nowPh: number }
  | {
      readonly code: 'wrongWay';
      readonly nowPh: number;
      readonly targetPh: number;
      readonly reagent: PhReagent;
    }
  | {
      readonly code: 'outOfReach';
      readonly targetPh: number;
      readonly reagent: PhReagent;
      readonly why: 'stopsShort' | 'tooMuch';
    };

/** Why a pH can't be dosed to, in a sentence that says what to do. */
export function sayPhRefusal(refusal: PhRefusal): string {
  switch (refusal.code) {
    case 'outOfRange':
      return $localize`${sayPh(refusal.targetPh)} is outside ${trimZeros(refusal.lowestPh, 2)} to ${trimZeros(refusal.highestPh, 2)}, where baths are worked. Write another.`;
    case 'thereAlready':
      return $localize`The bath is at ${sayPh(refusal.nowPh)} already: nothing to add.`;
    case 'wrongWay':
      return $localize`The bath is at ${sayPh(refusal.nowPh)}, and ${PH_REAGENT_LABELS[refusal.reagent]} takes it further from ${trimZeros(refusal.targetPh, 2)}. Choose one that works the other way.`;
    case 'outOfReach': {
      const start = $localize`${PH_REAGENT_LABELS[refusal.reagent]} doesn’t reach ${sayPh(refusal.targetPh)}`;
      return refusal.why === 'stopsShort'
        ? $localize`${start}, however much of it: it stops short. Choose a stronger one.`
        : $localize`${start} in any sensible amount. Choose a stronger one.`;
    }
  }
}
