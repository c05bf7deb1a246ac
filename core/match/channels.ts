import type { ColourConditions, Lab } from '../colour/lab';
import type { Spectrum } from '../colour/spectrum';
import { BANDS_NM, labOfSpectrum } from '../colour/spectrum';
import { convertLabToXyz, convertXyzToLab, whitePoint } from '../colour/xyz';
import type { MeasuredColour } from './dyeing';
import { smoothSpectrum } from './smooth-spectrum';

/** Light and observer that the match works in. */
export const MATCH_CONDITIONS: ColourConditions = { illuminant: 'D65', observer: '10' };

/** What a colour looks like from its reflectance in each band, and how that turns with them. */
export interface Seen {
  readonly values: Float64Array;
  /** Row after row: `count` rows of `bands`. */
  readonly slopes: Float64Array;
}

/**
 * The bands that dyes mix in, and the values that a colour is compared by: sixteen bands where a studio’s reader gives
 * spectra, each kept as a hundred times the cube root of its reflectance (about as far apart as an eye sees it, so that
 * an error is as large in a pale shade as in a deep one); else three broad bands, compared as L*, a* and b*.
 */
export interface ChannelSpace {
  readonly bands: number;
  readonly count: number;
  /** Smooth shapes over the bands, in which a jar, a water or an age turns a hue; each of length `bands`. */
  readonly shapes: readonly Float64Array[];
  /** Directions in which a whole colourway may lie off; each of length `count`. */
  readonly offsets: readonly Float64Array[];
  /** What a reading is compared by. */
  of(colour: MeasuredColour): Float64Array;
  /** Reflectance of a colour in each band. */
  reflectances(colour: MeasuredColour): Float64Array;
  see(reflectances: Float64Array): Seen;
  /** L*a*b* of compared values. */
  lab(values: Float64Array): Lab;
}

const SCALE = 100;
/** No dye is blacker and no fibre whiter, as reflectance. */
const [LEAST, MOST] = [0.004, 1.1];
const clamp = (reflectance: number): number => Math.min(MOST, Math.max(LEAST, reflectance));

/** A channel from its reflectance. */
export const toChannel = (reflectance: number): number => SCALE * Math.cbrt(clamp(reflectance));
/** Reflectance of a channel. */
export const fromChannel = (channel: number): number => clamp((Math.max(0, channel) / SCALE) ** 3);

/** Cone responses spread apart (Lam’s Bradford matrix): broad bands in which dyes mix nearly as they do band by band. */
const SHARP = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
] as const;
const BROAD = [
  [0.9869929, -0.1470543, 0.1599627],
  [0.4323053, 0.5183603, 0.0492912],
  [-0.0085287, 0.0400428, 0.9684867],
] as const;
type Matrix = readonly (readonly [number, number, number])[];
const times = (m: Matrix, [x, y, z]: readonly [number, number, number]): [number, number, number] => {
  const row = (i: number): number => (m[i]?.[0] ?? 0) * x + (m[i]?.[1] ?? 0) * y + (m[i]?.[2] ?? 0) * z;
  return [row(0), row(1), row(2)];
};

/** So many bands, and colour is followed by L*a*b* alone. */
export const BROAD_BANDS = 3;

