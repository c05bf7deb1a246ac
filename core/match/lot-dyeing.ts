import type { PlannedStep, PlannedWeighing, LotPlan } from '../scaling/lot-plan';
import { smallestIn } from '../scaling/lot-plan';
import type { RecipeVersion } from '../recipe/recipe';
import type { HeatLeg } from '../recipe/course';
import { wholeCourse } from '../recipe/course';
import type { StepKind } from '../recipe/step-kind';
import type { StepRecord } from '../run/step-record';
import type { CoursePoint } from '../run/watch-course';
import type { MaterialKind } from '../stock/material-facts';
import type { EarlyOut } from './early-out';
import { cutCourse } from './early-out';
import type { BathCourse, Dyeing, DyeingRole, DyeingStage, MatchDose, MeasuredColour } from './dyeing';
import { DYEING_STAGES } from './dyeing';

/** What each kind of step does to a shade; those that do nothing to it are missing. */
export const STAGE_OF: Partial<Readonly<Record<StepKind | 'fibre', DyeingStage>>> = {
  tannin: 'mordant',
  mordant: 'mordant',
  extract: 'dye',
  makeUp: 'dye',
  adjustPh: 'dye',
  dye: 'dye',
  pull: 'dye',
  exhaust: 'dye',
  modify: 'modifier',
};
/** Steps of a stage in which the fibre is in the bath. */
const IN_BATH: readonly (StepKind | 'fibre')[] = ['tannin', 'mordant', 'dye', 'pull', 'exhaust', 'modify'];
/** What each kind of material does; those that never reach the bath as such are missing. */
export const ROLE_OF: Partial<Readonly<Record<MaterialKind, DyeingRole>>> = {
  dyestuff: 'dyestuff',
  packet: 'dyestuff',
  mordant: 'mordant',
  tannin: 'mordant',
  modifier: 'modifier',
  assistant: 'assistant',
};
/** Nothing of these goes into the bath. */
const INERT: readonly string[] = ['stainless', 'enamel', 'glass', 'plastic'];
/** A pot’s metal as the match takes it: those of which nothing goes into the bath are one. */
export const metalToMatch = (metal: string): string => (INERT.includes(metal) ? 'stainless' : metal);
/**
 * The metal a recipe is meant for, as the match takes it: one of which nothing goes into the bath wherever such a pot may
 * be used, whatever pot a lot was really dyed in. @param dyedIn what its lot was dyed in
 */
export function metalMeant(
  { allowedMetals, steps }: Pick<RecipeVersion, 'allowedMetals' | 'steps'>,
  dyedIn: string,
): string {
  const dye = steps.find((s) => s.kind === 'dye' && s.metals.length > 0);
  return (dye?.metals ?? allowedMetals).some((m) => INERT.includes(m)) ? 'stainless' : dyedIn;
}
/** Where no temperature was written, a bath is as warm as the room. */
export const ROOM_C = 20;
const YEAR_MS = 365.25 * 86_400_000;
const MINUTE_MS = 60_000;
/** A step that stood open longer than this, as a share of what was planned, was forgotten in the books, not in the pot. */
const FORGOTTEN = 4;

/** What the match has to know of materials, jars and bases. */
export interface MatchFacts {
  readonly kinds: ReadonlyMap<string, MaterialKind>;
  /** The day each jar came. */
  readonly receivedOn: ReadonlyMap<string, string>;
  /** By the id of a base, and by that of a lot of it that was read by itself: a yellower bale, pieces dyed before. */
  readonly undyed: ReadonlyMap<string, MeasuredColour>;
  /** By lot of a base that was kept mordanted: what it was mordanted with. */
  readonly mordanted: ReadonlyMap<string, Mordanted>;
}

/** What is on fibre before it is dyed, and how it was put there. */
export type Mordanted = Pick<Dyeing, 'doses' | 'courses'>;

/** What a lot of a base looks like before anything is done to it here; `undefined` where nobody read one. */
export const groundOf = ({ undyed }: MatchFacts, baseId: string, baseLotId: string): MeasuredColour | undefined =>
  undyed.get(baseLotId) ?? undyed.get(baseId);

