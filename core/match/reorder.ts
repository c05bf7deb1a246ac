import { ciede2000 } from '../colour/ciede2000';
import type { DeltaEFormula } from '../colour/delta-e';
import type { Lab } from '../colour/lab';
import type { Correction } from './correct';
import { correct, wayToStrikeOff } from './correct';
import { costOfDoses } from './dose-cost';
import type { Dyeing, KnownStrength, MatchDose } from './dyeing';
import type { TooFew } from './enough-read';
import { dyedAndRead, tooFewRead } from './enough-read';
import type { ShelfMaterial } from './levers';
import { outOfReference } from './lot-dyeing';
import type { Observation, Posterior } from './posterior';
import { learntOf } from './learnt';
import type { Effect } from './predict';
import { effectBetween } from './predict';
import { isStrikeOffWorth } from './strike-off-worth';
import type { BaseLot, CorrectWithin } from './turnable';
import type { WorkedShade } from './work-out';
import { workOutShade } from './work-out';

/** What is asked: a lot as it is planned now, beside the shade that is wanted and the lot that it repeats. */
export interface ReorderAsk {
  readonly readings: readonly Observation[];
  readonly strengths: readonly KnownStrength[];
  readonly plan: Dyeing;
  /** The same as the recipe means it, at the reference’s strength: without what the plan was corrected by already. */
  readonly recipe: Dyeing;
  /** As the lot that is dyed again really was. */
  readonly then: Dyeing | null;
  readonly standard: Lab;
  readonly toleranceDeltaE: number;
  readonly shelf: readonly ShelfMaterial[];
  readonly waters: readonly Dyeing['water'][];
  /** Lots of the base that hold enough for it. */
  readonly baseLots?: readonly BaseLot[];
  /** In how many dips it is dyed; 1: it stays in. */
  readonly dips?: number;
  /** The most that each jar holds, % of the fibre; no bound where a jar isn’t named. */
  readonly mostPercent?: ReadonlyMap<string, number>;
  /** Taken as they are: counted packets, a vat that stands there. */
  readonly fixed?: readonly string[];
  /** What the colourway is judged by; CIEDE2000 where nothing is said. */
  readonly formula?: DeltaEFormula;
  /** What a gram of each jar costs, minor units of money. */
  readonly costMinorPerG?: ReadonlyMap<string, number | null>;
  /** How far a correction may go; all the way where nothing is said. */
  readonly bounds?: ReorderBounds;
}

/** What whoever dyes it holds a correction to. */
export interface ReorderBounds {
  /** Only the jars, materials and lot of the base that are planned. */
  readonly onlyPlannedJars: boolean;
  readonly onlyPlannedWater: boolean;
  /** Of no material more than is planned. */
  readonly noMoreThanPlanned: boolean;
  /** Of no material more than so many times what is planned, 1 and more; `null`: twice. */
  readonly mostShare?: number | null;
  /** What it costs, where that is known, is no more than as planned. */
  readonly noDearer: boolean;
}

/** What of a lot is otherwise than it was, as the match tells them apart. */
export type ReorderFactor =
  | { readonly of: 'material'; readonly materialId: string }
  | { readonly of: 'water' | 'pot' | 'bath' | 'base' | 'time' };

/** One thing that is otherwise now, and what it does to the shade. */
export interface FactorEffect {
  readonly factor: ReorderFactor;
  readonly effect: Effect;
}

/** How much of a material goes in, beside the plan; out of which jar where that is another. */
export interface LeverTurned {
  readonly materialId: string;
  readonly stockLotId: string;
  readonly percentOwf: number;
  /** Against what is planned of the material in all; `null`: it is not in the recipe. */
  readonly share: number | null;
  readonly isOtherJar: boolean;
}

/** One way to dye it, as it is told. */
export interface ReorderWay {
  readonly how: Correction['how'];
  /** It goes out from a strike-off that was read, not from the plan. */
  readonly isStruckOff: boolean;
  readonly lab: Lab;
  readonly deltaE00: number;
  readonly within80: number;
  readonly expectedDeltaE: number;
  readonly turned: readonly LeverTurned[];
  /** How the shade comes about. */
  readonly worked: WorkedShade;
  /** All that goes in, so that it can be costed. */
  readonly doses: readonly MatchDose[];
  /** How long and how hot. */
  readonly courses: Dyeing['courses'];
  readonly waterId: string | null;
  /** Another lot of the base than is planned. */
  readonly baseLotId: string | null;
  /** So many dips more than are planned; fewer below 0. */
  readonly dipsMore: number;
  /** The stay in the dye bath against what is planned; 1: as planned. */
  readonly timeShare: number;
}

