import type { Figure } from '../quantity/figure';
import { figure } from '../quantity/figure';

/** One picking as it went into a jar: net grams, and how long each of so many hands took, minutes, where told. */
export interface Picking {
  readonly weightG: number;
  readonly hands: number;
  readonly minutesEach: number | null;
}

/** Hands that nobody named are one pair. */
const MIN_HANDS = 1;

/**
 * Grams picked in an hour by one pair of hands, over the pickings whose time was told.
 * @returns `null` where no picking tells its time
 */
export function gramsPerHour(pickings: readonly Picking[]): Figure | null {
  let [grams, minutes] = [0, 0];
  for (const { weightG, hands, minutesEach } of pickings) {
    if (minutesEach === null || minutesEach <= 0) continue;
    grams += weightG;
    minutes += minutesEach * Math.max(MIN_HANDS, hands);
  }
  if (minutes === 0) return null;
  const untimed = pickings.filter((p) => p.minutesEach === null || p.minutesEach <= 0).length;
  return figure(
    Math.round((grams / minutes) * 60),
    'g',
    $localize`grams picked ÷ minutes of all hands × 60`,
    [
      { name: $localize`grams picked`, value: Math.round(grams), unit: 'g' },
      { name: $localize`minutes of all hands`, value: Math.round(minutes), unit: 'min' },
    ],
    untimed === 0 ? [] : [$localize`${untimed} without a time left out`],
  );
}

/** Stock that changed its form: grams of each jar that went in, and grams of each that came out. */
export interface FormChange {
  readonly inputs: readonly { readonly stockLotId: string; readonly weightG: number }[];
  readonly outputs: readonly { readonly stockLotId: string; readonly weightG: number }[];
}

/** What a lot took of a jar, g, and how much fibre the lot dyed, g dry. */
export interface JarUse {
  readonly lotId: string;
  readonly stockLotId: string;
  readonly weightG: number;
  readonly fibreG: number;
}

/** A lot that a jar's pickings went into: grams as picked, however it was dried or ground since. */
export interface PickedUse {
  readonly lotId: string;
  readonly pickedG: number;
  readonly fibreG: number;
}

/**
 * Which lots a jar's pickings went into, followed through every change of form: each gram of what came out stands for
 * its share of what went in.
 */
export function followPicked(stockLotId: string, changes: readonly FormChange[], uses: readonly JarUse[]): PickedUse[] {
  const madeBy = new Map<string, FormChange>();
  for (const change of changes) for (const out of change.outputs) madeBy.set(out.stockLotId, change);
  const shares = new Map<string, number>();
  const pickedPerG = (jar: string): number => {
    if (jar === stockLotId) return 1;
    const known = shares.get(jar);
    if (known !== undefined) return known;
    shares.set(jar, 0);
    const change = madeBy.get(jar);
    const outG = change?.outputs.reduce((sum, o) => sum + o.weightG, 0) ?? 0;
    const share =
      change === undefined || outG <= 0
        ? 0
        : change.inputs.reduce((sum, i) => sum + i.weightG * pickedPerG(i.stockLotId), 0) / outG;
    shares.set(jar, share);
    return share;
  };
  const lots = new Map<string, PickedUse>();
  for (const { lotId, stockLotId: jar, weightG, fibreG } of uses) {
    const pickedG = weightG * pickedPerG(jar);
    if (pickedG <= 0) continue;
    lots.set(lotId, { lotId, fibreG, pickedG: pickedG + (lots.get(lotId)?.pickedG ?? 0) });
  }
  return [...lots.values()];
}

/**
 * Grams of dry fibre that an hour's picking dyes, at the doses its lots were really dyed with.
 * @returns `null` while no lot was dyed with it, or no picking tells its time
 */
export function fibrePerHour(perHour: Figure | null, uses: readonly PickedUse[]): Figure | null {
  const pickedG = uses.reduce((sum, u) => sum + u.pickedG, 0);
  const fibreG = uses.reduce((sum, u) => sum + u.fibreG, 0);
  if (perHour === null || pickedG <= 0 || fibreG <= 0) return null;
  return figure(
    Math.round((perHour.value * fibreG) / pickedG),
    'g',
    $localize`grams an hour × fibre dyed ÷ grams picked for it`,
    [
      { name: $localize`grams an hour`, value: perHour.value, unit: 'g' },
      { name: $localize`fibre dyed`, value: Math.round(fibreG), unit: 'g' },
      { name: $localize`grams picked for it`, value: Math.round(pickedG), unit: 'g' },
    ],
    [$localize`at the doses of its lots; another dyestuff in the same pot did its part as well`],
  );
}
