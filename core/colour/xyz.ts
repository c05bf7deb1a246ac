import type { ColourConditions, Lab } from './lab';
import type { WeightTable } from './tristimulus-weights';
import { WEIGHTS_10NM } from './tristimulus-weights';

/** Three numbers: X, Y, Z with a perfect white at Y = 1, or the three channels of a screen. */
export type Triple = readonly [number, number, number];
type Matrix = readonly [Triple, Triple, Triple];

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

/** Bradford cone responses (Lam 1985, as given in ICC.1:2022 annex E). */
const BRADFORD: Matrix = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
];
const BRADFORD_INVERSE = inverse(BRADFORD);
/** Linear sRGB to XYZ (D65): the primaries and the white of IEC 61966-2-1:1999. */
const SRGB_TO_XYZ: Matrix = [
  [0.4124564, 0.3575761, 0.1804375],
  [0.2126729, 0.7151522, 0.072175],
  [0.0193339, 0.119192, 0.9503041],
];
const XYZ_TO_SRGB = inverse(SRGB_TO_XYZ);

const times = (m: Matrix, [x, y, z]: Triple): Triple => [
  m[0][0] * x + m[0][1] * y + m[0][2] * z,
  m[1][0] * x + m[1][1] * y + m[1][2] * z,
  m[2][0] * x + m[2][1] * y + m[2][2] * z,
];

function inverse([[a, b, c], [d, e, f], [g, h, i]]: Matrix): Matrix {
  const det = a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g);
  return [
    [(e * i - f * h) / det, (c * h - b * i) / det, (b * f - c * e) / det],
    [(f * g - d * i) / det, (a * i - c * g) / det, (c * d - a * f) / det],
    [(d * h - e * g) / det, (b * g - a * h) / det, (a * e - b * d) / det],
  ];
}

const keyOf = ({ illuminant, observer }: ColourConditions): string => `${illuminant}/${observer}`;

/** The weights for a light and observer. */
export function weightsFor(conditions: ColourConditions): WeightTable {
  const table = WEIGHTS_10NM[keyOf(conditions)];
  if (!table) throw new RangeError(`there are no weights for ${keyOf(conditions)}`);
  return table;
}

const whites = new Map<string, Triple>();

/** The white of a light and observer, Y = 1: what a perfect diffuser gives. */
export function whitePoint(conditions: ColourConditions): Triple {
  const known = whites.get(keyOf(conditions));
  if (known) return known;
  const sum = weightsFor(conditions).reduce<Triple>(([x, y, z], w) => [x + w[0], y + w[1], z + w[2]], [0, 0, 0]);
  const white: Triple = [sum[0] / sum[1], 1, sum[2] / sum[1]];
  whites.set(keyOf(conditions), white);
  return white;
}

/** L*a*b* to XYZ (white at Y = 1). CIE 15:2018, section 8.2.1.1, reversed. */
export function convertLabToXyz({ L, a, b }: Lab, conditions: ColourConditions): Triple {
  const [xn, yn, zn] = whitePoint(conditions);
  const fy = (L + 16) / 116;
  const cube = (f: number): number => (f ** 3 > EPSILON ? f ** 3 : (116 * f - 16) / KAPPA);
  const y = L > KAPPA * EPSILON ? fy ** 3 : L / KAPPA;
  return [xn * cube(fy + a / 500), yn * y, zn * cube(fy - b / 200)];
}

/** XYZ (white at Y = 1) to L*a*b*. CIE 15:2018, section 8.2.1.1. */
export function convertXyzToLab([x, y, z]: Triple, conditions: ColourConditions): Lab {
  const [xn, yn, zn] = whitePoint(conditions);
  const root = (t: number): number => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116);
  const [fx, fy, fz] = [root(x / xn), root(y / yn), root(z / zn)];
  return { L: 116 * fy - 16, a: 500 * (fx - fy), b: 200 * (fy - fz) };
}

/**
 * What a colour seen under one light corresponds to under another, for an eye that is used to it: Bradford, linear
 * (ICC.1:2022 annex E). It is no measurement: the piece itself may change otherwise (metamerism).
 */
export function adaptXyz(xyz: Triple, from: ColourConditions, to: ColourConditions): Triple {
  if (keyOf(from) === keyOf(to)) return xyz;
  const [source, target] = [times(BRADFORD, whitePoint(from)), times(BRADFORD, whitePoint(to))];
  const cone = times(BRADFORD, xyz);
  return times(BRADFORD_INVERSE, [
    (cone[0] * target[0]) / source[0],
    (cone[1] * target[1]) / source[1],
    (cone[2] * target[2]) / source[2],
  ]);
}

/** The light and observer that sRGB is made for. */
export const SCREEN: ColourConditions = { illuminant: 'D65', observer: '2' };

/** Transfer function of IEC 61966-2-1:1999, section 5.2: linear 0-1 to the screen's 0-1. */
export const encodeSrgb = (linear: number): number =>
  linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;

/** The same, reversed. */
export const decodeSrgb = (encoded: number): number =>
  encoded <= 0.04045 ? encoded / 12.92 : ((encoded + 0.055) / 1.055) ** 2.4;

/** XYZ under D65 and 2° to linear sRGB; outside 0-1 where a screen can't show it. */
export const convertXyzToLinearSrgb = (xyz: Triple): Triple => times(XYZ_TO_SRGB, xyz);
/** Linear sRGB to XYZ under D65 and 2°. */
export const convertLinearSrgbToXyz = (rgb: Triple): Triple => times(SRGB_TO_XYZ, rgb);

/** L*a*b* under a light to linear sRGB, adapted to the screen's white. */
export const convertLabToLinearSrgb = (lab: Lab, conditions: ColourConditions): Triple =>
  convertXyzToLinearSrgb(adaptXyz(convertLabToXyz(lab, conditions), conditions, SCREEN));

/** Three encoded channels of a screen, 0-1, to L*a*b* under a light. */
export const convertSrgbToLab = (encoded: Triple, conditions: ColourConditions): Lab =>
  convertXyzToLab(
    adaptXyz(
      convertLinearSrgbToXyz([decodeSrgb(encoded[0]), decodeSrgb(encoded[1]), decodeSrgb(encoded[2])]),
      SCREEN,
      conditions,
    ),
    conditions,
  );
