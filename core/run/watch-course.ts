import { formatDegreesApart, formatTemperature } from '../quantity/temperature';
import type { FibreKind } from '../bath/fibre';
import { fibreFamily } from '../bath/fibre';
import type { PotBody } from '../bath/pot-model';
import { coastsTo, heatCapacityJPerK, lossWPerK } from '../bath/pot-model';
import type { HeatLeg } from '../recipe/course';
import { wholeCourse } from '../recipe/course';

/** What of a planned step the watch looks at. */
export interface WatchedStep {
  readonly temperatureC?: number | undefined;
  readonly ceilingC?: number | undefined;
  readonly durationMin: number;
  readonly course: readonly HeatLeg[];
  /** How many times over the course is gone through; once where absent. */
  readonly repeats?: number | undefined;
}

/** A corner of a planned course: minute from the start, °C. */
export interface CoursePoint {
  /** Minutes from the step's beginning. */
  readonly minute: number;
  readonly temperatureC: number;
}

/** A bath within this of its hold is in band. */
export const HOLD_BAND_C = 4;
const NEAR_CEILING_C = 3;
/** Gaps between readings longer than this are not counted as held: nobody knows what the pot did. */
const LONGEST_GAP_MIN = 12;
/** How fast a bath may be raised, °C a minute: wool felts and takes dye in patches when it is hurried. */
const MAX_RISE_C_PER_MIN: Readonly<Partial<Record<FibreKind, number>>> = {
  wool: 1.5,
  alpaca: 1.2,
  cashmere: 1,
  silk: 2,
};
const RATE_WINDOW_MIN = 6;
const LATE_SHARE = 1.25;
const SETTLING_MIN = 12;
const ASSUMED_ROOM_C = 18;

/**
 * The temperature it should have, corner by corner. A leg without a temperature cools by physics where the bath is
 * known, and stays where it is not.
 */
export function plannedCourse(
  step: WatchedStep,
  { fromC, roomC, pot }: { fromC: number; roomC: number; pot?: PotBody | undefined },
): CoursePoint[] {
  const points: CoursePoint[] = [{ minute: 0, temperatureC: fromC }];
  let [minute, temperatureC] = [0, fromC];
  const to = (minutes: number, next: number): void => {
    minute += minutes;
    temperatureC = next;
    points.push({ minute, temperatureC });
  };
  if (step.course.length === 0) {
    if (step.temperatureC === undefined)
      return [
        { minute: 0, temperatureC: fromC },
        { minute: step.durationMin, temperatureC: fromC },
      ];
    // Where only a temperature is asked for, it is wanted from the start.
    return [
      { minute: 0, temperatureC: step.temperatureC },
      { minute: step.durationMin, temperatureC: step.temperatureC },
    ];
  }
  for (const leg of legsOf(step)) {
    if (leg.toC !== undefined) {
      if (leg.do === 'hold' && temperatureC !== leg.toC) points.push({ minute, temperatureC: leg.toC });
      to(leg.minutes, leg.toC);
    } else if (leg.do === 'coast' || leg.do === 'cool' || leg.do === 'steep') {
      const [startC, startMin] = [temperatureC, minute];
      const parts = 4;
      for (let i = 1; i <= parts; i += 1)
        to(
          leg.minutes / parts,
          pot ? coastsTo({ ...pot, temperatureC: startC }, roomC, (leg.minutes * i) / parts) : startC,
        );
      minute = startMin + leg.minutes;
    } else {
      to(leg.minutes, temperatureC);
    }
  }
  return points;
}

const legsOf = ({ course, repeats = 1 }: WatchedStep): HeatLeg[] => wholeCourse({ course, repeats });

/** Planned temperature at a minute; straight between corners. */
export function plannedAt(course: readonly CoursePoint[], minute: number): number | undefined {
  const after = course.findIndex((p) => p.minute >= minute);
  if (after === -1) return course.at(-1)?.temperatureC;
  const [a, b] = [course[Math.max(0, after - 1)], course[after]];
  if (!a || !b || b.minute === a.minute) return b?.temperatureC;
  return a.temperatureC + ((minute - a.minute) / (b.minute - a.minute)) * (b.temperatureC - a.temperatureC);
}

