import type { Lab } from '../colour/lab';
import { chroma, hueDegrees } from '../colour/lab';

/** So much darker does a thin piece read on a black table, L*. */
const DARKER_L = 4;
/** Below this chroma a hue means little. */
const HUE_COUNTS_FROM = 5;
const SAME_HUE_DEGREES = 15;

/**
 * Whether a reading looks as though something dark showed through the piece: the same shade, read before, was clearly
 * paler, in the same hue and no duller. Dye on a settled piece fades; it doesn’t deepen by itself.
 * @returns how much darker, L*; `undefined` where it doesn’t look so
 */
export function looksBackedDark(before: Lab, now: Lab): number | undefined {
  const darker = before.L - now.L;
  if (darker < DARKER_L) return undefined;
  const [cBefore, cNow] = [chroma(before), chroma(now)];
  // More dye gives a stronger colour as well; black behind it only takes light away.
  if (cNow > cBefore + 1) return undefined;
  if (Math.min(cBefore, cNow) < HUE_COUNTS_FROM) return darker;
  const turn = Math.abs(hueDegrees(before) - hueDegrees(now));
  return Math.min(turn, 360 - turn) <= SAME_HUE_DEGREES ? darker : undefined;
}
