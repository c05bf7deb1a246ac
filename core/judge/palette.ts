import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import { chroma, hueDegrees } from '../colour/lab';

/** A colour in a palette. */
export interface PaletteColour {
  readonly id: string;
  readonly lab: Lab;
}

/** How a palette is laid: as the hand laid it, from pale to deep, or round the hues. */
export const PALETTE_ORDERS = ['hand', 'lightness', 'hue'] as const;
/** One of `PALETTE_ORDERS`. */
export type PaletteOrder = (typeof PALETTE_ORDERS)[number];

/** Below this chroma a colour is grey, and has no hue to be laid by. */
const GREY_BELOW = 6;

/** A palette in an order. By hue the greys come last, from pale to deep. */
export function layPalette<C extends PaletteColour>(colours: readonly C[], order: PaletteOrder): C[] {
  if (order === 'hand') return [...colours];
  if (order === 'lightness') return [...colours].sort((x, y) => y.lab.L - x.lab.L);
  const isGrey = ({ lab }: C): boolean => chroma(lab) < GREY_BELOW;
  return [
    ...colours.filter((c) => !isGrey(c)).sort((x, y) => hueDegrees(x.lab) - hueDegrees(y.lab) || y.lab.L - x.lab.L),
    ...colours.filter(isGrey).sort((x, y) => y.lab.L - x.lab.L),
  ];
}

/** Two colours of a palette that an eye would take for one. */
export interface NearPair {
  readonly first: string;
  readonly second: string;
  readonly deltaE: number;
}

/** Closer than this two colours side by side read as one, ΔE00. */
export const TOO_NEAR_DELTA_E00 = 5;

/** Pairs of a palette that sit too near each other, nearest first. */
export function nearPairs(colours: readonly PaletteColour[], limit = TOO_NEAR_DELTA_E00): NearPair[] {
  return colours
    .flatMap((x, i) =>
      colours.slice(i + 1).map((y) => ({
        first: x.id,
        second: y.id,
        deltaE: ciede2000(x.lab, y.lab, { kL: 1, kC: 1, kH: 1 }).deltaE,
      })),
    )
    .filter((p) => p.deltaE < limit)
    .sort((x, y) => x.deltaE - y.deltaE);
}
