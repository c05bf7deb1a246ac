import type { Lab } from '../colour/lab';

/** One patch of the card: where it lies, in the card's own measure, and what it is meant to be. */
export interface CardPatch {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  /** As it is drawn; as it is really printed, a reader says. L*a*b* under D65 and 2°. */
  readonly lab: Lab;
}

/** The card is this long and this high, in its own measure (millimetres as it is printed). */
export const CARD = { width: 100, height: 70 } as const;
/** Marks in its four corners: squares in squares, by which it is found. Their size, and how far in their middles lie. */
export const FINDER = { size: 14, inset: 9 } as const;

const ROW: readonly (readonly Lab[])[] = [
  [92, 78, 64, 50, 36, 22].map((L) => ({ L, a: 0, b: 0 })),
  [
    { L: 80, a: 2, b: 58 },
    { L: 60, a: 24, b: 44 },
    { L: 45, a: 44, b: 20 },
    { L: 40, a: 18, b: -24 },
    { L: 45, a: -6, b: -28 },
    { L: 52, a: -22, b: 26 },
  ],
];
const PATCH = { width: 13, height: 13, fromX: 5, acrossX: 15.4, fromY: 20, downY: 17 } as const;

/** Six greys from pale to deep, and under them six colours among those that are dyed. */
export const CARD_PATCHES: readonly CardPatch[] = ROW.flatMap((labs, row) =>
  labs.map((lab, i) => ({
    x: PATCH.fromX + i * PATCH.acrossX,
    y: PATCH.fromY + row * PATCH.downY,
    width: PATCH.width,
    height: PATCH.height,
    lab,
  })),
);
/** How many of them are grey: the first. */
export const CARD_GREYS = ROW[0]?.length ?? 0;

/**
 * How far an unmeasured card may lie from what it is meant to be, ΔE00: printers miss by about so much, and differ from
 * day to day. It goes into every error that is said.
 */
export const UNMEASURED_CARD_DELTA_E00 = 5;
/** The same of a card that was measured: what a reader leaves, and a season in a drawer. */
export const MEASURED_CARD_DELTA_E00 = 0.6;