/** What earlier lots say of a lot to come; or how many more would let them. */
export type ReorderAnswer =
  | TooFew
  | {
      readonly state: 'told';
      /** Readings it stands on: of this colourway, and in all. */
      readonly ofColourway: number;
      readonly readings: number;
      readonly unchanged: ReorderWay;
      /** Ways that promise to come clearly nearer, best first; at most three that differ in kind. */
      readonly ways: readonly ReorderWay[];
      /** Largest effect first. */
      readonly factors: readonly FactorEffect[];
      /** What a strike-off is best dyed of, where one is worth its while. */
      readonly strikeOff: StrikeOffWorth | null;
    };

/** A strike-off that is worth its while, and what the lot is likely to be off without and after one. */
export interface StrikeOffWorth {
  readonly way: ReorderWay;
  readonly withoutDeltaE: number;
  readonly afterDeltaE: number;
  /** What both are told by. */
  readonly formula: DeltaEFormula;
}

const EVEN = { kL: 1, kC: 1, kH: 1 };
const MOST_WAYS = 3;
/** What is gained by less than this no eye sees: the recipe is left alone, ΔE00. */
const WORTH_THE_TROUBLE = 0.2;
const HARDLY = 0.05;
/** Foretold so near, and to be expected so near with everything that is unsure, nobody changes anything, ΔE00. */
const AS_IT_IS_DELTA_E = { foretold: 0.5, expected: 1 } as const;
/** So far off, a lot isn’t the colourway’s with another jar, but dyed with something else: nothing is corrected, ΔE00. */
export const NOTHING_LIKE_DELTA_E = 10;

/** One day’s jars, water and fibre: what is struck off and dyed with them shares its luck. */
const dayOf = (d: Dyeing): string =>
  [d.colourwayId, d.water.id, d.baseLotId, ...d.doses.map((x) => x.stockLotId).sort()].join('|');

/**
 * What earlier lots say of a lot to come: the shade it will give as it is planned, what of then and now does how much,
 * and what to change so that it comes nearer. The same record gives the same answer.
 */
