import { cie76 } from './differences';
import type { Lab } from './lab';
import { chroma, hueDegrees } from './lab';

/** Grades of a grey scale, 1 the worst, in halves. */
export const GREY_GRADES = [1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5] as const;
/** One of `GREY_GRADES`. */
export type GreyGrade = (typeof GREY_GRADES)[number];

/** ΔE_F below which a grade is reached, best first: ISO 105-A05:1996, table 1. */
const CHANGE_LIMITS: readonly (readonly [below: number, grade: GreyGrade])[] = [
  [0.4, 5],
  [1.25, 4.5],
  [2.1, 4],
  [2.95, 3.5],
  [4.1, 3],
  [5.8, 2.5],
  [8.2, 2],
  [11.6, 1.5],
];

/** How far a colour changed, weighted as an eye weighs it on the grey scale, and the grade. */
export interface GreyChange {
  readonly deltaEF: number;
  readonly grade: GreyGrade;
}

/**
 * The grey-scale grade for change in colour, from before to after a test: ISO 105-A05:1996, ΔE_F of CIELAB under
 * D65 and 10°.
 */
export function gradeOfChange(before: Lab, after: Lab): GreyChange {
  const { deltaL, deltaC, deltaH } = cie76(before, after);
  const meanC = (chroma(before) + chroma(after)) / 2;
  const meanH = meanHue(before, after);
  const from280 = Math.abs(meanH - 280);
  const x = ((from280 <= 180 ? from280 : 360 - from280) / 30) ** 2;
  const d = (deltaC * meanC * Math.exp(-x)) / 100;
  const deltaHF = (deltaH - d) / (1 + ((10 * meanC) / 1000) ** 2);
  const deltaCF = (deltaC - d) / (1 + ((20 * meanC) / 1000) ** 2);
  const deltaEF = Math.hypot(deltaL, deltaCF, deltaHF);
  return { deltaEF, grade: CHANGE_LIMITS.find(([below]) => deltaEF < below)?.[1] ?? 1 };
}

/** Middle of two hue angles, the shorter way round; grey has none of its own. */
function meanHue(before: Lab, after: Lab): number {
  const [h1, h2] = [hueDegrees(before), hueDegrees(after)];
  if (chroma(before) === 0 || chroma(after) === 0) return h1 + h2;
  const mean = (h1 + h2) / 2;
  if (Math.abs(h1 - h2) <= 180) return mean;
  return mean < 180 ? mean + 180 : mean - 180;
}

/** How far a white cloth was stained, and the grade. */
export interface GreyStaining {
  readonly deltaEGS: number;
  /** As the formula gives it, before it is rounded to halves. */
  readonly rating: number;
  readonly grade: GreyGrade;
}

/**
 * The grey-scale grade for staining of an adjacent cloth, from before to after a test: ISO 105-A04:1989, CIELAB under
 * D65 and 10°.
 */
export function gradeOfStaining(before: Lab, after: Lab): GreyStaining {
  const { deltaE, deltaL } = cie76(before, after);
  const deltaEGS = deltaE - 0.4 * Math.sqrt(Math.max(0, deltaE ** 2 - deltaL ** 2));
  const steep = deltaEGS > 0 ? 6.1 - 1.45 * Math.log(deltaEGS) : Infinity;
  const rating = steep > 4 ? 5 - 0.23 * deltaEGS : steep;
  const half = Math.round(Math.min(5, Math.max(1, rating)) * 2) / 2;
  return { deltaEGS, rating, grade: GREY_GRADES.find((g) => g === half) ?? 1 };
}

/** “4–5”: as a grade is written. */
export const sayGreyGrade = (grade: GreyGrade): string =>
  Number.isInteger(grade) ? String(grade) : `${Math.floor(grade)}–${Math.ceil(grade)}`;
