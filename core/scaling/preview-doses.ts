import type { Balance } from '../quantity/balance';
import { countLabel } from '../quantity/word-list';
import { formatWeight } from '../quantity/weight';
import { formatVolume } from '../quantity/volume';
import { liquorVolume } from '../bath/liquor';
import { sayDose } from '../recipe/compare-versions';
import type { Dose } from '../recipe/dose';
import type { RecipeStep } from '../recipe/recipe-step';
import type { DosedMaterial } from './dose-context';
import { measureDose } from './measure-dose';

/** What one step of a recipe needs for so much fibre, in words. */
export interface PreviewedStep {
  readonly title: string;
  /** The liquor that is made up for it: “30 l”. */
  readonly liquor: string | undefined;
  readonly doses: readonly { readonly name: string; readonly amount: string }[];
}

/** Doses that come to an amount by the weight of fibre, its pieces and the liquor alone. */
const BY_FIBRE: readonly Dose['by'][] = ['percentOwf', 'gPerLitre', 'solution', 'perPiece', 'count'];

/**
 * What a recipe as it is being written would need for so much fibre, step by step: rounded to the balance. Nothing is
 * taken from a shelf or split into pots, and what depends on the bench (spoons, packets, a pH) stands as it is written.
 * @param fibre dry weight, g, and how many pieces it is
 */
export function previewDoses(
  recipe: { readonly liquorRatio: number; readonly steps: readonly RecipeStep[] },
  materialOf: (id: string) => DosedMaterial | undefined,
  fibre: { readonly wofG: number; readonly pieces: number },
  balance: Balance,
): PreviewedStep[] {
  return recipe.steps.map((step, i) => {
    // A liquor that steps share is made up once.
    const isMadeUp = step.bath !== '' && recipe.steps.slice(0, i).some((s) => s.usesBath && s.bath === step.bath);
    const ratio = step.liquorRatio ?? recipe.liquorRatio;
    const liquorMl = Number.isFinite(ratio) && ratio > 0 ? liquorVolume(fibre.wofG, ratio).value : 0;
    return {
      title: step.title,
      liquor: step.usesBath && !isMadeUp && liquorMl > 0 ? formatVolume(liquorMl) : undefined,
      doses: step.doses.flatMap((dose) => {
        const material = materialOf(dose.materialId);
        return material
          ? [{ name: material.name, amount: amountOf(dose, material, { ...fibre, liquorMl }, balance) }]
          : [];
      }),
    };
  });
}

function amountOf(
  dose: Dose,
  material: DosedMaterial,
  bath: { readonly wofG: number; readonly pieces: number; readonly liquorMl: number },
  balance: Balance,
): string {
  if (!BY_FIBRE.includes(dose.by) || !isWritten(dose)) return sayDose(dose);
  const measured = measureDose(dose, material, { ...bath, water: null }, balance, $localize`this recipe`);
  if (!measured.ok || !Number.isFinite(measured.target.value)) return sayDose(dose);
  const { value } = measured.target;
  if (measured.measure === 'pieces') return countLabel(value, 'piece');
  return measured.measure === 'weight' ? formatWeight(value) : formatVolume(value);
}

/** Whether its figures are all there: while a recipe is being written, some aren’t yet. */
const isWritten = (dose: Dose): boolean =>
  Object.values(dose).every((value) => typeof value !== 'number' || Number.isFinite(value));
