import { formatTemperature } from '../quantity/temperature';
import { formatAmount } from '../quantity/amount';
import { sayMinutes } from '../quantity/duration';
import { keyOf } from '../recipe/chain';
import type { Dose } from '../recipe/dose';
import { STRAIN_LABELS } from '../recipe/course';
import type { RecipeStep } from '../recipe/recipe-step';
import { recipeStep } from '../recipe/recipe-step';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { smallestIn } from '../scaling/lot-plan';
import type { DeviationFact } from './deviation';
import { findDeviations } from './deviations';
import type { StepRecord } from './step-record';

/** What is written otherwise in the version that was really dyed, in words. */
export interface AsDoneChange {
  readonly stepTitle: string;
  readonly message: string;
}

/** A plan by the fibre that was really weighed: per cent of fibre is of that, not of what was written beforehand. */
function byRealFibre(plan: LotPlan, records: readonly StepRecord[]): LotPlan {
  const bases = new Set(plan.groups.map((g) => g.baseId));
  const weighed = plan.steps
    .filter((s) => s.kind === 'fibre')
    .flatMap((s) => records[s.index]?.weighings ?? [])
    .filter((w) => bases.has(w.materialId));
  const wofG = weighed.reduce((sum, w) => sum + w.amount, 0) / smallestIn('weight');
  return wofG > 0 ? { ...plan, wof: { ...plan.wof, value: wofG } } : plan;
}

/** Steps that hold pieces or dyestuff in liquor: where one was done beside the chain, it had a bath. */
const IN_LIQUOR: readonly RecipeStep['kind'][] = ['scour', 'tannin', 'mordant', 'extract', 'dye', 'exhaust', 'modify'];

/**
 * The chain as it was really dyed in one run: times, heat and doses as they were, what was put in as well, steps done
 * beside the chain in their place, skipped ones gone. What went as planned stays as it was written.
 * @param steps the recipe's own, as the lot was planned by
 * @param records the run folded, a record a step of the plan
 */
export function recipeAsDone(
  steps: readonly RecipeStep[],
  agreed: LotPlan,
  records: readonly StepRecord[],
): { readonly steps: readonly RecipeStep[]; readonly changes: readonly AsDoneChange[] } {
  const plan = byRealFibre(agreed, records);
  const changes: AsDoneChange[] = [];
  const done: RecipeStep[] = [];
  /** What a step's followers follow now, where that isn't the step itself. */
  const instead = new Map<string, readonly string[]>();
  steps.forEach((written, i) => {
    const key = keyOf(written, i);
    const planned = plan.steps.find((s) => s.key === key);
    const record = planned && records[planned.index];
    if (!planned || !record) {
      done.push(written);
      return;
    }
    const say = (message: string): void => void changes.push({ stepTitle: written.title, message });
    if (record.skippedReason !== undefined) {
      instead.set(key, written.after ?? (i === 0 ? [] : [keyOf(steps[i - 1] as RecipeStep, i - 1)]));
      say($localize`left out: ${record.skippedReason}`);
      return;
    }
    done.push({ ...asItRan(written, planned, record, plan, say), key });
    const extras = (record.extras ?? []).map((extra, n) =>
      recipeStep({
        key: `${key} +${n + 1}`.slice(0, 40),
        kind: extra.stepKind,
        title: extra.title,
        instruction: extra.note,
        usesBath: IN_LIQUOR.includes(extra.stepKind),
        durationMin: extra.minutes ?? 0,
        fibres: written.fibres,
        parts: written.parts,
        ...(extra.temperatureC === null ? {} : { temperatureC: extra.temperatureC }),
      }),
    );
    for (const [n, extra] of extras.entries()) {
      say($localize`“${extra.title}” added after it`);
      done.push({ ...extra, after: [n === 0 ? key : (extras[n - 1] as RecipeStep).key] });
    }
    const last = extras.at(-1);
    if (last) instead.set(key, [last.key]);
  });
  return { steps: changes.length === 0 ? steps : relinked(done, steps, instead), changes };
}

/** Every step follows what it followed, or what came in its place. */
function relinked(
  done: readonly RecipeStep[],
  steps: readonly RecipeStep[],
  instead: ReadonlyMap<string, readonly string[]>,
): RecipeStep[] {
  const inPlaceOf = (key: string, of: string): readonly string[] => {
    const next = instead.get(key);
    return next === undefined || next.includes(of) ? [key] : next.flatMap((k) => (k === key ? [k] : inPlaceOf(k, of)));
  };
  return done.map((step) => {
    const i = steps.findIndex((s, at) => keyOf(s, at) === step.key);
    if (i < 0) return step;
    const followed = step.after ?? (i === 0 ? [] : [keyOf(steps[i - 1] as RecipeStep, i - 1)]);
    return { ...step, after: [...new Set(followed.flatMap((key) => inPlaceOf(key, step.key)))] };
  });
}

function asItRan(
  written: RecipeStep,
  planned: PlannedStep,
  record: StepRecord,
  plan: LotPlan,
  say: (message: string) => void,
): RecipeStep {
  const facts = findDeviations(planned, record, { tagOf: () => '' });
  const time = facts.find((f) => f.code === 'longer' || f.code === 'shorter');
  const heat = facts.find((f) => f.code === 'aboveCeiling' || f.code === 'hotter' || f.code === 'colder');
  let step: RecipeStep = { ...written, doses: dosesAsTaken(written, planned, record, say) };
  if (time && 'minutes' in time) step = withMinutes(step, Math.round(time.minutes), say);
  if (heat && 'hottestC' in heat) step = withHeat(step, heat.hottestC, say);
  const strained = facts.find((f) => f.code === 'strainedOtherwise');
  if (strained) {
    say(STRAIN_LABELS[strained.way]);
    step = { ...step, strain: strained.way };
  }
  return withAdded(step, plan, record, facts, say);
}