export function answerReorder(ask: ReorderAsk): ReorderAnswer {
  const tooFew = tooFewRead(ask.readings);
  if (tooFew) return tooFew;
  const read = dyedAndRead(ask.readings);
  const { plan, standard } = ask;
  const day = dayOf(plan);
  const own: Observation = {
    id: 'the recipe',
    dyeing: outOfReference(ask.recipe),
    colour: { lab: standard, spectrum: null },
    day: null,
    isMaster: true,
  };
  const known = ask.readings.some((r) => r.isMaster && r.dyeing.colourwayId === plan.colourwayId);
  const struckOff = struckOffLike(ask);
  const days = [day, ...(struckOff ? [dayOf(struckOff)] : [])];
  const readings = [...(known ? [] : [own]), ...ask.readings].map((r) =>
    r.isMaster || !days.includes(dayOf(r.dyeing)) ? r : { ...r, day: dayOf(r.dyeing) },
  );
  const posterior = learntOf(readings, ask.strengths);
  const { fixed = [], formula = 'de00', costMinorPerG = new Map(), baseLots = [], dips = 1 } = ask;
  const {
    onlyPlannedJars = false,
    onlyPlannedWater = false,
    noMoreThanPlanned = false,
    noDearer = false,
    mostShare = null,
  } = ask.bounds ?? {};
  const within: CorrectWithin = {
    shelf: onlyPlannedJars ? [] : ask.shelf,
    waters: onlyPlannedWater ? [] : ask.waters,
    baseLots: onlyPlannedJars ? [] : baseLots,
    dips,
    fixed,
    formula,
    ...(ask.mostPercent ? { mostPercent: ask.mostPercent } : {}),
    ...(noMoreThanPlanned ? { mostShare: 1 } : mostShare === null ? {} : { mostShare: Math.max(1, mostShare) }),
  };
  const all = correct(posterior, plan, standard, { ...within, day });
  const unchanged = all.find((w) => w.how === 'unchanged');
  const [best] = all;
  if (!unchanged || !best) throw new RangeError('the recipe unchanged is always among the ways');
  const after = struckOff
    ? correct(posterior, struckOff, standard, { ...within, day: dayOf(struckOff), isStruckOff: true })
    : [];
  const tell = (way: Correction): ReorderWay => {
    const worked = workOutShade(posterior, way.dyeing, way.prediction.lab, read);
    return told(worked, ask, way, after.includes(way));
  };
  const costOf = (doses: readonly MatchDose[]): number => costOfDoses(doses, WHOLE_G, costMinorPerG).minor;
  const isHeld = ({ turned, waterId, doses }: ReorderWay): boolean =>
    !(noDearer && costOf(doses) > costOf(plan.doses) * (1 + HARDLY)) &&
    !(noMoreThanPlanned && turned.some((t) => t.share === null || t.share > 1 + HARDLY)) &&
    !(onlyPlannedJars && turned.some((t) => t.share === null || t.isOtherJar)) &&
    !(onlyPlannedWater && waterId !== null);
  const asPlanned = tell(unchanged);
  const isNear = asPlanned.deltaE00 < AS_IT_IS_DELTA_E.foretold && asPlanned.expectedDeltaE < AS_IT_IS_DELTA_E.expected;
  const isLeftAlone = isNear || asPlanned.deltaE00 > NOTHING_LIKE_DELTA_E;
  // What goes out from a strike-off comes first where it promises no less: it was seen.
  const candidates = [...after, ...all.slice(0, all.indexOf(unchanged))].sort(
    (x, y) => x.expectedDeltaE - y.expectedDeltaE + (after.includes(y) ? SEEN : 0) - (after.includes(x) ? SEEN : 0),
  );
  const ways: ReorderWay[] = [];
  for (const way of isLeftAlone ? [] : struckOff ? candidates : all.slice(0, all.indexOf(unchanged))) {
    if (ways.length >= MOST_WAYS) break;
    if (unchanged.expectedDeltaE - way.expectedDeltaE < WORTH_THE_TROUBLE) continue;
    const said = tell(way);
    if (isHeld(said) && ways.every((w) => !isSameWay(w, said))) ways.push(said);
  }
  const toStrikeOff = wayToStrikeOff(all);
  const nearest = Math.min(best.expectedDeltaE, ...after.map((w) => w.expectedDeltaE));
  const isWorth =
    asPlanned.deltaE00 <= NOTHING_LIKE_DELTA_E &&
    toStrikeOff !== undefined &&
    isStrikeOffWorth({ expectedDeltaE: nearest }, toStrikeOff, ask.toleranceDeltaE);
  const way = isWorth ? tell(toStrikeOff) : undefined;
  return {
    state: 'told',
    ofColourway: read.filter((r) => r.dyeing.colourwayId === plan.colourwayId).length,
    readings: read.length,
    unchanged: asPlanned,
    ways,
    factors: ask.then ? factorEffects(posterior, ask.then, plan) : [],
    strikeOff:
      way && toStrikeOff && isHeld(way)
        ? { way, withoutDeltaE: nearest, afterDeltaE: toStrikeOff.afterStrikeOffDeltaE, formula }
        : null,
  };
}

/** So much fibre, to compare costs by, g. */
const WHOLE_G = 1000;
/** A strike-off that was seen is worth so much, ΔE00. */
const SEEN = 0.1;
/** A bath that differs by less in how long it was is the planned one. */
const AS_LONG = 0.05;

/**
 * The last strike-off of what is planned, as the lot would be dyed that repeats it; `undefined` where there is none of this
 * colourway on this lot of the base, or its jars aren’t there any more.
 */
function struckOffLike({ readings, plan, shelf }: ReorderAsk): Dyeing | undefined {
  const jars = new Set([
    ...plan.doses.map((d) => d.stockLotId),
    ...shelf.flatMap((m) => m.jars.map((j) => j.stockLotId)),
  ]);
  const last = [...readings]
    .reverse()
    .find(
      ({ dyeing: d }) =>
        d.purpose === 'strikeOff' &&
        d.colourwayId === plan.colourwayId &&
        d.baseLotId === plan.baseLotId &&
        d.doses.every((x) => jars.has(x.stockLotId)),
    );
  if (!last) return undefined;
  const { dyeing: d } = last;
  const isAsLong = Math.abs(minutesOf(d) / Math.max(1, minutesOf(plan)) - 1) < AS_LONG;
  return {
    ...d,
    purpose: 'lot',
    metal: plan.metal,
    liquorRatio: plan.liquorRatio,
    courses: isAsLong ? plan.courses : d.courses,
  };
}

