import type { CorrectedDose } from '../recipe/corrected-doses';
import type { Dyeing } from './dyeing';

/** What a plan was corrected by, beside its recipe. */
export interface CorrectedBy {
  readonly corrected: readonly CorrectedDose[];
  readonly added: readonly { readonly materialId: string }[];
  readonly dyeTimeShare: number;
}

/**
 * A corrected plan as the recipe itself says: what it means at the reference’s strength, of which a plan weighs more out of
 * a weaker jar.
 * @param dosedAs how strong the plan takes each jar, 1 as the reference
 */
export function uncorrected(
  plan: Dyeing,
  { corrected, added, dyeTimeShare }: CorrectedBy,
  dosedAs: ReadonlyMap<string, number>,
): Dyeing {
  const doses = plan.doses
    .filter((d) => added.every((a) => a.materialId !== d.materialId))
    .map((d) => ({
      ...d,
      percentOwf:
        (d.percentOwf * (dosedAs.get(d.stockLotId) ?? 1)) /
        (corrected.find((c) => c.materialId === d.materialId)?.share ?? 1),
    }));
  return {
    ...plan,
    doses,
    courses: plan.courses
      // A bath that is there for what was added is not the recipe’s.
      .filter((c) => c.stage !== 'modifier' || doses.some((d) => d.stage === 'modifier'))
      .map((c) =>
        c.stage === 'dye' ? { ...c, points: c.points.map((p) => ({ ...p, minute: p.minute / dyeTimeShare })) } : c,
      ),
  };
}
