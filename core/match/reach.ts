import { ciede2000 } from '../colour/ciede2000';
import { ksOfReflectance, reflectanceOfKs } from '../colour/kubelka-munk';
import type { Lab } from '../colour/lab';
import { differenceMetric } from './difference-metric';
import type { Dyeing, KnownStrength, MatchDose } from './dyeing';
import type { TooFew } from './enough-read';
import { tooFewRead } from './enough-read';
import { forward, shadeFor } from './forward';
import type { ShelfMaterial } from './levers';
import { referenceOf } from './lot-dyeing';
import type { Observation, Posterior } from './posterior';
import { learntOf } from './learnt';
import type { DyedBefore, WayDyed } from './dyed-before';
import { dyedBefore } from './dyed-before';
import { expectedDifference, predict } from './predict';
import { turnLevers } from './turn-levers';

/** What a shade is to be dyed on, and in: a dyeing without anything in it. */
export type Ground = Pick<Dyeing, 'fibre' | 'baseId' | 'baseLotId' | 'undyed' | 'water' | 'metal'>;

/** A shade that somebody brings, and what there is to reach it with. */
export interface ReachAsk {
  readonly readings: readonly Observation[];
  readonly strengths: readonly KnownStrength[];
  readonly ground: Ground;
  readonly standard: Lab;
  readonly shelf: readonly ShelfMaterial[];
  /** Only with what stands on the shelf, or is in season now and so can be gathered. */
  readonly onlyFromShelf: boolean;
  /** Materials that are in season. */
  readonly inSeason?: readonly string[];
  /** The most of any dyestuff, %; `null`: one and a half times what was ever dosed of it here. */
  readonly mostPercent: number | null;
}

/** One dyestuff’s part in reaching a shade. */
export interface ReachedWith {
  readonly materialId: string;
  /** `null`: none stands on the shelf; what is said is of its reference. */
  readonly stockLotId: string | null;
  readonly percentOwf: number;
  /** As much as may go in: more of it was wanted. */
  readonly isAtMost: boolean;
  readonly readings: number;
  readonly onFibre: number;
}

/** One way to reach a shade: with one dyestuff or two in a bath. */
export interface Reached {
  readonly dyestuffs: readonly ReachedWith[];
  readonly mordants: readonly Pick<MatchDose, 'materialId' | 'percentOwf'>[];
  readonly dyeing: Dyeing;
  readonly lab: Lab;
  readonly deltaE00: number;
  readonly within80: number;
  /** To be expected with everything that is unsure, ΔE00. */
  readonly expectedDeltaE: number;
}

/** What reaches a shade, nearest first. */
export type ReachAnswer =
  | TooFew
  | {
      readonly state: 'told';
      /** Each dyestuff by itself, at the dose that comes nearest. */
      readonly singles: readonly Reached[];
      readonly pairs: readonly Reached[];
    };

const EVEN = { kL: 1, kC: 1, kH: 1 };
/** Where build-up curves are looked at, as shares of the most that may go in. */
const LEVELS = [0, 0.02, 0.05, 0.1, 0.18, 0.3, 0.45, 0.65, 0.85, 1];
/** Further than the record went nobody knows what more of it does. */
const BEYOND_RECORD = 1.5;
const WAYS_EACH = 2;
const PAIRS_REFINED = 14;
const PAIRS_TOLD = 6;
/** A dyestuff that makes up less than this of its usual dose is no part of a pair. */
const LEAST_SHARE = 0.01;
/** A dyestuff held back by its dose, so that of two ways alike the one with less dye is taken; in shares of the most. */
const HOLD = 3;

interface Curve {
  readonly dyestuff: DyedBefore;
  readonly way: WayDyed;
  readonly stockLotId: string;
  readonly isOnShelf: boolean;
  readonly ageYears: number;
  readonly most: number;
  /** What each level adds to K/S, band by band. */
  readonly adds: readonly Float64Array[];
}

