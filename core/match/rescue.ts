import { ciede2000 } from '../colour/ciede2000';
import type { Lab } from '../colour/lab';
import type { Dyeing, KnownStrength, MatchDose } from './dyeing';
import type { TooFew } from './enough-read';
import { tooFewRead } from './enough-read';
import { forward, shadeFor } from './forward';
import type { Lever, ShelfMaterial } from './levers';
import { addedLever, ownLevers, pulled } from './levers';
import type { Symmetric } from './linear-algebra';
import type { Observation, Posterior } from './posterior';
import { learntOf } from './learnt';
import { scatterOf } from './posterior';
import { expectedDifference, inLab, learntVariance, predict, radius80, slopesBetween } from './predict';
import type { Penalty } from './turn-levers';
import { turnLevers } from './turn-levers';

/** A shade that a lot could be sold as. */
export interface OtherStandard {
  readonly id: string;
  readonly lab: Lab;
  readonly toleranceDeltaE: number;
}

/** A lot that missed: how it was dyed, what was read, what was wanted. */
export interface RescueAsk {
  readonly readings: readonly Observation[];
  readonly strengths: readonly KnownStrength[];
  readonly dyeing: Dyeing;
  /** In how many dips it was dyed; 1: it stayed in. */
  readonly dips?: number;
  readonly read: Lab;
  readonly standard: Lab;
  readonly shelf: readonly ShelfMaterial[];
  readonly others: readonly OtherStandard[];
}

/** What goes in on top of what is on the fibre. */
export type AddedDose = Pick<MatchDose, 'stage' | 'materialId' | 'stockLotId' | 'percentOwf'>;

/** One way to bring it nearer; nothing is ever taken off the fibre. */
export interface RescueWay {
  readonly how: 'moreDye' | 'longer' | 'overdye' | 'modifier';
  readonly added: readonly AddedDose[];
  /** How much longer in the dye, min. */
  readonly longerMin: number;
  /** The same as whole dips, where it was dyed in dips. */
  readonly dipsMore: number;
  readonly lab: Lab;
  readonly deltaE00: number;
  readonly within80: number;
  /** To be expected with everything that is unsure, ΔE00. */
  readonly expectedDeltaE: number;
}

/** What can be done about a lot that missed. */
export type RescueAnswer =
  | TooFew
  | {
      readonly state: 'told';
      readonly missedBy: number;
      /** It came out deeper than wanted: whatever is added only makes it deeper. */
      readonly isDeeper: boolean;
      /** Clearly nearer than it lies now, best first, each of another kind. */
      readonly ways: readonly RescueWay[];
      /** Colourways within whose tolerance it lies, nearest first; else the nearest one. */
      readonly soldAs: readonly { readonly id: string; readonly deltaE00: number; readonly isWithin: boolean }[];
    };

const EVEN = { kL: 1, kC: 1, kH: 1 };
/** A way has to bring it nearer by this share at least. */
const CLEARLY = 0.15;
const MOST_WAYS = 3;
const MOST_SOLD_AS = 3;
const MOST_MORE = 2;
/** As much as is usual of it, and no more: what goes on top of a dyed shade was hardly ever tried. */
const MOST_ADDED = 1;
/** The stay in the dye may be made up to half as long again, ln. */
const LONGEST = 0.4;
const HOLD = 1.5;
const TRIED_IN_PAIRS = 3;
/** Less than this of the usual dose is a hair on the balance. */
const LEAST_ADDED = 0.01;
const LEAST_LONGER_MIN = 2;

/** What can still be done about a lot that missed, by what was learnt of every other. */
export function rescueLot(ask: RescueAsk): RescueAnswer {
  const tooFew = tooFewRead(ask.readings);
  if (tooFew) return tooFew;
  return rescueWith(learntOf(ask.readings, ask.strengths), ask);
}

