import { fibreFamily, fibresIn } from '../bath/fibre';
import type { FibreGroup } from '../catalogue/catalogue-entry';
import { usualDose } from '../catalogue/usual-doses';
import type { Gravity } from '../safety/reactions';
import { goesThrough } from '../scaling/plan-groups';
import type { PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import { keyOf } from '../recipe/chain';
import type { CheckedMaterial, CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, line, stop } from './finding';

interface AtStep {
  readonly title: string;
  readonly cites: string;
  readonly materialName: string;
}
type DoseFinding =
  | (AtStep & {
      readonly code: 'unusualDose';
      readonly gravity: Gravity;
      readonly percent: number;
      readonly group: FibreGroup;
      readonly usual: readonly [number, number];
      readonly tooMuch: string;
    })
  | (AtStep & { readonly code: 'acetateOnProtein' })
  | (AtStep & { readonly code: 'tartarOnCellulose' })
  | (AtStep & { readonly code: 'alumAloneOnCellulose' })
  | (AtStep & { readonly code: 'cloudyAlum'; readonly alkaliName: string; readonly share: number })
  | (AtStep & { readonly code: 'ironWithChalk'; readonly alkaliName: string })
  | (AtStep & { readonly code: 'bleachOnProtein' });

interface Dosed {
  readonly material: CheckedMaterial;
  readonly weighing: PlannedWeighing;
  /** Per cent of the dry fibre in its bath; `null` of what is not weighed. */
  readonly percent: number | null;
}

const ALUMS = ['potassium-alum', 'ammonium-alum', 'aluminium-sulphate'];
const ALKALIS = ['soda-ash', 'chalk', 'bicarbonate-of-soda'];
/**
 * Grams of soda ash to a gram of alum that keep its bath clear: 474 g of potassium alum hold one mole of aluminium,
 * and up to about 1.3 moles of hydroxide to it no precipitate stays (106 g of soda bring two).
 */
const CLEAR_SODA_SHARE = 0.15;

function findDoses(input: CheckInput): DoseFinding[] {
  return input.plan.steps.flatMap((step) => {
    const recipeStep = input.recipe.steps.find((s, i) => step.key !== '' && keyOf(s, i) === step.key);
    if (!recipeStep) return [];
    const families = input.plan.groups
      .filter((g) => goesThrough(recipeStep, g))
      .flatMap(fibresIn)
      .map(fibreFamily);
    const groups = (['protein', 'cellulose'] as const).filter((group) => families.includes(group));
    const dosed = dosedAt(input, step);
    return [
      ...dosed.flatMap((d) => groups.flatMap((group) => unusual(d, group, step, input))),
      ...dosed.flatMap((d) => unsuited(d, groups, step, input)),
      ...together(dosed, step, input),
    ];
  });
}

function dosedAt({ plan, materials }: CheckInput, step: PlannedStep): Dosed[] {
  const firstOf = new Map(step.weighings.map((w) => [w.materialId, w] as const).reverse());
  return [...firstOf.values()].flatMap((weighing) => {
    const material = materials.find((m) => m.id === weighing.materialId);
    if (!material || material.kind === 'fibre') return [];
    const bath = step.baths.find((b) => b.batches.includes(weighing.batch));
    const batches = plan.batches.filter((b) => weighing.forBatches.includes(b.number));
    const wofG = bath?.wof.value ?? batches.reduce((sum, b) => sum + b.wof.value, 0);
    const weighed = weighing.measure === 'weight' && wofG > 0;
    return [{ material, weighing, percent: weighed ? (weighing.target.value / wofG) * 100 : null }];
  });
}

const at = ({ material }: Dosed, step: PlannedStep, { recipe }: CheckInput): AtStep => ({
  title: step.title,
  cites: line(recipe, step),
  materialName: material.name,
});

function unusual(dosed: Dosed, group: FibreGroup, step: PlannedStep, input: CheckInput): DoseFinding[] {
  const dose = usualDose(dosed.material.catalogueKey, group);
  const { percent } = dosed;
  if (!dose || percent === null || percent <= dose.cautionAbove) return [];
  return [
    {
      code: 'unusualDose',
      ...at(dosed, step, input),
      gravity: percent > dose.stopAbove ? 'stop' : 'caution',
      percent: Math.round(percent * 10) / 10,
      group,
      usual: dose.usual,
      tooMuch: dose.tooMuch,
    },
  ];
}

/** Salts on a fibre they do nothing for, or harm. */
function unsuited(dosed: Dosed, groups: readonly FibreGroup[], step: PlannedStep, input: CheckInput): DoseFinding[] {
  const { catalogueKey, hazards } = dosed.material;
  const here = at(dosed, step, input);
  const found: DoseFinding[] = [];
  if (catalogueKey === 'aluminium-acetate' && groups.includes('protein'))
    found.push({ code: 'acetateOnProtein', ...here });
  if (catalogueKey === 'cream-of-tartar' && groups.includes('cellulose'))
    found.push({ code: 'tartarOnCellulose', ...here });
  if (hazards.includes('chlorineBleach') && groups.includes('protein'))
    found.push({ code: 'bleachOnProtein', ...here });
  if (ALUMS.includes(catalogueKey ?? '') && groups.includes('cellulose') && !heldOnCellulose(input, step))
    found.push({ code: 'alumAloneOnCellulose', ...here });
  return found;
}

/** Tannin before the alum, or an alkali with or after it. */
function heldOnCellulose({ plan, materials }: CheckInput, step: PlannedStep): boolean {
  const brings = (s: PlannedStep, wanted: (m: CheckedMaterial) => boolean): boolean =>
    s.weighings.some((w) => materials.some((m) => m.id === w.materialId && wanted(m)));
  return plan.steps.some(
    (s) =>
      (s.index <= step.index && (s.kind === 'tannin' || brings(s, (m) => m.kind === 'tannin' || m.bringsTannin))) ||
      (s.index >= step.index &&
        brings(s, (m) => ALKALIS.includes(m.catalogueKey ?? '') || m.catalogueKey === 'wheat-bran')),
  );
}

/** What spoils what, in one step. */
function together(dosed: readonly Dosed[], step: PlannedStep, input: CheckInput): DoseFinding[] {
  const keyed = (...keys: readonly string[]): Dosed[] =>
    dosed.filter((d) => keys.includes(d.material.catalogueKey ?? ''));
  const cloudy = keyed(...ALUMS).flatMap((alum) =>
    keyed('soda-ash').flatMap((soda) => {
      const share = soda.weighing.target.value / alum.weighing.target.value;
      return share > CLEAR_SODA_SHARE
        ? [
            {
              code: 'cloudyAlum' as const,
              ...at(alum, step, input),
              alkaliName: soda.material.name,
              share: Math.round(share * 100) / 100,
            },
          ]
        : [];
    }),
  );
  const rusty = dosed
    .filter((d) => d.material.hazards.includes('ironSalt'))
    .flatMap((iron) =>
      keyed('chalk', 'soda-ash').map((alkali) => ({
        code: 'ironWithChalk' as const,
        ...at(iron, step, input),
        alkaliName: alkali.material.name,
      })),
    );
  return [...cloudy, ...rusty];
}

function sayDose(f: DoseFinding): CheckText {
  switch (f.code) {
    case 'unusualDose': {
      const message = $localize`“${f.title}” takes ${f.percent} % of ${f.materialName} on ${f.group} fibre; ${f.usual[0]} to ${f.usual[1]} % is usual.`;
      return f.gravity === 'stop' ? stop(message, f.tooMuch, f.cites) : caution(message, f.tooMuch, f.cites);
    }
    case 'acetateOnProtein':
      return caution(
        $localize`“${f.title}” puts ${f.materialName} on protein fibre.`,
        $localize`It is made for cellulose; wool and silk take aluminium from alum better and cheaper.`,
        f.cites,
      );
    case 'tartarOnCellulose':
      return caution(
        $localize`“${f.title}” puts ${f.materialName} on cellulose.`,
        $localize`Tartar helps alum onto wool; on cellulose it only keeps the mordant in the bath.`,
        f.cites,
      );
    case 'alumAloneOnCellulose':
      return caution(
        $localize`“${f.title}” puts ${f.materialName} on cellulose with neither tannin before it nor an alkali to fix it.`,
        $localize`Alum alone hardly stays on cellulose: steep in tannin first, or fix it with soda, chalk or bran.`,
        f.cites,
      );
    case 'cloudyAlum':
      return caution(
        $localize`“${f.title}” has ${f.share} g of ${f.alkaliName} to each gram of ${f.materialName}.`,
        $localize`Above about ${CLEAR_SODA_SHARE} g the bath goes cloudy: what falls out no longer mordants. Add it slowly and stop while it clears.`,
        f.cites,
      );
    case 'ironWithChalk':
      return caution(
        $localize`“${f.title}” has ${f.materialName} and ${f.alkaliName} in one bath.`,
        $localize`Alkali throws the iron out as rust, in spots. Give each a bath of its own.`,
        f.cites,
      );
    case 'bleachOnProtein':
      return stop(
        $localize`“${f.title}” puts ${f.materialName} on protein fibre.`,
        $localize`Chlorine bleach eats wool and silk away.`,
        f.cites,
      );
  }
}

/** Whether salts are dosed as is usual, on fibre they are for, with what they bear. */
export const doseChecks = checkFamily(findDoses, sayDose);
