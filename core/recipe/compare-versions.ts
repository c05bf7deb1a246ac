import { said } from '../words/said';
import { formatTemperature } from '../quantity/temperature';
import { DEFAULT_WEIGH_WITHIN_PERCENT } from '../quantity/balance';
import type { RecipePart, RecipeVersion } from './recipe';
import type { VolumeSystem } from '../quantity/volume';
import { sayKitchenUnit } from '../quantity/volume';
import { trimZeros } from '../quantity/weight';
import { PH_REAGENT_LABELS } from '../bath/ph-reagent';
import { followsLabel } from './chain';
import type { PlacedPlan } from './placed';
import { ZONE_LABELS } from './placed';
import { sayMinutes } from '../quantity/duration';
import { PRACTICE, practiceChoice } from './practice-questions';
import { STEP_KIND_LABELS } from './step-kind';
import type { BathUnit, Dose } from './dose';
import type { HeatLeg } from './course';
import { HEAT_LEG_LABELS, STRAIN_LABELS } from './course';
import type { RecipeStep } from './recipe-step';

/** One way in which two recipe versions differ, in a dyer's words. */
export interface VersionDifference {
  /** What it is about: “Liquor ratio”, “Mordant: Potassium alum”. */
  readonly where: string;
  readonly was: string;
  readonly is: string;
}

type Body = Omit<RecipeVersion, 'id' | 'recipeName' | 'number'> & { readonly note?: string };

/** A figure to three decimals; a dash where none is written yet. */
const figureOf = (value: number | null | undefined): string =>
  value === null || value === undefined || Number.isNaN(value) ? '–' : trimZeros(value, 3);

/** A dose as dyers say it; a figure that isn't written yet stands as a dash. */
export function sayDose(dose: Dose): string {
  switch (dose.by) {
    case 'percentOwf':
      return `${figureOf(dose.percentOwf)}${dose.toPercentOwf === undefined ? '' : $localize` to ${figureOf(dose.toPercentOwf)}`} % WOF${dose.form ? `, ${said(dose.form)}` : ''}${dose.source ? $localize`, from ${dose.source.tag}` : ''}`;
    case 'gPerLitre':
      return $localize`${figureOf(dose.gPerL)} g to the litre`;
    case 'solution':
      return $localize`${figureOf(dose.mlPer100G)} ml per 100 g${dose.gPerL === null ? $localize`, of a strength nobody knows` : $localize` of a solution of ${figureOf(dose.gPerL)} g/l`}`;
    case 'perPiece':
      return $localize`${figureOf(dose.gPerPiece)} g a piece`;
    case 'packet':
      return $localize`whole packets`;
    case 'spoons':
      return $localize`${figureOf(dose.spoonsPer100G)} ${sayKitchenUnit(dose.unit, dose.system)} per 100 g`;
    case 'perBath':
      return $localize`${figureOf(dose.amount)} ${bathUnitLabel(dose.unit, dose.system)} for the bath`;
    case 'count':
      return $localize`${figureOf(dose.piecesPer100G)} pieces per 100 g`;
    case 'allThere':
      return $localize`as much as there is`;
    case 'liquor':
      return $localize`as the liquor itself`;
    case 'toPh':
      return $localize`to pH ${figureOf(dose.targetPh)} with ${PH_REAGENT_LABELS[dose.reagent]}`;
  }
}

const bathUnitLabel = (unit: BathUnit, system: VolumeSystem): string =>
  unit === 'g' || unit === 'ml' || unit === 'pieces' ? unit : sayKitchenUnit(unit, system);

/** A temperature course as dyers say it; empty where a step has none. */
export const sayCourse = (step: Pick<RecipeStep, 'course'> & { readonly repeats?: number }): string =>
  step.course
    .map((leg) => sayLeg(leg))
    .concat(step.course.length > 0 && (step.repeats ?? 1) > 1 ? [$localize`${step.repeats} times`] : [])
    .join('; ');

/** One leg of a course as dyers say it. */
export const sayLeg = (leg: HeatLeg): string =>
  `${HEAT_LEG_LABELS[leg.do]}${leg.toC === undefined ? '' : ` ${formatTemperature(leg.toC)}`}, ${sayMinutes(leg.minutes)}`;

