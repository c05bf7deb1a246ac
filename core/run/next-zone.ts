import type { PlannedStep } from '../scaling/lot-plan';
import type { PlannedZone } from '../scaling/placed-zones';
import type { StepRecord, ZoneRecord } from './step-record';
import { zoneIsOver } from './zone-records';

/** A zone that hands can turn to, on a piece or on all of them. */
export interface ZoneToDo {
  readonly zone: PlannedZone;
  /** 1, 2, 3 … of `of`; `null`: all of them together. */
  readonly piece: number | null;
  readonly of: number;
  /** Since when it is in its liquor, epoch ms; `null` before that. */
  readonly inMs: number | null;
  /** When it may be begun, or is to come out, epoch ms. */
  readonly dueMs: number;
  /** Zones and pieces of this step still open, this one among them. */
  readonly left: number;
}

const MS_IN_MIN = 60_000;

/** A zone on one piece, or (`null`) on all of them together. */
interface Place {
  readonly zone: PlannedZone;
  readonly piece: number | null;
}

const placesOf = (zone: PlannedZone): Place[] =>
  zone.pieceByPiece ? Array.from({ length: zone.pieces }, (_, i) => ({ zone, piece: i + 1 })) : [{ zone, piece: null }];

/**
 * The zone to turn to next at a running step: one whose time is up, else the next of its turn, else what is in and
 * waits. `undefined` where all are done, or none is placed.
 */
export function nextZone(step: PlannedStep, record: StepRecord, nowMs: number): ZoneToDo | undefined {
  const places = (step.zones ?? []).flatMap(placesOf);
  const recordOf = (zone: number, piece: number | null): ZoneRecord | undefined =>
    record.zones?.find((z) => z.zone === zone && z.piece === piece);
  const open = places.filter(({ zone, piece }) => {
    const told = recordOf(zone.zone, piece);
    return told === undefined || !zoneIsOver(told);
  });
  const turn = Math.min(...open.map(({ zone }) => zone.order));
  const readyMs = turnReadyMs(step, record, turn);
  const todo = open
    .filter(({ zone }) => zone.order === turn)
    .map(({ zone, piece }): ZoneToDo => {
      const inAt = recordOf(zone.zone, piece)?.inAt ?? null;
      const inMs = inAt === null ? null : Date.parse(inAt);
      const dueMs = inMs === null ? readyMs : inMs + zone.minutes * MS_IN_MIN;
      return { zone, piece, of: zone.pieces, inMs, dueMs, left: open.length };
    });
  const soonest = (of: readonly ZoneToDo[]): ZoneToDo | undefined =>
    of.reduce<ZoneToDo | undefined>((best, z) => (best && best.dueMs <= z.dueMs ? best : z), undefined);
  const isIn = todo.filter((z) => z.inMs !== null);
  return soonest(isIn.filter((z) => z.dueMs <= nowMs)) ?? todo.find((z) => z.inMs === null) ?? soonest(isIn);
}

/** A turn begins when those before it have waited as long as they are to. */
function turnReadyMs(step: PlannedStep, record: StepRecord, turn: number): number {
  const before = (step.zones ?? []).filter((z) => z.order < turn);
  return Math.max(
    Date.parse(record.startedAt ?? '') || 0,
    ...(record.zones ?? []).flatMap(({ zone, doneAt }) => {
      const planned = before.find((z) => z.zone === zone);
      return planned && doneAt !== null ? [Date.parse(doneAt) + planned.waitMin * MS_IN_MIN] : [];
    }),
  );
}
