import { formatWeight } from '../quantity/weight';
import type { DoseUnknown } from '../scaling/dose-unknown';
import { sayDoseUnknown } from '../scaling/dose-unknown';
import type { StripFactor } from './strip-factor';
import { STRIP_FACTOR_LABELS } from './strip-factor';

/** Why a trial's strips can't be laid out, as facts. Weights in g. */
export type StripRefusal =
  | { readonly code: 'numberOfStrips'; readonly min: number; readonly max: number }
  | { readonly code: 'notWeighed' }
  | {
      readonly code: 'tooSmall';
      readonly strips: number;
      readonly totalG: number;
      readonly eachG: number;
      readonly balanceStepG: number;
    }
  | { readonly code: 'notDosedThere'; readonly materialName: string; readonly factor: StripFactor }
  | { readonly code: 'doseUnknown'; readonly unknown: DoseUnknown };

/** Why strips can't be laid out, in a sentence that says what to do. */
export function sayStripRefusal(refusal: StripRefusal): string {
  switch (refusal.code) {
    case 'numberOfStrips':
      return $localize`A trial has ${refusal.min} to ${refusal.max} strips. Write as many levels, one for each.`;
    case 'notWeighed':
      return $localize`Weigh all strips together, dry, and write the weight.`;
    case 'tooSmall':
      return $localize`${refusal.strips} strips of ${formatWeight(refusal.totalG)} weigh ${formatWeight(refusal.eachG)} each, too little for a balance that shows ${formatWeight(refusal.balanceStepG)}. Cut them larger, or make fewer.`;
    case 'notDosedThere':
      return $localize`${refusal.materialName} is not dosed where the ${STRIP_FACTOR_LABELS[refusal.factor]} is. Choose one that is.`;
    case 'doseUnknown':
      return sayDoseUnknown(refusal.unknown);
  }
}
