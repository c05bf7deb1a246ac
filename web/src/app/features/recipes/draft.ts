import type { DoseBody, RecipeBody } from '@vestigia/contract';
import type {
  BathUnit,
  DoseWay,
  FibreKind,
  KitchenUnit,
  MaterialForm,
  PhReagent,
  StepKind,
  VesselMetal,
  VolumeSystem,
} from '@vestigia/core';
import { ANY_WATER, DEFAULT_WEIGH_WITHIN_PERCENT, STEP_KIND_LABELS } from '@vestigia/core';

/**
 * A dose as it is being written: figures may still be missing. `first` is the way's own figure, `second` a solution's
 * strength or the end of a range.
 */
export interface DoseDraft {
  materialId: string;
  by: DoseWay;
  first: number | null;
  second: number | null;
  form: MaterialForm | '';
  unit: KitchenUnit;
  bathUnit: BathUnit;
  system: VolumeSystem;
  reagent: PhReagent;
}

type Step = RecipeBody['steps'][number];
export type StepDraft = Omit<Step, 'temperatureC' | 'ceilingC' | 'doses' | 'wait' | 'targetPh' | 'course'> & {
  temperatureC: number | null;
  ceilingC: number | null;
  minMinutes: number | null;
  maxMinutes: number | null;
  phLow: number | null;
  phHigh: number | null;
  course: { do: Step['course'][number]['do']; toC: number | null; minutes: number | null }[];
  doses: DoseDraft[];
};

export interface BodyDraft {
  fibres: readonly FibreKind[];
  liquorRatio: number | null;
  minLiquorRatio: number | null;
  weighWithinPercent: number;
  allowedMetals: readonly VesselMetal[];
  water: RecipeBody['water'];
  practice: Record<string, string>;
  parts: { key: string; name: string; sharePercent: number | null }[];
  placed: RecipeBody['placed'];
  expectedShades: RecipeBody['expectedShades'];
  steps: StepDraft[];
  note: string;
}

/** Ways of dosing that are said without a figure. */
export const WITHOUT_FIGURE: readonly DoseWay[] = ['packet', 'allThere', 'liquor'];

export const newDose = (by: DoseWay = 'percentOwf'): DoseDraft => ({
  materialId: '',
  by,
  first: null,
  second: null,
  form: '',
  unit: 'tsp',
  bathUnit: 'g',
  system: 'metric',
  reagent: 'vinegar5',
});

/** A short name for a step that no other has: what others follow it by. */
export function freshKey(kind: StepKind, taken: readonly string[]): string {
  const stem = STEP_KIND_LABELS[kind];
  for (let n = 1; ; n += 1) {
    const key = n === 1 ? stem : `${stem} ${n}`;
    if (!taken.includes(key)) return key;
  }
}

export function newStep(kind: StepKind, taken: readonly string[], rest: Partial<StepDraft> = {}): StepDraft {
  const label = STEP_KIND_LABELS[kind];
  return {
    key: freshKey(kind, taken),
    kind,
    title: `${label[0]?.toUpperCase() ?? ''}${label.slice(1)}`,
    instruction: '',
    temperatureC: null,
    ceilingC: null,
    durationMin: 60,
    attended: false,
    lookFor: '',
    finishedBy: 'clock',
    minMinutes: null,
    maxMinutes: null,
    after: null,
    fibres: [],
    parts: [],
    usesBath: ['mordant', 'tannin', 'extract', 'dye', 'exhaust', 'modify'].includes(kind),
    bath: '',
    metals: [],
    liquorRatio: null,
    course: [],
    repeats: 1,
    lookEveryMin: null,
    strain: null,
    phLow: null,
    phHigh: null,
    cautions: [],
    doses: [],
    ...rest,
  };
}

/** What a recipe begins with for pieces that go into a bath that stands. */
export function newBodyInLiquor(materialId: string): BodyDraft {
  const steps = stepsOf(['wetOut', 'dye', 'rinse', 'dry']);
  const dye = steps.find((s) => s.kind === 'dye');
  dye?.doses.push({ ...newDose('liquor'), materialId });
  return bodyOf(steps);
}

/** What a new recipe begins with. */
export const newBody = (): BodyDraft => bodyOf(stepsOf(['scour', 'mordant', 'extract', 'dye', 'rinse', 'dry']));

const stepsOf = (kinds: readonly StepKind[]): StepDraft[] =>
  kinds.reduce<StepDraft[]>(
    (steps, kind) => [
      ...steps,
      newStep(
        kind,
        steps.map((s) => s.key),
      ),
    ],
    [],
  );

function bodyOf(steps: StepDraft[]): BodyDraft {
  return {
    fibres: ['wool'],
    liquorRatio: 30,
    minLiquorRatio: null,
    weighWithinPercent: DEFAULT_WEIGH_WITHIN_PERCENT,
    allowedMetals: ['stainless', 'enamel'],
    water: ANY_WATER,
    practice: {},
    parts: [],
    placed: null,
    expectedShades: [],
    steps,
    note: '',
  };
}

