import type { Dose } from './dose';
import type { RecipeStep } from './recipe-step';
import { recipeStep } from './recipe-step';

/** How much of a material one lot takes, beside what its recipe says: 1.1 is a tenth more. */
export interface CorrectedDose {
  readonly materialId: string;
  readonly share: number;
}

/** A correction goes no further than this, a weaker or a stronger jar counted: beyond, it is another recipe. */
export const [LEAST_CORRECTED_SHARE, MOST_CORRECTED_SHARE] = [0.1, 10] as const;

function scaled(dose: Dose, share: number): Dose {
  switch (dose.by) {
    case 'percentOwf':
      return {
        ...dose,
        percentOwf: dose.percentOwf * share,
        ...(dose.toPercentOwf === undefined ? {} : { toPercentOwf: dose.toPercentOwf * share }),
      };
    case 'gPerLitre':
      return { ...dose, gPerL: dose.gPerL * share };
    case 'solution':
      return { ...dose, mlPer100G: dose.mlPer100G * share };
    case 'perPiece':
      return { ...dose, gPerPiece: dose.gPerPiece * share };
    case 'spoons':
      return { ...dose, spoonsPer100G: dose.spoonsPer100G * share };
    case 'perBath':
      return { ...dose, amount: dose.amount * share };
    case 'packet':
    case 'count':
    case 'toPh':
    case 'allThere':
    case 'liquor':
      return dose;
  }
}

/** What is counted, poured whole, tried by pH or there already has no share. */
const WHOLE: readonly Dose['by'][] = ['packet', 'count', 'toPh', 'allThere', 'liquor'];

/** Materials of which no share can be taken: a correction leaves them as they are. */
export const wholeMaterials = (steps: readonly RecipeStep[]): string[] => [
  ...new Set(steps.flatMap((s) => s.doses.flatMap((d) => (WHOLE.includes(d.by) ? [d.materialId] : [])))),
];

/** Steps with their doses corrected for one lot; the recipe stays as it was proven. Shares from 0.1 to 10. */
export const correctDoses = <S extends RecipeStep>(steps: readonly S[], corrected: readonly CorrectedDose[]): S[] =>
  steps.map((step) => ({
    ...step,
    doses: step.doses.map((dose) => {
      const share = corrected.find((c) => c.materialId === dose.materialId)?.share ?? 1;
      return share === 1 ? dose : scaled(dose, share);
    }),
  }));

/** What one lot takes that its recipe doesn’t have: a little of another dyestuff, in the dye bath. */
export interface AddedToDye {
  readonly materialId: string;
  readonly percentOwf: number;
}

/** A touch of a modifier is warm and short: nobody heats a bath for it. */
const [TOUCH_C, TOUCH_MIN] = [40, 10];
const TOUCH_KEY = 'touch';

/**
 * Steps with a touch of something after the dye: in the last bath that modifies, or in one of its own where there is none.
 * What followed the dye follows the touch. As they are where nothing is added, or nothing is dyed.
 */
export function addAfterDye(steps: readonly RecipeStep[], added: readonly AddedToDye[]): RecipeStep[] {
  const doses = added.map((a): Dose => ({ ...a, by: 'percentOwf' }));
  const lastOf = (...kinds: RecipeStep['kind'][]): number =>
    steps.reduce((last, s, i) => (kinds.includes(s.kind) ? i : last), -1);
  const [modify, dye] = [lastOf('modify'), lastOf('dye', 'pull', 'exhaust')];
  if (doses.length === 0 || dye < 0) return [...steps];
  if (modify > dye) return steps.map((s, i) => (i === modify ? { ...s, doses: [...s.doses, ...doses] } : s));
  const dyed = steps[dye]?.key ?? '';
  const touch = recipeStep({
    key: TOUCH_KEY,
    kind: 'modify',
    title: $localize`A touch after the dye`,
    instruction: $localize`Make it up in a fresh warm bath, put the wet fibre in all at once and keep it moving. Lift it when the time is over, or before, if the shade is there.`,
    temperatureC: TOUCH_C,
    durationMin: TOUCH_MIN,
    attended: true,
    lookFor: $localize`The shade moves within minutes; wet looks deeper than dry`,
    usesBath: true,
    course: [{ do: 'hold', toC: TOUCH_C, minutes: TOUCH_MIN }],
    fibres: steps[dye]?.fibres ?? [],
    parts: steps[dye]?.parts ?? [],
    doses,
  });
  const following = steps
    .slice(dye + 1)
    .map((s) =>
      dyed !== '' && s.after?.includes(dyed) ? { ...s, after: s.after.map((k) => (k === dyed ? TOUCH_KEY : k)) } : s,
    );
  return [...steps.slice(0, dye + 1), touch, ...following];
}

/** How long a lot may stay in the dye beside its recipe: beyond, it is another recipe. */
export const [LEAST_DYE_TIME_SHARE, MOST_DYE_TIME_SHARE] = [0.5, 2] as const;

/** In how many dips these steps dye; 1: the fibre stays in. */
export const dyeDips = (steps: readonly { readonly kind: string; readonly repeats: number }[]): number =>
  Math.max(1, ...steps.filter((s) => s.kind === 'dye').map((s) => s.repeats));

/** Steps with a little more in the last dye bath; as they are where there is none. */
export function addToDye<S extends RecipeStep>(steps: readonly S[], added: readonly AddedToDye[]): S[] {
  const last = steps.map((s) => s.kind).lastIndexOf('dye');
  return steps.map((step, i) =>
    i === last && added.length > 0
      ? { ...step, doses: [...step.doses, ...added.map((a): Dose => ({ ...a, by: 'percentOwf' }))] }
      : step,
  );
}

/**
 * Steps with another stay in the dye, 0.5 to 2 times as long in all: what is longer or shorter is the hold, since a bath
 * can’t be heated faster; where it is dyed in dips, there are more or fewer of them.
 */
export function stretchDye<S extends RecipeStep>(steps: readonly S[], share: number): S[] {
  return steps.map((step) => {
    if (step.kind !== 'dye' || share === 1) return step;
    if (step.repeats > 1) return { ...step, repeats: Math.max(1, Math.round(step.repeats * share)) };
    const hold = step.course.reduce((sum, leg) => sum + (leg.do === 'hold' ? leg.minutes : 0), 0);
    const whole = step.course.reduce((sum, leg) => sum + leg.minutes, 0);
    const by = hold > 0 ? Math.max(0.1, 1 + ((share - 1) * whole) / hold) : 1;
    return {
      ...step,
      durationMin: Math.round(step.durationMin * share),
      course: step.course.map((leg) => (leg.do === 'hold' ? { ...leg, minutes: Math.round(leg.minutes * by) } : leg)),
    };
  });
}