/** The same ranking for whoever has learnt already. */
export function reachWith(posterior: Posterior, ask: ReachAsk): Extract<ReachAnswer, { state: 'told' }> {
  const curves = curvesOf(posterior, ask);
  const singles = curves
    .map((curve) => refined(posterior, ask, [curve], [bestLevel(posterior, ask, curve)]))
    .sort((x, y) => x.expectedDeltaE - y.expectedDeltaE);
  // Of the ways of one dyestuff the nearest speaks.
  const nearest = singles.filter(
    (s, i) => singles.findIndex((o) => o.dyestuffs[0]?.materialId === s.dyestuffs[0]?.materialId) === i,
  );
  const ranked = rankPairs(posterior, ask, curves).slice(0, PAIRS_REFINED);
  const pairs = ranked
    .map(({ of, levels }) => refined(posterior, ask, of, levels))
    .filter((r) => r.dyestuffs.length === 2)
    .sort((x, y) => x.expectedDeltaE - y.expectedDeltaE);
  return { state: 'told', singles: nearest, pairs: pairs.slice(0, PAIRS_TOLD) };
}

/**
 * Which of the studio’s dyestuffs reach a shade on a base, alone or two in a bath, at which dose: in the ways they were
 * dyed here before, since of others nobody knows. What was never dyed and read is not among them.
 */
export function reachShade(ask: ReachAsk): ReachAnswer {
  const tooFew = tooFewRead(ask.readings);
  if (tooFew) return tooFew;
  return reachWith(learntOf(ask.readings, ask.strengths), ask);
}

function curvesOf(posterior: Posterior, ask: ReachAsk): Curve[] {
  const { space } = posterior;
  const bare = space.reflectances(ask.ground.undyed).map(ksOfReflectance);
  return dyedBefore(ask.readings, ask.ground.fibre).flatMap((dyestuff) => {
    const jar = ask.shelf.find((m) => m.materialId === dyestuff.materialId)?.jars.at(-1);
    if (!jar && ask.onlyFromShelf && !ask.inSeason?.includes(dyestuff.materialId)) return [];
    return dyestuff.ways.slice(0, WAYS_EACH).map((way): Curve => {
      const curve: Curve = {
        dyestuff,
        way,
        stockLotId: jar?.stockLotId ?? referenceOf(dyestuff.materialId),
        isOnShelf: jar !== undefined,
        ageYears: jar?.ageYears ?? 0,
        most: ask.mostPercent ?? BEYOND_RECORD * dyestuff.mostPercent,
        adds: [],
      };
      const adds = LEVELS.map((level) => {
        if (level === 0) return new Float64Array(bare.length);
        const { ks } = forward(posterior, dyeingOf(ask, [curve], [level]), null, false);
        return ks.map((k, c) => k - (bare[c] ?? 0));
      });
      return { ...curve, adds };
    });
  });
}

/** A dyeing of one or two dyestuffs at shares of the most that may go in. */
function dyeingOf({ ground, shelf }: ReachAsk, of: readonly Curve[], levels: readonly number[]): Dyeing {
  const [first] = of;
  const mordants = (first?.way.mordants ?? []).map(({ materialId, percentOwf }): MatchDose => {
    const jar = shelf.find((m) => m.materialId === materialId)?.jars.at(-1);
    return {
      stage: 'mordant',
      role: 'mordant',
      materialId,
      percentOwf,
      stockLotId: jar?.stockLotId ?? referenceOf(materialId),
      ageYears: jar?.ageYears ?? 0,
    };
  });
  const dyes = of.map(({ dyestuff, stockLotId, ageYears, most }, i): MatchDose => ({
    stage: 'dye',
    role: 'dyestuff',
    materialId: dyestuff.materialId,
    stockLotId,
    ageYears,
    percentOwf: (levels[i] ?? 0) * most,
  }));
  return {
    ...ground,
    colourwayId: null,
    purpose: 'lot',
    doses: [...mordants, ...dyes],
    courses: first?.way.courses ?? [],
    liquorRatio: first?.way.liquorRatio ?? 20,
    dip: 1,
  };
}

