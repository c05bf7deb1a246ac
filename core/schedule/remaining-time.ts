/** Time still asked for: by hands, and by waiting. Minutes. */
export interface RemainingTime {
  /** Minutes that need hands. */
  readonly handsMin: number;
  /** Minutes of waiting: soaking, holding, cooling, curing. */
  readonly waitingMin: number;
}

/** Adds up the time that steps still ask for, hands apart from waiting. */
export function remainingTime(
  steps: readonly { readonly durationMin: number; readonly attended: boolean }[],
): RemainingTime {
  const sum = (attended: boolean): number =>
    steps.filter((s) => s.attended === attended).reduce((total, s) => total + s.durationMin, 0);
  return { handsMin: sum(true), waitingMin: sum(false) };
}
