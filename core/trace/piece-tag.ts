import { WHOLE, dipsOf, sayShade } from '../scaling/shade-of';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { countLabel } from '../quantity/word-list';

/** Where a piece is in its lot: the batch it is in, and which group it belongs to. */
export interface PlacedPiece {
  readonly batch: number;
  readonly group: string | null;
}

/**
 * Where the piece of a number is: pieces are counted through the batches in their order, and in each through its groups.
 * @param number 1 for the first; `undefined` where the lot has no such piece
 */
export function placeOfPiece({ batches }: Pick<LotPlan, 'batches'>, number: number): PlacedPiece | undefined {
  let before = 0;
  for (const batch of batches) {
    if (number > before + batch.pieces) {
      before += batch.pieces;
      continue;
    }
    if (number <= before) return undefined;
    let inBatch = number - before;
    const group = batch.groups.find((g) => {
      const isHere = inBatch <= g.pieces;
      inBatch -= g.pieces;
      return isHere;
    });
    return { batch: batch.number, group: group?.key ?? null };
  }
  return undefined;
}

/** Whether a step is done to the pieces of a group. */
const isFor = ({ groups }: PlannedStep, group: string | null): boolean =>
  groups === undefined || group === null || groups.includes(group);

/** What a piece's tag says beside its mark: base and part, batch, how often it is dipped, what shifts its shade. */
export function sayPieceTag(plan: LotPlan, number: number): string {
  const place = placeOfPiece(plan, number);
  if (!place) return '';
  const own = plan.steps.filter((s) => isFor(s, place.group));
  const dips = dipsOf(plan, place.group);
  return [
    plan.groups.length > 1 ? sayShade(plan, { ...WHOLE, group: place.group }) : '',
    plan.batches.length > 1 ? $localize`batch ${place.batch}` : '',
    dips > 1 ? countLabel(dips, 'dip') : '',
    ...own.filter((s) => s.kind === 'modify').map((s) => s.title),
  ]
    .filter((part) => part !== '')
    .join(', ');
}
