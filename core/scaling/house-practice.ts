import { fibreFamily } from '../bath/fibre';
import type { FibreKind } from '../bath/fibre';
import type { MaterialForm, MaterialKind } from '../stock/material-facts';
import type { HouseHint } from './house-hint';
import type { LotPlan } from './lot-plan';
import type { RecipeVersion } from '../recipe/recipe';
import type { Practice } from '../recipe/practice-questions';
import { PRACTICE, practiceChoice } from '../recipe/practice-questions';
import type { RecipeStep } from '../recipe/recipe-step';

/** What holds for a recipe: its own answer, or the house's. */
export const practiceOf = (recipe: Practice, house: Practice, key: string): string => recipe[key] ?? house[key] ?? '';

/** What the house does at a step and a recipe doesn't say, to be read with its cautions. */
export function houseHints(
  step: Pick<RecipeStep, 'kind'>,
  fibres: readonly FibreKind[],
  answer: (key: string) => string,
): HouseHint[] {
  if (step.kind === 'dry' && answer('sun') === 'never') return ['outOfSun'];
  if (step.kind !== 'extract') return [];
  if (answer('fibreInExtraction') === 'never') return ['noFibreInExtraction'];
  if (answer('fibreInExtraction') !== 'cellulose') return [];
  return [fibres.every((f) => fibreFamily(f) === 'cellulose') ? 'clothWithDyestuff' : 'proteinOnceCool'];
}

/** A lot, and what the house does, to be set beside each other. */
export interface PracticeCase {
  readonly plan: LotPlan;
  readonly recipe: RecipeVersion;
  readonly house: Practice;
  readonly materials: readonly { readonly id: string; readonly name: string; readonly kind: MaterialKind }[];
  readonly stockLots: readonly {
    readonly tag: string;
    readonly materialId: string;
    readonly form: MaterialForm | null;
  }[];
}

/**
 * Where a lot would be dyed otherwise than the house does, where the recipe itself doesn't say so: a sentence for
 * each.
 */
export function againstHouse({ plan, recipe, house, materials, stockLots }: PracticeCase): string[] {
  const found: string[] = [];
  const says = (key: string, answer: string): boolean => recipe.practice[key] === undefined && house[key] === answer;
  const rule = (key: string): string =>
    `${PRACTICE.find((q) => q.key === key)?.question ?? ''}: ${practiceChoice(key, house[key])?.label ?? ''}`;
  const kindOf = (id: string): MaterialKind | undefined => materials.find((m) => m.id === id)?.kind;
  const metals = new Map(plan.steps.flatMap((s) => s.baths.map((b) => [b.vesselName, b.metal] as const)));
  const inert = says('vessel', 'inert');
  for (const [name, metal] of metals) {
    const odd = inert
      ? !['stainless', 'enamel', 'glass', 'plastic'].includes(metal)
      : says('vessel', 'aluminium') && (metal === 'iron' || metal === 'copper');
    if (odd)
      found.push(
        `${name} is of ${metal}. The house says of vessels: ${practiceChoice('vessel', house.vessel)?.label ?? ''}.`,
      );
  }
  const doses = recipe.steps.flatMap((s) => s.doses);
  const nameOf = (id: string): string => materials.find((m) => m.id === id)?.name ?? 'A material';
  for (const dose of doses) {
    if (
      says('doseBy', 'fibre') &&
      kindOf(dose.materialId) === 'dyestuff' &&
      (dose.by === 'perPiece' || dose.by === 'gPerLitre')
    )
      found.push(
        `${nameOf(dose.materialId)} is dosed ${dose.by === 'perPiece' ? 'by the piece' : 'by the litre'}. The house says, ${rule('doseBy').toLowerCase()}.`,
      );
    if (says('measuring', 'balance') && dose.by === 'spoons')
      found.push(
        `${nameOf(dose.materialId)} is dosed by the spoon. The house says, ${rule('measuring').toLowerCase()}.`,
      );
    if (
      says('modifiers', 'crystals') &&
      kindOf(dose.materialId) === 'modifier' &&
      stockLots.some((j) => j.materialId === dose.materialId && j.form === 'liquor')
    )
      found.push(
        `${nameOf(dose.materialId)} is a home-made liquor. The house says, ${rule('modifiers').toLowerCase()}.`,
      );
  }
  const form = ['fresh', 'frozen', 'dried'].find((f) => says('form', f));
  for (const stockLot of stockLots) {
    if (
      form !== undefined &&
      kindOf(stockLot.materialId) === 'dyestuff' &&
      stockLot.form !== null &&
      ['fresh', 'frozen', 'dried'].includes(stockLot.form) &&
      stockLot.form !== form
    )
      found.push(`${stockLot.tag} is ${stockLot.form}. The house dyes with ${form}.`);
  }
  return [...new Set(found)];
}
