import type { BathMove } from '../bath/bath-ledger';
import { foldBath } from '../bath/bath-ledger';
import type { PlannedBath, PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import { smallestIn } from '../scaling/lot-plan';
import type { DeviationFact } from './deviation';
import type { StepRecord } from './step-record';
import { zoneDeviations } from './zone-deviations';
import { HOLD_BAND_C, holdOf } from './watch-course';

/** What finding deviations needs beside plan and record. */
export interface DeviationContext {
  /** The tag of a stock lot. */
  readonly tagOf: (stockLotId: string) => string;
  /** When the steps it follows were over, latest first, ISO; `undefined` where that isn't known. */
  readonly readyAt?: string | undefined;
  /** Targets as they stand after rescaling, smallest units; as planned where absent. */
  readonly targetOf?: ((weighing: PlannedWeighing) => number) | undefined;
}

/** A held time may run this share over or under before it is worth a word. */
const TIME_SHARE = 0.25;
/** Temperatures within this many degrees of the plan count as reached. */
const TEMPERATURE_BAND_C = 5;

/**
 * Names what was done otherwise than planned at one step, with its likely effect: weighed more or less, from another
 * jar, in another pot or water, too hot or not hot enough, late, too short or too long, its pH outside, out of order,
 * done over, skipped, and what a person told. Empty when all went as planned.
 */
export function findDeviations(step: PlannedStep, record: StepRecord, context: DeviationContext): DeviationFact[] {
  const { skippedReason, outOfOrder, redone = [], reported = [] } = record;
  return [
    ...(skippedReason === undefined ? [] : [{ code: 'skipped' as const, text: skippedReason }]),
    ...redone.map((text) => ({ code: 'redone' as const, text })),
    ...(outOfOrder ? [{ code: 'outOfOrder' as const, text: outOfOrder }] : []),
    ...placeDeviations(step, record),
    ...unplannedDeviations(step, record),
    ...zoneDeviations(step, record),
    ...strainDeviations(step, record),
    ...waitDeviations(step, record, context.readyAt),
    ...weighingDeviations(step, record, context),
    ...heldDeviations(step, record),
    ...reachedDeviations(step, record),
    ...timeDeviations(step, record),
    ...pauseDeviations(step, record),
    ...phDeviations(step, record),
    ...reported.map((text) => ({ code: 'reported' as const, text })),
  ];
}

function placeDeviations(step: PlannedStep, { vessels = [], water }: StepRecord): DeviationFact[] {
  const pots = vessels.flatMap(({ batch, vesselId, vesselName }) => {
    const planned = step.baths.find((b) => b.batches.includes(batch));
    return planned && planned.vesselId !== vesselId
      ? [{ code: 'otherVessel' as const, batch, vesselName, plannedName: planned.vesselName }]
      : [];
  });
  return water ? [...pots, { code: 'otherWater', waterName: water.name }] : pots;
}

function waitDeviations(
  { wait }: PlannedStep,
  { startedAt }: StepRecord,
  readyAt: string | undefined,
): DeviationFact[] {
  if (startedAt === undefined || readyAt === undefined || !wait) return [];
  const waitedMin = minutesBetween(readyAt, startedAt);
  if (wait.maxMinutes !== null && waitedMin > wait.maxMinutes)
    return [{ code: 'late', waitedMin, maxMin: wait.maxMinutes }];
  return waitedMin < wait.minMinutes * (1 - TIME_SHARE) ? [{ code: 'early', waitedMin, minMin: wait.minMinutes }] : [];
}

function strainDeviations({ strain }: PlannedStep, { strained = [] }: StepRecord): DeviationFact[] {
  const way = strained.flatMap((s) => (s.way === 'bagOut' ? [] : [s.way])).at(-1);
  return way === undefined || way === strain ? [] : [{ code: 'strainedOtherwise', way, planned: strain }];
}

function phDeviations({ targetPh }: PlannedStep, { phs = [], finishedAt }: StepRecord): DeviationFact[] {
  const ph = phs.at(-1)?.ph;
  if (ph === undefined || !targetPh || finishedAt === undefined || (ph >= targetPh.low && ph <= targetPh.high))
    return [];
  return [{ code: 'phOutside', ph, low: targetPh.low, high: targetPh.high }];
}

function weighingDeviations(step: PlannedStep, record: StepRecord, context: DeviationContext): DeviationFact[] {
  return record.skippedReason === undefined ? step.weighings.flatMap((w) => weighedOtherwise(w, record, context)) : [];
}

function weighedOtherwise(
  planned: PlannedWeighing,
  { weighings, leftOut = [], finishedAt }: StepRecord,
  { tagOf, targetOf }: DeviationContext,
): DeviationFact[] {
  const { batch, materialId, materialName, measure } = planned;
  const taken = weighings.filter((w) => w.batch === batch && w.materialId === materialId);
  const left = leftOut.find((l) => l.batch === batch && l.materialId === materialId);
  if (taken.length === 0 && left) return [{ code: 'leftOut', materialName, batch, reason: left.reason }];
  if (taken.length === 0) return finishedAt === undefined ? [] : [{ code: 'notWeighed', materialName, batch }];
  const smallest = smallestIn(measure);
  const how = taken.at(-1)?.notDry;
  const target = targetOf?.(planned) ?? Math.round(planned.target.value * smallest);
  const off = taken.reduce((sum, w) => sum + w.amount, 0) - target;
  const expected = new Set(planned.picks.map((p) => p.stockLotId));
  const others = taken.filter((w) => !w.asSolution && w.stockLotId !== null && !expected.has(w.stockLotId));
  const tags = [...new Set(others.flatMap((w) => (w.stockLotId === null ? [] : tagOf(w.stockLotId))))];
  return [
    ...(Math.abs(off) > planned.tolerance * smallest + 1e-6
      ? [{ code: 'otherAmount' as const, materialName, batch, off, measure }]
      : []),
    ...(tags.length > 0 ? [{ code: 'otherStockLot' as const, materialName, tags }] : []),
    ...(how === undefined ? [] : [{ code: 'notDry' as const, materialName, batch, how }]),
  ];
}

/** A pot that sagged is not counted as held, whatever the clock says. */
function heldDeviations(step: PlannedStep, { heldMin }: StepRecord): DeviationFact[] {
  const hold = holdOf(step);
  if (heldMin === undefined || !hold || heldMin >= hold.minutes * (1 - TIME_SHARE)) return [];
  return [{ code: 'notHeld', heldMin, wantedMin: hold.minutes, atC: hold.atC, bandC: HOLD_BAND_C }];
}

function reachedDeviations(step: PlannedStep, { temperaturesC }: StepRecord): DeviationFact[] {
  if (temperaturesC.length === 0) return [];
  const { ceilingC, temperatureC: plannedC } = step;
  const hottestC = Math.max(...temperaturesC);
  if (ceilingC !== undefined && hottestC > ceilingC) return [{ code: 'aboveCeiling', hottestC, ceilingC }];
  if (plannedC === undefined) return [];
  if (hottestC > plannedC + TEMPERATURE_BAND_C) return [{ code: 'hotter', hottestC, plannedC }];
  return hottestC < plannedC - TEMPERATURE_BAND_C ? [{ code: 'colder', hottestC, plannedC }] : [];
}

/** Kinds of step whose length makes the colour; how long a rinse or a drying takes is nobody's shade. */
const LONGER_MEANS: Readonly<
  Partial<Record<PlannedStep['kind'], Extract<DeviationFact, { code: 'longer' }>['means']>>
> = {
  scour: 'unknown',
  tannin: 'deeper',
  mordant: 'unknown',
  extract: 'deeper',
  dye: 'deeper',
  pull: 'deeper',
  exhaust: 'deeper',
  modify: 'moreShift',
};
/** Over by less than this, minutes, is how the day goes: with hands at it, by itself. */
const OVER_ATTENDED_MIN = 5;
const OVER_MIN = 30;

/** Cold steps and those with hands at them count too: iron for forty minutes instead of six is another shade. */
function timeDeviations(
  step: PlannedStep,
  { startedAt, finishedAt, skippedReason, pausedMs = 0 }: StepRecord,
): DeviationFact[] {
  if (startedAt === undefined || finishedAt === undefined || skippedReason !== undefined) return [];
  const plannedMin = step.durationMin;
  const minutes = minutesBetween(startedAt, finishedAt) - pausedMs / 60_000;
  const means = LONGER_MEANS[step.kind];
  if (minutes < plannedMin * (1 - TIME_SHARE) && !(step.attended && means === undefined))
    return [{ code: 'shorter', minutes, plannedMin, paler: step.kind === 'dye' || step.kind === 'mordant' }];
  const inHeat = step.temperatureC !== undefined && step.kind !== 'cure' && !step.attended;
  if (means === undefined && !inHeat) return [];
  const withHeatingMin = plannedMin + (inHeat ? heatUpMin(step) : 0);
  const over = minutes - withHeatingMin;
  return over > withHeatingMin * TIME_SHARE && over > (step.attended ? OVER_ATTENDED_MIN : OVER_MIN)
    ? [{ code: 'longer', minutes, plannedMin: withHeatingMin, means: means ?? 'unknown' }]
    : [];
}

/** A pause is a word worth where something was kept hot. */
function pauseDeviations({ temperatureC }: PlannedStep, { pausedMs = 0, finishedAt }: StepRecord): DeviationFact[] {
  const minutes = pausedMs / 60_000;
  return temperatureC !== undefined && finishedAt !== undefined && minutes > OVER_MIN
    ? [{ code: 'stoodStill', minutes }]
    : [];
}

/** What the plan doesn't have: materials, water, pieces, whole steps. */
function unplannedDeviations(
  { baths }: PlannedStep,
  { added = [], bathMoves = [], pieces = [], extras = [] }: StepRecord,
): DeviationFact[] {
  return [
    ...added.map(({ name, batch, amount, measure, quantityText, guessed }) => ({
      code: 'added' as const,
      name,
      batch,
      amount,
      measure,
      quantityText,
      guessed,
    })),
    ...baths.flatMap((bath) => stretched(bath, bathMoves)),
    ...pieces.map(({ batch, change, reason: text }) => ({
      code: change > 0 ? ('piecesIn' as const) : ('piecesOut' as const),
      batch,
      pieces: Math.abs(change),
      text,
    })),
    ...extras.map(({ title, minutes, temperatureC, note: text }) => ({
      code: 'extraStep' as const,
      title,
      minutes,
      temperatureC,
      text,
    })),
  ];
}

/** Water in a bath beyond this share of what was planned is a longer bath. */
const STRETCHED_SHARE = 0.1;

function stretched(
  { batches, liquor }: PlannedBath,
  moves: NonNullable<StepRecord['bathMoves']>,
): Extract<DeviationFact, { code: 'stretched' }>[] {
  const own = moves.filter((m) => batches.includes(m.batch));
  if (!own.some((m) => m.kind === 'add')) return [];
  const plannedMl = liquor.value;
  const volumes = own.map(
    (_, i) => foldBath([{ kind: 'fill', ml: plannedMl, label: '' }, ...own.slice(0, i + 1).map(asMove)]).left.value,
  );
  const ml = Math.max(...volumes);
  return ml > plannedMl * (1 + STRETCHED_SHARE) ? [{ code: 'stretched', batch: batches[0] ?? 1, ml, plannedMl }] : [];
}
const asMove = ({ kind, ml }: { kind: BathMove['kind']; ml: number }): BathMove => ({ kind, ml, label: '' });

/** Minutes to come to the temperature, by the plan, where the recipe's own time is the hold alone. */
const heatUpMin = ({ course, baths }: PlannedStep): number =>
  course.some((leg) => leg.do === 'raise')
    ? 0
    : Math.max(0, ...baths.map((b) => (b.heating?.ok ? b.heating.minutes.value : 0)));

const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;
