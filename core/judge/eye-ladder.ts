import type { Lab } from '../colour/lab';
import { chroma, hueDegrees } from '../colour/lab';

/** What a ladder goes up and down in. */
export type LadderAxis = 'lightness' | 'chroma' | 'hue';

/** Where an eye has got to: between which rungs the piece lies. */
export interface LadderPlace {
  readonly middle: Lab;
  /** Which question comes next, counted from 0; the ladder is done at `LADDER_QUESTIONS`. */
  readonly question: number;
}

/** Each question: in what, and how far apart its rungs are (L*, C*; degrees of hue). */
const QUESTIONS: readonly (readonly [LadderAxis, number])[] = [
  ['lightness', 9],
  ['hue', 22],
  ['chroma', 12],
  ['lightness', 4],
  ['hue', 9],
  ['chroma', 5],
  ['lightness', 2],
];
/** So many presses, and it is bracketed. */
export const LADDER_QUESTIONS = QUESTIONS.length;
/** Rungs on either side of the middle. */
const RUNGS = 2;
/**
 * How sure an eye at an unmeasured screen is: the truth lies within this four times in five, ΔE00. Large, and said so:
 * screens differ by this much between them before an eye has looked.
 */
export const LADDER_WITHIN80 = 6;

/** What the next question asks; `undefined` once the ladder is done. */
export const ladderAxis = ({ question }: LadderPlace): LadderAxis | undefined => QUESTIONS[question]?.[0];

/** A colour moved along one axis, by L*, degrees of hue or C*; it stays a colour. */
export function movedOnLadder(lab: Lab, axis: LadderAxis, by: number): Lab {
  const [C, h] = [chroma(lab), (hueDegrees(lab) * Math.PI) / 180];
  const at = (L: number, c: number, hue: number): Lab => ({
    L: Math.min(98, Math.max(4, L)),
    a: Math.max(0, c) * Math.cos(hue),
    b: Math.max(0, c) * Math.sin(hue),
  });
  switch (axis) {
    case 'lightness':
      return at(lab.L + by, C, h);
    case 'chroma':
      return at(lab.L, C + by, h);
    case 'hue':
      return at(lab.L, C, h + (by * Math.PI) / 180);
  }
}

/** The rungs to hold a piece against, one after the other; none once the ladder is done. */
export function ladderRungs(place: LadderPlace): Lab[] {
  const asked = QUESTIONS[place.question];
  if (!asked) return [];
  const [axis, apart] = asked;
  return Array.from({ length: 2 * RUNGS + 1 }, (_, i) => movedOnLadder(place.middle, axis, (i - RUNGS) * apart));
}

/**
 * Where the eye has got to once a rung was pressed. At either end of the ladder the same question comes again further
 * along, so that a piece beyond it is found too.
 * @param rung which of `ladderRungs`, from 0
 */
export function pressRung(place: LadderPlace, rung: number): LadderPlace {
  const rungs = ladderRungs(place);
  const middle = rungs[rung];
  if (!middle) return place;
  const isEnd = rung === 0 || rung === rungs.length - 1;
  const isFurther =
    isEnd && Math.hypot(middle.L - place.middle.L, middle.a - place.middle.a, middle.b - place.middle.b) > 1;
  return { middle, question: isFurther ? place.question : place.question + 1 };
}
