import type { ColourConditions, Lab } from './lab';
import { convertLabToXyz, whitePoint } from './xyz';

/** How white a base is, and whether its white leans to green (above zero) or red. */
export interface Whiteness {
  readonly whiteness: number;
  readonly tint: number;
  /** The formulas were made for whites; outside their range the figures only rank. */
  readonly isInRange: boolean;
}

/**
 * CIE whiteness and tint of a base under D65: CIE 15:2018, section 9.1. A perfect white is 100; natural wool lies far
 * below, often below zero.
 */
export function cieWhiteness(lab: Lab, observer: ColourConditions['observer']): Whiteness {
  const conditions: ColourConditions = { illuminant: 'D65', observer };
  const [x, y, z] = convertLabToXyz(lab, conditions);
  const sum = x + y + z;
  const [xn, yn, zn] = whitePoint(conditions);
  const white = xn + yn + zn;
  const [dx, dy] = [xn / white - x / sum, yn / white - y / sum];
  const whiteness = 100 * y + 800 * dx + 1700 * dy;
  const tint = (observer === '10' ? 900 : 1000) * dx - 650 * dy;
  return { whiteness, tint, isInRange: whiteness > 40 && whiteness < 500 * y - 280 && tint > -4 && tint < 2 };
}
