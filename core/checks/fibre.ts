import { sayPh } from '../quantity/say-ph';
import { formatTemperature } from '../quantity/temperature';
import { fibreFamily } from '../bath/fibre';
import { hottestC } from '../recipe/course';
import type { RecipeStep } from '../recipe/recipe-step';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, has, line, stop } from './finding';

/** Fibre dropped into a bath this much hotter or colder felts (protein). */
export const HEAT_JUMP_C = 25;

/** Above this, protein fibre yellows and weakens. */
export const ALKALINE_PH = 9;

interface AtStep {
  readonly title: string;
  readonly cites: string;
}
type FibreFinding =
  | (AtStep & { readonly code: 'causticProtein'; readonly materialName: string })
  | (AtStep & { readonly code: 'alkaliProtein'; readonly ph: number })
  | (AtStep & { readonly code: 'hotStart'; readonly atC: number })
  | (AtStep & {
      readonly code: 'heatJump';
      readonly atC: number;
      readonly before: string;
      readonly beforeC: number;
    });

function findFibre(input: CheckInput): FibreFinding[] {
  if (!has(input.plan, 'protein')) return [];
  const steps = input.recipe.steps.filter(
    (s) => s.fibres.length === 0 || s.fibres.some((f) => fibreFamily(f) === 'protein'),
  );
  return steps.flatMap((step, i) => {
    const at = { title: step.title, cites: line(input.recipe, step) };
    return [...findAlkali(input, step, at), ...findJump(step, steps[i - 1], at)];
  });
}

function findAlkali({ materials }: CheckInput, step: RecipeStep, at: AtStep): FibreFinding[] {
  const caustic = step.doses
    .map((d) => materials.find((m) => m.id === d.materialId))
    // A vat is judged by its own pH.
    .find((m) => m?.hazards.includes('caustic') && m.needs !== 'vat');
  if (caustic && !['extract', 'strain', 'makeUp'].includes(step.kind))
    return [{ code: 'causticProtein', ...at, materialName: caustic.name }];
  const dosed = step.doses.flatMap((d) => (d.by === 'toPh' ? [d.targetPh] : []))[0];
  const ph = step.targetPh?.high ?? dosed ?? 0;
  return ph > ALKALINE_PH ? [{ code: 'alkaliProtein', ...at, ph }] : [];
}

function findJump(step: RecipeStep, before: RecipeStep | undefined, at: AtStep): FibreFinding[] {
  const [first] = step.course;
  if (first && first.do === 'hold' && (first.toC ?? 0) > 20 + HEAT_JUMP_C)
    return [{ code: 'hotStart', ...at, atC: first.toC ?? 0 }];
  const beforeC = before && hottestC(before);
  const atC = hottestC(step);
  if (!before || beforeC === undefined || atC === undefined || beforeC - atC <= HEAT_JUMP_C) return [];
  const cooled = before.course.some((leg) => leg.do === 'cool' || leg.do === 'steep');
  if (cooled || (step.kind !== 'rinse' && step.kind !== 'wash')) return [];
  return [{ code: 'heatJump', ...at, atC, before: before.title, beforeC }];
}

function sayFibre(f: FibreFinding): CheckText {
  switch (f.code) {
    case 'causticProtein':
      return stop(
        $localize`“${f.title}” puts ${f.materialName} on protein fibre.`,
        $localize`Alkali and heat dissolve wool and silk.`,
        f.cites,
      );
    case 'alkaliProtein':
      return caution(
        $localize`“${f.title}” is at ${sayPh(f.ph)}, on protein fibre.`,
        $localize`Above pH 9 wool yellows and weakens: keep it cool and short, and neutralise after.`,
        f.cites,
      );
    case 'hotStart':
      return caution(
        $localize`“${f.title}” begins at ${formatTemperature(f.atC)}.`,
        $localize`Wool dropped into a hot bath felts: begin lukewarm and raise.`,
        f.cites,
      );
    case 'heatJump':
      return caution(
        $localize`“${f.title}” at ${formatTemperature(f.atC)} follows “${f.before}” at ${formatTemperature(f.beforeC)}.`,
        $localize`A sudden change of temperature felts wool: let it cool in the bath first.`,
        f.cites,
      );
  }
}

/** What a chain does to protein fibre that it does not bear: caustic, high pH, sudden heat. */
export const fibreChecks = checkFamily(findFibre, sayFibre);
