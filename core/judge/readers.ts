import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { meanLab } from '../colour/lab';

/** A reading as it tells of the reader it was taken with. */
export interface ReaderReading {
  readonly reader: string;
  /** Names what was read: the same piece in the same state under the same light. */
  readonly swatch: string;
  /** As the reader gave it, before any offset. */
  readonly lab: Lab;
}

/** What a studio knows of one of its readers. */
export interface Reader {
  readonly name: string;
  readonly readings: number;
  /** Root mean square ΔE00 of readings of one swatch from their mean; `null` while no swatch was read twice. */
  readonly repeatabilityDeltaE00: number | null;
  /** What it reads beside the first reader, on swatches both have read; `null` for the first, and below the least. */
  readonly offset: ReaderOffset | null;
  /** On how many swatches both have read. */
  readonly sharedSwatches: number;
}

/** How a reader differs from the one the studio goes by. */
export interface ReaderOffset {
  /** Its reading less that of the first. */
  readonly lab: Lab;
  /** What is left between the two once it is taken off: mean ΔE00. */
  readonly leftDeltaE00: number;
}

/** Below this many swatches that two readers have both read, nothing is said of how they differ. */
export const LEAST_SHARED = 3;
const EVEN = { kL: 1, kC: 1, kH: 1 };

const bySwatch = (readings: readonly ReaderReading[]): Map<string, Lab[]> => {
  const swatches = new Map<string, Lab[]>();
  for (const { swatch, lab } of readings) swatches.set(swatch, [...(swatches.get(swatch) ?? []), lab]);
  return swatches;
};

function repeatability(swatches: ReadonlyMap<string, readonly Lab[]>): number | null {
  let [squares, free] = [0, 0];
  for (const labs of swatches.values()) {
    if (labs.length < 2) continue;
    const mean = meanLab(labs);
    for (const lab of labs) squares += ciede2000(mean, lab, EVEN).deltaE ** 2;
    free += labs.length - 1;
  }
  return free === 0 ? null : Math.sqrt(squares / free);
}

/** Takes off what a reader reads beside the first. */
export const withoutOffset = (lab: Lab, { lab: by }: ReaderOffset): Lab => ({
  L: lab.L - by.L,
  a: lab.a - by.a,
  b: lab.b - by.b,
});

/**
 * The readers of a studio: how well each repeats itself, and how it differs from the first, which is the one with most
 * readings. An offset is the mean difference over the swatches both have read, at least `LEAST_SHARED` of them.
 */
export function compareReaders(readings: readonly ReaderReading[]): Reader[] {
  const names = [...new Set(readings.map((r) => r.reader))];
  const each = names
    .map((name) => ({ name, own: readings.filter((r) => r.reader === name) }))
    .sort((x, y) => y.own.length - x.own.length || (x.name < y.name ? -1 : 1))
    .map(({ name, own }) => ({ name, readings: own.length, swatches: bySwatch(own) }));
  const [first] = each;
  return each.map((reader): Reader => {
    const shared =
      reader === first
        ? []
        : [...reader.swatches].flatMap(([swatch, labs]) => {
            const beside = first?.swatches.get(swatch);
            return beside ? [{ own: meanLab(labs), first: meanLab(beside) }] : [];
          });
    const { name, readings: count, swatches } = reader;
    return {
      name,
      readings: count,
      repeatabilityDeltaE00: repeatability(swatches),
      offset: shared.length < LEAST_SHARED ? null : offsetOf(shared),
      sharedSwatches: shared.length,
    };
  });
}

function offsetOf(shared: readonly { readonly own: Lab; readonly first: Lab }[]): ReaderOffset {
  const lab = meanLab(shared.map(({ own, first }) => ({ L: own.L - first.L, a: own.a - first.a, b: own.b - first.b })));
  const left = shared.map(
    ({ own, first }) => ciede2000(first, withoutOffset(own, { lab, leftDeltaE00: 0 }), EVEN).deltaE,
  );
  return { lab, leftDeltaE00: left.reduce((sum, d) => sum + d, 0) / left.length };
}
