/** CIE 1976 L*a*b* as a colour reader gives it. L 0-100; a and b roughly -128 to 128. */
export interface Lab {
  readonly L: number;
  readonly a: number;
  readonly b: number;
}

/** The light a reading is worked out for: daylight, the same as prints have it, a lamp, a shop’s tri-band lamp. */
export const ILLUMINANTS = ['D65', 'D50', 'A', 'F10'] as const;
/** One of `ILLUMINANTS`. */
export type Illuminant = (typeof ILLUMINANTS)[number];
/** CIE standard observers, degrees. */
export const OBSERVERS = ['2', '10'] as const;
/** One of `OBSERVERS`. */
export type Observer = (typeof OBSERVERS)[number];

/** A reading without its light and observer means nothing, so they travel together. */
export interface ColourConditions {
  readonly illuminant: Illuminant;
  readonly observer: Observer;
}

/** Whether two readings may be compared: same illuminant, same observer. */
export function sameConditions(x: ColourConditions, y: ColourConditions): boolean {
  return x.illuminant === y.illuminant && x.observer === y.observer;
}

/** Chroma C*ab: distance from grey. CIE 15:2018, section 8.2.1. */
export function chroma({ a, b }: Lab): number {
  return Math.hypot(a, b);
}

/** Hue angle h_ab in degrees, 0-360. CIE 15:2018, section 8.2.1. Grey has hue 0. */
export function hueDegrees({ a, b }: Lab): number {
  const degrees = (Math.atan2(b, a) * 180) / Math.PI;
  return degrees < 0 ? degrees + 360 : degrees;
}

/** The middle of several readings, coordinate by coordinate. Throws RangeError on none. */
export function meanLab(readings: readonly Lab[]): Lab {
  if (readings.length === 0) throw new RangeError('a mean needs at least one reading');
  const mean = (of: (lab: Lab) => number): number => readings.reduce((sum, lab) => sum + of(lab), 0) / readings.length;
  return { L: mean((r) => r.L), a: mean((r) => r.a), b: mean((r) => r.b) };
}
