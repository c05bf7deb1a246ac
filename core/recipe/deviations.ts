import { formatAmount } from '../quantity/amount';
import type { PlannedStep } from './lot-plan';
import { smallestIn } from './lot-plan';

/** What really happened at one step, folded from the run's entries with corrections applied. */
export interface StepRecord {
  readonly stepIndex: number;
  readonly startedAt?: string;
  readonly finishedAt?: string;
  readonly skippedReason?: string;
  readonly temperaturesC: readonly number[];
  /** Amounts in smallest units of the material's measure. */
  readonly weighings: readonly { readonly batch: number; readonly materialId: string; readonly stockLotId: string; readonly amount: number }[];
}

export interface Deviation {
  readonly stepIndex: number;
  readonly words: string;
}

/** A held time may run this share over or under before it is worth a word. */
const TIME_SHARE = 0.25;
/** Temperatures within this many degrees of the plan count as reached. */
const TEMPERATURE_BAND_C = 5;

/**
 * Names what was done otherwise than planned at one step: weighed more or less, from another jar,
 * too hot or not hot enough, too short or too long, skipped. Empty when all went as planned.
 * @param tagOf the tag of a stock lot, for the words
 */
export function findDeviations(step: PlannedStep, record: StepRecord, tagOf: (stockLotId: string) => string): Deviation[] {
  const words: string[] = [];
  if (record.skippedReason !== undefined) words.push(`skipped: ${record.skippedReason}`);
  words.push(...weighingDeviations(step, record, tagOf), ...temperatureDeviations(step, record), ...timeDeviations(step, record));
  return words.map((w) => ({ stepIndex: step.index, words: w }));
}

function weighingDeviations(step: PlannedStep, record: StepRecord, tagOf: (id: string) => string): string[] {
  if (record.skippedReason !== undefined) return [];
  return step.weighings.flatMap((planned) => {
    const taken = record.weighings.filter((w) => w.batch === planned.batch && w.materialId === planned.materialId);
    if (taken.length === 0) return record.finishedAt === undefined ? [] : [`no ${planned.materialName} weighed for batch ${planned.batch}`];
    const off = taken.reduce((sum, w) => sum + w.amount, 0) - Math.round(planned.target.value * smallestIn(planned.measure));
    const expected = new Set(planned.picks.map((p) => p.stockLotId));
    const others = [...new Set(taken.filter((w) => !expected.has(w.stockLotId)).map((w) => tagOf(w.stockLotId)))];
    const found: string[] = [];
    if (Math.abs(off) > planned.tolerance * smallestIn(planned.measure) + 1e-6) found.push(`${formatAmount(Math.abs(off), planned.measure)} ${off > 0 ? 'more' : 'less'} ${planned.materialName} than planned in batch ${planned.batch}`);
    if (others.length > 0) found.push(`${planned.materialName} taken from ${others.join(' and ')} instead of the jar planned`);
    return found;
  });
}

function temperatureDeviations(step: PlannedStep, { temperaturesC }: StepRecord): string[] {
  if (temperaturesC.length === 0) return [];
  const hottest = Math.max(...temperaturesC);
  if (step.ceilingC !== undefined && hottest > step.ceilingC) return [`reached ${hottest} °C, above the ceiling of ${step.ceilingC} °C: the colour may have dulled`];
  if (step.temperatureC === undefined) return [];
  if (hottest > step.temperatureC + TEMPERATURE_BAND_C) return [`reached ${hottest} °C, planned ${step.temperatureC} °C`];
  if (hottest < step.temperatureC - TEMPERATURE_BAND_C) return [`only reached ${hottest} °C, planned ${step.temperatureC} °C: expect paler`];
  return [];
}

function timeDeviations(step: PlannedStep, { startedAt, finishedAt, skippedReason }: StepRecord): string[] {
  if (startedAt === undefined || finishedAt === undefined || skippedReason !== undefined || step.attended) return [];
  const minutes = (Date.parse(finishedAt) - Date.parse(startedAt)) / 60_000;
  if (minutes < step.durationMin * (1 - TIME_SHARE)) return [`${sayMinutes(minutes)} instead of ${sayMinutes(step.durationMin)}`];
  // Longer is only worth a word in heat: a soak left overnight is the usual way.
  if (step.temperatureC !== undefined && step.kind !== 'cure' && minutes > step.durationMin * (1 + TIME_SHARE) && minutes > step.durationMin + 30) return [`${sayMinutes(minutes)} instead of ${sayMinutes(step.durationMin)}`];
  return [];
}

/** Minutes as people say them: `45 min`, `2 h 30 min`, `14 d`. */
export function sayMinutes(minutes: number): string {
  const whole = Math.max(0, Math.round(minutes));
  if (whole < 60) return `${whole} min`;
  if (whole < 48 * 60) return `${Math.floor(whole / 60)} h${whole % 60 === 0 ? '' : ` ${whole % 60} min`}`;
  const days = Math.floor(whole / 1440);
  const hours = Math.round((whole % 1440) / 60);
  return `${days} d${hours === 0 ? '' : ` ${hours} h`}`;
}
