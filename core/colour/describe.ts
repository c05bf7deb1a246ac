import { wordedList } from '../words/worded';
import { ciede2000 } from './ciede2000';
import type { Lab } from './lab';
import { chroma, hueDegrees } from './lab';

/** Hue names by angle in CIELAB, each up to the angle given (degrees). */
const HUES: readonly (readonly [number, string, string])[] = wordedList(() => [
  [20, $localize`pinkish red`, $localize`rosy`],
  [42, $localize`red`, $localize`reddish`],
  [58, $localize`orange red`, $localize`reddish`],
  [72, $localize`orange`, $localize`orange`],
  [84, $localize`golden yellow`, $localize`golden`],
  [97, $localize`yellow`, $localize`yellowish`],
  [114, $localize`greenish yellow`, $localize`greenish yellow`],
  [138, $localize`yellow green`, $localize`yellowish green`],
  [172, $localize`green`, $localize`greenish`],
  [205, $localize`sea green`, $localize`sea-greenish`],
  [240, $localize`greenish blue`, $localize`greenish blue`],
  [295, $localize`blue`, $localize`bluish`],
  [312, $localize`violet`, $localize`violet`],
  [338, $localize`purple`, $localize`purplish`],
  [360, $localize`pinkish red`, $localize`rosy`],
]);

const hueRow = (lab: Lab): readonly [number, string, string] =>
  HUES.find(([to]) => hueDegrees(lab) < to) ?? (HUES[0] as readonly [number, string, string]);

/** A swatch in words for those who can't see it: `muted greenish yellow, L* 62`. */
export function describeColour(lab: Lab): string {
  const c = chroma(lab);
  const lightness = `L* ${Math.round(lab.L)}`;
  if (c < 3)
    return `${lab.L > 90 ? $localize`white` : lab.L > 70 ? $localize`pale grey` : lab.L > 40 ? $localize`grey` : lab.L > 18 ? $localize`dark grey` : $localize`black`}, ${lightness}`;
  const [, noun, adjective] = hueRow(lab);
  if (c < 9)
    return `${adjective} ${lab.L > 85 ? $localize`white` : lab.L > 40 ? $localize`grey` : $localize`dark grey`}, ${lightness}`;
  const brown = lab.L < 48 && hueDegrees(lab) > 35 && hueDegrees(lab) < 84;
  const depth = lab.L > 80 ? $localize`pale ` : lab.L < 32 ? $localize`deep ` : '';
  const purity = c < 26 ? $localize`muted ` : c > 58 ? $localize`bright ` : '';
  return `${depth}${purity}${brown ? $localize`${adjective} brown` : noun}, ${lightness}`;
}

/** A colour difference in ΔE00, and in a dyer's words for lightness, chroma and hue. */
export interface DescribedDifference {
  readonly deltaE: number;
  readonly lightness: { readonly value: number; readonly label: string };
  readonly chroma: { readonly value: number; readonly label: string };
  readonly hue: { readonly value: number; readonly label: string };
  /** One line: `close: an entry paler, redder`. */
  readonly summary: string;
}

/**
 * How large a part of a difference, in ΔE00, each word is for: under `nothing` it gets none, under `touch` it is “a
 * touch”, under `slightly` “slightly”, from `much` on “much”. Our own scale, not a standard’s.
 */
export const DIFFERENCE_WORDS = { nothing: 0.35, touch: 0.8, slightly: 1.8, much: 4 } as const;

function amount(value: number): string {
  const size = Math.abs(value);
  const { touch, slightly, much } = DIFFERENCE_WORDS;
  return size < touch
    ? $localize`a touch `
    : size < slightly
      ? $localize`slightly `
      : size < much
        ? ''
        : $localize`much `;
}

/** Directions a hue can move, by the angle it moves towards. */
const HUE_DIRECTIONS: readonly (readonly [number, string])[] = wordedList(() => [
  [25, $localize`redder`],
  [85, $localize`yellower`],
  [165, $localize`greener`],
  [265, $localize`bluer`],
  [330, $localize`more purple`],
]);

/**
 * Names where a hue shift leads: the first landmark in the direction of travel that lies beyond the middle of the way,
 * so that a shift across a landmark is named by its longer part. A yellow moving counter-clockwise gets greener,
 * clockwise redder.
 */
function hueDirection(standardDegrees: number, sampleDegrees: number, counterClockwise: boolean): string {
  const around = (degrees: number): number => ((degrees % 360) + 360) % 360;
  const turn = counterClockwise ? 1 : -1;
  const middle = standardDegrees + (turn * around(turn * (sampleDegrees - standardDegrees))) / 2;
  const ahead = (landmark: number): number => around(turn * (landmark - middle));
  const [nearest] = [...HUE_DIRECTIONS].sort(([a], [b]) => ahead(a) - ahead(b));
  return nearest?.[1] ?? $localize`another hue`;
}

/**
 * The difference of a sample from a standard as a dyer would say it. CIEDE2000 at 1:1:1, split into
 * lightness (paler/deeper), chroma (brighter/duller) and hue.
 */
export function describeDifference(standard: Lab, sample: Lab): DescribedDifference {
  const d = ciede2000(standard, sample, { kL: 1, kC: 1, kH: 1 });
  const say = (value: number, more: string, less: string): string =>
    Math.abs(value) < DIFFERENCE_WORDS.nothing ? '' : `${amount(value)}${value > 0 ? more : less}`;
  const lightness = say(d.lightness, $localize`paler`, $localize`deeper`);
  const chromaLabel = say(d.chroma, $localize`brighter`, $localize`duller`);
  const hue =
    Math.abs(d.hue) < DIFFERENCE_WORDS.nothing
      ? ''
      : `${amount(d.hue)}${hueDirection(d.standardHueDegrees, d.sampleHueDegrees, d.hue > 0)}`;
  const parts = [lightness, chromaLabel, hue].filter((w) => w !== '');
  return {
    deltaE: d.deltaE,
    lightness: { value: d.lightness, label: lightness || $localize`as light` },
    chroma: { value: d.chroma, label: chromaLabel || $localize`as bright` },
    hue: { value: d.hue, label: hue || $localize`the same hue` },
    summary: parts.length === 0 ? $localize`no difference an eye would find` : parts.join(', '),
  };
}
