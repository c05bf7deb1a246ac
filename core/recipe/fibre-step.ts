import type { PlannedStep, PlannedWeighing } from './lot-plan';

/** The first station of every lot: the dry weight of fibre drives every other figure, so it is weighed, never assumed. */
export function fibreStep(pieces: number, pieceWord: string, weighings: readonly PlannedWeighing[]): PlannedStep {
  return {
    index: 0,
    kind: 'fibre',
    title: 'Weigh the fibre dry',
    instruction: `Weigh all ${pieces} ${pieceWord}${pieces === 1 ? '' : 's'} dry, batch by batch, and tie a mark that survives the pot to each.`,
    durationMin: 15,
    attended: true,
    lookFor: 'Stains, spots, finish, anything already dyed or mordanted',
    usesBath: false,
    weighings,
    cautions: [],
  };
}
