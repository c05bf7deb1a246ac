import { hottestC } from '../recipe/course';
import type { PlannedStep } from '../scaling/lot-plan';
import type { PlannableStep } from './house-plan';

/** Above a hand's heat somebody has to be in the house. */
const HOT_C = 45;
const TO_BEGIN_MIN = 10;
const A_WEIGHING_MIN = 3;
const A_BATH_MIN = 5;
const TO_END_MIN = 10;
/** A hot bath may stand so much longer than it is meant to before it counts as forgotten. */
const HOT_LONGER_MIN = 45;

/** Minutes a step asks of hands and of waiting, as far as its plan says. */
export interface StepTimes {
  readonly beginHandsMin: number;
  readonly aloneMin: number;
  readonly aloneMaxMin: number | null;
  readonly endHandsMin: number;
  readonly watched: boolean;
  readonly isHot: boolean;
}

/**
 * What a step asks of hands and of waiting. A step people stay with is theirs from beginning to end; of any other, hands
 * weigh and fill at its beginning and lift or empty at its end, by what there is to weigh and to fill. A bath is heated
 * before its time begins, by what its burner brings; one filled several times over takes its time as often.
 */
export function stepTimes(step: PlannedStep): StepTimes {
  const hottest = hottestC(step) ?? 0;
  const isHot = hottest >= HOT_C && step.baths.length > 0;
  const turns = Math.max(1, ...step.baths.map((b) => b.turns));
  const heating =
    step.course.length > 0 ? 0 : Math.max(0, ...step.baths.map((b) => (b.heating?.ok ? b.heating.minutes.value : 0)));
  const minutes = Math.round((step.durationMin + (isHot ? heating : 0)) * turns);
  if (step.attended)
    return { beginHandsMin: 0, aloneMin: minutes, aloneMaxMin: minutes, endHandsMin: 0, watched: true, isHot };
  return {
    beginHandsMin: TO_BEGIN_MIN + A_WEIGHING_MIN * step.weighings.length + A_BATH_MIN * step.baths.length,
    aloneMin: minutes,
    aloneMaxMin: isHot ? minutes + HOT_LONGER_MIN : null,
    endHandsMin: step.baths.length > 0 ? TO_END_MIN : 0,
    watched: false,
    isHot,
  };
}

/** A planned step as a plan goes by it. */
export const plannable = (step: PlannedStep): PlannableStep => ({
  index: step.index,
  kind: step.kind,
  title: step.title,
  times: stepTimes(step),
  vesselIds: [...new Set(step.baths.map((b) => b.vesselId))],
  weighs: step.weighings.length > 0,
  liquor: step.liquor,
  after: step.after,
  wait: step.wait,
  hazards: step.cautions.flatMap((c) => (c.code === 'hazard' ? [c.hazard] : [])),
  beginFromOn: null,
  beginByOn: null,
});
