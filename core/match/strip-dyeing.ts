import type { FibreKind } from '../bath/fibre';
import type { RecipeStep } from '../recipe/recipe-step';
import { stepMinutes } from '../recipe/course';
import type { StripFactor } from '../trial/strip-factor';
import type { PlannedStrip } from '../trial/strips';
import type { BathCourse, Dyeing, MatchDose } from './dyeing';
import type { LotToMatch, MatchFacts } from './lot-dyeing';
import { IN_BATH, ROLE_OF, STAGE_OF, ageOn, waterToMatch } from './lot-dyeing';

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

const ROOM_C = 20;

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
    undyed: { lab: undyed, spectrum: null },
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
  const points: { minute: number; celsius: number }[] = [];
  let minute = 0;
  const go = (by: number, celsius: number): void => {
    minute += by;
    points.push({ minute, celsius });
  };
  for (const step of steps.filter((s) => STAGE_OF[s.kind] === stage && IN_BATH.includes(s.kind))) {
    const planned = stepMinutes(step);
    const took = factor === 'time' && stage === 'dye' && minutes !== null ? minutes : planned;
    if (step.course.length === 0) {
      const celsius = step.temperatureC ?? ROOM_C;
      go(points.length === 0 ? 0 : 1, celsius);
      go(took, celsius);
      continue;
    }
    if (points.length === 0) go(0, ROOM_C);
    const stretch = planned > 0 ? took / planned : 1;
    for (const leg of step.course) go(leg.minutes * stretch, leg.toC ?? points.at(-1)?.celsius ?? ROOM_C);
  }
  return points.length < 2 ? [] : [{ stage, points }];
}