/** What a step is to be held at, °C, and for how long; `undefined` where nothing is held. */
export function holdOf(step: WatchedStep): { readonly atC: number; readonly minutes: number } | undefined {
  const holds = legsOf(step).filter((l) => l.do === 'hold' && l.toC !== undefined);
  const hottest = [...holds].sort((a, b) => (b.toC ?? 0) - (a.toC ?? 0))[0];
  if (hottest?.toC !== undefined)
    return {
      atC: hottest.toC,
      minutes: holds.filter((l) => l.toC === hottest.toC).reduce((sum, l) => sum + l.minutes, 0),
    };
  return step.course.length === 0 && step.temperatureC !== undefined
    ? { atC: step.temperatureC, minutes: step.durationMin }
    : undefined;
}

/** A temperature at a time: minutes from the beginning of the step. */
export interface TemperatureAt {
  readonly minute: number;
  readonly temperatureC: number;
}

/**
 * Minutes in band: only between readings that both lie in it and stand no further apart than nobody would look away.
 * A pot that sagged is not counted.
 */
export function heldMinutes(readings: readonly TemperatureAt[], atC: number): number {
  let held = 0;
  for (let i = 1; i < readings.length; i += 1) {
    const [a, b] = [readings[i - 1], readings[i]];
    if (!a || !b) continue;
    const inBand = (r: TemperatureAt): boolean => Math.abs(r.temperatureC - atC) <= HOLD_BAND_C;
    if (inBand(a) && inBand(b) && b.minute - a.minute <= LONGEST_GAP_MIN) held += b.minute - a.minute;
  }
  return held;
}

/** Straight line through the last minutes of readings, °C a minute; `undefined` with too little to say. */
export function riseCPerMin(readings: readonly TemperatureAt[], windowMin = RATE_WINDOW_MIN): number | undefined {
  const last = readings.at(-1);
  if (!last) return undefined;
  const recent = readings.filter((r) => r.minute >= last.minute - windowMin);
  const span = last.minute - (recent[0]?.minute ?? last.minute);
  if (recent.length < 3 || span < windowMin / 3) return undefined;
  const meanX = recent.reduce((sum, r) => sum + r.minute, 0) / recent.length;
  const meanY = recent.reduce((sum, r) => sum + r.temperatureC, 0) / recent.length;
  const sxx = recent.reduce((sum, r) => sum + (r.minute - meanX) ** 2, 0);
  return recent.reduce((sum, r) => sum + (r.minute - meanX) * (r.temperatureC - meanY), 0) / sxx;
}

/** What is wrong with the heat of a pot. */
export type PotAlarmCode = 'aboveCeiling' | 'nearCeiling' | 'tooFast' | 'notMakingIt' | 'sagged';
/** Something wrong with the heat of a pot, and whether it can wait. */
export interface PotAlarm {
  readonly code: PotAlarmCode;
  /** Wants hands now, with sound. */
  readonly urgent: boolean;
  readonly message: string;
}

/** A pot held against its planned course: alarms, what of the hold is done, when it gets there. Minutes, °C. */
export interface CourseWatch {
  readonly alarms: readonly PotAlarm[];
  readonly rateCPerMin: number | undefined;
  readonly hold: { readonly atC: number; readonly wantedMin: number; readonly heldMin: number } | undefined;
  /** Minutes until the hold's temperature at this rate; `null` when it never gets there. */
  readonly reachesInMin: number | null | undefined;
}

/** What is watched: the planned course, what the probe read, the fibres that feel it. */
export interface WatchInput {
  readonly step: WatchedStep;
  /** Rising time. */
  readonly readings: readonly TemperatureAt[];
  readonly fibres: readonly FibreKind[];
  readonly pot?: PotBody | undefined;
  readonly roomC?: number | undefined;
}

/**
 * Looks at a heated step as its readings come in: over the ceiling or about to be, rising too fast for the fibre,
 * never getting there on this burner, sagged out of its hold; and how much of the hold is truly done.
 */
