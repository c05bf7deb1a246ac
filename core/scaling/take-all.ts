import { weighingToleranceG } from '../quantity/balance';
import { figure } from '../quantity/figure';
import type { PlannedBatch, PlannedGroup, PlannedMaterial, PlannedWeighing } from './lot-plan';
import type { PlanInput } from './plan-input';
import { materialById } from './plan-input';
import type { Wanted } from './plan-weighings';
import { takeFromStock, takeOwnGoods } from './plan-weighings';

/** Takes everything a lot needs from stock: the bases first, then each material in the order it is used. */
export function takeAll(
  groups: readonly PlannedGroup[],
  batches: readonly PlannedBatch[],
  wanted: readonly (readonly Wanted[])[],
  input: PlanInput,
) {
  const materials: PlannedMaterial[] = [];
  const baseWeighings: PlannedWeighing[] = [];
  for (const base of input.bases) {
    const baseWanted = batches.flatMap((batch): Wanted[] => {
      const parts = batch.groups.flatMap(({ key, pieces }) =>
        groups.filter((g) => g.key === key && g.baseId === base.id).map((g) => ({ g, pieces })),
      );
      const wofG = parts.reduce((sum, { g, pieces }) => sum + pieces * g.pieceWeightG, 0);
      if (wofG === 0) return [];
      const target = figure(wofG, 'g', $localize`pieces in this vessel × dry weight of one`, [
        {
          name: `${base.pieceWord}s`,
          value: parts.reduce((sum, p) => sum + p.pieces, 0),
          unit: '',
          source: $localize`split over the vessels`,
        },
        { name: $localize`dry weight of one`, value: base.pieceWeightG, unit: 'g', source: $localize`as written` },
      ]);
      return [
        {
          batch: batch.number,
          forBatches: [batch.number],
          materialId: base.id,
          materialName: base.name,
          measure: 'weight',
          target,
          tolerance: weighingToleranceG(wofG, 1),
          advice: [],
          dose: null,
        },
      ];
    });
    const taken = base.ownGoods
      ? takeOwnGoods(base, baseWanted)
      : takeFromStock(base, baseWanted, input, { isBase: true });
    materials.push(taken.planned);
    baseWeighings.push(...taken.weighings);
  }
  const weighings: PlannedWeighing[][] = wanted.map(() => []);
  const flat = wanted.flatMap((stepWanted, stepIndex) =>
    stepWanted.filter((w) => w.target.value > 0).map((w) => ({ w, stepIndex })),
  );
  for (const id of new Set(flat.map(({ w }) => w.materialId))) {
    const ofMaterial = flat.filter(({ w }) => w.materialId === id);
    const taken = takeFromStock(
      materialById(input, id),
      ofMaterial.map(({ w }) => w),
      input,
      { isBase: false },
    );
    materials.push(taken.planned);
    taken.weighings.forEach((w, i) => weighings[ofMaterial[i]?.stepIndex ?? 0]?.push(w));
  }
  baseWeighings.sort((a, b) => a.batch - b.batch);
  return { materials, baseWeighings, weighings };
}
