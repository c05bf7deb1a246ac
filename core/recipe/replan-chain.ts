import { practiceChoice } from './practice-questions';
import type { RecipeStep } from './recipe-step';
import { recipeStep } from './recipe-step';
import { MORDANT_SCHOOLS } from './replan-mordant';
import type { ChainBody, PracticeMaterials, Replan } from './replan-steps';
import { each, insertAfter, lastOf, relink } from './replan-steps';

/** Whether another school changes anything in this chain: a recipe without alum has no per cent of it to change. */
export const changesChain = (before: ChainBody, after: ChainBody): boolean =>
  JSON.stringify(before.steps) !== JSON.stringify(after.steps);
/**
 * Lays a recipe's chain anew for another school: a cold mordant takes days and no burner, a hot one a pot and a
 * burner; a rinse comes or goes; the dye bath is left overnight or lifted. A question that doesn't touch the chain
 * leaves it as it is. What was proven was proven the other way: the caller says so.
 */
export function replanFor<B extends ChainBody>(body: B, key: string, answer: string, materials: PracticeMaterials): B {
  if (!practiceChoice(key, answer)) throw new RangeError(`no school “${answer}” on “${key}”`);
  return { ...body, steps: STEPS_FOR[key]?.(body.steps, answer, materials, body) ?? body.steps };
}

const OVERNIGHT_MIN = 12 * 60;

const STEPS_FOR: Readonly<Partial<Record<string, Replan>>> = {
  ...MORDANT_SCHOOLS,
  straining: (steps, answer) => {
    const way = ({ twice: 'muslinTwice', never: 'leaveIn', bag: 'bag' } as const)[answer as 'twice' | 'never' | 'bag'];
    return steps.map((s) => (s.kind === 'strain' || s.kind === 'extract' ? { ...s, strain: way } : s));
  },
  finish: (steps, answer, { vats }) =>
    each(steps, 'dye', (s) => {
      // Dips in a vat are short, with air between them: nothing cools in it overnight.
      if (isInVat(s, steps, vats)) return s;
      const hot = s.course.filter((leg) => leg.do !== 'cool' && leg.do !== 'steep');
      const course =
        hot.length > 0
          ? hot
          : [
              { do: 'raise' as const, ...(s.temperatureC === undefined ? {} : { toC: s.temperatureC }), minutes: 45 },
              {
                do: 'hold' as const,
                ...(s.temperatureC === undefined ? {} : { toC: s.temperatureC }),
                minutes: s.durationMin,
              },
            ];
      return answer === 'overnight'
        ? { ...s, course: [...course, { do: 'cool', minutes: OVERNIGHT_MIN }] }
        : { ...s, course, finishedBy: 'eye' };
    }),
  rinse: (steps, answer) => {
    const bare = steps
      .filter((s) => s.kind !== 'cure')
      .map((s) =>
        steps.filter((c) => c.kind === 'cure').reduce((now, cure) => relink(now, cure.key, lastOf(steps, 'dry')), s),
      );
    if (answer === 'once' || steps.some((s) => s.kind === 'cure')) return answer === 'once' ? bare : steps;
    return insertAfter(
      bare,
      'dry',
      recipeStep({
        key: 'addedCure',
        kind: 'cure',
        title: $localize`Cure`,
        instruction: $localize`Leave dry and dark before the proper wash.`,
        durationMin: 10_080,
      }),
    );
  },
  endPoint: (steps, answer) =>
    steps.map((s) =>
      s.kind === 'dye' || s.kind === 'modify' || s.kind === 'exhaust'
        ? { ...s, finishedBy: answer === 'eye' ? 'eye' : 'clock' }
        : s,
    ),
};

/** Whether a step is done in a vat: it doses the dyestuff of one, or shares a bath with a step that does. */
const isInVat = (step: RecipeStep, steps: readonly RecipeStep[], vats: readonly string[]): boolean =>
  steps.some(
    (s) =>
      (s === step || (step.bath !== '' && s.bath === step.bath)) && s.doses.some((d) => vats.includes(d.materialId)),
  );
