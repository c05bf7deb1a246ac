import type { ColourConditions, Lab } from '../colour/lab';
import type { Spectrum } from '../colour/spectrum';
import { BANDS_NM, xyzOfSpectrum } from '../colour/spectrum';
import { convertLabToXyz, weightsFor } from '../colour/xyz';
import { factorise, solveFactorised } from './linear-algebra';

const STEPS = 40;
const CLOSE = 1e-6;
/** How much more the colour counts than that the spectrum is smooth. */
const COLOUR_COUNTS = 1e6;
/** No step is longer, in the unit of z. */
const MOST_STEP = 1;

/**
 * A smooth spectrum, 0 to 1 at `BANDS_NM`, of a colour of which only L*a*b* is known: of all that look
 * like it, the one whose z changes least from band to band, where R = (tanh z + 1) / 2 (Burns, _Color Res. Appl._ 45,
 * 2020). A colour that no reflecting surface has comes out as the nearest found.
 */
export function smoothSpectrum(lab: Lab, conditions: ColourConditions): Spectrum {
  const n = BANDS_NM.length;
  const wanted = convertLabToXyz(lab, conditions);
  const weights = weightsFor(conditions);
  const white = weights.reduce((sum, w) => sum + w[1], 0);
  const z = new Float64Array(n);
  const spectrum = (): number[] => Array.from(z, (v) => (Math.tanh(v) + 1) / 2);
  for (let step = 0; step < STEPS; step += 1) {
    const off = xyzOfSpectrum(spectrum(), conditions).map((v, k) => v - (wanted[k] ?? 0));
    if (off.every((o) => Math.abs(o) < CLOSE)) break;
    const cells = new Float64Array(n * n);
    const pull = new Float64Array(n);
    for (let i = 0; i + 1 < n; i += 1) {
      const change = (z[i + 1] ?? 0) - (z[i] ?? 0);
      for (const [p, q, by] of [
        [i, i, 1],
        [i + 1, i + 1, 1],
        [i, i + 1, -1],
        [i + 1, i, -1],
      ] as const)
        cells[p * n + q] = (cells[p * n + q] ?? 0) + by;
      pull[i] = (pull[i] ?? 0) + change;
      pull[i + 1] = (pull[i + 1] ?? 0) - change;
    }
    for (let k = 0; k < 3; k += 1) {
      const slope = Array.from(z, (v, i) => ((weights[i]?.[k] ?? 0) / white) * ((1 - Math.tanh(v) ** 2) / 2));
      for (let i = 0; i < n; i += 1) {
        pull[i] = (pull[i] ?? 0) - COLOUR_COUNTS * (slope[i] ?? 0) * (off[k] ?? 0);
        for (let j = 0; j < n; j += 1)
          cells[i * n + j] = (cells[i * n + j] ?? 0) + COLOUR_COUNTS * (slope[i] ?? 0) * (slope[j] ?? 0);
      }
    }
    const move = solveFactorised(factorise({ n, cells }), pull);
    const longest = Math.max(...move.map(Math.abs));
    const by = longest > MOST_STEP ? MOST_STEP / longest : 1;
    for (let i = 0; i < n; i += 1) z[i] = (z[i] ?? 0) + by * (move[i] ?? 0);
  }
  return spectrum();
}
