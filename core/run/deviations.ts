import type { BathMoveKind } from '../bath/bath-ledger';
import { HOLD_BAND_C, holdOf } from './watch-course';
import { formatAmount } from '../quantity/amount';
import type { PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import { smallestIn } from '../scaling/lot-plan';
import { sayMinutes } from '../quantity/duration';

/** What really happened at one step, folded from the run's entries with corrections applied. */
export interface StepRecord {
  readonly stepIndex: number;
  readonly startedAt?: string;
  readonly finishedAt?: string;
  readonly skippedReason?: string;
  readonly temperaturesC: readonly number[];
  readonly temperatures?: readonly { readonly at: string; readonly temperatureC: number }[];
  /** Amounts in smallest units of the material's measure; `more`: a portion, with more to come. */
  readonly weighings: readonly {
    readonly batch: number;
    readonly materialId: string;
    readonly stockLotId: string;
    readonly amount: number;
    readonly more?: boolean;
  }[];
  /** Minutes in band of its hold, by a probe; absent where none followed it. */
  readonly heldMin?: number;
  /** Since when it is paused, if it is, and how long earlier pauses took. */
  readonly pausedAt?: string;
  readonly pausedMs?: number;
  /** Begun before earlier steps were over, and what was said to that. */
  readonly outOfOrder?: string;
  readonly vessels?: readonly { readonly batch: number; readonly vesselId: string; readonly vesselName: string }[];
  readonly water?: { readonly id: string; readonly name: string };
  readonly phs?: readonly {
    readonly at: string;
    readonly ph: number;
    readonly totalDose: number;
    readonly unit: 'g' | 'ml';
  }[];
  readonly samples?: readonly {
    readonly at: string;
    readonly of: 'liquor' | 'piece';
    readonly depth: number;
    readonly batch: number;
  }[];
  readonly bathMoves?: readonly {
    readonly kind: BathMoveKind;
    readonly ml: number;
    readonly batch: number;
    readonly at: string;
  }[];
  readonly pullMinutes?: readonly number[];
  readonly pulls?: readonly { readonly at: string; readonly piece: number }[];
  /** Told by a person. */
  readonly reported?: readonly string[];
  /** Why it was done over, once for each time. */
  readonly redone?: readonly string[];
}

/** Something that went otherwise than planned, in a sentence with its likely effect. */
export interface Deviation {
  readonly stepIndex: number;
  readonly message: string;
}

/** What the words need beside plan and record. */
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
export function findDeviations(step: PlannedStep, record: StepRecord, context: DeviationContext): Deviation[] {
  const message: string[] = [];
  if (record.skippedReason !== undefined) message.push(`skipped: ${record.skippedReason}`);
  message.push(
    ...(record.redone ?? []).map((why) => `done over: ${why}`),
    ...(record.outOfOrder ? [`begun out of order: ${record.outOfOrder}`] : []),
    ...placeDeviations(step, record),
    ...lateDeviations(step, record, context.readyAt),
    ...weighingDeviations(step, record, context),
    ...temperatureDeviations(step, record),
    ...timeDeviations(step, record),
    ...phDeviations(step, record),
    ...(record.reported ?? []),
  );
  return message.map((w) => ({ stepIndex: step.index, message: w }));
}

function placeDeviations(step: PlannedStep, { vessels, water }: StepRecord): string[] {
  const pots = (vessels ?? []).flatMap((v) => {
    const planned = step.baths.find((b) => b.batches.includes(v.batch));
    return planned && planned.vesselId !== v.vesselId
      ? [`batch ${v.batch} in ${v.vesselName} instead of ${planned.vesselName}: another metal or fill shifts the shade`]
      : [];
  });
  return water
    ? [...pots, `${water.name} used instead of the water planned: the same recipe comes out otherwise in other water`]
    : pots;
}

function lateDeviations(step: PlannedStep, { startedAt }: StepRecord, readyAt: string | undefined): string[] {
  const max = step.wait?.maxMinutes ?? null;
  if (startedAt === undefined || readyAt === undefined) return [];
  const waited = (Date.parse(startedAt) - Date.parse(readyAt)) / 60_000;
  if (max !== null && waited > max)
    return [`late: stood ${sayMinutes(waited)} before it, ${sayMinutes(max)} at most planned`];
  const min = step.wait?.minMinutes ?? 0;
  return waited < min * (1 - TIME_SHARE)
    ? [`begun after ${sayMinutes(waited)}, ${sayMinutes(min)} at least planned: it had not stood long enough`]
    : [];
}

function phDeviations(step: PlannedStep, { phs, finishedAt }: StepRecord): string[] {
  const last = phs?.at(-1);
  if (
    !last ||
    !step.targetPh ||
    finishedAt === undefined ||
    (last.ph >= step.targetPh.low && last.ph <= step.targetPh.high)
  )
    return [];
  return [`left at pH ${last.ph}, wanted ${step.targetPh.low} to ${step.targetPh.high}: expect another hue`];
}

function weighingDeviations(step: PlannedStep, record: StepRecord, { tagOf, targetOf }: DeviationContext): string[] {
  if (record.skippedReason !== undefined) return [];
  return step.weighings.flatMap((planned) => {
    const taken = record.weighings.filter((w) => w.batch === planned.batch && w.materialId === planned.materialId);
    if (taken.length === 0)
      return record.finishedAt === undefined ? [] : [`no ${planned.materialName} weighed for batch ${planned.batch}`];
    const off =
      taken.reduce((sum, w) => sum + w.amount, 0) -
      (targetOf?.(planned) ?? Math.round(planned.target.value * smallestIn(planned.measure)));
    const expected = new Set(planned.picks.map((p) => p.stockLotId));
    const others = [...new Set(taken.filter((w) => !expected.has(w.stockLotId)).map((w) => tagOf(w.stockLotId)))];
    const found: string[] = [];
    if (Math.abs(off) > planned.tolerance * smallestIn(planned.measure) + 1e-6)
      found.push(
        `${formatAmount(Math.abs(off), planned.measure)} ${off > 0 ? 'more' : 'less'} ${planned.materialName} than planned in batch ${planned.batch}`,
      );
    if (others.length > 0)
      found.push(`${planned.materialName} taken from ${others.join(' and ')} instead of the jar planned`);
    return found;
  });
}

function temperatureDeviations(step: PlannedStep, record: StepRecord): string[] {
  return [...heldDeviations(step, record), ...reachedDeviations(step, record)];
}

/** A pot that sagged is not counted as held, whatever the clock says. */
function heldDeviations(step: PlannedStep, { heldMin }: StepRecord): string[] {
  const hold = holdOf(step);
  if (heldMin === undefined || !hold || heldMin >= hold.minutes * (1 - TIME_SHARE)) return [];
  return [
    `held ${sayMinutes(heldMin)} of ${sayMinutes(hold.minutes)} within ${HOLD_BAND_C} °C of ${hold.atC} °C: expect paler`,
  ];
}

function reachedDeviations(step: PlannedStep, { temperaturesC }: StepRecord): string[] {
  if (temperaturesC.length === 0) return [];
  const hottest = Math.max(...temperaturesC);
  if (step.ceilingC !== undefined && hottest > step.ceilingC)
    return [`reached ${hottest} °C, above the ceiling of ${step.ceilingC} °C: the colour may have dulled`];
  if (step.temperatureC === undefined) return [];
  if (hottest > step.temperatureC + TEMPERATURE_BAND_C)
    return [`reached ${hottest} °C, planned ${step.temperatureC} °C`];
  if (hottest < step.temperatureC - TEMPERATURE_BAND_C)
    return [`only reached ${hottest} °C, planned ${step.temperatureC} °C: expect paler`];
  return [];
}

function timeDeviations(
  step: PlannedStep,
  { startedAt, finishedAt, skippedReason, pausedMs = 0 }: StepRecord,
): string[] {
  if (startedAt === undefined || finishedAt === undefined || skippedReason !== undefined || step.attended) return [];
  const minutes = minutesBetween(startedAt, finishedAt) - pausedMs / 60_000;
  if (minutes < step.durationMin * (1 - TIME_SHARE))
    return [
      `short: ${sayMinutes(minutes)} instead of ${sayMinutes(step.durationMin)}${step.kind === 'dye' || step.kind === 'mordant' ? ', expect paler' : ''}`,
    ];
  // Longer is only worth a word in heat: a soak left overnight is the usual way.
  if (
    step.temperatureC !== undefined &&
    step.kind !== 'cure' &&
    minutes > step.durationMin * (1 + TIME_SHARE) &&
    minutes > step.durationMin + 30
  )
    return [`${sayMinutes(minutes)} instead of ${sayMinutes(step.durationMin)}`];
  return [];
}

const minutesBetween = (from: string, to: string): number => (Date.parse(to) - Date.parse(from)) / 60_000;
