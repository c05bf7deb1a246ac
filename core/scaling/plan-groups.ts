import { baseDisplacementMl, fibresIn } from '../bath/fibre';
import type { PlannedGroup } from './lot-plan';
import type { PlanInput } from './plan-input';
import type { RecipePart, RecipeVersion } from '../recipe/recipe';
import type { PieceGroup } from './split/split-groups';
import { joinList } from '../quantity/word-list';
import type { RecipeStep } from '../recipe/recipe-step';

/** Whole pieces for each part, by its share, by largest remainder; the sum is all of them. */
export function sharePieces(pieces: number, parts: readonly RecipePart[]): number[] {
  const exact = parts.map((p) => (pieces * p.sharePercent) / 100);
  const counts = exact.map((e) => Math.floor(e + 1e-9));
  let rest = pieces - counts.reduce((sum, n) => sum + n, 0);
  for (const { i } of exact
    .map((e, n) => ({ i: n, r: e - Math.floor(e + 1e-9) }))
    .sort((a, b) => b.r - a.r || a.i - b.i)) {
    if (rest <= 0) break;
    counts[i] = (counts[i] ?? 0) + 1;
    rest -= 1;
  }
  return counts;
}

/**
 * The pieces of a lot, by base and by the recipe's parts: those that go the same way. Parts that get no piece are
 * left out.
 */
export function groupPieces({ bases, recipe }: PlanInput): PlannedGroup[] {
  return bases.flatMap((base) => {
    const parts = recipe.parts.length === 0 ? [{ key: '', name: '', sharePercent: 100 }] : recipe.parts;
    const counts = sharePieces(base.pieces, parts);
    return parts.flatMap((part, i) => {
      const pieces = counts[i] ?? 0;
      const group: PlannedGroup = {
        key: `${base.id}${part.key === '' ? '' : `/${part.key}`}`,
        baseId: base.id,
        baseName: base.name,
        fibre: base.fibre,
        blend: base.blend ?? [],
        pieceWord: base.pieceWord,
        part: part.key,
        partName: part.name,
        pieces,
        pieceWeightG: base.pieceWeightG,
      };
      return pieces === 0 ? [] : [group];
    });
  });
}

/** Whether the pieces of a group go through a step. */
export const goesThrough = (step: RecipeStep, group: PlannedGroup): boolean =>
  (step.fibres.length === 0 || fibresIn(group).some((f) => step.fibres.includes(f))) &&
  (step.parts.length === 0 || step.parts.includes(group.part));

/** Which of the pieces a step is for, in words; empty when it is all of them. */
export function forWhom(
  step: RecipeStep,
  groups: readonly PlannedGroup[],
  { parts }: Pick<RecipeVersion, 'parts'>,
): string {
  const through = groups.filter((g) => goesThrough(step, g));
  if (through.length === groups.length || through.length === 0) return '';
  const named = step.parts.map((key) => parts.find((p) => p.key === key)?.name ?? key);
  const fibres = step.fibres.length === 0 ? [] : [...new Set(through.flatMap(fibresIn))];
  const pieces = through.reduce((sum, g) => sum + g.pieces, 0);
  return $localize`only the ${[joinList(named), joinList(fibres)].filter((w) => w !== '').join(', ')} (${pieces} of ${groups.reduce((sum, g) => sum + g.pieces, 0)} pieces)`;
}

/** Of the cell walls of plant matter, about 1.5 g/ml whatever the plant (Kellogg & Wangaard, Wood Fiber 1, 1969). */
const PLANT_G_PER_ML = 1.5;

/** What dyestuff that stays in the pot pushes aside, ml per g of fibre. */
export function matterMlPerG(steps: readonly RecipeStep[]): number {
  const percent = steps.flatMap((s) => s.doses).reduce((sum, d) => sum + (d.by === 'percentOwf' ? d.percentOwf : 0), 0);
  return percent / 100 / PLANT_G_PER_ML;
}

/** Liquor that dyestuff keeps when it is strained and pressed by hand, ml to the gram dried. General practice. */
const SOAKED_ML_PER_G = 2.5;

/** Liquor that the dyestuff of extractions keeps when it is lifted out, ml per g of fibre. Fresh plants bring theirs. */
export function soakedMlPerG(extractions: readonly RecipeStep[]): number {
  const percent = extractions
    .flatMap((s) => s.doses)
    .reduce(
      (sum, d) => sum + (d.by === 'percentOwf' && d.form !== 'fresh' && d.form !== 'frozen' ? d.percentOwf : 0),
      0,
    );
  return (percent / 100) * SOAKED_ML_PER_G;
}

/** A planned group as the splitting sees it: its pieces in the bath, and what else is there. */
export const asPieces = (group: PlannedGroup, matter: number): PieceGroup => ({
  pieces: group.pieces,
  pieceWeightG: group.pieceWeightG,
  displacedMlPerG: baseDisplacementMl(group, 1) + matter,
});
