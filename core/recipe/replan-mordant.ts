import type { FibreKind } from '../bath/fibre';
import { fibreFamily } from '../bath/fibre';
import { hottestC } from './course';
import { coldMordant, hotMordant } from './mordant-heat';
import type { RecipeStep } from './recipe-step';
import { recipeStep } from './recipe-step';
import type { PracticeMaterials, Replan } from './replan-steps';
import { dosing, each, fibresOf, insertAfter, insertBefore, lastOf, relink, withDose, without } from './replan-steps';

/** Schools of mordanting: which salt, how hot, when, and what goes with it. */
export const MORDANT_SCHOOLS: Readonly<Partial<Record<string, Replan>>> = {
  mordantHeat: (steps, answer, materials, { fibres }) =>
    each(steps, 'mordant', (s) => {
      if (isSoyStep(s, materials)) return s;
      const bath = { fibres: fibresOf(s, fibres), isAcetate: dosing(s, materials.acetate) };
      return { ...s, ...(answer === 'cold' ? coldMordant() : hotMordant(bath)) };
    }),
  aluminium: (steps, answer, materials, { fibres }) => {
    const { alum, acetate, tartar, soy } = materials;
    const isMordant = (s: RecipeStep): boolean => dosing(s, alum) || dosing(s, acetate) || isSoyStep(s, materials);
    const bare = (s: RecipeStep): RecipeStep => without(without(without(s, alum), acetate), soy);
    const percent = { alum10: 10, alum12: 12, alum15: 15, alum20: 20 }[answer];
    if (percent !== undefined && alum !== null)
      return each(steps, 'mordant', (s) =>
        isMordant(s) ? withDose(inSalt(bare(s), s, materials, false, fibres), alum, percent) : s,
      );
    if (answer === 'soy')
      return each(steps, 'mordant', (s) => (isMordant(s) ? soyStep(without(bare(s), tartar), soy) : s));
    if (answer === 'acetate' && acetate !== null)
      return each(steps, 'mordant', (s) =>
        isMordant(s) && fibresOf(s, fibres).every((f) => fibreFamily(f) === 'cellulose')
          ? withDose(inSalt(without(bare(s), tartar), s, materials, true, fibres), acetate, 8)
          : s,
      );
    return steps;
  },
  tartar: (steps, answer, materials, { fibres }) => {
    const { tartar } = materials;
    const bare = each(steps, 'mordant', (s) => without(s, tartar));
    const rinsed = bare
      .filter((s) => s.key !== 'tartarRinse')
      .map((s) => relink(s, 'tartarRinse', lastOf(bare, 'mordant')));
    // Tartar goes with alum on protein: acetate would lose its grip, soy would curdle, cellulose has no use for it.
    const suits = (s: RecipeStep): boolean =>
      !dosing(s, materials.acetate) &&
      !isSoyStep(s, materials) &&
      fibresOf(s, fibres).some((f) => fibreFamily(f) !== 'cellulose');
    const hasSuited = rinsed.some((s) => s.kind === 'mordant' && suits(s));
    if (answer === 'none' || tartar === null || !hasSuited) return rinsed;
    if (answer === 'with') return each(rinsed, 'mordant', (s) => (suits(s) ? withDose(s, tartar, 5) : s));
    return insertAfter(
      rinsed,
      'mordant',
      recipeStep({
        key: 'tartarRinse',
        kind: 'rinse',
        title: $localize`Rinse with tartar`,
        instruction: $localize`Lukewarm, tartar dissolved first.`,
        durationMin: 20,
        attended: true,
        usesBath: true,
        doses: [{ materialId: tartar, by: 'percentOwf', percentOwf: 5 }],
      }),
    );
  },
  mordantWhen: (steps, answer, { alum, acetate, vats }) => {
    const mordant = steps.find((s) => s.kind === 'mordant' && (dosing(s, alum) || dosing(s, acetate)));
    const dye = steps.find((s) => s.kind === 'dye');
    if (!dye || steps.some((s) => s.doses.some((d) => vats.includes(d.materialId)))) return steps;
    const salts = (s: RecipeStep) => s.doses.filter((d) => d.materialId === alum || d.materialId === acetate);
    if (answer === 'with' && mordant) {
      const together = steps.map((s) => (s === dye ? { ...s, doses: [...s.doses, ...salts(mordant)] } : s));
      return withoutStep(together, mordant);
    }
    if (answer === 'before' && !mordant && salts(dye).length > 0) {
      const own = recipeStep({
        key: ADDED_MORDANT,
        kind: 'mordant',
        ...hotMordant({ fibres: dye.fibres, isAcetate: dosing(dye, acetate) }),
        title: $localize`Mordant`,
        usesBath: true,
        fibres: dye.fibres,
        doses: salts(dye),
      });
      const bare = steps.map((s) => (s === dye ? without(without(s, alum), acetate) : s));
      return insertBefore(bare, steps.indexOf(dye), own);
    }
    if (answer === 'after' && mordant) {
      const after = insertAfter(withoutStep(steps, mordant), 'dye', { ...mordant, after: null });
      return after.map((s) => (s.key === mordant.key ? { ...s, title: $localize`Mordant after dyeing` } : s));
    }
    return steps;
  },
  tanninOrder: (steps, answer) => {
    const [tannin, mordant] = (['tannin', 'mordant'] as const).map((kind) => steps.findIndex((s) => s.kind === kind));
    if (tannin === undefined || mordant === undefined || tannin === -1 || mordant === -1) return steps;
    return (answer === 'tannin') === tannin < mordant ? steps : swapPlaces(steps, tannin, mordant);
  },
  fixing: (steps, answer, { chalk, bran, alum, acetate }, { fibres }) => {
    const fixed = steps.find((s) => s.key === FIXING);
    const bare = fixed ? withoutStep(steps, fixed) : steps;
    const materialId = answer === 'chalk' ? chalk : answer === 'bran' ? bran : null;
    const mordant = bare.filter((s) => s.kind === 'mordant').at(-1);
    const suits =
      mordant !== undefined &&
      (dosing(mordant, alum) || dosing(mordant, acetate)) &&
      fibresOf(mordant, fibres).some((f) => fibreFamily(f) === 'cellulose');
    if (materialId === null || !suits) return bare;
    return insertAfter(
      bare,
      'mordant',
      recipeStep({
        key: FIXING,
        kind: 'rinse',
        title: answer === 'chalk' ? $localize`Fix with chalk` : $localize`Fix with bran`,
        instruction:
          answer === 'chalk'
            ? $localize`Chalk stirred into warm water first; turn the pieces in it, then rinse well.`
            : $localize`Bran steeped hot and strained; turn the pieces in it warm, then rinse well.`,
        temperatureC: 45,
        durationMin: 30,
        attended: true,
        usesBath: true,
        doses: [{ materialId, by: 'percentOwf', percentOwf: answer === 'chalk' ? 5 : 10 }],
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
            title: $localize`Rinse off the mordant`,
            instruction: $localize`Once, water as warm as the pieces.`,
            durationMin: 10,
            attended: true,
            lookFor: $localize`Water clear`,
          }),
        );
  },
  mordantOnTannin: (steps, answer, { alum, vats }, { fibres }) => {
    const added = steps.find((s) => s.key === ADDED_MORDANT);
    if (answer === 'none')
      return steps.filter((s) => s !== added).map((s) => relink(s, ADDED_MORDANT, added?.after?.[0]));
    if (steps.some((s) => s.kind === 'mordant') || alum === null) return steps;
    // A vat needs no mordant, and alum carried into it feeds on its reducer.
    if (steps.some((s) => s.doses.some((d) => vats.includes(d.materialId)))) return steps;
    const mordant = recipeStep({
      key: ADDED_MORDANT,
      kind: 'mordant',
      ...hotMordant({ fibres, isAcetate: false }),
      title: $localize`Mordant`,
      usesBath: true,
      lookFor: $localize`No grains at the bottom`,
      doses: [{ materialId: alum, by: 'percentOwf', percentOwf: 12 }],
    });
    const before = steps.findIndex((s) => s.kind === 'wetOut' || s.kind === 'extract' || s.kind === 'dye');
    return before === -1 ? steps : insertBefore(steps, before, mordant);
  },
};

