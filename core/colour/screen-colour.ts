import type { ColourConditions, Lab } from './lab';

/** What a screen can show of a colour: CSS, and whether it lies outside what sRGB holds. */
export interface ScreenColour {
  /** For a style: `rgb(r g b)` with whole 0-255 parts. */
  readonly css: string;
  /** The screen can't show this colour; what is shown is the same hue and lightness with less chroma. */
  readonly outOfGamut: boolean;
}

type Triple = readonly [number, number, number];
type Matrix = readonly [Triple, Triple, Triple];

/**
 * White points, Y = 1. 2°: ASTM E308-18 table 5; 10°: the same table for the CIE 1964 observer.
 */
const WHITES: Readonly<Record<string, Triple>> = {
  'D65/2': [0.95047, 1, 1.08883],
  'D65/10': [0.94811, 1, 1.07304],
  'D50/2': [0.96422, 1, 0.82521],
  'D50/10': [0.9672, 1, 0.81427],
  'A/2': [1.0985, 1, 0.35585],
  'A/10': [1.11144, 1, 0.352],
};

const EPSILON = 216 / 24389;
const KAPPA = 24389 / 27;

/** Bradford cone responses (Lam 1985, as given in ICC.1:2022 annex E). */
const BRADFORD: Matrix = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
];
const BRADFORD_INVERSE: Matrix = [
  [0.9869929, -0.1470543, 0.1599627],
  [0.4323053, 0.5183603, 0.0492912],
  [-0.0085287, 0.0400428, 0.9684867],
];
/** XYZ (D65) to linear sRGB, IEC 61966-2-1:1999 primaries. */
const XYZ_TO_SRGB: Matrix = [
  [3.2404542, -1.5371385, -0.4985314],
  [-0.969266, 1.8760108, 0.041556],
  [0.0556434, -0.2040259, 1.0572252],
];

const times = (m: Matrix, [x, y, z]: Triple): Triple => [
  m[0][0] * x + m[0][1] * y + m[0][2] * z,
  m[1][0] * x + m[1][1] * y + m[1][2] * z,
  m[2][0] * x + m[2][1] * y + m[2][2] * z,
];

/** L*a*b* to XYZ relative to a white (Y = 1). CIE 15:2018, section 8.2.1.1, reversed. */
function convertLabToXyz({ L, a, b }: Lab, [xn, yn, zn]: Triple): Triple {
  const fy = (L + 16) / 116;
  const cube = (f: number): number => (f ** 3 > EPSILON ? f ** 3 : (116 * f - 16) / KAPPA);
  const y = L > KAPPA * EPSILON ? fy ** 3 : L / KAPPA;
  return [xn * cube(fy + a / 500), yn * y, zn * cube(fy - b / 200)];
}

function adaptToD65([x, y, z]: Triple, white: Triple): Triple {
  const from = times(BRADFORD, white);
  const to = times(BRADFORD, WHITES['D65/2'] as Triple);
  const cone = times(BRADFORD, [x, y, z]);
  return times(BRADFORD_INVERSE, [
    (cone[0] * to[0]) / from[0],
    (cone[1] * to[1]) / from[1],
    (cone[2] * to[2]) / from[2],
  ]);
}

/** Transfer function of IEC 61966-2-1:1999, section 5.2. */
const encode = (linear: number): number => (linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055);

function linearSrgb(lab: Lab, { illuminant, observer }: ColourConditions): Triple {
  const white = WHITES[`${illuminant}/${observer}`] as Triple;
  return times(XYZ_TO_SRGB, adaptToD65(convertLabToXyz(lab, white), white));
}

const fits = (rgb: Triple): boolean => rgb.every((c) => c >= -0.0005 && c <= 1.0005);

/**
 * What a screen shows for a reading: adapted to the screen's D65 white (Bradford), in sRGB.
 * Where the screen can't show it, chroma is lowered at the same hue and lightness until it can, and it is said.
 */
export function screenColour(lab: Lab, conditions: ColourConditions): ScreenColour {
  let rgb = linearSrgb(lab, conditions);
  const outOfGamut = !fits(rgb);
  if (outOfGamut) {
    let low = 0;
    let high = 1;
    for (let i = 0; i < 16; i += 1) {
      const share = (low + high) / 2;
      rgb = linearSrgb({ L: lab.L, a: lab.a * share, b: lab.b * share }, conditions);
      if (fits(rgb)) low = share;
      else high = share;
    }
    rgb = linearSrgb({ L: lab.L, a: lab.a * low, b: lab.b * low }, conditions);
  }
  const bytes = rgb.map((c) => Math.round(255 * Math.min(1, Math.max(0, encode(Math.min(1, Math.max(0, c)))))));
  return { css: `rgb(${bytes.join(' ')})`, outOfGamut };
}