/** The time goes into the longest leg that holds, where there is a course. */
function withMinutes(step: RecipeStep, minutes: number, say: (message: string) => void): RecipeStep {
  say($localize`${sayMinutes(minutes)} instead of ${sayMinutes(step.durationMin)}`);
  const held = step.course.filter((leg) => leg.do !== 'raise');
  const longest = held.reduce<(typeof held)[number] | undefined>(
    (most, leg) => (most === undefined || leg.minutes > most.minutes ? leg : most),
    undefined,
  );
  const all = step.course.reduce((sum, leg) => sum + leg.minutes, 0) * step.repeats;
  const course = step.course.map((leg) =>
    leg === longest
      ? { ...leg, minutes: Math.max(1, Math.round(leg.minutes + (minutes - all) / Math.max(1, step.repeats))) }
      : leg,
  );
  return { ...step, durationMin: minutes, course };
}

function withHeat(step: RecipeStep, hottestC: number, say: (message: string) => void): RecipeStep {
  const whole = Math.round(hottestC);
  say(
    $localize`at ${formatTemperature(whole)}${step.temperatureC === undefined ? '' : $localize` instead of ${formatTemperature(step.temperatureC)}`}`,
  );
  const course = step.course.map((leg) =>
    leg.toC !== undefined && leg.toC === step.temperatureC ? { ...leg, toC: whole } : leg,
  );
  const ceilingC = step.ceilingC === undefined ? undefined : Math.max(step.ceilingC, whole);
  return { ...step, temperatureC: whole, course, ...(ceilingC === undefined ? {} : { ceilingC }) };
}

/** Doses by what was really weighed for all batches together; one that was left out is gone. */
function dosesAsTaken(
  written: RecipeStep,
  planned: PlannedStep,
  record: StepRecord,
  say: (message: string) => void,
): Dose[] {
  return written.doses.flatMap((dose) => {
    const own = planned.weighings.filter((w) => w.materialId === dose.materialId);
    const [first] = own;
    const taken = record.weighings.filter((w) => w.materialId === dose.materialId);
    if (!first || record.finishedAt === undefined) return [dose];
    if (taken.length === 0) {
      say($localize`without ${first.materialName}`);
      return [];
    }
    const smallest = smallestIn(first.measure);
    const wanted = own.reduce((sum, w) => sum + w.target.value * smallest, 0);
    const within = own.reduce((sum, w) => sum + w.tolerance * smallest, 0);
    const really = taken.reduce((sum, w) => sum + w.amount, 0);
    if (wanted <= 0 || Math.abs(really - wanted) <= within + 1e-6) return [dose];
    say(
      $localize`${formatAmount(really, first.measure)} ${first.materialName} instead of ${formatAmount(Math.round(wanted), first.measure)}`,
    );
    return [timesAsMuch(dose, really / wanted)];
  });
}

const figures = (value: number): number => Number(value.toPrecision(4));

/** The same dose, so many times as much; ways that name no amount stay. */
function timesAsMuch(dose: Dose, factor: number): Dose {
  switch (dose.by) {
    case 'percentOwf': {
      const { toPercentOwf: _range, ...rest } = dose;
      return { ...rest, percentOwf: figures(dose.percentOwf * factor) };
    }
    case 'gPerLitre':
      return { ...dose, gPerL: figures(dose.gPerL * factor) };
    case 'solution':
      return { ...dose, mlPer100G: figures(dose.mlPer100G * factor) };
    case 'perPiece':
      return { ...dose, gPerPiece: figures(dose.gPerPiece * factor) };
    case 'perBath':
      return { ...dose, amount: figures(dose.amount * factor) };
    case 'count':
      return { ...dose, piecesPer100G: figures(dose.piecesPer100G * factor) };
    case 'spoons':
      return { ...dose, spoonsPer100G: figures(dose.spoonsPer100G * factor) };
    case 'packet':
    case 'allThere':
    case 'liquor':
    case 'toPh':
      return dose;
  }
}

/** What was put in as well: as a dose where its amount is known and it has a jar, else in the words of the step. */
function withAdded(
  step: RecipeStep,
  plan: LotPlan,
  record: StepRecord,
  facts: readonly DeviationFact[],
  say: (message: string) => void,
): RecipeStep {
  const doses = [...step.doses];
  const words: string[] = [];
  for (const { materialId, name, measure, amount, quantityText } of record.added ?? []) {
    if (materialId === null || amount === null) {
      words.push($localize`Also ${quantityText} of ${name}.`);
      say($localize`also ${quantityText} of ${name}`);
      continue;
    }
    say($localize`also ${formatAmount(amount, measure)} of ${name}`);
    const per100G = ((amount / smallestIn(measure)) * 100) / plan.wof.value;
    doses.push(
      measure === 'weight'
        ? { materialId, by: 'percentOwf', percentOwf: figures(per100G) }
        : measure === 'volume'
          ? { materialId, by: 'solution', mlPer100G: figures(per100G), gPerL: null }
          : { materialId, by: 'count', piecesPer100G: figures(per100G) },
    );
  }
  const stretched = facts.find((f) => f.code === 'stretched');
  if (stretched) {
    words.push($localize`The bath was stretched with water.`);
    say($localize`the bath stretched with water`);
  }
  return words.length === 0
    ? { ...step, doses }
    : { ...step, doses, instruction: [step.instruction, ...words].filter((w) => w !== '').join(' ') };
}
