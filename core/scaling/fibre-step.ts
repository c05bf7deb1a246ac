import type { PlannedStep, PlannedWeighing } from './lot-plan';
import { countLabel, joinList } from '../quantity/word-list';

/**
 * The first station of every lot: the dry weight of fibre drives every other figure, so it is weighed, never assumed.
 */
export function fibreStep(
  counts: readonly { readonly pieces: number; readonly pieceWord: string }[],
  weighings: readonly PlannedWeighing[],
): PlannedStep {
  return {
    index: 0,
    key: '',
    kind: 'fibre',
    title: $localize`Weigh the fibre dry`,
    instruction: $localize`Weigh all ${joinList(counts.map((c) => countLabel(c.pieces, c.pieceWord)))} dry, batch by batch, and tie a mark that survives the pot to each.`,
    durationMin: 15,
    attended: true,
    lookFor: $localize`Stains, spots, finish, anything already dyed or mordanted`,
    usesBath: false,
    liquor: '',
    weighings,
    cautions: [],
    after: [],
    finishedBy: 'clock',
    wait: null,
    course: [],
    repeats: 1,
    strain: null,
    targetPh: null,
    forWhom: '',
    baths: [],
  };
}
