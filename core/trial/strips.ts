import type { WaterFacts } from '../bath/water';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { chroma, hueDegrees } from '../colour/lab';
import type { Balance } from '../quantity/balance';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import { liquorVolume } from '../bath/liquor';
import { knotTag, MAX_TAGS } from './knot-tag';
import type { PlannedPick, PlannedWeighing } from '../scaling/lot-plan';
import { measureDose } from '../scaling/measure-dose';
import type { PlanMaterial } from '../scaling/plan-input';
import type { StockRules, Wanted } from '../scaling/plan-weighings';
import { takeFromStock } from '../scaling/plan-weighings';
import type { RecipeVersion } from '../recipe/recipe';
import type { StepKind } from '../recipe/step-kind';
import type { Dose } from '../recipe/dose';
import type { RecipeStep } from '../recipe/recipe-step';
import type { StripFactor } from './strip-factor';
import type { StripRefusal } from './strip-refusal';

const UNIT: Readonly<Record<StripFactor, string>> = {
  dose: '% WOF',
  source: '',
  mordant: '% WOF',
  time: 'min',
  water: '',
  modifier: '% WOF',
  liquor: '',
};
/** Steps whose dose a factor varies. */
const DOSED_AT: Readonly<Partial<Record<StripFactor, readonly StepKind[]>>> = {
  dose: ['extract', 'dye', 'makeUp'],
  mordant: ['mordant', 'tannin'],
  modifier: ['modify'],
  source: ['extract', 'dye', 'makeUp'],
};

/** What one strip gets of the factor: a figure, or one of several things. */
export interface StripLevel {
  /** Per cent of fibre, or minutes; `null` where the factor is a choice. */
  readonly value: number | null;
  /** The stock lot, water or material chosen; `null` where the factor is a figure. */
  readonly refId: string | null;
  readonly label: string;
}

/**
 * A trial as it is asked for: what varies, at which levels, and the weight of all strips together in g, which only a
 * trial of liquors does without.
 */
export interface StripTrial {
  readonly factor: StripFactor;
  /** The material whose dose or source varies; `null` for time and water. */
  readonly materialId: string | null;
  readonly totalG: number | null;
  readonly levels: readonly StripLevel[];
}

/** One strip of a trial: its number, its tag, what is measured out for it. */
export interface PlannedStrip {
  readonly number: number;
  readonly label: string;
  readonly knots: readonly number[];
  /** `null` where nobody weighed them: a trial of liquors needs no balance. */
  readonly weight: Figure | null;
  readonly weighings: readonly {
    readonly stepTitle: string;
    readonly materialId: string;
    readonly materialName: string;
    readonly target: Figure;
    readonly advice: readonly string[];
    /** The jars it is taken from. */
    readonly picks: readonly PlannedPick[];
  }[];
  readonly minutes: number | null;
}

/** Every strip of a trial; or why it can't be laid out. */
export type StripLayout =
  | { readonly ok: true; readonly strips: readonly PlannedStrip[] }
  | { readonly ok: false; readonly refusal: StripRefusal };

/** Each strip in a bowl of its own, whatever is in it: nothing is worked out, and nothing leaves the shelf. */
export function layLiquorStrips({ totalG, levels }: Pick<StripTrial, 'totalG' | 'levels'>): StripLayout {
  const n = levels.length;
  if (n < MIN_STRIPS || n > MAX_STRIPS)
    return { ok: false, refusal: { code: 'numberOfStrips', min: MIN_STRIPS, max: MAX_STRIPS } };
  const weight = totalG === null ? null : shareOf(totalG, n);
  return {
    ok: true,
    strips: levels.map(({ label }, i) => ({
      number: i + 1,
      label,
      knots: knotTag(i + 1),
      weight,
      weighings: [],
      minutes: null,
    })),
  };
}

const shareOf = (totalG: number, strips: number): Figure =>
  figure(
    Math.round((totalG / strips) * 1000) / 1000,
    'g',
    $localize`weight of all strips ÷ number of strips`,
    [
      { name: $localize`all strips`, value: totalG, unit: 'g', source: $localize`weighed dry, together` },
      { name: $localize`strips`, value: strips, unit: '' },
    ],
    [$localize`cut alike; weigh one or two to be sure`],
  );

