import { fibreFamily } from '../bath/fibre';
import type { RecipeVersion } from './recipe';
import { practiceChoice } from './practice-questions';
import type { RecipeStep } from './recipe-step';
import { recipeStep } from './recipe-step';

type Body = Pick<RecipeVersion, 'steps' | 'fibres'>;
/** Whether another school changes anything in this chain: a recipe without alum has no per cent of it to change. */
export const changesChain = (before: Body, after: Body): boolean =>
  JSON.stringify(before.steps) !== JSON.stringify(after.steps);
/** The studio's own materials that laying a chain anew doses, by id; `null` where it has none. */
export interface PracticeMaterials {
  /** Ids of the studio's own materials, where it has them. */
  readonly alum: string | null;
  readonly acetate: string | null;
  readonly tartar: string | null;
}

/** The studio's own alum, acetate (or lactate) and tartar, by what each says it is of the catalogue. */
export function practiceMaterials(
  all: readonly { readonly id: string; readonly catalogueKey: string | null }[],
): PracticeMaterials {
  const find = (...keys: readonly string[]): string | null =>
    keys.map((key) => all.find((m) => m.catalogueKey === key)?.id).find((id) => id !== undefined) ?? null;
  return {
    alum: find('potassium-alum'),
    acetate: find('aluminium-acetate', 'aluminium-lactate'),
    tartar: find('cream-of-tartar'),
  };
}

const COLD_MORDANT_MIN = 3 * 1440;
const OVERNIGHT_MIN = 12 * 60;
/** Three coats, a day of drying each. */
const SOY_MIN = 3 * 1440;

/**
 * Lays a recipe's chain anew for another school: a cold mordant takes days and no burner, a hot one a pot and a
 * burner; a rinse comes or goes; the dye bath is left overnight or lifted. A question that doesn't touch the chain
 * leaves it as it is. What was proven was proven the other way: the caller says so.
 */
export function replanFor<B extends Body>(body: B, key: string, answer: string, materials: PracticeMaterials): B {
  if (!practiceChoice(key, answer)) throw new RangeError(`no school “${answer}” on “${key}”`);
  return { ...body, steps: STEPS_FOR[key]?.(body.steps, answer, materials, body) ?? body.steps };
}

type Replan = (
  steps: readonly RecipeStep[],
  answer: string,
  materials: PracticeMaterials,
  body: Body,
) => readonly RecipeStep[];
const each = (
  steps: readonly RecipeStep[],
  kind: RecipeStep['kind'],
  change: (s: RecipeStep) => RecipeStep,
): RecipeStep[] => steps.map((s) => (s.kind === kind ? change(s) : s));
const dosing = (step: RecipeStep, id: string | null): boolean =>
  id !== null && step.doses.some((d) => d.materialId === id);
const without = (step: RecipeStep, id: string | null): RecipeStep => ({
  ...step,
  doses: step.doses.filter((d) => d.materialId !== id),
});
const withDose = (step: RecipeStep, materialId: string, percentOwf: number): RecipeStep => ({
  ...step,
  doses: [...step.doses.filter((d) => d.materialId !== materialId), { materialId, by: 'percentOwf', percentOwf }],
});

