import { said } from '../words/said';
import type { GreyGrade } from '../colour/grey-scale';
import type { FadingCurve, FastnessKind, FastnessPlace } from '../judge/fastness';
import { SHELF_SHARE, fadedAfter } from '../judge/fastness';
import { factorise, invertFactorised, solveFactorised } from './linear-algebra';

/** What a card or a washed scrap has shown so far. */
export interface FastnessCard {
  readonly kind: FastnessKind;
  readonly place: FastnessPlace | null;
  readonly fibre: string;
  readonly dyestuffs: readonly string[];
  readonly mordants: readonly string[];
  /** The half that was open against the covered one, or after the wash against before, ΔE00; of an eye its grade. */
  readonly readings: readonly { readonly days: number; readonly deltaE00: number | null; readonly grade: GreyGrade }[];
  readonly curve: Pick<FadingCurve, 'mostDeltaE00' | 'timeConstantDays' | 'residualDeltaE00' | 'readings'> | null;
}

/** How far a dyestuff is likely to change: after four weeks of window light, or in a first wash. */
export interface FastnessForetold {
  readonly deltaE00: number;
  /** Four times in five between these, ΔE00. */
  readonly fromDeltaE00: number;
  readonly toDeltaE00: number;
  /** Cards of it, on whatever fibre and over whatever mordant. */
  readonly cards: number;
}

/** What is asked about. */
export type Dyed = Pick<FastnessCard, 'fibre' | 'dyestuffs' | 'mordants'>;

/** What cards teach of one kind of wear. */
export interface FastnessLearnt {
  /** Of a mixture its least fast dyestuff; `null` where one of them was never tried. */
  foretell(dyed: Dyed): FastnessForetold | null;
}

/** What light is told by: so many days in a window. */
export const FASTNESS_WINDOW_DAYS = 28;
/** A card that was read once is taken to fade like most: two thirds of it in so many days of a window. */
const USUAL_TIME_CONSTANT_DAYS = 60;
/** Below this a reader sees nothing, ΔE00. */
const LEAST_DELTA_E = 0.2;
/** What each grade of the grey scale stands for, as ISO 105-A02:1993 sets its steps in CIELAB; near enough in ΔE00. */
const STEP_OF_GRADE: Readonly<Record<GreyGrade, number>> = {
  5: 0.2,
  4.5: 0.8,
  4: 1.7,
  3.5: 2.5,
  3: 3.4,
  2.5: 4.8,
  2: 6.8,
  1.5: 9.6,
  1: 13.6,
};

/**
 * Standard deviations of ln ΔE00: what dyestuffs differ by, and what mordant and fibre do besides; one card beside
 * another of the same, its reading and its dose; a grade by eye is as much less sure.
 */
const SPREAD = { middle: 1, dyestuff: 0.8, over: 0.35, fibre: 0.25, card: 0.3, byEye: 0.4 } as const;
const MIDDLE: Readonly<Record<FastnessKind, number>> = { light: Math.log(2.5), wash: Math.log(1) };
const Z_80 = 1.2816;

const overOf = (mordants: readonly string[]): string => $localize`over ${[...mordants].sort().join('+')}`;

/** What a card comes to, ln ΔE00, and how sure that is; `undefined` while it shows nothing yet. */
function cameTo({ kind, place, readings, curve }: FastnessCard): { log: number; sd: number } | undefined {
  const last = readings.filter((r) => kind === 'wash' || r.days > 0).at(-1);
  if (!last) return undefined;
  const byEye = last.deltaE00 === null;
  const read = last.deltaE00 ?? STEP_OF_GRADE[last.grade];
  const inLight = (days: number): number => (place === 'openShelf' ? days * SHELF_SHARE : days);
  const share = (days: number): number => 1 - Math.exp(-days / USUAL_TIME_CONSTANT_DAYS);
  const deltaE00 =
    kind === 'wash'
      ? read
      : curve && place
        ? fadedAfter({ ...curve, place }, FASTNESS_WINDOW_DAYS, 'window')
        : (read * share(FASTNESS_WINDOW_DAYS)) / share(inLight(last.days));
  // What lies far beyond the days that were watched is as much less sure.
  const beyond = kind === 'wash' ? 0 : Math.abs(Math.log(FASTNESS_WINDOW_DAYS / Math.max(1, inLight(last.days)))) / 4;
  return {
    log: Math.log(Math.max(LEAST_DELTA_E, deltaE00)),
    sd: Math.hypot(SPREAD.card, byEye ? SPREAD.byEye : 0, beyond),
  };
}