const EVEN = { kL: 1, kC: 1, kH: 1 };
const MIN_STRIPS = 2;
const MAX_STRIPS = Math.min(24, MAX_TAGS);

/**
 * Lays out strips that are alike but for one factor: equal shares of a weighed total, each with its knots and what is
 * weighed for it.
 * @param materials those the recipe doses, and those that levels name, with what is on the shelf of them
 * @param context the balance, the water, and today as an ISO date, for what is past its best
 */
export function layStrips(
  trial: StripTrial,
  recipe: RecipeVersion,
  materials: readonly PlanMaterial[],
  { balance, water, today }: { readonly balance: Balance; readonly water: WaterFacts | null; readonly today: string },
): StripLayout {
  const n = trial.levels.length;
  const refuse = (refusal: StripRefusal): StripLayout => ({ ok: false, refusal });
  if (n < MIN_STRIPS || n > MAX_STRIPS) return refuse({ code: 'numberOfStrips', min: MIN_STRIPS, max: MAX_STRIPS });
  const { totalG, factor } = trial;
  if (totalG === null || !(totalG > 0)) return refuse({ code: 'notWeighed' });
  const eachG = totalG / n;
  const balanceStepG = balance.resolutionG;
  if (eachG < 20 * balanceStepG) return refuse({ code: 'tooSmall', strips: n, totalG, eachG, balanceStepG });
  const kinds = DOSED_AT[trial.factor];
  if (
    kinds &&
    !recipe.steps.some((s) => kinds.includes(s.kind) && s.doses.some((d) => d.materialId === trial.materialId))
  ) {
    const materialName = materials.find((m) => m.id === trial.materialId)?.name ?? $localize`That material`;
    return refuse({ code: 'notDosedThere', materialName, factor });
  }
  const liquorMl = liquorVolume(eachG, recipe.liquorRatio).value;
  const weight = shareOf(totalG, n);
  const wanted: WantedOfStrip[] = [];
  for (const [i, level] of trial.levels.entries())
    for (const step of applyLevel(recipe.steps, trial, level))
      for (const dose of step.doses) {
        const material = materialOf(materials, dose.materialId);
        const bath = { wofG: eachG, liquorMl, pieces: 1, water };
        const measured = measureDose(
          dose,
          material,
          bath,
          balance,
          $localize`${recipe.recipeName}, version ${recipe.number}`,
        );
        if (!measured.ok) return refuse({ code: 'doseUnknown', unknown: measured.unknown });
        if (measured.target.value > 0)
          wanted.push({
            strip: i,
            stepTitle: step.title,
            batch: i + 1,
            forBatches: [i + 1],
            materialId: dose.materialId,
            materialName: material.name,
            measure: measured.measure,
            target: measured.target,
            tolerance: 0,
            advice: measured.advice,
            dose,
          });
      }
  const weighings = takeForStrips(wanted, trial, materials, { recipe, balance, today });
  return {
    ok: true,
    strips: trial.levels.map((level, i) => ({
      number: i + 1,
      label: level.label,
      knots: knotTag(i + 1),
      weight,
      weighings: weighings.filter((w) => w.strip === i).map(({ strip: _strip, ...w }) => w),
      minutes: trial.factor === 'time' ? level.value : null,
    })),
  };
}

interface WantedOfStrip extends Wanted {
  readonly strip: number;
  readonly stepTitle: string;
}

function materialOf(materials: readonly PlanMaterial[], id: string): PlanMaterial {
  const material = materials.find((m) => m.id === id);
  if (!material) throw new RangeError(`the trial doses material ${id}, which was not given`);
  return material;
}

/**
 * Takes what strips want from stock as lots do, each jar by its strength: all strips share the same mix of jars, but
 * for a trial of sources, where each has its own.
 */