/** A lot as planned, and as it went where that is known. */
export interface LotToMatch {
  readonly colourwayId: string;
  /** A little, dyed to see what the whole lot needs. */
  readonly isStrikeOff?: boolean;
  /** When it was dyed. */
  readonly at: string;
  readonly plan: LotPlan;
  /** None: as planned. */
  readonly records: readonly StepRecord[];
  readonly water: {
    readonly id: string;
    readonly ph: number | null;
    readonly hardnessDh: number | null;
    readonly ironMgPerL?: number | null | undefined;
  } | null;
}

/** Which pieces of it. */
export interface PartToMatch {
  readonly batch: number;
  readonly group: string | null;
  readonly dip: number | null;
  /** It came out of a step before the others. */
  readonly out?: EarlyOut | undefined;
  /** It was cut off there: nothing that came after happened to it. */
  readonly isSnippet?: boolean;
}

/** Water of which nobody measured anything counts as middling. */
const UNKNOWN_WATER = { id: 'unknown', ph: 7, hardnessDh: 10, ironMgPerL: 0 };

/** Water as the match takes it: what nobody measured of it is middling. */
export const waterToMatch = (water: LotToMatch['water']): Dyeing['water'] =>
  water
    ? {
        id: water.id,
        ph: water.ph ?? UNKNOWN_WATER.ph,
        hardnessDh: water.hardnessDh ?? UNKNOWN_WATER.hardnessDh,
        ironMgPerL: water.ironMgPerL ?? UNKNOWN_WATER.ironMgPerL,
      }
    : UNKNOWN_WATER;

/**
 * A part of a lot as the match sees it: what was really weighed out of which jar, how long and hot its baths really were,
 * as planned where nothing was written down. `undefined` where no dyestuff was dosed, or the base’s own colour isn’t known.
 */
export function dyeingOfLot(lot: LotToMatch, part: PartToMatch, facts: MatchFacts): Dyeing | undefined {
  const { plan } = lot;
  const group = plan.groups.find((g) => g.key === part.group) ?? plan.groups[0];
  const batch = plan.batches.find((b) => b.number === part.batch);
  const baseLotId = group && baseLotOf(lot, group.baseId);
  const undyed = group && groundOf(facts, group.baseId, baseLotId ?? '');
  if (!group || !batch || !undyed || baseLotId === undefined) return undefined;
  const steps = plan.steps.filter(
    (s) =>
      (s.groups === undefined || s.groups.includes(group.key)) &&
      !(part.isSnippet && part.out && s.index > part.out.stepIndex),
  );
  const doses = steps.flatMap((step) => {
    const stage = STAGE_OF[step.kind];
    return stage === undefined ? [] : dosesOf(lot, step, stage, part.batch, facts);
  });
  if (!doses.some((d) => d.role === 'dyestuff')) return undefined;
  const before = facts.mordanted.get(baseLotId) ?? { doses: [], courses: [] };
  const courses = DYEING_STAGES.flatMap((stage) => courseOf(lot, steps, stage, part.out));
  const isFirst = group.key === plan.groups[0]?.key;
  return {
    colourwayId: isFirst ? lot.colourwayId : `${lot.colourwayId} ${group.key}`,
    purpose: lot.isStrikeOff ? 'strikeOff' : 'lot',
    fibre: group.fibre,
    baseId: group.baseId,
    baseLotId,
    undyed,
    doses: merged([...before.doses, ...doses]),
    courses: [...before.courses.filter((b) => courses.every((c) => c.stage !== b.stage)), ...courses],
    water: waterToMatch(lot.water),
    metal: metalToMatch(batch.metal),
    liquorRatio: plan.liquorRatio,
    dip: part.dip ?? 1,
  };
}

/** What a lot’s fibre was mordanted with: what stays in it where it is kept to be dyed another day. */
export function mordantOfLot(lot: LotToMatch, facts: MatchFacts): Mordanted | undefined {
  const { plan } = lot;
  const batch = plan.batches[0];
  if (!batch) return undefined;
  const steps = plan.steps.filter((s) => STAGE_OF[s.kind] === 'mordant');
  const doses = merged(steps.flatMap((s) => dosesOf(lot, s, 'mordant', batch.number, facts)));
  return doses.length === 0 ? undefined : { doses, courses: courseOf(lot, steps, 'mordant', undefined) };
}

