import type { FibreKind } from '../bath/fibre';
import type { RecipeStep } from '../recipe/recipe-step';
import { stepMinutes, wholeCourse } from '../recipe/course';
import type { StripFactor } from '../trial/strip-factor';
import type { PlannedStrip } from '../trial/strips';
import type { BathCourse, Dyeing, MatchDose } from './dyeing';
import type { LotToMatch, MatchFacts } from './lot-dyeing';
import { ROLE_OF, ROOM_C, STAGE_OF, ageOn, courseOfSteps, isInBath, waterToMatch } from './lot-dyeing';

/** A trial of strips as the match needs it. */
export interface TrialToMatch {
  readonly at: string;
  readonly factor: StripFactor;
  readonly baseId: string;
  readonly fibre: FibreKind;
  readonly steps: readonly RecipeStep[];
  readonly liquorRatio: number;
  readonly water: LotToMatch['water'];
}

/**
 * A strip as the match sees it: of no colourway, in jars small enough to be of no metal. `undefined` where nobody weighed
 * it, no dyestuff was dosed, or the base’s own colour isn’t known.
 */
export function dyeingOfStrip(trial: TrialToMatch, strip: PlannedStrip, facts: MatchFacts): Dyeing | undefined {
  const undyed = facts.undyed.get(trial.baseId);
  const weightG = strip.weight?.value ?? 0;
  if (!undyed || weightG <= 0) return undefined;
  const doses = strip.weighings.flatMap((w): MatchDose[] => {
    const step = trial.steps.find((s) => s.title === w.stepTitle);
    const [stage, kind] = [step && STAGE_OF[step.kind], facts.kinds.get(w.materialId)];
    const role = kind && ROLE_OF[kind];
    if (!stage || !role || w.target.value <= 0) return [];
    const percentOwf = (w.target.value / weightG) * 100;
    const whole = w.picks.reduce((sum, p) => sum + p.amount, 0);
    const jars = whole > 0 ? w.picks : [{ stockLotId: null, amount: 1 }];
    return jars.map(({ stockLotId, amount }) => ({
      stage,
      materialId: w.materialId,
      role,
      stockLotId: stockLotId ?? `unknown jar of ${w.materialId}`,
      percentOwf: percentOwf * (amount / (whole || 1)),
      ageYears: stockLotId === null ? 0 : ageOn(trial.at, facts.receivedOn.get(stockLotId)),
    }));
  });
  if (!doses.some((d) => d.role === 'dyestuff')) return undefined;
  return {
    colourwayId: null,
    purpose: 'strip',
    fibre: trial.fibre,
    baseId: trial.baseId,
    baseLotId: `strips of ${trial.baseId}`,
    undyed,
    doses,
    courses: (['mordant', 'dye', 'modifier'] as const).flatMap((stage) => courseOf(trial, strip, stage)),
    water: waterToMatch(trial.water),
    metal: 'stainless',
    liquorRatio: trial.liquorRatio,
    dip: 1,
  };
}

function courseOf(
  { steps, factor }: TrialToMatch,
  { minutes }: PlannedStrip,
  stage: BathCourse['stage'],
): BathCourse[] {
  const isVaried = factor === 'time' && stage === 'dye' && minutes !== null;
  const baths = steps
    .filter((s) => isInBath(s.kind, stage))
    .map((s) => ({
      legs: wholeCourse(s),
      minutes: isVaried ? minutes : stepMinutes(s),
      heldC: s.temperatureC ?? ROOM_C,
    }));
  return courseOfSteps(stage, baths);
}
