import { baseDisplacementMl } from '../bath/fibre';
import type { Vessel } from '../bath/vessel';
import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';
import type { PlannedBatch, PlannedGroup } from './lot-plan';
import { goesThrough } from './plan-groups';
import type { BatchShare } from './fill-vessels';
import type { BathOfSteps } from './collect-baths';

/** What of a batch goes into a bath: pieces, dry weight in g, room taken in ml. */
export function shareOf(batch: PlannedBatch, bath: BathOfSteps, groups: readonly PlannedGroup[]): BatchShare {
  const parts = batch.groups.flatMap(({ key, pieces }) => {
    const group = groups.find((g) => g.key === key);
    return group && bath.steps.some((s) => goesThrough(s, group))
      ? [{ group, pieces, wofG: pieces * group.pieceWeightG }]
      : [];
  });
  const wofG = parts.reduce((sum, i) => sum + i.wofG, 0);
  const fibreMl = bath.withPieces ? parts.reduce((sum, i) => sum + baseDisplacementMl(i.group, i.wofG), 0) : 0;
  return {
    batch: batch.number,
    pieces: parts.reduce((sum, i) => sum + i.pieces, 0),
    wofG,
    displacedMl: fibreMl + wofG * bath.matterMlPerG,
  };
}

/** How full a vessel is, per cent of its working volume. */
export function fillLevelFigure(
  liquorMl: number,
  displacedMl: number,
  vessel: Pick<Vessel, 'name' | 'workingMl'>,
): Figure {
  return figure(
    Math.round(((liquorMl + displacedMl) / vessel.workingMl) * 100),
    '%',
    $localize`(liquor + room that fibre and dyestuff take) ÷ working volume`,
    [
      { name: $localize`liquor`, value: liquorMl, unit: 'ml', source: $localize`this bath` },
      {
        name: $localize`room the fibre and dyestuff take`,
        value: Math.round(displacedMl),
        unit: 'ml',
        source: $localize`by their density`,
      },
      { name: $localize`working volume`, value: vessel.workingMl, unit: 'ml', source: vessel.name },
    ],
  );
}