/** The figure a dose is written by first; a packet has none. */
function firstFigure(dose: DoseBody): number | null {
  switch (dose.by) {
    case 'percentOwf':
      return dose.percentOwf;
    case 'gPerLitre':
      return dose.gPerL;
    case 'solution':
      return dose.mlPer100G;
    case 'perPiece':
      return dose.gPerPiece;
    case 'perBath':
      return dose.amount;
    case 'count':
      return dose.piecesPer100G;
    case 'packet':
    case 'allThere':
    case 'liquor':
      return null;
    case 'spoons':
      return dose.spoonsPer100G;
    case 'toPh':
      return dose.targetPh;
  }
}

/** A solution’s strength, or where a range ends. */
function secondFigure(dose: DoseBody): number | null {
  if (dose.by === 'percentOwf') return dose.toPercentOwf ?? null;
  return dose.by === 'solution' ? dose.gPerL : null;
}

export function draftDose(dose: DoseBody): DoseDraft {
  return {
    ...newDose(dose.by),
    materialId: dose.materialId,
    first: firstFigure(dose),
    second: secondFigure(dose),
    form: dose.by === 'percentOwf' ? (dose.form ?? '') : '',
    ...(dose.by === 'spoons' ? { unit: dose.unit, system: dose.system } : {}),
    ...(dose.by === 'perBath' ? { bathUnit: dose.unit, system: dose.system } : {}),
    ...(dose.by === 'toPh' ? { reagent: dose.reagent } : {}),
  };
}

/** A dose as it is sent. A figure still missing goes as it is: the server says which. */
export function finishDose({
  materialId,
  by,
  first,
  second,
  form,
  unit,
  bathUnit,
  system,
  reagent,
}: DoseDraft): DoseBody {
  const figure = first as number;
  switch (by) {
    case 'percentOwf':
      return {
        materialId,
        by,
        percentOwf: figure,
        ...(second === null ? {} : { toPercentOwf: second }),
        ...(form === '' ? {} : { form }),
      };
    case 'gPerLitre':
      return { materialId, by, gPerL: figure };
    case 'solution':
      return { materialId, by, mlPer100G: figure, gPerL: second };
    case 'perPiece':
      return { materialId, by, gPerPiece: figure };
    case 'perBath':
      return { materialId, by, amount: figure, unit: bathUnit, system };
    case 'count':
      return { materialId, by, piecesPer100G: figure };
    case 'packet':
    case 'allThere':
    case 'liquor':
      return { materialId, by };
    case 'spoons':
      return { materialId, by, spoonsPer100G: figure, unit, system };
    case 'toPh':
      return { materialId, by, targetPh: figure, reagent };
  }
}

export function draftBody(body: RecipeBody): BodyDraft {
  const taken: string[] = body.steps.map((s) => s.key).filter((k) => k !== '');
  return {
    ...structuredClone(body),
    steps: body.steps.map(({ temperatureC, ceilingC, wait, targetPh, doses, course, ...s }) => {
      const key = s.key === '' ? freshKey(s.kind, taken) : s.key;
      taken.push(key);
      return {
        ...structuredClone(s),
        key,
        temperatureC: temperatureC ?? null,
        ceilingC: ceilingC ?? null,
        minMinutes: wait?.minMinutes ?? null,
        maxMinutes: wait?.maxMinutes ?? null,
        phLow: targetPh?.low ?? null,
        phHigh: targetPh?.high ?? null,
        course: course.map((leg) => ({ ...leg, toC: leg.toC ?? null })),
        doses: doses.map(draftDose),
      };
    }),
  };
}

/** What is sent. Doses without a material are left out; an empty answer of house practice is none. */
export function finishBody(draft: BodyDraft): RecipeBody {
  return {
    ...draft,
    fibres: [...draft.fibres],
    allowedMetals: [...draft.allowedMetals],
    liquorRatio: draft.liquorRatio as number,
    practice: Object.fromEntries(Object.entries(draft.practice).filter(([, answer]) => answer !== '')),
    parts: draft.parts.map((p) => ({ ...p, sharePercent: p.sharePercent as number })),
    steps: draft.steps.map(
      ({ temperatureC, ceilingC, minMinutes, maxMinutes, phLow, phHigh, doses, course, ...s }) => ({
        ...s,
        ...(temperatureC === null ? {} : { temperatureC }),
        ...(ceilingC === null ? {} : { ceilingC }),
        wait: minMinutes === null && maxMinutes === null ? null : { minMinutes: minMinutes ?? 0, maxMinutes },
        targetPh:
          phLow === null && phHigh === null
            ? null
            : { low: (phLow ?? phHigh) as number, high: (phHigh ?? phLow) as number },
        course: course.map(({ toC, minutes, ...leg }) => ({
          ...leg,
          ...(toC === null ? {} : { toC }),
          minutes: minutes as number,
        })),
        doses: doses.filter((d) => d.materialId !== '').map(finishDose),
      }),
    ),
  };
}
