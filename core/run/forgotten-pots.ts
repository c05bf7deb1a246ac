/** A pot whose time was up so many minutes ago, and the sentence that calls for somebody. */
export interface ForgottenPot {
  readonly lotId: string;
  readonly title: string;
  readonly overMin: number;
  readonly message: string;
}

/** Unattended heat that is over by this many minutes has been forgotten; a soak or a cure may stand a while. */
export const FORGOTTEN_HOT_MIN = 5;

/** A cold soak may run over by this share of its time before anybody is called. */
export const FORGOTTEN_COLD_SHARE = 0.5;

/** Pots nobody came back to: over their time, running, and hot, or long past a soak's end. */
export function forgottenPots(
  running: readonly {
    readonly lotId: string;
    readonly title: string;
    readonly lotTag: string;
    readonly startedAt: string;
    readonly durationMin: number;
    readonly attended: boolean;
    readonly hot: boolean;
  }[],
  nowMs: number,
): ForgottenPot[] {
  return running.flatMap((r) => {
    const overMin = (nowMs - Date.parse(r.startedAt)) / 60_000 - r.durationMin;
    const patience = r.hot ? FORGOTTEN_HOT_MIN : Math.max(60, r.durationMin * FORGOTTEN_COLD_SHARE);
    if (r.attended || !r.hot || overMin < patience) return [];
    return [
      {
        lotId: r.lotId,
        title: r.title,
        overMin: Math.floor(overMin),
        message: $localize`${r.title}, ${r.lotTag}:lotTag:: its time was up ${Math.floor(overMin)} min ago and nobody has written that it is off the heat. Go and look.`,
      },
    ];
  });
}