function dosesOf(
  { at, plan, records }: LotToMatch,
  step: PlannedStep,
  stage: DyeingStage,
  batch: number,
  facts: MatchFacts,
): MatchDose[] {
  return step.weighings
    .filter((w) => w.batch === batch || w.forBatches.includes(batch))
    .flatMap((w) => {
      const kind = facts.kinds.get(w.materialId);
      const role = kind && ROLE_OF[kind];
      if (!role) return [];
      const wofG = plan.batches
        .filter((b) => b.number === batch || w.forBatches.includes(b.number))
        .reduce((sum, b) => sum + b.wof.value, 0);
      return takenFor(w, records[step.index]).map(({ stockLotId, amount }): MatchDose => ({
        stage,
        materialId: w.materialId,
        role,
        stockLotId,
        percentOwf: (amount / smallestIn(w.measure) / wofG) * 100,
        ageYears: ageOn(at, facts.receivedOn.get(stockLotId)),
      }));
    })
    .filter((d) => d.percentOwf > 0);
}

/** How long a jar stood by then, years; one that nobody knows the age of is fresh. */
export const ageOn = (at: string, receivedOn: string | undefined): number =>
  receivedOn === undefined ? 0 : Math.max(0, (Date.parse(at) - Date.parse(receivedOn)) / YEAR_MS);

/** What went in of a weighing, jar by jar: as weighed, else as planned. */
function takenFor(w: PlannedWeighing, record: StepRecord | undefined): { stockLotId: string; amount: number }[] {
  const noJar = `unknown jar of ${w.materialId}`;
  const weighed = (record?.weighings ?? []).filter((x) => x.batch === w.batch && x.materialId === w.materialId);
  if (weighed.length > 0) return weighed.map(({ stockLotId, amount }) => ({ stockLotId: stockLotId ?? noJar, amount }));
  if ((record?.leftOut ?? []).some((x) => x.batch === w.batch && x.materialId === w.materialId)) return [];
  const target = w.target.value * smallestIn(w.measure);
  const whole = w.picks.reduce((sum, p) => sum + p.amount, 0);
  return whole > 0
    ? w.picks.map((p) => ({ stockLotId: p.stockLotId ?? noJar, amount: (p.amount / whole) * target }))
    : [{ stockLotId: noJar, amount: target }];
}

/** The same out of one jar at one stage stands once. */
function merged(doses: readonly MatchDose[]): MatchDose[] {
  const all = new Map<string, MatchDose>();
  for (const d of doses) {
    const key = `${d.stage}/${d.materialId}/${d.stockLotId}`;
    const before = all.get(key);
    all.set(key, before ? { ...before, percentOwf: before.percentOwf + d.percentOwf } : d);
  }
  return [...all.values()];
}

function baseLotOf({ plan, records }: LotToMatch, baseId: string): string {
  const weighed = records.flatMap((r) => r.weighings).find((w) => w.materialId === baseId && w.stockLotId !== null);
  const planned = plan.materials.find((m) => m.materialId === baseId)?.picks.find((p) => p.stockLotId !== null);
  return weighed?.stockLotId ?? planned?.stockLotId ?? unknownLotOf(baseId);
}

/** What a lot of a base is called that came from no shelf. */
export const unknownLotOf = (baseId: string): string => `unknown lot of ${baseId}`;

/** Minutes a step really took, where that can be told. */
function minutesOf(step: PlannedStep, record: StepRecord | undefined): number {
  if (record?.startedAt === undefined || record.finishedAt === undefined) return step.durationMin;
  const took = (Date.parse(record.finishedAt) - Date.parse(record.startedAt) - (record.pausedMs ?? 0)) / MINUTE_MS;
  return took > 0 && took <= FORGOTTEN * step.durationMin ? took : step.durationMin;
}

/** A step in a bath, as a course is made of it: how long it took, how hot it was held; or what a probe saw. */
export interface BathStep {
  readonly legs: readonly HeatLeg[];
  readonly minutes: number;
  readonly heldC: number;
  readonly seen?: readonly CoursePoint[] | undefined;
}

/** So near to the hottest a temperature that somebody read is of the hold, °C. */
const OF_THE_HOLD_C = 15;

