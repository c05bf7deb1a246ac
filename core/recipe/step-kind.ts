/** The stations of a lot, in the order dyers work. */
export const STEP_KINDS = [
  'intake',
  'scour',
  'tannin',
  'mordant',
  'wetOut',
  'extract',
  'strain',
  'makeUp',
  'adjustPh',
  'dye',
  'pull',
  'exhaust',
  'modify',
  'rinse',
  'dry',
  'cure',
  'wash',
  'judge',
] as const;

/** One of `STEP_KINDS`. */
export type StepKind = (typeof STEP_KINDS)[number];

/** How each kind of step is said on screen. */
export const STEP_KIND_LABELS: Readonly<Record<StepKind, string>> = {
  intake: 'intake',
  scour: 'scour',
  tannin: 'tannin',
  mordant: 'mordant',
  wetOut: 'wet out',
  extract: 'extract',
  strain: 'strain',
  makeUp: 'make up the bath',
  adjustPh: 'adjust pH',
  dye: 'dye',
  pull: 'pull',
  exhaust: 'exhaust dip',
  modify: 'modify',
  rinse: 'rinse',
  dry: 'dry',
  cure: 'cure',
  wash: 'final wash',
  judge: 'judge',
};

/** What each kind of step is for. */
export const STEP_PURPOSES: Readonly<Record<StepKind, string>> = {
  intake: 'to know the fibre, its weight and what was done to it',
  scour: 'to take out oil, size and finish, so that dye goes in evenly',
  tannin: 'to give cellulose something to hold the mordant',
  mordant: 'to bind the dye to the fibre',
  wetOut: 'to let dye in everywhere at once',
  extract: 'to draw the dye out of the plant',
  strain: 'to keep bits from spotting the cloth',
  makeUp: 'to give the pieces room to move',
  adjustPh: 'to bring the bath to where fibre and colour are safe',
  dye: 'to bring the dye onto the fibre',
  pull: 'to take some out sooner, for a lighter shade',
  exhaust: 'to use what the bath still holds, for lighter relatives',
  modify: 'to shift the shade',
  rinse: 'to take loose dye away',
  dry: 'to dry without bleaching',
  cure: 'to let the colour settle before the wash',
  wash: 'to take off what would come off later',
  judge: 'to say whether it is the colour',
};

/** Steps at which the fibre is not in the pot: the dyestuff is alone. */
export const WITHOUT_PIECES: readonly StepKind[] = ['extract', 'strain', 'makeUp', 'adjustPh'];

/** Whether the pieces are in the pot at this kind of step. */
export const takesPieces = ({ kind }: { readonly kind: StepKind | 'fibre' }): boolean =>
  kind === 'fibre' || !WITHOUT_PIECES.includes(kind);
