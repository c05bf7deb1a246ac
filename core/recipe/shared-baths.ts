/** Steps that share one liquor, as a bracket beside the lines of the chain. Places counted from 0. */
export interface SharedBath {
  readonly name: string;
  /** Which steps are done in it, in their order. */
  readonly steps: readonly number[];
  readonly from: number;
  readonly to: number;
  /** Which of the brackets that stand beside each other it is, from the lines outwards. */
  readonly lane: number;
}

/** What one line has of a bracket: an end of it, a step in it, or the bracket going by. */
export interface BathMark {
  readonly bath: SharedBath;
  readonly part: 'first' | 'in' | 'past' | 'last';
}

/** Finds the liquors that several steps of a chain name, in the order in which they begin. */
export function sharedBaths(steps: readonly { readonly bath: string; readonly usesBath: boolean }[]): SharedBath[] {
  const byName = new Map<string, number[]>();
  steps.forEach(({ bath, usesBath }, i) => {
    const name = bath.trim();
    if (usesBath && name !== '') byName.set(name, [...(byName.get(name) ?? []), i]);
  });
  const baths: SharedBath[] = [];
  for (const [name, places] of byName) {
    const [from, to] = [places[0], places.at(-1)];
    if (from === undefined || to === undefined || from === to) continue;
    const taken = new Set(baths.filter((b) => b.from <= to && from <= b.to).map((b) => b.lane));
    let lane = 0;
    while (taken.has(lane)) lane += 1;
    baths.push({ name, steps: places, from, to, lane });
  }
  return baths;
}

/** What the line of a step has of each bracket, from the inmost outwards. */
export const bathMarks = (baths: readonly SharedBath[], step: number): BathMark[] =>
  baths
    .filter((b) => b.from <= step && step <= b.to)
    .sort((a, b) => a.lane - b.lane)
    .map((bath) => ({
      bath,
      part: step === bath.from ? 'first' : step === bath.to ? 'last' : bath.steps.includes(step) ? 'in' : 'past',
    }));