/** Squared distance of a shade from the standard, in a metric that is ΔE00 about it. */
function distanceTo(standard: Lab): (lab: Lab) => number {
  const metric = differenceMetric(standard);
  return (lab) => {
    const d = [lab.L - standard.L, lab.a - standard.a, lab.b - standard.b];
    return metric.reduce((sum, m) => sum + m.reduce((s, w, i) => s + w * (d[i] ?? 0), 0) ** 2, 0);
  };
}

function bestLevel({ space }: Posterior, { ground, standard }: ReachAsk, { adds }: Curve): number {
  const bare = space.reflectances(ground.undyed).map(ksOfReflectance);
  const far = distanceTo(standard);
  const offs = adds.map((a) =>
    far(space.lab(space.see(bare.map((k, c) => reflectanceOfKs(Math.max(0, k + (a[c] ?? 0))))).values)),
  );
  return LEVELS[offs.indexOf(Math.min(...offs))] ?? 0;
}

interface Pair {
  readonly of: readonly [Curve, Curve];
  readonly levels: readonly [number, number];
  readonly off: number;
}

/** Every two that share their mordants, at the levels that come nearest by adding up what each adds. */
function rankPairs({ space }: Posterior, { ground, standard }: ReachAsk, curves: readonly Curve[]): Pair[] {
  const bare = space.reflectances(ground.undyed).map(ksOfReflectance);
  const far = distanceTo(standard);
  const pairs: Pair[] = [];
  curves.forEach((one, i) => {
    for (const two of curves.slice(i + 1)) {
      if (one.way.key !== two.way.key || one.dyestuff === two.dyestuff) continue;
      let best: Pair | undefined;
      one.adds.forEach((a, p) => {
        if (p === 0) return;
        two.adds.forEach((b, q) => {
          if (q === 0) return;
          const mixed = bare.map((k, c) => reflectanceOfKs(Math.max(0, k + (a[c] ?? 0) + (b[c] ?? 0))));
          const off = far(space.lab(space.see(mixed).values));
          if (!best || off < best.off) best = { of: [one, two], levels: [LEVELS[p] ?? 0, LEVELS[q] ?? 0], off };
        });
      });
      if (best) pairs.push(best);
    }
  });
  return pairs.sort((x, y) => x.off - y.off);
}

/** The doses themselves, from where the first look came nearest. */
function refined(posterior: Posterior, ask: ReachAsk, of: readonly Curve[], start: readonly number[]): Reached {
  const at = turnLevers({
    standard: ask.standard,
    from: start,
    low: of.map(() => 0),
    high: of.map(() => 1),
    penalties: of.map((_, i) => ({ weights: of.map((__, k) => (k === i ? 1 : 0)), wanted: 0, sd: HOLD })),
    shade: (levels) => shadeFor(posterior, dyeingOf(ask, of, levels)),
  });
  const kept = of.flatMap((curve, i) => {
    const level = at[i] ?? 0;
    const isPart = of.length === 1 || level * curve.most >= LEAST_SHARE * curve.dyestuff.usualPercent;
    return isPart ? [{ curve, level }] : [];
  });
  const dyeing = dyeingOf(
    ask,
    kept.map((k) => k.curve),
    kept.map((k) => k.level),
  );
  const { lab, covariance, within80 } = predict(posterior, dyeing);
  return {
    dyestuffs: kept.map(({ curve, level }) => ({
      materialId: curve.dyestuff.materialId,
      stockLotId: curve.isOnShelf ? curve.stockLotId : null,
      percentOwf: level * curve.most,
      isAtMost: level > 0.99,
      readings: curve.dyestuff.readings,
      onFibre: curve.dyestuff.onFibre,
    })),
    mordants: of[0]?.way.mordants ?? [],
    dyeing,
    lab,
    within80,
    deltaE00: ciede2000(ask.standard, lab, EVEN).deltaE,
    expectedDeltaE: expectedDifference(ask.standard, lab, covariance),
  };
}