/**
 * What cards say of how fast dyestuffs are: ln ΔE00 as a sum of a middle, the dyestuff, what it lies over, and the fibre,
 * each with a normal prior, so that a dyestuff tried over one mordant is foretold over another, less surely (partial
 * pooling, in closed form).
 */
export function learnFastness(all: readonly FastnessCard[], kind: FastnessKind): FastnessLearnt {
  const cards = all.flatMap((card) => {
    const came = card.kind === kind && card.dyestuffs.length > 0 ? cameTo(card) : undefined;
    return came ? [{ card, ...came }] : [];
  });
  const keys = new Map<string, number>([['middle', SPREAD.middle]]);
  const termsOf = ({ fibre, dyestuffs, mordants }: Dyed): [string, number, number][] => [
    ['middle', 1, SPREAD.middle],
    ...dyestuffs.map((d): [string, number, number] => [d, 1 / dyestuffs.length, SPREAD.dyestuff]),
    [overOf(mordants), 1, SPREAD.over],
    [$localize`on ${said(fibre)}`, 1, SPREAD.fibre],
  ];
  for (const { card } of cards) for (const [key, , sd] of termsOf(card)) keys.set(key, sd);
  const places = new Map([...keys.keys()].map((key, i) => [key, i]));
  const n = keys.size;
  const cells = new Float64Array(n * n);
  const pull = new Float64Array(n);
  [...keys.values()].forEach((sd, i) => (cells[i * n + i] = 1 / sd ** 2));
  for (const { card, log, sd } of cards) {
    const terms = termsOf(card).map(([key, by]) => [places.get(key) ?? 0, by] as const);
    for (const [i, by] of terms) {
      pull[i] = (pull[i] ?? 0) + (by * (log - MIDDLE[kind])) / sd ** 2;
      for (const [j, other] of terms) cells[i * n + j] = (cells[i * n + j] ?? 0) + (by * other) / sd ** 2;
    }
  }
  const low = factorise({ n, cells });
  const [mean, covariance] = [solveFactorised(low, pull), invertFactorised(low).cells];

  const alone = (dyestuff: string, dyed: Dyed): FastnessForetold | null => {
    const own = cards.filter(({ card }) => card.dyestuffs.includes(dyestuff)).length;
    if (own === 0) return null;
    let [log, variance] = [MIDDLE[kind], SPREAD.card ** 2];
    const terms = termsOf({ ...dyed, dyestuffs: [dyestuff] });
    for (const [key, , sd] of terms) {
      const i = places.get(key);
      if (i === undefined) variance += sd ** 2;
      else {
        log += mean[i] ?? 0;
        for (const [other] of terms) {
          const j = places.get(other);
          if (j !== undefined) variance += covariance[i * n + j] ?? 0;
        }
      }
    }
    const far = Z_80 * Math.sqrt(variance);
    return {
      deltaE00: Math.exp(log),
      fromDeltaE00: Math.exp(log - far),
      toDeltaE00: Math.exp(log + far),
      cards: own,
    };
  };
  return {
    foretell: (dyed) => {
      const each = dyed.dyestuffs.map((d) => alone(d, dyed));
      return each.reduce<FastnessForetold | null>(
        (worst, f) => (f && worst && f.deltaE00 < worst.deltaE00 ? worst : f && worst ? f : null),
        each[0] ?? null,
      );
    },
  };
}
