import type { ChannelSpace } from './channels';
import { BROAD_BANDS } from './channels';
import type { DyedAndRead, KnownStrength } from './dyeing';
import type { Forward, Known, UsualDoses } from './forward';
import { forward } from './forward';
import type { Symmetric } from './linear-algebra';
import { factorise, invertFactorised, logDeterminant, solveFactorised, solveLower } from './linear-algebra';
import type { PriorScales } from './parameters';
import { ParameterBook } from './parameters';
import { PRIORS, SCATTER } from './priors';

/** What scatters, as it is taken. */
export interface Scatter {
  readonly luck: number;
  readonly luckHue: number;
  /** In channels. */
  readonly reading: number;
}

/** How wide priors and scatter are taken. */
export interface Widths {
  readonly priors: PriorScales;
  readonly scatter: Scatter;
}

/** As it is taken in these bands. */
export const usualWidths = ({ bands }: ChannelSpace): Widths => ({
  priors: {},
  scatter: { ...SCATTER, reading: bands > BROAD_BANDS ? SCATTER.readingByBand : SCATTER.reading },
});

/** A reading, and the day whose luck it shares with what is dyed after it. */
export interface Observation extends DyedAndRead {
  readonly day: string | null;
  /**
   * A colourway’s master, as its recipe gives it from the reference jars: nobody knows what it was dyed with, so it says
   * less than a lot does.
   */
  readonly isMaster?: boolean;
  /** How far off the reading itself may be, four times in five, ΔE00; of a reader close to nothing. */
  readonly readWithin80?: number | null;
}

/** What was learnt: the numbers, and how sure each is together with the others. */
export interface Posterior extends Known {
  /** Numbers that the record had something to say of; the book’s later ones have their priors. */
  readonly learnt: number;
  readonly covariance: Symmetric;
  readonly widths: Widths;
  /** Logarithm of how well widths and record agree (Laplace); for comparing widths. */
  readonly evidence: number;
  readonly readings: number;
}

/** Of a long record about so many readings are learnt first: from there the whole of it is a few steps away. */
const LEARNT_FIRST = 160;
const MOST_STEPS = 25;
const SETTLED = 0.1;
/** Heavy tails: a lot that went wrong pulls less the further off it lies (Student’s t of this many degrees). */
const TAILS = 8;

/** How much a reading counts that lies so far off: its squared distance in standard deviations, over so many values. */
export const weightOf = (square: number, count: number): number => (TAILS + count) / (TAILS + square);

/** How a master scatters about what its recipe gives: as a lot would with jars and water that nobody knows. */
const MASTER: Scatter = { luck: 0.12, luckHue: 0.04, reading: 0.6 };

/** √χ²₃ at 0.8. */
const BALL_80 = 2.154;

/** Widths by which one reading is taken. */
export function widthsFor(
  widths: Widths,
  { isMaster, readWithin80 }: Pick<Observation, 'isMaster' | 'readWithin80'>,
): Widths {
  const scatter = isMaster ? MASTER : widths.scatter;
  // A ball that holds four in five of a normal in three dimensions is 2.15 standard deviations wide.
  const own = (readWithin80 ?? 0) / BALL_80;
  return { ...widths, scatter: { ...scatter, reading: Math.hypot(scatter.reading, own) } };
}

/** Scatter of a dyeing’s channels about what the model says. */
export function scatterOf(known: Known, { luck }: Forward, { scatter, priors }: Widths, withDay: boolean): Symmetric {
  const { count } = known.space;
  const cells = new Float64Array(count * count);
  luck.forEach((along, s) => {
    const own = s === 0 ? scatter.luck : scatter.luckHue;
    const day = s === 0 ? PRIORS.day * (priors.day ?? 1) : PRIORS.dayHue * (priors.dayHue ?? 1);
    const variance = own ** 2 + (withDay ? day ** 2 : 0);
    for (let i = 0; i < count; i += 1)
      for (let j = 0; j < count; j += 1)
        cells[i * count + j] = (cells[i * count + j] ?? 0) + variance * (along[i] ?? 0) * (along[j] ?? 0);
  });
  for (let i = 0; i < count; i += 1) cells[i * count + i] = (cells[i * count + i] ?? 0) + scatter.reading ** 2;
  return { n: count, cells };
}