/** The same for whoever has learnt already. */
export function rescueWith(posterior: Posterior, ask: RescueAsk): Extract<RescueAnswer, { state: 'told' }> {
  const { read, standard } = ask;
  const missedBy = ciede2000(standard, read, EVEN).deltaE;
  const found = [...onTop(posterior, ask), ...overdyed(posterior, ask)]
    .filter((w) => w.expectedDeltaE < (1 - CLEARLY) * missedBy)
    .sort((x, y) => x.expectedDeltaE - y.expectedDeltaE);
  const ways = found.filter((w, i) => found.findIndex((o) => kindOf(o) === kindOf(w)) === i).slice(0, MOST_WAYS);
  const near = ask.others
    .map(({ id, lab, toleranceDeltaE }) => {
      const { deltaE } = ciede2000(lab, read, EVEN);
      return { id, deltaE00: deltaE, isWithin: deltaE <= toleranceDeltaE };
    })
    .sort((x, y) => x.deltaE00 - y.deltaE00);
  const within = near.filter((n) => n.isWithin).slice(0, MOST_SOLD_AS);
  return {
    state: 'told',
    missedBy,
    isDeeper: isDeeper(posterior, ask),
    ways,
    soldAs: within.length > 0 ? within : near.slice(0, 1),
  };
}

/** Ways of one kind with the same materials are one way. */
const kindOf = (w: RescueWay): string =>
  `${w.how} ${w.added
    .map((a) => a.materialId)
    .sort()
    .join('+')}`;

/** Whether there is more on the fibre than wanted in every band: then nothing that is added can help. */
function isDeeper({ space }: Posterior, { read, standard }: RescueAsk): boolean {
  const wanted = space.reflectances({ lab: standard, spectrum: null });
  return space.reflectances({ lab: read, spectrum: null }).every((r, c) => r < (wanted[c] ?? 0) + 1e-3);
}

const hold = (count: number, wanted: (i: number) => number): Penalty[] =>
  Array.from({ length: count }, (_, i) => ({
    weights: Array.from({ length: count }, (__, k) => (k === i ? 1 : 0)),
    wanted: wanted(i),
    sd: HOLD,
  }));

/**
 * More of the recipe’s own dyestuffs, a longer stay, or a modifier after: what the model says this changes, laid on what
 * was read.
 */
function onTop(posterior: Posterior, ask: RescueAsk): RescueWay[] {
  const { dyeing, dips = 1, read, standard, shelf } = ask;
  const was = shadeFor(posterior, dyeing);
  const laidOn = (lab: Lab): Lab => ({
    L: Math.min(100, Math.max(0, read.L + lab.L - was.L)),
    a: read.a + lab.a - was.a,
    b: read.b + lab.b - was.b,
  });
  const tried = (how: RescueWay['how'], levers: readonly Lever[]): RescueWay | undefined => {
    if (levers.length === 0) return undefined;
    const from = levers.map((l) => l.from);
    const best = turnLevers({
      standard,
      from,
      low: from,
      high: levers.map((l) => (l.kind === 'time' ? LONGEST : l.isOwn ? MOST_MORE : MOST_ADDED)),
      penalties: hold(levers.length, (i) => from[i] ?? 0),
      shade: (now) => laidOn(shadeFor(posterior, pulled(dyeing, levers, now))),
    });
    // Dips are whole ones; one more is the least there is.
    const dipsMore = how === 'longer' && dips > 1 ? Math.max(1, Math.round(dips * (Math.exp(best[0] ?? 0) - 1))) : 0;
    const at = dipsMore > 0 ? [Math.log((dips + dipsMore) / dips)] : best;
    const after = pulled(dyeing, levers, at);
    const added = addedBetween(dyeing, after, posterior);
    const longerMin = minutesOf(after) - minutesOf(dyeing);
    if (added.length === 0 && longerMin < LEAST_LONGER_MIN) return undefined;
    const lab = laidOn(shadeFor(posterior, after));
    const covariance = changeVariance(posterior, dyeing, after);
    return { how, added, longerMin, dipsMore, ...judged(standard, lab, covariance) };
  };
  // Only out of jars that still stand: what is used up can't be weighed again.
  const stands = new Set(shelf.flatMap((m) => m.jars.map((j) => j.stockLotId)));
  const own = ownLevers(dyeing, shelf, false).filter(
    (l) => l.kind === 'dose' && l.role === 'dyestuff' && l.jars.every((j) => stands.has(j.stockLotId)),
  );
  const isIn = new Set(dyeing.doses.map((d) => d.materialId));
  const modifiers = shelf
    .filter((m) => m.role === 'modifier' && !isIn.has(m.materialId))
    .flatMap((m) => {
      const jar = m.jars.at(-1);
      return jar ? [addedLever('modifier', m, jar)] : [];
    });
  return [
    tried('moreDye', own),
    ...own.map((l) => tried('moreDye', [l])),
    tried('longer', [{ kind: 'time', from: 0, dips }]),
    ...modifiers.map((m) => tried('modifier', [m])),
  ].flatMap((w) => (w ? [w] : []));
}

