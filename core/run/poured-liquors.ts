import type { LotPlan } from '../scaling/lot-plan';
import { potLiquor } from './pot-liquor';
import type { RunEntry } from './run-entry';
import { currentEntries, entriesOfKind } from './run-entry';
import { foldRun, isOver } from './run-record';

/** A kept liquor that was poured into a pot of a lot. */
export interface PouredLiquor {
  readonly stockLotId: string;
  /** µl that left its jar. */
  readonly poured: number;
  /** The last step of that pot, and a batch that was in it. */
  readonly stepIndex: number;
  readonly batch: number;
  /** What is likely left in the pot, ml. */
  readonly leftMl: number;
}

/** Kept liquors poured into a lot whose pots are done with: what could go back into their jars. */
export function pouredLiquors(plan: LotPlan, entries: readonly RunEntry[]): PouredLiquor[] {
  const records = foldRun(entries, plan.steps.length);
  return entriesOfKind(currentEntries(entries), 'weigh').flatMap(({ stepIndex, weighing, detail }) => {
    const at = plan.steps[stepIndex];
    const { stockLotId, amount, batch } = weighing;
    if (!detail?.contents || !at?.usesBath || stockLotId === null) return [];
    const sharing = plan.steps.filter((s) => s === at || (at.liquor !== '' && s.liquor === at.liquor));
    const last = sharing.at(-1);
    if (!last || !sharing.every((s) => isOver(records[s.index]))) return [];
    const { left } = potLiquor(plan, records, last, batch);
    return [{ stockLotId, poured: amount, stepIndex: last.index, batch, leftMl: left.volumeMl }];
  });
}
