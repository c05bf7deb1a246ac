import type { Lab } from './lab';
import { chroma, hueDegrees } from './lab';

/** A difference in its parts, sample minus standard: lighter, brighter and further round the hue circle above zero. */
export interface SplitDifference {
  readonly deltaE: number;
  readonly deltaL: number;
  readonly deltaC: number;
  readonly deltaH: number;
}

/** ΔL*, ΔC*ab and ΔH*ab, and with them CIE 1976 ΔE*ab. CIE 15:2018, sections 8.2.1.2 and 8.2.1.3. */
export function cie76(standard: Lab, sample: Lab): SplitDifference {
  const deltaL = sample.L - standard.L;
  const deltaC = chroma(sample) - chroma(standard);
  const deltaE = Math.hypot(deltaL, sample.a - standard.a, sample.b - standard.b);
  const size = Math.sqrt(Math.max(0, deltaE ** 2 - deltaL ** 2 - deltaC ** 2));
  const turn = standard.a * sample.b - standard.b * sample.a;
  return { deltaE, deltaL, deltaC, deltaH: turn < 0 ? -size : size };
}

const RADIANS = Math.PI / 180;

/**
 * CMC(l:c), by the half-axes of the tolerance ellipsoid about the standard: ISO 105-J03:2009. Parts are weighted as in
 * the total. It isn't symmetric: the first colour is the standard. Textiles usually pass by l:c = 2:1.
 */
export function cmc(standard: Lab, sample: Lab, { l, c }: { readonly l: number; readonly c: number }): SplitDifference {
  const { deltaL, deltaC, deltaH } = cie76(standard, sample);
  const C1 = chroma(standard);
  const h1 = hueDegrees(standard);
  const sL = standard.L < 16 ? 0.511 : (0.040975 * standard.L) / (1 + 0.01765 * standard.L);
  const sC = (0.0638 * C1) / (1 + 0.0131 * C1) + 0.638;
  const f = Math.sqrt(C1 ** 4 / (C1 ** 4 + 1900));
  const t =
    h1 > 164 && h1 < 345
      ? 0.56 + Math.abs(0.2 * Math.cos((h1 + 168) * RADIANS))
      : 0.36 + Math.abs(0.4 * Math.cos((h1 + 35) * RADIANS));
  const sH = sC * (f * t + 1 - f);
  const parts = { deltaL: deltaL / (l * sL), deltaC: deltaC / (c * sC), deltaH: deltaH / sH };
  return { deltaE: Math.hypot(parts.deltaL, parts.deltaC, parts.deltaH), ...parts };
}