/** A fresh bath of something else over it: what is on the fibre is the ground, and dye adds to it. */
function overdyed(posterior: Posterior, ask: RescueAsk): RescueWay[] {
  const { dyeing, read, standard, shelf } = ask;
  const ground: Dyeing = {
    ...dyeing,
    colourwayId: null,
    undyed: { lab: read, spectrum: null },
    doses: dyeing.doses.filter((d) => d.stage === 'mordant'),
    courses: dyeing.courses.filter((c) => c.stage !== 'modifier'),
  };
  const levers = shelf
    .filter((m) => m.role === 'dyestuff')
    .flatMap((m) => {
      const jar = m.jars.at(-1);
      return jar ? [addedLever('dye', m, jar)] : [];
    });
  const tried = (some: readonly Lever[]): RescueWay | undefined => {
    const at = turnLevers({
      standard,
      from: some.map(() => 0),
      low: some.map(() => 0),
      high: some.map(() => MOST_ADDED),
      penalties: hold(some.length, () => 0),
      shade: (now) => shadeFor(posterior, pulled(ground, some, now)),
    });
    const after = pulled(ground, some, at);
    const added = addedBetween(ground, after, posterior);
    if (added.length < some.length) return undefined;
    const { lab, covariance } = predict(posterior, after);
    return { how: 'overdye', added, longerMin: 0, dipsMore: 0, ...judged(standard, lab, covariance) };
  };
  const alone = levers
    .flatMap((lever) => {
      const way = tried([lever]);
      return way ? [{ lever, way }] : [];
    })
    .sort((x, y) => x.way.expectedDeltaE - y.way.expectedDeltaE);
  const best = alone.slice(0, TRIED_IN_PAIRS);
  const pairs = best.flatMap(({ lever }, i) => best.slice(i + 1).flatMap((other) => tried([lever, other.lever]) ?? []));
  return [...alone.map((a) => a.way), ...pairs];
}

function judged(
  standard: Lab,
  lab: Lab,
  covariance: Symmetric,
): Omit<RescueWay, 'how' | 'added' | 'longerMin' | 'dipsMore'> {
  return {
    lab,
    deltaE00: ciede2000(standard, lab, EVEN).deltaE,
    within80: radius80(lab, covariance),
    expectedDeltaE: expectedDifference(standard, lab, covariance),
  };
}

const minutesOf = (d: Dyeing): number => d.courses.find((c) => c.stage === 'dye')?.points.at(-1)?.minute ?? 0;

/** What goes in more than before, of what is worth weighing. */
function addedBetween(before: Dyeing, after: Dyeing, { usual }: Posterior): AddedDose[] {
  return after.doses.flatMap(({ stage, materialId, stockLotId, percentOwf }) => {
    const had = before.doses
      .filter((d) => d.stage === stage && d.stockLotId === stockLotId)
      .reduce((sum, d) => sum + d.percentOwf, 0);
    const more = percentOwf - had;
    return more > LEAST_ADDED * (usual.get(materialId) ?? percentOwf)
      ? [{ stage, materialId, stockLotId, percentOwf: more }]
      : [];
  });
}

/** How unsure a change is: what before and after share is known, since it was read; the luck of what is new is not. */
function changeVariance(posterior: Posterior, before: Dyeing, after: Dyeing): Symmetric {
  const [one, two] = [forward(posterior, before), forward(posterior, after)];
  const spread = learntVariance(posterior, slopesBetween(one, two));
  const luck = two.luck.map((along, s) => along.map((v, c) => v - (one.luck[s]?.[c] ?? 0)));
  const scatter = scatterOf(posterior, { ...two, luck }, posterior.widths, false);
  return inLab(
    posterior.space,
    two.channels,
    spread.map((v, i) => v + (scatter.cells[i] ?? 0)),
  );
}
