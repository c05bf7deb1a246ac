import type { Lab } from './lab';

/** CIEDE2000 with its parts: each signed as sample minus standard and weighted as in the total. */
export interface Ciede2000 {
  readonly deltaE: number;
  /** ΔL'/(kL SL): above zero, the sample is lighter. */
  readonly lightness: number;
  /** ΔC'/(kC SC): above zero, the sample is brighter (more chroma). */
  readonly chroma: number;
  /** ΔH'/(kH SH): above zero, the sample's hue lies counter-clockwise of the standard's. */
  readonly hue: number;
  /** Hue angle of the standard in the formula's adjusted space, degrees. */
  readonly standardHueDegrees: number;
  /** That of the sample. */
  readonly sampleHueDegrees: number;
}

const RADIANS = Math.PI / 180;
const TWENTY_FIVE_TO_SEVENTH = 25 ** 7;

/**
 * CIEDE2000 colour difference between a standard and a sample under the same light and observer.
 * Source: ISO/CIE 11664-6:2014; steps and edge cases as in Sharma, Wu & Dalal,
 * "The CIEDE2000 Color-Difference Formula", Color Research and Application 30(1), 2005.
 * Parametric factors kL, kC, kH are required: 1:1:1 is the reference condition.
 */
export function ciede2000(
  standard: Lab,
  sample: Lab,
  { kL, kC, kH }: { kL: number; kC: number; kH: number },
): Ciede2000 {
  // Step 1: C' and h'.
  const C1 = Math.hypot(standard.a, standard.b);
  const C2 = Math.hypot(sample.a, sample.b);
  const meanC7 = ((C1 + C2) / 2) ** 7;
  const G = 0.5 * (1 - Math.sqrt(meanC7 / (meanC7 + TWENTY_FIVE_TO_SEVENTH)));
  const a1 = (1 + G) * standard.a;
  const a2 = (1 + G) * sample.a;
  const Cp1 = Math.hypot(a1, standard.b);
  const Cp2 = Math.hypot(a2, sample.b);
  const h1 = angleDegrees(standard.b, a1);
  const h2 = angleDegrees(sample.b, a2);

  // Step 2: differences.
  const dL = sample.L - standard.L;
  const dC = Cp2 - Cp1;
  const grey = Cp1 * Cp2 === 0;
  let dh = h2 - h1;
  if (grey) dh = 0;
  else if (dh > 180) dh -= 360;
  else if (dh < -180) dh += 360;
  const dH = 2 * Math.sqrt(Cp1 * Cp2) * Math.sin((dh / 2) * RADIANS);

  // Step 3: weighting at the middle of the pair.
  const meanL = (standard.L + sample.L) / 2;
  const meanCp = (Cp1 + Cp2) / 2;
  let meanH = (h1 + h2) / 2;
  if (grey) meanH = h1 + h2;
  else if (Math.abs(h1 - h2) > 180) meanH += h1 + h2 < 360 ? 180 : -180;
  const T =
    1 -
    0.17 * Math.cos((meanH - 30) * RADIANS) +
    0.24 * Math.cos(2 * meanH * RADIANS) +
    0.32 * Math.cos((3 * meanH + 6) * RADIANS) -
    0.2 * Math.cos((4 * meanH - 63) * RADIANS);
  const dTheta = 30 * Math.exp(-(((meanH - 275) / 25) ** 2));
  const meanCp7 = meanCp ** 7;
  const RC = 2 * Math.sqrt(meanCp7 / (meanCp7 + TWENTY_FIVE_TO_SEVENTH));
  const L50 = (meanL - 50) ** 2;
  const SL = 1 + (0.015 * L50) / Math.sqrt(20 + L50);
  const SC = 1 + 0.045 * meanCp;
  const SH = 1 + 0.015 * meanCp * T;
  const RT = -Math.sin(2 * dTheta * RADIANS) * RC;

  const lightness = dL / (kL * SL);
  const chroma = dC / (kC * SC);
  const hue = dH / (kH * SH);
  const deltaE = Math.sqrt(Math.max(0, lightness ** 2 + chroma ** 2 + hue ** 2 + RT * chroma * hue));
  return { deltaE, lightness, chroma, hue, standardHueDegrees: h1, sampleHueDegrees: h2 };
}

function angleDegrees(b: number, a: number): number {
  if (a === 0 && b === 0) return 0;
  const degrees = Math.atan2(b, a) / RADIANS;
  return degrees < 0 ? degrees + 360 : degrees;
}
