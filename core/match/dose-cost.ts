import type { MatchDose } from './dyeing';

/** What doses cost. */
export interface DoseCost {
  readonly minor: number;
  /** Jars of which nobody wrote down what they cost: they are not in it. */
  readonly unknown: readonly string[];
}

/**
 * What a dyeing’s doses cost for so much fibre, by what each jar cost when it came.
 * @param weightG of dry fibre @param costMinorPerG minor units of money a gram, by jar
 */
export function costOfDoses(
  doses: readonly Pick<MatchDose, 'stockLotId' | 'percentOwf'>[],
  weightG: number,
  costMinorPerG: ReadonlyMap<string, number | null>,
): DoseCost {
  const unknown = new Set<string>();
  let minor = 0;
  for (const { stockLotId, percentOwf } of doses) {
    const perG = costMinorPerG.get(stockLotId);
    if (perG === undefined || perG === null) unknown.add(stockLotId);
    else minor += (percentOwf / 100) * weightG * perG;
  }
  return { minor, unknown: [...unknown] };
}