/** A step as it went: by the probe; else as planned, in the time it took, held as hot as somebody read, as long as was held. */
function bathStepOf(step: PlannedStep, record: StepRecord | undefined): BathStep {
  const minutes = minutesOf(step, record);
  const read = [...(record?.temperaturesC ?? [])].sort((x, y) => x - y);
  const middle = (all: readonly number[]): number | undefined => all[Math.floor(all.length / 2)];
  const heldC = middle(read) ?? step.temperatureC ?? ROOM_C;
  const { course: seen, heldMin } = record ?? {};
  const top = Math.max(...step.course.map((leg) => leg.toC ?? -Infinity));
  const hold = step.course.reduce((sum, leg) => sum + (leg.do === 'hold' ? leg.minutes : 0), 0);
  const topC = middle(read.filter((c) => c >= top - OF_THE_HOLD_C)) ?? top;
  const legs = wholeCourse(step).map((leg) => ({
    ...leg,
    ...(leg.toC === top ? { toC: topC } : {}),
    ...(leg.do === 'hold' && heldMin !== undefined && hold > 0
      ? { minutes: ((leg.minutes / hold) * heldMin) / Math.max(1, step.repeats) }
      : {}),
  }));
  if (heldMin === undefined || seen) return { legs, minutes, heldC, seen };
  return { legs, minutes: legs.length === 0 ? heldMin : legs.reduce((sum, l) => sum + l.minutes, 0), heldC };
}

/** The course of one stage, step after step; none where the fibre was in no bath of it. */
export function courseOfSteps(stage: DyeingStage, steps: readonly BathStep[]): BathCourse[] {
  const points: { minute: number; celsius: number }[] = [];
  let minute = 0;
  const go = (minutes: number, celsius: number): void => {
    minute += minutes;
    points.push({ minute, celsius });
  };
  for (const { legs, minutes, heldC, seen } of steps) {
    if (seen && seen.length > 1) {
      const begun = minute;
      for (const p of seen) go(begun + p.minute - minute, p.temperatureC);
      continue;
    }
    if (legs.length === 0) {
      go(points.length === 0 ? 0 : 1, heldC);
      go(minutes, heldC);
      continue;
    }
    const planned = legs.reduce((sum, leg) => sum + leg.minutes, 0);
    const stretch = planned > 0 ? minutes / planned : 1;
    if (points.length === 0) go(0, ROOM_C);
    for (const leg of legs)
      go(leg.minutes * stretch, leg.toC ?? (leg.do === 'air' ? ROOM_C : (points.at(-1)?.celsius ?? ROOM_C)));
  }
  return points.length < 2 ? [] : [{ stage, points }];
}

/** Whether the fibre is in a bath of this stage at a step. */
export const isInBath = (kind: StepKind | 'fibre', stage: DyeingStage): boolean =>
  STAGE_OF[kind] === stage && IN_BATH.includes(kind);

function courseOf(
  { records }: Pick<LotToMatch, 'records'>,
  steps: readonly PlannedStep[],
  stage: DyeingStage,
  out: EarlyOut | undefined,
): BathCourse[] {
  const inBath = steps.filter((s) => isInBath(s.kind, stage) && records[s.index]?.skippedReason === undefined);
  if (out && inBath.some((s) => s.index === out.stepIndex)) {
    const before = courseOf(
      { records },
      steps.filter((s) => s.index < out.stepIndex),
      stage,
      undefined,
    );
    const upTo = courseOf(
      { records },
      steps.filter((s) => s.index <= out.stepIndex),
      stage,
      undefined,
    );
    const from = before[0]?.points.at(-1)?.minute ?? 0;
    return upTo.flatMap((course) => cutCourse(course, from + out.minute) ?? []);
  }
  return courseOfSteps(
    stage,
    inBath.map((s) => bathStepOf(s, records[s.index])),
  );
}

/** The same dyeing out of the reference jars: what a recipe was proven with, as far as anybody knows. */
export const outOfReference = (dyeing: Dyeing): Dyeing => ({
  ...dyeing,
  doses: merged(
    dyeing.doses.map((d) => ({
      ...d,
      stockLotId: referenceOf(d.materialId),
      ageYears: 0,
    })),
  ),
});

/** The jar that stands for a material at its reference strength. */
export const referenceOf = (materialId: string): string => `reference of ${materialId}`;
