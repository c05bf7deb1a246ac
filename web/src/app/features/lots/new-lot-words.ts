/** What the page of a new lot says by what holds. */
export const NEW_LOT_WORDS = {
  dyeAgain: $localize`Dye again`,
  aNewLot: $localize`A new lot`,
  ph: (ph: unknown): string => $localize`, pH ${ph}`,
  plannedAt: (liquorRatio: unknown): string => $localize`Planned at 1:${liquorRatio}`,
  plannedInTwoRuns: $localize`Planned in two runs`,
  forNextTime: $localize`for next time`,
  whenItWasJudged: $localize`when it was judged`,
  expectedOn: (base: unknown): string => $localize`expected on ${base}`,
  secondRun: $localize`, second run`,
  planTheLotThen: $localize`Plan the lot, then write down how it went`,
  planTheLotAnd: $localize`Plan the lot and promise its stock`,
};
