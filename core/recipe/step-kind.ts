import { worded } from '../words/worded';

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
export const STEP_KIND_LABELS: Readonly<Record<StepKind, string>> = worded(() => ({
  intake: $localize`intake`,
  scour: $localize`scour`,
  tannin: $localize`tannin`,
  mordant: $localize`mordant`,
  wetOut: $localize`wet out`,
  extract: $localize`extract`,
  strain: $localize`strain`,
  makeUp: $localize`make up the bath`,
  adjustPh: $localize`adjust pH`,
  dye: $localize`dye`,
  pull: $localize`pull`,
  exhaust: $localize`exhaust dip`,
  modify: $localize`modify`,
  rinse: $localize`rinse`,
  dry: $localize`dry`,
  cure: $localize`cure`,
  wash: $localize`final wash`,
  judge: $localize`judge`,
}));

/** What each kind of step is for. */
export const STEP_PURPOSES: Readonly<Record<StepKind, string>> = worded(() => ({
  intake: $localize`to know the fibre, its weight and what was done to it`,
  scour: $localize`to take out oil, size and finish, so that dye goes in evenly`,
  tannin: $localize`to give cellulose something to hold the mordant`,
  mordant: $localize`to bind the dye to the fibre`,
  wetOut: $localize`to let dye in everywhere at once`,
  extract: $localize`to draw the dye out of the plant`,
  strain: $localize`to keep bits from spotting the cloth`,
  makeUp: $localize`to give the pieces room to move`,
  adjustPh: $localize`to bring the bath to where fibre and colour are safe`,
  dye: $localize`to bring the dye onto the fibre`,
  pull: $localize`to take some out sooner, for a lighter shade`,
  exhaust: $localize`to use what the bath still holds, for lighter relatives`,
  modify: $localize`to shift the shade`,
  rinse: $localize`to take loose dye away`,
  dry: $localize`to dry without bleaching`,
  cure: $localize`to let the colour settle before the wash`,
  wash: $localize`to take off what would come off later`,
  judge: $localize`to say whether it is the colour`,
}));

/** Steps at which the fibre is not in the pot: the dyestuff is alone. */
export const WITHOUT_PIECES: readonly StepKind[] = ['extract', 'strain', 'makeUp', 'adjustPh'];

/** Whether the pieces are in the pot at this kind of step. */
export const takesPieces = ({ kind }: { readonly kind: StepKind | 'fibre' }): boolean =>
  kind === 'fibre' || !WITHOUT_PIECES.includes(kind);
