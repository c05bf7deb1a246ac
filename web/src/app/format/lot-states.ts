import type { LotState } from '@vestigia/contract';

export const LOT_STATE_LABELS: Readonly<Record<LotState, string>> = {
  planned: $localize`planned`,
  inWork: $localize`in work`,
  toJudge: $localize`to judge`,
  held: $localize`held`,
  released: $localize`released`,
  refused: $localize`refused`,
  cancelled: $localize`cancelled`,
};

/** Nothing more goes into a lot. */
export const isLotOver = (state: LotState): boolean => state !== 'planned' && state !== 'inWork';

/** Told by shape, not by hue: filled when it is settled well, dashed while it is open. */
export function lotStateClass(state: LotState): string {
  if (state === 'released') return 'state strong';
  return state === 'planned' || state === 'inWork' || state === 'toJudge' ? 'state open' : 'state';
}
