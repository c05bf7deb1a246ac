import { median } from '../quantity/median';
import { worded } from '../words/worded';
import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';

/** A lot of a colourway, as it came out. */
export interface RepeatedLot {
  readonly id: string;
  readonly lab: Lab;
  /** What it was made with, by name: water, harvest, pot, who. */
  readonly factors: Readonly<Record<string, string>>;
}

/** What a colour may drift in: the parts of CIEDE2000, above zero paler, brighter, further round the hue circle. */
export const DRIFT_CHANNELS = ['lightness', 'chroma', 'hue'] as const;
/** One of `DRIFT_CHANNELS`. */
export type DriftChannel = (typeof DRIFT_CHANNELS)[number];

/** Why a lot is called out of the ordinary: which rule, in what. */
export interface DriftSignal {
  readonly rule: 'far' | 'twoOfThree' | 'fourOfFive' | 'eightOnOneSide';
  readonly channel: DriftChannel;
}
/** Each rule in words. */
export const DRIFT_RULE_LABELS: Readonly<Record<DriftSignal['rule'], string>> = worded(() => ({
  far: $localize`further from the middle than chance brings it`,
  twoOfThree: $localize`two of three lots far to the same side`,
  fourOfFive: $localize`four of five lots somewhat to the same side`,
  eightOnOneSide: $localize`eight lots in a row to the same side`,
}));

/** The middle of a channel, and how far lots scatter about it by chance. */
export interface DriftLimits {
  readonly centre: number;
  readonly sigma: number;
}

/** One lot on the chart. */
export interface DriftPoint {
  readonly id: string;
  readonly deltaE: number;
  readonly parts: Readonly<Record<DriftChannel, number>>;
  readonly signals: readonly DriftSignal[];
}

/** How well a colourway repeats. */
export interface Repeatability {
  readonly points: readonly DriftPoint[];
  /** `null` below `LEAST_FOR_LIMITS` lots. */
  readonly limits: Readonly<Record<DriftChannel, DriftLimits>> | null;
  /** What all lots out of the ordinary share, and fewer than half of the others have. */
  readonly commonFactors: readonly { readonly name: string; readonly value: string; readonly lots: number }[];
}

/** Below this many lots chance can't be told from drift. */
export const LEAST_FOR_LIMITS = 5;
/** Limits are taken from the first so many lots: later drift must not widen them. */
const BASELINE = 12;
/** Median of the range of two over the standard deviation: √2 times the quartile of a normal, 0.6745. */
const D4 = 0.9539;
/** Lots of one piece of cloth differ by so much by the reader alone: a sigma below it is no finding. */
const LEAST_SIGMA = 0.15;

/**
 * Lots of a colourway over time against its master, in the order they were dyed: an individuals control chart by the
 * moving range (ISO 7870-2:2013), its middle and range by medians so that one lot far off doesn't hide itself, with the
 * four rules of Western Electric (1956). Drift is called before the tolerance is left.
 */
export function chartRepeatability(master: Lab, lots: readonly RepeatedLot[]): Repeatability {
  const plain = lots.map(({ id, lab }) => {
    const d = ciede2000(master, lab, { kL: 1, kC: 1, kH: 1 });
    return { id, deltaE: d.deltaE, parts: { lightness: d.lightness, chroma: d.chroma, hue: d.hue } };
  });
  if (plain.length < LEAST_FOR_LIMITS)
    return { points: plain.map((p) => ({ ...p, signals: [] })), limits: null, commonFactors: [] };
  const limitsOf = (channel: DriftChannel): DriftLimits => {
    const values = plain.slice(0, BASELINE).map((p) => p.parts[channel]);
    const ranges = values.slice(1).map((v, i) => Math.abs(v - (values[i] ?? v)));
    return { centre: median(values), sigma: Math.max(LEAST_SIGMA, median(ranges) / D4) };
  };
  const limits = { lightness: limitsOf('lightness'), chroma: limitsOf('chroma'), hue: limitsOf('hue') };
  const points = plain.map((p, i) => ({
    ...p,
    signals: DRIFT_CHANNELS.flatMap((channel) => {
      const { centre, sigma } = limits[channel];
      const until = plain.slice(0, i + 1).map((q) => (q.parts[channel] - centre) / sigma);
      return signalsAt(until).map((rule) => ({ rule, channel }));
    }),
  }));
  return { points, limits, commonFactors: shareOf(points, lots) };
}

/** The rules that the last of a row breaks; the row in standard deviations from the middle. */
function signalsAt(row: readonly number[]): DriftSignal['rule'][] {
  const last = row.at(-1) ?? 0;
  const side = Math.sign(last);
  const beyond = (count: number, sigmas: number): number =>
    row.slice(-count).filter((v) => Math.sign(v) === side && Math.abs(v) > sigmas).length;
  const rules: DriftSignal['rule'][] = [];
  if (Math.abs(last) > 3) rules.push('far');
  if (Math.abs(last) > 2 && beyond(3, 2) >= 2) rules.push('twoOfThree');
  if (Math.abs(last) > 1 && beyond(5, 1) >= 4) rules.push('fourOfFive');
  if (row.length >= 8 && beyond(8, 0) === 8) rules.push('eightOnOneSide');
  return rules;
}

function shareOf(points: readonly DriftPoint[], lots: readonly RepeatedLot[]): Repeatability['commonFactors'] {
  const isOut = (id: string): boolean => points.some((p) => p.id === id && p.signals.length > 0);
  const [out, rest] = [lots.filter((l) => isOut(l.id)), lots.filter((l) => !isOut(l.id))];
  const [first] = out;
  if (!first || out.length < 2) return [];
  return Object.entries(first.factors)
    .filter(([name, value]) => out.every((l) => l.factors[name] === value))
    .filter(([name, value]) => rest.filter((l) => l.factors[name] === value).length * 2 < Math.max(1, rest.length))
    .map(([name, value]) => ({ name, value, lots: out.length }));
}