/** Three coats, a day of drying each. */
const SOY_MIN = 3 * 1440;

const FIXING = 'fixing';
const ADDED_MORDANT = 'addedMordant';

/** Whether a mordant step binds with soy milk: it doses it, or is painted on, without a bath. */
const isSoyStep = (step: RecipeStep, { soy }: PracticeMaterials): boolean =>
  step.kind === 'mordant' && (dosing(step, soy) || (!step.usesBath && step.doses.length === 0));

/** A mordant step in another salt: as hot as it bears, where it was hot, or was no bath before. */
function inSalt(
  bare: RecipeStep,
  before: RecipeStep,
  materials: PracticeMaterials,
  isAcetate: boolean,
  fibres: readonly FibreKind[],
): RecipeStep {
  const wasSoy = isSoyStep(before, materials);
  const changes = wasSoy || dosing(before, materials.acetate) !== isAcetate;
  const wasCold = before.course.length > 0 && hottestC(before) === undefined && !wasSoy;
  return changes && !wasCold
    ? { ...bare, ...hotMordant({ fibres: fibresOf(before, fibres), isAcetate }), usesBath: true }
    : { ...bare, usesBath: true };
}

/** Soy milk dosed to the weight of cloth: about its own weight for each of the coats. General practice. */
const SOY_ML_PER_100G = 300;

const soyStep = (step: RecipeStep, soy: string | null): RecipeStep => ({
  ...step,
  title: $localize`Bind with soy milk`,
  temperatureC: undefined,
  ceilingC: undefined,
  course: [],
  durationMin: SOY_MIN,
  attended: false,
  usesBath: false,
  instruction: $localize`Soy milk made fresh of soaked beans, thin, strained. Three thin coats, each dried through before the next.`,
  doses: [
    ...step.doses,
    ...(soy === null ? [] : [{ materialId: soy, by: 'solution' as const, mlPer100G: SOY_ML_PER_100G, gPerL: null }]),
  ],
});

/** The chain without a step; whoever followed it follows what it followed. */
const withoutStep = (steps: readonly RecipeStep[], gone: RecipeStep): RecipeStep[] =>
  steps.filter((s) => s !== gone).map((s) => relink(s, gone.key, gone.after?.[0]));

/** Two steps of a chain, one in the place of the other: keys and all that hangs on them stay where they are. */
const swapPlaces = (steps: readonly RecipeStep[], a: number, b: number): RecipeStep[] =>
  steps.map((s, i) => {
    const other = i === a ? steps[b] : i === b ? steps[a] : undefined;
    return other ? { ...other, key: s.key, after: s.after } : s;
  });
