import type { Lab } from '../colour/lab';
import type { StepRecord } from '../run/step-record';
import type { BathCourse } from './dyeing';

/** That fibre came out of a step before the others: a piece that was pulled, a snippet that was cut off as a sample. */
export interface EarlyOut {
  readonly stepIndex: number;
  /** From when the step began, pauses left out. */
  readonly minute: number;
}

/** A snippet of a batch that was read out of the bath, wet. */
export interface SampleRead extends EarlyOut {
  readonly batch: number;
  readonly lab: Lab;
}

const MINUTE_MS = 60_000;

const minuteOf = ({ startedAt, pausedMs = 0 }: StepRecord, at: string): number =>
  startedAt === undefined ? 0 : (Date.parse(at) - Date.parse(startedAt) - pausedMs) / MINUTE_MS;

/** When a piece was pulled; `undefined` where it stayed in with the others, or its mark is no number. */
export function pulledOut(records: readonly StepRecord[], piece: string): EarlyOut | undefined {
  const number = Number(piece);
  for (const record of records) {
    const pull = (record.pulls ?? []).find((p) => p.piece === number);
    const minute = pull ? minuteOf(record, pull.at) : 0;
    if (minute > 0) return { stepIndex: record.stepIndex, minute };
  }
  return undefined;
}

/** Snippets that were read while a step went, in their order. Of the liquor nothing is learnt: it is no fibre. */
export const samplesRead = (records: readonly StepRecord[]): SampleRead[] =>
  records.flatMap((record) =>
    (record.samples ?? []).flatMap(({ of, lab, batch, at }) => {
      const minute = minuteOf(record, at);
      return of === 'piece' && lab && minute > 0 ? [{ stepIndex: record.stepIndex, minute, batch, lab }] : [];
    }),
  );

/** A course up to a minute; `undefined` where nothing of it is left. */
export function cutCourse(course: BathCourse, minute: number): BathCourse | undefined {
  const points: { minute: number; celsius: number }[] = [];
  for (const p of course.points) {
    const before = points.at(-1);
    if (p.minute <= minute) points.push(p);
    else {
      if (before && before.minute < minute) {
        const share = (minute - before.minute) / (p.minute - before.minute);
        points.push({ minute, celsius: before.celsius + share * (p.celsius - before.celsius) });
      }
      break;
    }
  }
  return points.length < 2 ? undefined : { ...course, points };
}
