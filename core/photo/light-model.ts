import type { Lab } from '../colour/lab';
import type { Triple } from '../colour/xyz';
import { SCREEN, convertLinearSrgbToXyz, convertXyzToLab, convertXyzToLinearSrgb } from '../colour/xyz';

/** Where something lies in a picture, −1 to 1 along the longer side, 0 in the middle. */
export interface Place {
  readonly u: number;
  readonly v: number;
}

/**
 * What stands between a piece and its picture, as numbers that are all 0 where nothing does: exposure and cast (the
 * logarithm of a gain for each channel), crosstalk of the channels (six shares), light that falls off along the picture
 * and towards its rim, a tone curve that is steeper than sRGB's, and how the cast acts on colours: on the channels of
 * the screen, on X, Y and Z, or between (0: half-way). All of these leave a neutral as it is; they part in the dyes.
 */
export const GAINS = [0, 1, 2] as const;
const CROSSTALK_FROM = 3;
const FALLOFF_U = 9;
const FALLOFF_V = 10;
const VIGNETTE = 11;
const TONE = 12;
const BLEND = 13;
/** How many numbers the model has. */
export const LIGHT_PARAMETERS = 14;

/**
 * How far each number is likely to lie from 0 before the known patches are looked at, one standard deviation. Exposure
 * and cast are as good as unknown; the rest is small, and stays so where patches say nothing of it.
 */
export const PRIOR_DEVIATION: readonly number[] = Array.from({ length: LIGHT_PARAMETERS }, (_, i) => {
  if (i < CROSSTALK_FROM) return 2;
  if (i < FALLOFF_U) return 0.008;
  if (i < TONE) return 0.028;
  return i === TONE ? 0.005 : 0.4;
});

/** Which channel takes a share of which other. */
const CROSSTALK: readonly (readonly [to: 0 | 1 | 2, from: 0 | 1 | 2])[] = [
  [0, 1],
  [0, 2],
  [1, 0],
  [1, 2],
  [2, 0],
  [2, 1],
];
const MIDDLE_GREY = 0.18;

/** A cast taken out by scaling X, Y and Z, so that a neutral comes out as by scaling the channels. */
function scaleXyz(linear: Triple, gains: Triple): Triple {
  const [xyz, from, to] = [
    convertLinearSrgbToXyz(linear),
    convertLinearSrgbToXyz([1, 1, 1]),
    convertLinearSrgbToXyz(gains),
  ];
  return convertXyzToLinearSrgb([(xyz[0] * to[0]) / from[0], (xyz[1] * to[1]) / from[1], (xyz[2] * to[2]) / from[2]]);
}

/** Linear channels as they would be in even daylight, from those in the picture. */
export function undoLight(parameters: readonly number[], linear: Triple, { u, v }: Place): Triple {
  const p = (i: number): number => parameters[i] ?? 0;
  const light = Math.exp(p(FALLOFF_U) * u + p(FALLOFF_V) * v + p(VIGNETTE) * (u * u + v * v));
  const flat: Triple = [linear[0] / light, linear[1] / light, linear[2] / light];
  const gains: Triple = [Math.exp(p(0)), Math.exp(p(1)), Math.exp(p(2))];
  const share = 0.5 + p(BLEND);
  const byXyz = scaleXyz(flat, gains);
  const even = (i: 0 | 1 | 2): number => {
    const c = Math.max(1e-6, (1 - share) * gains[i] * flat[i] + share * byXyz[i]);
    return c * (c / MIDDLE_GREY) ** p(TONE);
  };
  const one: Triple = [even(0), even(1), even(2)];
  const mixed: [number, number, number] = [one[0], one[1], one[2]];
  for (const [i, [to, from]] of CROSSTALK.entries()) mixed[to] += p(CROSSTALK_FROM + i) * (one[from] - one[to]);
  return mixed;
}

/** The colour of a piece, L*a*b* under D65 and 2°, from its channels in the picture. */
export const labThroughLight = (parameters: readonly number[], linear: Triple, place: Place): Lab =>
  convertXyzToLab(convertLinearSrgbToXyz(undoLight(parameters, linear, place)), SCREEN);