/** So much of a material may come out of another jar, and it is the same way still. */
const SAME_JAR = 0.25;
/** What is turned by hardly more or less is the same way, out of nearly the same jars. */
function isSameWay(x: ReorderWay, y: ReorderWay): boolean {
  const out = (w: ReorderWay, d: MatchDose): number =>
    w.doses.find((o) => o.stockLotId === d.stockLotId && o.stage === d.stage)?.percentOwf ?? 0;
  return (
    x.waterId === y.waterId &&
    x.baseLotId === y.baseLotId &&
    Math.abs(x.timeShare - y.timeShare) < HARDLY &&
    [...x.doses, ...y.doses].every((d) => {
      const [inX, inY] = [amountOf(x, d.materialId), amountOf(y, d.materialId)];
      const most = Math.max(inX, inY);
      return Math.abs(inX - inY) < HARDLY * most && Math.abs(out(x, d) - out(y, d)) < SAME_JAR * most;
    })
  );
}

const amountOf = (d: Pick<Dyeing, 'doses'>, materialId: string): number =>
  d.doses.filter((x) => x.materialId === materialId).reduce((sum, x) => sum + x.percentOwf, 0);

const minutesOf = (d: Dyeing): number => d.courses.find((c) => c.stage === 'dye')?.points.at(-1)?.minute ?? 0;

function told(
  worked: WorkedShade,
  { plan, standard, dips = 1 }: ReorderAsk,
  { how, dyeing, prediction, expectedDeltaE }: Correction,
  isStruckOff: boolean,
): ReorderWay {
  const { lab, within80 } = prediction;
  const timeShare = minutesOf(plan) > 0 ? minutesOf(dyeing) / minutesOf(plan) : 1;
  const same = (d: MatchDose): boolean =>
    plan.doses.some(
      (p) =>
        p.stockLotId === d.stockLotId && p.stage === d.stage && Math.abs(p.percentOwf / d.percentOwf - 1) < LEAST_TURN,
    );
  return {
    how,
    isStruckOff,
    lab,
    within80,
    expectedDeltaE,
    deltaE00: ciede2000(standard, lab, EVEN).deltaE,
    doses: dyeing.doses,
    courses: dyeing.courses,
    worked,
    turned: dyeing.doses
      .filter((d) => !same(d))
      .map((d) => {
        const planned = amountOf(plan, d.materialId);
        return {
          materialId: d.materialId,
          stockLotId: d.stockLotId,
          percentOwf: d.percentOwf,
          share: planned > 0 ? amountOf(dyeing, d.materialId) / planned : null,
          isOtherJar: plan.doses.every((p) => p.stockLotId !== d.stockLotId),
        };
      }),
    waterId: dyeing.water.id === plan.water.id ? null : dyeing.water.id,
    baseLotId: dyeing.baseLotId === plan.baseLotId ? null : dyeing.baseLotId,
    dipsMore: dips > 1 ? Math.round((timeShare - 1) * dips) : 0,
    timeShare,
  };
}

/** A dose changed by less than this is not changed: no balance and no hand tells. */
const LEAST_TURN = 0.015;

/** What each thing that is otherwise now does, largest first: the lot as planned, beside itself with that as it was. */
function factorEffects(posterior: Posterior, then: Dyeing, now: Dyeing): FactorEffect[] {
  const materials = [...new Set([...then.doses, ...now.doses].map((d) => d.materialId))];
  const keyOf = (d: Dyeing, id: string): string =>
    d.doses
      .filter((x) => x.materialId === id)
      .map((x) => `${x.stockLotId} ${x.percentOwf.toFixed(2)}`)
      .sort()
      .join();
  const swapped: [ReorderFactor, Dyeing | undefined][] = [
    ...materials.map((materialId): [ReorderFactor, Dyeing | undefined] => [
      { of: 'material', materialId },
      keyOf(then, materialId) === keyOf(now, materialId)
        ? undefined
        : {
            ...now,
            doses: [
              ...now.doses.filter((d) => d.materialId !== materialId),
              ...then.doses.filter((d) => d.materialId === materialId),
            ],
          },
    ]),
    [{ of: 'water' }, then.water.id === now.water.id ? undefined : { ...now, water: then.water }],
    [{ of: 'pot' }, then.metal === now.metal ? undefined : { ...now, metal: then.metal }],
    [{ of: 'bath' }, then.liquorRatio === now.liquorRatio ? undefined : { ...now, liquorRatio: then.liquorRatio }],
    [
      { of: 'base' },
      then.baseLotId === now.baseLotId ? undefined : { ...now, baseLotId: then.baseLotId, undyed: then.undyed },
    ],
    [
      { of: 'time' },
      JSON.stringify(then.courses) === JSON.stringify(now.courses) ? undefined : { ...now, courses: then.courses },
    ],
  ];
  return swapped
    .flatMap(([factor, before]) => (before ? [{ factor, effect: effectBetween(posterior, before, now) }] : []))
    .sort((x, y) => y.effect.deltaE00 - x.effect.deltaE00);
}
