import { worded } from '../words/worded';
import type { Lab } from '../colour/lab';
import type { Spectrum } from '../colour/spectrum';
import type { Evenness } from '../photo/evenness';
import { decimals } from '../quantity/shown-in';

/** How a colour was read. */
export const READING_WAYS = ['typed', 'reader', 'spectrum', 'photo', 'ladder'] as const;
/** One of `READING_WAYS`. */
export type ReadingWay = (typeof READING_WAYS)[number];
/** How each is said on screen. */
export const READING_WAY_LABELS: Readonly<Record<ReadingWay, string>> = worded(() => ({
  typed: $localize`typed`,
  reader: $localize`by the colour reader`,
  spectrum: $localize`from a spectrum`,
  photo: $localize`from a photograph`,
  ladder: $localize`by eye on a ladder`,
}));

/** How a reading was taken, and so how sure it is. */
export interface Taken {
  readonly way: ReadingWay;
  /** The truth lies no further than this four times in five, ΔE00; `null` where nobody knows. */
  readonly within80: number | null;
  /** How even it is over the spots or the area that was read. */
  readonly evenness: Evenness | null;
  /** Every spot, where several were read; the reading is their mean. */
  readonly spots: readonly Lab[];
  /** Which reader it was, as the studio calls it; empty where nobody said. */
  readonly reader: string;
  /** What was taken off, since this reader reads beside the first; `null`: nothing. */
  readonly offset: Lab | null;
  /** Reflectance by band, where the reader gave it. */
  readonly spectrum: Spectrum | null;
}

/** Spots further than this from their mean show to an eye, ΔE00. */
const SHOWS_DELTA_E00 = 1.5;
/** Patches that nobody overlooks. */
const PATCHY_DELTA_E00 = 3;

/** How even a piece is, in words: even, with a fold mark or a patch, or patchy. */
export const sayEvenness = ({ meanDeltaE00, maxDeltaE00 }: Evenness): string =>
  maxDeltaE00 < SHOWS_DELTA_E00
    ? $localize`even`
    : meanDeltaE00 > SHOWS_DELTA_E00 || maxDeltaE00 > PATCHY_DELTA_E00
      ? $localize`patchy`
      : $localize`a fold mark or a patch shows`;

/** What is said of how sure a reading is: “from a photograph, within ΔE00 2.1 four times in five, even”. */
export function sayTaken({ way, within80, evenness, spots, reader, offset }: Taken): string {
  return [
    READING_WAY_LABELS[way] + (reader === '' ? '' : ` ${reader}`),
    spots.length > 1 ? $localize`${spots.length} spots` : '',
    offset === null ? '' : $localize`put right for how it reads beside the first`,
    within80 === null ? '' : $localize`within ΔE00 ${decimals(within80, 1)} four times in five`,
    evenness === null ? '' : sayEvenness(evenness),
  ]
    .filter((w) => w !== '')
    .join(', ');
}

/** A reading of which no more is known than the way it was taken, and what is said beside. */
export const takenBy = (way: ReadingWay, rest: Partial<Taken> = {}): Taken => ({
  way,
  within80: null,
  evenness: null,
  spots: [],
  reader: '',
  offset: null,
  spectrum: null,
  ...rest,
});