function takeForStrips(
  wanted: readonly WantedOfStrip[],
  { factor, materialId, levels }: StripTrial,
  materials: readonly PlanMaterial[],
  rules: StockRules,
): (PlannedStrip['weighings'][number] & { readonly strip: number })[] {
  const sourceOf = (w: WantedOfStrip): string | null =>
    factor === 'source' && w.materialId === materialId ? (levels[w.strip]?.refId ?? null) : null;
  const shares = new Map<string, WantedOfStrip[]>();
  for (const w of wanted) {
    const key = `${w.materialId} ${sourceOf(w) ?? ''}`;
    shares.set(key, [...(shares.get(key) ?? []), w]);
  }
  const taken = new Map<WantedOfStrip, PlannedWeighing>();
  for (const share of shares.values()) {
    const [first] = share;
    if (!first) continue;
    const material = materialOf(materials, first.materialId);
    const source = sourceOf(first);
    const stock = source === null ? material.stock : material.stock.filter((s) => s.stockLotId === source);
    const { weighings } = takeFromStock({ ...material, stock }, share, rules, { isBase: false });
    weighings.forEach((w, i) => share[i] && taken.set(share[i], w));
  }
  return wanted.map((w) => ({
    strip: w.strip,
    stepTitle: w.stepTitle,
    materialId: w.materialId,
    materialName: w.materialName,
    target: taken.get(w)?.target ?? w.target,
    advice: w.advice,
    picks: (taken.get(w)?.picks ?? []).filter((p) => p.stockLotId !== null),
  }));
}

/** “15 % WOF”, “40 min”; a choice has its own words. */
export const levelLabel = (factor: StripFactor, value: number): string => `${value} ${UNIT[factor]}`;

/** A dose that names the jar it was proven with. */
const fromSource = (dose: Dose, materialId: string | null, { refId, label }: StripLevel): Dose =>
  dose.by === 'percentOwf' && dose.materialId === materialId && refId !== null
    ? { ...dose, source: { stockLotId: refId, tag: label } }
    : dose;

/**
 * The recipe's steps with one strip's level in them: what a promoted strip becomes. A strip of a trial of sources
 * names its jar; a water leaves the steps as they are.
 */
export function applyLevel(
  steps: readonly RecipeStep[],
  { factor, materialId }: Pick<StripTrial, 'factor' | 'materialId'>,
  level: StripLevel,
): RecipeStep[] {
  const kinds = DOSED_AT[factor];
  return steps.map((step) => {
    if (factor === 'time' && step.kind === 'dye' && level.value !== null)
      return {
        ...step,
        durationMin: level.value,
        course: step.course.map((leg) => (leg.do === 'hold' ? { ...leg, minutes: level.value ?? leg.minutes } : leg)),
      };
    if (!kinds?.includes(step.kind)) return step;
    if (factor === 'source') return { ...step, doses: step.doses.map((d) => fromSource(d, materialId, level)) };
    return {
      ...step,
      doses: step.doses.flatMap((dose): Dose[] => {
        if (dose.materialId !== materialId) return [dose];
        if (level.value === 0) return [];
        return [
          {
            materialId: level.refId ?? dose.materialId,
            by: 'percentOwf',
            percentOwf: level.value ?? (dose.by === 'percentOwf' ? dose.percentOwf : 0),
            ...(dose.by === 'percentOwf' && dose.form ? { form: dose.form } : {}),
          },
        ];
      }),
    };
  });
}

/** A strip with its place in the ranking. */
export interface RankedStrip {
  readonly number: number;
  /** CIEDE2000 from the undyed base: how far the colour went. */
  readonly depth: number;
  readonly hueDegrees: number;
  readonly chroma: number;
  /** CIEDE2000 to the shade wanted; `null` where none was named. */
  readonly toWanted: number | null;
}

/**
 * Ranks strips: nearest the shade wanted first where there is one, else deepest first; hue (CIELAB h) settles what is
 * equal.
 */
export function rankStrips(
  readings: readonly { readonly number: number; readonly lab: Lab }[],
  undyed: Lab,
  wanted: Lab | null,
): RankedStrip[] {
  const ranked = readings.map(({ number, lab }) => ({
    number,
    depth: round(ciede2000(undyed, lab, EVEN).deltaE),
    hueDegrees: round(hueDegrees(lab)),
    chroma: round(chroma(lab)),
    toWanted: wanted ? round(ciede2000(wanted, lab, EVEN).deltaE) : null,
  }));
  return ranked.sort(
    (a, b) =>
      (a.toWanted !== null && b.toWanted !== null ? a.toWanted - b.toWanted : b.depth - a.depth) ||
      a.hueDegrees - b.hueDegrees ||
      a.number - b.number,
  );
}

const round = (value: number): number => Math.round(value * 100) / 100;
