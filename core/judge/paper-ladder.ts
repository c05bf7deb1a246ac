import type { Lab } from '../colour/lab';
import type { LadderAxis } from './eye-ladder';
import { movedOnLadder } from './eye-ladder';

/** The strips of a printed ladder, one above the other. */
export const PAPER_STRIPS = ['lightness', 'hue', 'chroma'] as const satisfies readonly LadderAxis[];
/** Rungs of a strip; the middle one is the colour it was printed about. */
export const PAPER_RUNGS = 9;
/** The rung that is the colour itself, counted from 1. */
export const PAPER_MIDDLE = 5;
/** From one rung to the next: L*, degrees of hue, C*. */
const APART: Readonly<Record<LadderAxis, number>> = { lightness: 4, hue: 9, chroma: 5 };
/**
 * How sure an eye on a printed ladder is: the truth lies within this four times in five, ΔE00. Wider than at a screen:
 * printers differ more, and each strip leaves the other two as they were.
 */
export const PAPER_WITHIN80 = 8;

/** What was pressed of each strip, counted from 1. */
export type PaperRungs = Readonly<Record<(typeof PAPER_STRIPS)[number], number>>;

/** The rungs of a strip about a colour, in order. */
export const paperStrip = (about: Lab, axis: LadderAxis): Lab[] =>
  Array.from({ length: PAPER_RUNGS }, (_, i) => movedOnLadder(about, axis, (i + 1 - PAPER_MIDDLE) * APART[axis]));

/**
 * The colour of a piece that lay nearest to these rungs. Throws RangeError on a rung that isn't there.
 * @param about the colour that the sheet was printed about
 */
export function readPaperLadder(about: Lab, rungs: PaperRungs): Lab {
  return PAPER_STRIPS.reduce((lab, axis) => {
    const rung = rungs[axis];
    if (!Number.isInteger(rung) || rung < 1 || rung > PAPER_RUNGS) throw new RangeError('no such rung');
    return movedOnLadder(lab, axis, (rung - PAPER_MIDDLE) * APART[axis]);
  }, about);
}

/** A rung at either end: the piece may lie beyond, and wants a sheet printed about what was found. */
export const isPaperEnd = (rungs: PaperRungs): boolean =>
  PAPER_STRIPS.some((axis) => rungs[axis] === 1 || rungs[axis] === PAPER_RUNGS);