/**
 * What changed between two versions, in the order of the work and in dyers' words; empty when nothing did.
 * Steps are matched by key, then by kind and title, then by kind, so that a renamed step isn't told as one gone and
 * one come.
 */
export function compareVersions(was: Body, is: Body, materialName: (id: string) => string): VersionDifference[] {
  const found: VersionDifference[] = [];
  const differ = (where: string, a: string, b: string): void => {
    if (a !== b) found.push({ where, was: a || '–', is: b || '–' });
  };
  differ($localize`For`, was.fibres.map(said).join(', '), is.fibres.map(said).join(', '));
  differ($localize`Liquor ratio`, `1:${was.liquorRatio}`, `1:${is.liquorRatio}`);
  differ($localize`Shortest bath allowed`, ratioLabel(was.minLiquorRatio), ratioLabel(is.minLiquorRatio));
  differ($localize`Doses weighed within`, withinText(was.weighWithinPercent), withinText(is.weighWithinPercent));
  differ(
    $localize`Pots of`,
    was.allowedMetals.map(said).join($localize` or `),
    is.allowedMetals.map(said).join($localize` or `),
  );
  differ($localize`Water`, waterLabel(was.water), waterLabel(is.water));
  for (const q of PRACTICE)
    differ(
      q.question,
      practiceChoice(q.key, was.practice[q.key])?.label ?? '',
      practiceChoice(q.key, is.practice[q.key])?.label ?? '',
    );
  differ($localize`Parts of the pieces`, partsLabel(was.parts), partsLabel(is.parts));
  for (const [a, b] of matchSteps(was.steps, is.steps)) {
    if (a && b) stepDifferences(a, b, was.steps, is.steps, materialName, differ);
    else
      differ(
        $localize`Step “${(a ?? b)?.title}”`,
        a ? stepLabel(a) : $localize`not there`,
        b ? stepLabel(b) : $localize`taken out`,
      );
  }
  const order = (steps: readonly RecipeStep[], others: readonly RecipeStep[]): string =>
    steps
      .filter((s) => others.some((o) => sameStep(s, o)))
      .map((s) => s.title)
      .join(' → ');
  if (was.steps.every((s) => is.steps.some((o) => sameStep(s, o))))
    differ($localize`Order of the steps`, order(was.steps, is.steps), order(is.steps, was.steps));
  differ($localize`Placed colour`, placedLabel(was.placed), placedLabel(is.placed));
  differ($localize`Note`, was.note ?? '', is.note ?? '');
  return found;
}

const sameStep = (a: RecipeStep, b: RecipeStep): boolean => a.kind === b.kind && a.title === b.title;

function matchSteps(
  was: readonly RecipeStep[],
  is: readonly RecipeStep[],
): (readonly [RecipeStep | undefined, RecipeStep | undefined])[] {
  const left = [...is];
  const partner = new Map<RecipeStep, RecipeStep>();
  const by = (same: (a: RecipeStep, b: RecipeStep) => boolean): void => {
    for (const a of was) {
      if (partner.has(a)) continue;
      const at = left.findIndex((b) => same(a, b));
      if (at !== -1) partner.set(a, left.splice(at, 1)[0] as RecipeStep);
    }
  };
  by((a, b) => a.key !== '' && a.key === b.key && a.kind === b.kind);
  by(sameStep);
  by((a, b) => a.kind === b.kind);
  return [...was.map((a) => [a, partner.get(a)] as const), ...left.map((b) => [undefined, b] as const)];
}