/** The median of what was dosed of each material. */
export function usualDoses(readings: readonly DyedAndRead[]): UsualDoses {
  const taken = new Map<string, number[]>();
  for (const { dyeing } of readings) {
    const whole = new Map<string, number>();
    for (const d of dyeing.doses) whole.set(d.materialId, (whole.get(d.materialId) ?? 0) + d.percentOwf);
    for (const [id, percent] of whole) if (percent > 0) taken.set(id, [...(taken.get(id) ?? []), percent]);
  }
  return new Map([...taken].map(([id, all]) => [id, all.sort((x, y) => x - y)[Math.floor(all.length / 2)] ?? 1]));
}

/** A tested jar is as strong as its strips said, within this, ln. */
const TESTED_SD = 0.06;
/** The reference is as strong as itself. */
const REFERENCE_SD = 0.02;

/** The book with what is known of jars before anything was dyed with them. */
export function bookFor(strengths: readonly KnownStrength[], scales: PriorScales): ParameterBook {
  const book = new ParameterBook(scales);
  for (const { stockLotId, percent, isReference } of strengths)
    book.place(`jar/${stockLotId}`, 'jar', Math.log(percent / 100), isReference ? REFERENCE_SD : TESTED_SD);
  return book;
}

interface Step {
  readonly precision: Float64Array;
  readonly gradient: Float64Array;
  readonly cost: number;
  readonly logScatter: number;
}

/** Precision and gradient of everything read, about these values. */
function lookAt(known: Known, readings: readonly Observation[], widths: Widths, size: number): Step {
  const precision = new Float64Array(size * size);
  const gradient = new Float64Array(size);
  let [cost, logScatter] = [0, 0];
  for (const reading of readings) {
    const said = forward(known, reading.dyeing, reading.day);
    const { count } = known.space;
    const low = factorise(scatterOf(known, said, widthsFor(widths, reading), reading.day === null));
    const seen = known.space.of(reading.colour);
    const off = solveLower(
      low,
      Float64Array.from(seen, (y, c) => y - (said.channels[c] ?? 0)),
    );
    const square = off.reduce((sum, o) => sum + o * o, 0);
    const weight = weightOf(square, count);
    cost += (TAILS + count) * Math.log1p(square / TAILS);
    logScatter += logDeterminant(low);
    const places = [...said.slopes.keys()];
    const rows = places.map((place) => solveLower(low, said.slopes.get(place) ?? new Float64Array(count)));
    for (let i = 0; i < places.length; i += 1) {
      const [p, row] = [places[i] ?? 0, rows[i]];
      if (!row) continue;
      let pull = 0;
      for (let c = 0; c < count; c += 1) pull += (row[c] ?? 0) * (off[c] ?? 0);
      gradient[p] = (gradient[p] ?? 0) + weight * pull;
      for (let j = 0; j <= i; j += 1) {
        const [q, other] = [places[j] ?? 0, rows[j]];
        if (!other) continue;
        let sum = 0;
        for (let c = 0; c < count; c += 1) sum += (row[c] ?? 0) * (other[c] ?? 0);
        sum *= weight;
        precision[p * size + q] = (precision[p * size + q] ?? 0) + sum;
        if (p !== q) precision[q * size + p] = (precision[q * size + p] ?? 0) + sum;
      }
    }
  }
  return { precision, gradient, cost, logScatter };
}

function costOf(known: Known, readings: readonly Observation[], widths: Widths): number {
  let cost = 0;
  for (const reading of readings) {
    const said = forward(known, reading.dyeing, reading.day, false);
    const low = factorise(scatterOf(known, said, widthsFor(widths, reading), reading.day === null));
    const seen = known.space.of(reading.colour);
    const off = solveLower(
      low,
      Float64Array.from(seen, (y, c) => y - (said.channels[c] ?? 0)),
    );
    cost +=
      (TAILS + known.space.count) * Math.log1p(off.reduce((sum, o) => sum + o * o, 0) / TAILS) + logDeterminant(low);
  }
  return cost;
}

