import { fibreFamily } from '../bath/fibre';
import type { VatFinding } from '../bath/vat';
import { judgeVat, sayVat } from '../bath/vat';
import { takesPieces } from '../recipe/step-kind';
import { liquorSteps } from '../scaling/liquor-steps';
import type { PlannedStep } from '../scaling/lot-plan';
import type { CheckInput, CheckedStockLot } from './check-input';
import type { CheckText } from './finding';
import { caution, checkFamily, fibresOf, line, stop } from './finding';

type VatCheck =
  | { readonly code: 'vat'; readonly tag: string; readonly finding: VatFinding; readonly cites: string }
  | { readonly code: 'withoutVat'; readonly materialName: string; readonly title: string; readonly cites: string };

function findVat(input: CheckInput): VatCheck[] {
  const protein = fibresOf(input.plan).some((f) => fibreFamily(f) === 'protein');
  return input.plan.steps.flatMap((step): VatCheck[] => {
    const cites = line(input.recipe, step);
    const vats = vatsAt(input, step);
    return [
      ...vats.flatMap(({ tag, vat }) =>
        judgeVat(vat?.reading ?? null, { hoursAgo: vat?.hoursAgo ?? null, protein }).map((finding) => ({
          code: 'vat' as const,
          tag,
          finding,
          cites,
        })),
      ),
      ...dosedDry(input, step).map((materialName) => ({
        code: 'withoutVat' as const,
        materialName,
        title: step.title,
        cites,
      })),
    ];
  });
}

const vatsAt = ({ stockLots }: CheckInput, step: PlannedStep): CheckedStockLot[] => {
  const ids = new Set(step.weighings.flatMap((w) => w.picks.map((p) => p.stockLotId)));
  return stockLots.filter((s) => s.vat && ids.has(s.id));
};

/** Vat dyestuffs weighed into a bath with pieces that nothing reduces. A recipe that sets its own vat says which kind. */
function dosedDry({ plan, recipe, materials }: CheckInput, step: PlannedStep): string[] {
  if (!takesPieces(step) || !step.usesBath || recipe.practice.vatKind !== undefined) return [];
  const of = (s: PlannedStep) => s.weighings.flatMap((w) => materials.find((m) => m.id === w.materialId) ?? []);
  const inLiquor = liquorSteps(plan, step).flatMap(of);
  if (inLiquor.some((m) => m.hazards.includes('reducer'))) return [];
  return step.weighings.flatMap((w) => {
    const material = materials.find((m) => m.id === w.materialId);
    return material?.needs === 'vat' && w.measure === 'weight' ? [material.name] : [];
  });
}

function sayVatCheck(found: VatCheck): CheckText {
  if (found.code === 'withoutVat')
    return caution(
      $localize`“${found.title}” puts ${found.materialName} into the bath itself.`,
      $localize`It dissolves only in a vat: keep one in Stores, feed it, and dye in that. Fresh leaves on silk are another thing.`,
      found.cites,
    );
  const say = found.finding.gravity === 'stop' ? stop : caution;
  return say(
    `${found.tag}: ${sayVat(found.finding)}`,
    $localize`A vat is alive: what it was yesterday it is not today.`,
    found.cites,
  );
}

/** Whether a vat that pieces go into is ready, and whether what wants a vat has one. */
export const vatChecks = checkFamily(findVat, sayVatCheck);