/** Three broad bands, from L*a*b* alone. */
export function broadChannels(): ChannelSpace {
  const white = times(SHARP, whitePoint(MATCH_CONDITIONS));
  const [w0, w1, w2] = white;
  const labOf = (r: number, g: number, b: number): Lab =>
    convertXyzToLab(times(BROAD, [clamp(r) * w0, clamp(g) * w1, clamp(b) * w2]), MATCH_CONDITIONS);
  const STEP = 1e-6;
  return {
    bands: BROAD_BANDS,
    count: BROAD_BANDS,
    // The first two overlap, so that nothing real turns one far against the other.
    shapes: [Float64Array.of(0.4, -0.4, 0), Float64Array.of(-0.3, -0.3, 0.9)],
    offsets: [Float64Array.of(1, 0, 0), Float64Array.of(0, 1, 0), Float64Array.of(0, 0, 1)],
    of: ({ lab }) => Float64Array.of(lab.L, lab.a, lab.b),
    reflectances: ({ lab }) => {
      const [r, g, b] = times(SHARP, convertLabToXyz(lab, MATCH_CONDITIONS));
      return Float64Array.of(clamp(r / w0), clamp(g / w1), clamp(b / w2));
    },
    see: ([r = 0, g = 0, b = 0]) => {
      const at = labOf(r, g, b);
      const slopes = new Float64Array(9);
      [labOf(r + STEP, g, b), labOf(r, g + STEP, b), labOf(r, g, b + STEP)].forEach((moved, band) => {
        slopes[band] = (moved.L - at.L) / STEP;
        slopes[3 + band] = (moved.a - at.a) / STEP;
        slopes[6 + band] = (moved.b - at.b) / STEP;
      });
      return { values: Float64Array.of(at.L, at.a, at.b), slopes };
    },
    lab: ([L = 0, a = 0, b = 0]) => ({ L, a, b }),
  };
}

/** Every second band, each the mean of what lies about it, since readers scatter from band to band. */
const KEPT = BANDS_NM.flatMap((nm, i) => (i % 2 === 0 ? [{ nm, i }] : []));
const CENTRES_NM = [430, 500, 570, 650];
const WIDTH_NM = 45;

/** Sixteen bands; of a colour that was read without its spectrum, a smooth one that looks like it. */
export function spectralChannels(): ChannelSpace {
  const shapes = CENTRES_NM.map((centre) =>
    Float64Array.from(KEPT, ({ nm }) => Math.exp(-0.5 * ((nm - centre) / WIDTH_NM) ** 2)),
  );
  const smooth = new Map<string, Spectrum>();
  const smoothOf = (lab: Lab): Spectrum => {
    const key = [lab.L, lab.a, lab.b].join();
    const own = smooth.get(key) ?? smoothSpectrum(lab, MATCH_CONDITIONS);
    smooth.set(key, own);
    return own;
  };
  const reflectances = ({ lab, spectrum: read }: MeasuredColour): Float64Array => {
    const spectrum = read ?? smoothOf(lab);
    return Float64Array.from(KEPT, ({ i }) => {
      const own = spectrum[i] ?? 0;
      const [before, after] = [spectrum[i - 1] ?? own, spectrum[i + 1] ?? own];
      return clamp((before + 2 * own + after) / 4);
    });
  };
  const count = KEPT.length;
  return {
    bands: count,
    count,
    shapes,
    offsets: [new Float64Array(count).fill(1), ...shapes],
    of: (colour) => reflectances(colour).map(toChannel),
    reflectances,
    see: (all) => {
      const values = all.map(toChannel);
      const slopes = new Float64Array(count * count);
      // d(100 R^⅓)/dR
      for (let c = 0; c < count; c += 1) slopes[c * count + c] = (values[c] ?? 0) / (3 * clamp(all[c] ?? 0));
      return { values, slopes };
    },
    lab: (values) =>
      labOfSpectrum(
        BANDS_NM.map((_, i) =>
          i % 2 === 0
            ? fromChannel(values[i / 2] ?? 0)
            : fromChannel(((values[(i - 1) / 2] ?? 0) + (values[(i + 1) / 2] ?? 0)) / 2),
        ),
        MATCH_CONDITIONS,
      ),
  };
}

/** How L*a*b* turns with the channels: three rows of `count`. */
export function labSlopes(space: ChannelSpace, channels: Float64Array): readonly Float64Array[] {
  const at = space.lab(channels);
  const rows = [new Float64Array(space.count), new Float64Array(space.count), new Float64Array(space.count)] as const;
  const STEP = 0.01;
  for (let c = 0; c < space.count; c += 1) {
    const moved = Float64Array.from(channels);
    moved[c] = (moved[c] ?? 0) + STEP;
    const lab = space.lab(moved);
    rows[0][c] = (lab.L - at.L) / STEP;
    rows[1][c] = (lab.a - at.a) / STEP;
    rows[2][c] = (lab.b - at.b) / STEP;
  }
  return rows;
}