function priorCost(book: ParameterBook, values: Float64Array): number {
  return values.reduce((sum, value, i) => {
    const { mean, sd } = book.at(i);
    return sum + ((value - mean) / sd) ** 2;
  }, 0);
}

/**
 * Learns from everything that was read: the most likely values by Levenberg and Marquardt’s steps, and about them a
 * normal posterior (Laplace). The same readings give the same answer.
 * @param start where to begin @param stepped heard before every step
 */
export function learn(
  space: ChannelSpace,
  readings: readonly Observation[],
  strengths: readonly KnownStrength[],
  widths: Widths = usualWidths(space),
  start?: Posterior,
  stepped: () => void = () => undefined,
): Posterior {
  const from = start ?? learntFirst(space, readings, strengths, widths, stepped);
  const usual = usualDoses(readings);
  const book = bookFor(strengths, widths.priors);
  const empty: Known = { space, book, usual, values: new Float64Array(0) };
  for (const r of readings) forward(empty, r.dyeing, r.day);
  const size = book.size;
  let values = Float64Array.from({ length: size }, (_, i) => {
    const { key, mean } = book.at(i);
    const before = from?.book.find(key);
    return before === undefined || !from || before >= from.learnt ? mean : (from.values[before] ?? mean);
  });
  let damping = from ? 1e-4 : 1e-2;
  let known: Known = { space, book, usual, values };
  let total = costOf(known, readings, widths) + priorCost(book, values);
  for (let step = 0; step < MOST_STEPS; step += 1) {
    stepped();
    const { precision, gradient } = lookAt(known, readings, widths, size);
    for (let i = 0; i < size; i += 1) {
      const { mean, sd } = book.at(i);
      const own = 1 / (sd * sd);
      precision[i * size + i] = (precision[i * size + i] ?? 0) + own;
      gradient[i] = (gradient[i] ?? 0) - own * ((values[i] ?? 0) - mean);
    }
    let gained = 0;
    for (let tries = 0; tries < 8; tries += 1) {
      const damped = Float64Array.from(precision);
      for (let i = 0; i < size; i += 1) damped[i * size + i] = (damped[i * size + i] ?? 0) * (1 + damping);
      const move = solveFactorised(factorise({ n: size, cells: damped }), gradient);
      const moved = Float64Array.from(values, (v, i) => v + (move[i] ?? 0));
      const next: Known = { space, book, usual, values: moved };
      const cost = costOf(next, readings, widths) + priorCost(book, moved);
      if (cost < total) {
        gained = total - cost;
        [values, known, total] = [moved, next, cost];
        damping = Math.max(1e-7, damping / 6);
        break;
      }
      damping *= 5;
    }
    if (gained < SETTLED) break;
  }
  return concluded(known, readings, widths, total);
}

/** A long record, thinned; nothing of a short one. */
function learntFirst(
  space: ChannelSpace,
  readings: readonly Observation[],
  strengths: readonly KnownStrength[],
  widths: Widths,
  stepped: () => void,
): Posterior | undefined {
  const every = Math.floor(readings.length / LEARNT_FIRST);
  const some = readings.filter((_, i) => i % every === 0);
  return every < 2 ? undefined : learn(space, some, strengths, widths, undefined, stepped);
}

/** The normal posterior about values. */
function concluded(known: Known, readings: readonly Observation[], widths: Widths, total: number): Posterior {
  const { book } = known;
  const size = known.values.length;
  const { precision: cells } = lookAt(known, readings, widths, size);
  let logPrior = 0;
  for (let i = 0; i < size; i += 1) {
    const { sd } = book.at(i);
    cells[i * size + i] = (cells[i * size + i] ?? 0) + 1 / (sd * sd);
    logPrior += 2 * Math.log(sd);
  }
  const precision = { n: size, cells };
  const low = factorise(precision);
  return {
    ...known,
    learnt: size,

    covariance: invertFactorised(low),
    widths,
    evidence: -0.5 * (total + logPrior + logDeterminant(low)),
    readings: readings.length,
  };
}