function stepDifferences(
  a: RecipeStep,
  b: RecipeStep,
  was: readonly RecipeStep[],
  is: readonly RecipeStep[],
  materialName: (id: string) => string,
  differ: (where: string, a: string, b: string) => void,
): void {
  const at = b.title;
  const degrees = (c: number | undefined): string => (c === undefined ? '' : `${formatTemperature(c)}`);
  differ($localize`Step`, a.title, b.title);
  for (const id of new Set([...a.doses, ...b.doses].map((d) => d.materialId)))
    differ(
      `${at}: ${materialName(id)}`,
      a.doses
        .filter((d) => d.materialId === id)
        .map(sayDose)
        .join(' + '),
      b.doses
        .filter((d) => d.materialId === id)
        .map(sayDose)
        .join(' + '),
    );
  differ($localize`${at}:at:: temperature`, degrees(a.temperatureC), degrees(b.temperatureC));
  differ($localize`${at}:at:: ceiling`, degrees(a.ceilingC), degrees(b.ceilingC));
  differ($localize`${at}:at:: course`, sayCourse({ course: a.course }), sayCourse({ course: b.course }));
  differ($localize`${at}:at:: time`, sayMinutes(a.durationMin), sayMinutes(b.durationMin));
  differ($localize`${at}:at:: times over`, String(a.repeats), String(b.repeats));
  differ($localize`${at}:at:: finished`, said(a.finishedBy), said(b.finishedBy));
  differ($localize`${at}:at:: may wait`, waitLabel(a), waitLabel(b));
  differ(
    $localize`${at}:at:: strain`,
    a.strain ? STRAIN_LABELS[a.strain] : '',
    b.strain ? STRAIN_LABELS[b.strain] : '',
  );
  differ(
    `${at}: pH`,
    a.targetPh ? $localize`${a.targetPh.low} to ${a.targetPh.high}` : '',
    b.targetPh ? $localize`${b.targetPh.low} to ${b.targetPh.high}` : '',
  );
  differ(
    $localize`${at}:at:: only for`,
    [...a.fibres.map(said), ...a.parts].join(', '),
    [...b.fibres.map(said), ...b.parts].join(', '),
  );
  differ($localize`${at}:at:: follows`, followsLabel(was, was.indexOf(a)), followsLabel(is, is.indexOf(b)));
  differ(
    $localize`${at}:at:: pots of`,
    a.metals.map(said).join($localize` or `),
    b.metals.map(said).join($localize` or `),
  );
  differ(
    $localize`${at}:at:: bath`,
    a.usesBath ? a.bath || $localize`its own` : '',
    b.usesBath ? b.bath || $localize`its own` : '',
  );
  differ($localize`${at}:at:: liquor ratio`, ratioLabel(a.liquorRatio), ratioLabel(b.liquorRatio));
  differ(
    $localize`${at}:at:: hands`,
    a.attended ? $localize`all the time` : $localize`at its ends`,
    b.attended ? $localize`all the time` : $localize`at its ends`,
  );
  differ($localize`${at}:at:: what to do`, a.instruction, b.instruction);
  differ($localize`${at}:at:: look for`, a.lookFor, b.lookFor);
  differ($localize`${at}:at:: look every`, sayEvery(a.lookEveryMin), sayEvery(b.lookEveryMin));
  differ($localize`${at}:at:: cautions`, a.cautions.join(' '), b.cautions.join(' '));
}

const withinText = (percent: number | undefined): string => `${percent ?? DEFAULT_WEIGH_WITHIN_PERCENT} %`;
const ratioLabel = (ratio: number | null): string => (ratio === null ? '' : `1:${ratio}`);
const waterLabel = (w: RecipeVersion['water']): string =>
  w.asks === 'any' ? said('any') : `${said(w.asks)}${w.hardnessDh === null ? '' : `, ${figureOf(w.hardnessDh)} °dH`}`;
const partsLabel = (parts: readonly RecipePart[]): string =>
  parts.map((p) => `${p.name} ${p.sharePercent} %`).join(', ');
const waitLabel = ({ wait }: RecipeStep): string =>
  wait === null
    ? ''
    : $localize`${sayMinutes(wait.minMinutes)} at least${wait.maxMinutes === null ? '' : $localize`, ${sayMinutes(wait.maxMinutes)} at most`}`;
const stepLabel = (s: RecipeStep): string =>
  [
    STEP_KIND_LABELS[s.kind],
    s.temperatureC === undefined ? '' : `${formatTemperature(s.temperatureC)}`,
    sayMinutes(s.durationMin),
  ]
    .filter((w) => w !== '')
    .join(', ');
const placedLabel = (p: PlacedPlan | null): string =>
  p === null
    ? ''
    : `${p.lengthCm} cm: ${[...p.zones]
        .sort((a, b) => a.fromPercent - b.fromPercent)
        .map((z) => `${ZONE_LABELS[z.way]} ${z.fromPercent}–${z.toPercent} %`)
        .join(', ')}`;

const sayEvery = (min: number | null): string => (min === null ? '' : sayMinutes(min));
