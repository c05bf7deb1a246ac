import { formatTemperature } from '../quantity/temperature';
/** What is wrong with a chain, as facts. Temperatures in °C, times in minutes, shares in per cent. */
export type ChainFault =
  | { readonly code: 'circle'; readonly stepTitles: readonly string[] }
  | { readonly code: 'unknownStep'; readonly stepTitle: string; readonly follows: string }
  | { readonly code: 'twoKeys'; readonly key: string }
  | {
      readonly code: 'waitTooShort';
      readonly stepTitle: string;
      readonly minMinutes: number;
      readonly maxMinutes: number;
    }
  | { readonly code: 'tooHot'; readonly stepTitle: string; readonly hottestC: number; readonly ceilingC: number }
  | { readonly code: 'unknownPart'; readonly stepTitle: string; readonly part: string }
  | { readonly code: 'partsNotWhole'; readonly wholePercent: number };

/** How many steps of a circle are named. */
const NAMED_STEPS = 4;

/** A fault of a chain in a sentence that says what to do. */
export function sayChainFault(fault: ChainFault): string {
  switch (fault.code) {
    case 'circle': {
      const held = fault.stepTitles.slice(0, NAMED_STEPS).map((title) => `“${title}”`);
      return $localize`The chain goes round in a circle: ${held.join(', ')} each wait for another. Let one of them follow an earlier step.`;
    }
    case 'unknownStep':
      return $localize`“${fault.stepTitle}” follows “${fault.follows}”, which is no step of this recipe. Choose one that is.`;
    case 'twoKeys':
      return $localize`Two steps are called “${fault.key}”. Give each its own short name, so that others can follow it.`;
    case 'waitTooShort':
      return $localize`“${fault.stepTitle}” may wait ${fault.maxMinutes} min at most, but wants ${fault.minMinutes} min at least. One of the two is wrong.`;
    case 'tooHot':
      return $localize`“${fault.stepTitle}” goes to ${formatTemperature(fault.hottestC)}, above its own ceiling of ${formatTemperature(fault.ceilingC)}. Lower the one or raise the other.`;
    case 'unknownPart':
      return $localize`“${fault.stepTitle}” is for the part “${fault.part}”, which this recipe doesn’t have. Add the part, or choose another.`;
    case 'partsNotWhole':
      return $localize`The parts of the pieces come to ${fault.wholePercent} %, not 100 %. Change their shares.`;
  }
}