const STEPS_FOR: Readonly<Partial<Record<string, Replan>>> = {
  mordantHeat: (steps, answer) =>
    each(steps, 'mordant', (s) =>
      answer === 'cold'
        ? {
            ...s,
            title: 'Mordant cold',
            temperatureC: undefined,
            ceilingC: 30,
            course: [{ do: 'steep', minutes: COLD_MORDANT_MIN }],
            durationMin: COLD_MORDANT_MIN,
            attended: false,
            instruction: 'Dissolve the salt in hot water, make up cool, then the fibre. Cover, turn once a day.',
          }
        : {
            ...s,
            title: 'Mordant hot',
            temperatureC: 82,
            ceilingC: 88,
            course: [
              { do: 'raise', toC: 82, minutes: 45 },
              { do: 'hold', toC: 82, minutes: 60 },
              { do: 'cool', minutes: OVERNIGHT_MIN },
            ],
            durationMin: 60,
            attended: false,
            instruction:
              'Dissolve the salt in hot water; bath lukewarm before the fibre goes in. Raise slowly, hold, cool in the bath.',
          },
    ),
  aluminium: (steps, answer, { alum, acetate }, { fibres }) => {
    const percent = { alum10: 10, alum12: 12, alum15: 15, alum20: 20 }[answer];
    if (percent !== undefined && alum !== null)
      return each(steps, 'mordant', (s) =>
        dosing(s, alum) || dosing(s, acetate) ? withDose(without(s, acetate), alum, percent) : s,
      );
    if (answer === 'soy')
      return each(steps, 'mordant', (s) =>
        dosing(s, alum) || dosing(s, acetate)
          ? {
              ...without(without(s, alum), acetate),
              title: 'Bind with soy milk',
              temperatureC: undefined,
              ceilingC: undefined,
              course: [],
              durationMin: SOY_MIN,
              attended: false,
              usesBath: false,
              instruction:
                'Soy milk made fresh of soaked beans, thin, strained. Three thin coats, each dried through before the next.',
            }
          : s,
      );
    if (answer === 'acetate' && acetate !== null && fibres.every((f) => fibreFamily(f) === 'cellulose'))
      return each(steps, 'mordant', (s) => (dosing(s, alum) ? withDose(without(s, alum), acetate, 8) : s));
    return steps;
  },
  tartar: (steps, answer, { tartar }) => {
    const bare = each(steps, 'mordant', (s) => without(s, tartar));
    const rinsed = bare
      .filter((s) => s.key !== 'tartarRinse')
      .map((s) => relink(s, 'tartarRinse', lastOf(bare, 'mordant')));
    if (answer === 'none' || tartar === null) return rinsed;
    if (answer === 'with') return each(rinsed, 'mordant', (s) => withDose(s, tartar, 5));
    return insertAfter(
      rinsed,
      'mordant',
      recipeStep({
        key: 'tartarRinse',
        kind: 'rinse',
        title: 'Rinse with tartar',
        instruction: 'Lukewarm, tartar dissolved first.',
        durationMin: 20,
        attended: true,
        usesBath: true,
        doses: [{ materialId: tartar, by: 'percentOwf', percentOwf: 5 }],
      }),
    );
  },
  rinseMordant: (steps, answer) => {
    const bare = steps
      .filter((s) => s.key !== 'mordantRinse')
      .map((s) => relink(s, 'mordantRinse', lastOf(steps, 'mordant')));
    return answer === 'no'
      ? bare
      : insertAfter(
          bare,
          'mordant',
          recipeStep({
            key: 'mordantRinse',
            kind: 'rinse',
            title: 'Rinse off the mordant',
            instruction: 'Once, water as warm as the pieces.',
            durationMin: 10,
            attended: true,
            lookFor: 'Water clear',
          }),
        );
  },
  mordantOnTannin: (steps, answer, { alum }) => {
    if (answer === 'none')
      return steps.filter((s) => s.key !== 'addedMordant').map((s) => relink(s, 'addedMordant', undefined));
    if (steps.some((s) => s.kind === 'mordant') || alum === null) return steps;
    const before = steps.findIndex((s) => s.kind === 'wetOut' || s.kind === 'extract' || s.kind === 'dye');
    const mordant = recipeStep({
      key: 'addedMordant',
      kind: 'mordant',
      title: 'Mordant',
      instruction:
        'Dissolve the alum in hot water; bath lukewarm before the fibre goes in. Raise slowly, hold, cool in the bath.',
      temperatureC: 82,
      ceilingC: 88,
      usesBath: true,
      lookFor: 'No grains at the bottom',
      doses: [{ materialId: alum, by: 'percentOwf', percentOwf: 12 }],
    });
    return before === -1 ? steps : [...steps.slice(0, before), mordant, ...steps.slice(before)];
  },
  straining: (steps, answer) => {
    const way = ({ twice: 'muslinTwice', never: 'leaveIn', bag: 'bag' } as const)[answer as 'twice' | 'never' | 'bag'];
    return steps.map((s) => (s.kind === 'strain' || s.kind === 'extract' ? { ...s, strain: way } : s));
  },
  finish: (steps, answer) =>
    each(steps, 'dye', (s) => {
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
        title: 'Cure',
        instruction: 'Leave dry and dark before the proper wash.',
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

const lastOf = (steps: readonly RecipeStep[], kind: RecipeStep['kind']): string | undefined =>
  steps.filter((s) => s.kind === kind && s.key !== '').at(-1)?.key;

/** Whoever followed a step that is gone follows what that one followed; by the list's order where nothing is named. */
function relink(step: RecipeStep, gone: string, instead: string | undefined): RecipeStep {
  if (gone === '' || !step.after?.includes(gone)) return step;
  const after = step.after.flatMap((key) => (key === gone ? (instead === undefined ? [] : [instead]) : [key]));
  return { ...step, after: after.length > 0 ? after : null };
}

/** Puts a step after the last of a kind; steps that named that one now follow the new one. */
function insertAfter(steps: readonly RecipeStep[], kind: RecipeStep['kind'], added: RecipeStep): readonly RecipeStep[] {
  const at = steps.map((s) => s.kind).lastIndexOf(kind);
  if (at === -1) return steps;
  const key = (steps[at] as RecipeStep).key;
  const later = steps
    .slice(at + 1)
    .map((s) =>
      key !== '' && s.after?.includes(key) ? { ...s, after: s.after.map((k) => (k === key ? added.key : k)) } : s,
    );
  return [
    ...steps.slice(0, at + 1),
    { ...added, after: key === '' ? null : [key], fibres: (steps[at] as RecipeStep).fibres },
    ...later,
  ];
}