export function watchCourse({ step, readings, fibres, pot, roomC = ASSUMED_ROOM_C }: WatchInput): CourseWatch {
  const alarms: PotAlarm[] = [];
  const last = readings.at(-1);
  const rate = riseCPerMin(readings);
  const hold = holdOf(step);
  const heldMin = hold ? heldMinutes(readings, hold.atC) : 0;
  const reached = hold !== undefined && readings.some((r) => r.temperatureC >= hold.atC - HOLD_BAND_C);
  const reachesInMin =
    hold && last && !reached ? minutesTo(hold.atC - HOLD_BAND_C / 2, last.temperatureC, rate, pot, roomC) : undefined;
  if (last) {
    if (step.ceilingC !== undefined && last.temperatureC > step.ceilingC)
      alarms.push({
        code: 'aboveCeiling',
        urgent: true,
        message: $localize`${formatTemperature(round1(last.temperatureC))} is above the ceiling of ${formatTemperature(step.ceilingC)}. Heat off and lid off now, or lift the fibre.`,
      });
    else if (step.ceilingC !== undefined && last.temperatureC > step.ceilingC - NEAR_CEILING_C && (rate ?? 0) > 0.1)
      alarms.push({
        code: 'nearCeiling',
        urgent: true,
        message: $localize`${formatTemperature(round1(last.temperatureC))} and rising, ${formatDegreesApart(round1(step.ceilingC - last.temperatureC))} under the ceiling of ${formatTemperature(step.ceilingC)}. Turn the heat down.`,
      });
    const max = Math.min(...fibres.map((f) => MAX_RISE_C_PER_MIN[f] ?? Infinity));
    if (rate !== undefined && rate > max)
      alarms.push({
        code: 'tooFast',
        urgent: false,
        message: $localize`Rising ${formatDegreesApart(round1(rate))} a minute: ${fibres.some((f) => fibreFamily(f) === 'protein') ? $localize`protein fibre` : $localize`this fibre`} wants ${max} at most, or dye goes in unevenly and wool felts. Turn the heat down.`,
      });
    // Before that the burner may not be lit yet: something is still being weighed out.
    if (hold && !reached && rate !== undefined && last.minute >= SETTLING_MIN) {
      const wantedMin = minuteOfHold(step) * LATE_SHARE + 5;
      if (reachesInMin === null)
        alarms.push({
          code: 'notMakingIt',
          urgent: false,
          message: $localize`At this rate the bath never gets to ${formatTemperature(hold.atC)}. Put the lid on, turn the heat up, or move it to a stronger burner.`,
        });
      else if (reachesInMin !== undefined && step.course.length > 0 && last.minute + reachesInMin > wantedMin)
        alarms.push({
          code: 'notMakingIt',
          urgent: false,
          message: $localize`At this rate it takes ${Math.round(reachesInMin)} min more to ${formatTemperature(hold.atC)}, later than planned. Lid on, heat up, or plan for it.`,
        });
    }
    if (hold && reached && heldMin < hold.minutes && last.temperatureC < hold.atC - HOLD_BAND_C)
      alarms.push({
        code: 'sagged',
        urgent: false,
        message: $localize`Sagged to ${formatTemperature(round1(last.temperatureC))}:temperatureC:: time below ${formatTemperature(hold.atC - HOLD_BAND_C)} doesn’t count as held. Bring it back.`,
      });
  }
  return {
    alarms,
    rateCPerMin: rate,
    hold: hold ? { atC: hold.atC, wantedMin: hold.minutes, heldMin } : undefined,
    reachesInMin,
  };
}

/** Minute of the step at which its hold is planned to begin. */
function minuteOfHold(step: WatchedStep): number {
  const first = step.course.findIndex((l) => l.do === 'hold');
  return step.course.slice(0, Math.max(0, first)).reduce((sum, l) => sum + l.minutes, 0);
}

/**
 * Minutes to a temperature: by the rate now, bent by what the pot loses more of as it gets hotter where the bath is
 * known (its burner is read back from the rate). `null`: never.
 */
function minutesTo(
  toC: number,
  nowC: number,
  rate: number | undefined,
  pot: PotBody | undefined,
  roomC: number,
): number | null | undefined {
  if (nowC >= toC) return 0;
  if (rate === undefined) return undefined;
  if (!pot) return rate <= 0.02 ? null : (toC - nowC) / rate;
  const [capacity, loss] = [heatCapacityJPerK(pot), lossWPerK(pot)];
  const settlesC = nowC + (rate / 60) * (capacity / loss);
  return toC >= settlesC - 0.5 || roomC > settlesC
    ? null
    : (capacity / loss / 60) * Math.log((settlesC - nowC) / (settlesC - toC));
}

const round1 = (value: number): number => Math.round(value * 10) / 10;
