import type { PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import { smallestIn } from '../scaling/lot-plan';
import type { DeviationFact } from './deviation';
import type { StepRecord } from './step-record';
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
    ...waitDeviations(step, record, context.readyAt),
    ...weighingDeviations(step, record, context),
    ...heldDeviations(step, record),
    ...reachedDeviations(step, record),
    ...timeDeviations(step, record),
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
  const target = targetOf?.(planned) ?? Math.round(planned.target.value * smallest);
  const off = taken.reduce((sum, w) => sum + w.amount, 0) - target;
  const expected = new Set(planned.picks.map((p) => p.stockLotId));
  const others = taken.filter((w) => !w.asSolution && !expected.has(w.stockLotId));
  const tags = [...new Set(others.map((w) => tagOf(w.stockLotId)))];
  return [
    ...(Math.abs(off) > planned.tolerance * smallest + 1e-6
      ? [{ code: 'otherAmount' as const, materialName, batch, off, measure }]
      : []),
    ...(tags.length > 0 ? [{ code: 'otherStockLot' as const, materialName, tags }] : []),
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

function timeDeviations(
  step: PlannedStep,
  { startedAt, finishedAt, skippedReason, pausedMs = 0 }: StepRecord,
): DeviationFact[] {
  if (startedAt === undefined || finishedAt === undefined || skippedReason !== undefined || step.attended) return [];
  const plannedMin = step.durationMin;
  const minutes = minutesBetween(startedAt, finishedAt) - pausedMs / 60_000;
  if (minutes < plannedMin * (1 - TIME_SHARE))
    return [{ code: 'shorter', minutes, plannedMin, paler: step.kind === 'dye' || step.kind === 'mordant' }];
  // Longer is only worth a word in heat: a soak left overnight is the usual way.
  const inHeat = step.temperatureC !== undefined && step.kind !== 'cure';
  const withHeatingMin = plannedMin + heatUpMin(step);
  return inHeat && minutes > withHeatingMin * (1 + TIME_SHARE) && minutes > withHeatingMin + 30
    ? [{ code: 'longer', minutes, plannedMin: withHeatingMin }]
    : [];
}

/** Minutes to come to the temperature, by the plan, where the recipe's own time is the hold alone. */
const heatUpMin = ({ course, baths }: PlannedStep): number =>
  course.some((leg) => leg.do === 'raise')
    ? 0
    : Math.max(0, ...baths.map((b) => (b.heating?.ok ? b.heating.minutes.value : 0)));

const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;
