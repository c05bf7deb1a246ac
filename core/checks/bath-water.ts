import type { WaterRemark } from '../bath/water-answer';
import { answerWater, sayWaterRemark } from '../bath/water-answer';
import type { PlannedStep } from '../scaling/lot-plan';
import type { CheckInput } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, named } from './finding';

type BathFinding =
  | { readonly code: 'water'; readonly remark: WaterRemark; readonly cites: string }
  | { readonly code: 'shortBath'; readonly ratio: number; readonly provenRatio: number; readonly cites: string };

/** Steps whose water meets the dyestuff. */
const COLOURING: readonly PlannedStep['kind'][] = ['extract', 'makeUp', 'dye', 'exhaust'];

function findBath({ plan, recipe, materials, water, otherWaters }: CheckInput): BathFinding[] {
  const cites = named(recipe);
  // What is asked for is the water that draws and carries the dye, not that of a scour or a rinse.
  const colouring = plan.steps.filter((step) => COLOURING.includes(step.kind));
  const litres = [...new Set(colouring.flatMap((s) => s.baths))].reduce(
    (sum, b) => sum + (b.liquor.value * b.turns) / 1000,
    0,
  );
  const chalkIds = materials.filter((m) => m.catalogueKey === 'chalk').map((m) => m.id);
  const chalkG = colouring
    .flatMap((step) => step.weighings)
    .filter((w) => chalkIds.includes(w.materialId) && w.measure === 'weight')
    .reduce((sum, w) => sum + w.target.value, 0);
  const remarks = answerWater(recipe.water, water, litres, otherWaters, chalkG);
  return [
    ...remarks.map((remark) => ({ code: 'water' as const, remark, cites })),
    ...(plan.liquorRatio < recipe.liquorRatio
      ? [{ code: 'shortBath' as const, ratio: plan.liquorRatio, provenRatio: recipe.liquorRatio, cites }]
      : []),
  ];
}

function sayBath(finding: BathFinding): CheckText {
  switch (finding.code) {
    case 'water':
      return caution(
        sayWaterRemark(finding.remark),
        $localize`Hardness and iron in the water shift the shade of the very same recipe.`,
        finding.cites,
      );
    case 'shortBath':
      return caution(
        $localize`The bath is 1:${finding.ratio}, shorter than the 1:${finding.provenRatio} it was proven with.`,
        $localize`A shorter bath gives deeper colour and less room to turn.`,
        finding.cites,
      );
  }
}

/** Whether the water is what the recipe asks, and the bath as long as it was proven with. */
export const bathChecks = checkFamily(findBath, sayBath);
