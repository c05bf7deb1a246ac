import type { PlannedStep } from '../scaling/lot-plan';
import type { PlannedZone } from '../scaling/placed-zones';
import type { DeviationFact } from './deviation';
import type { StepRecord, ZoneRecord } from './step-record';

/** A dip by hand may run this share over or under, and a minute at least, before it is worth a word. */
const TIME_SHARE = 0.25;
const TIME_MIN = 1;
const ML_SHARE = 0.15;

/** What of the placed colour came otherwise: left out, too long or too short, too much liquid, what was noted at it. */
export function zoneDeviations(
  step: PlannedStep,
  { zones = [], finishedAt, skippedReason }: StepRecord,
): DeviationFact[] {
  if (skippedReason !== undefined) return [];
  return (step.zones ?? []).flatMap((planned): DeviationFact[] => {
    const told = zones.filter((z) => z.zone === planned.zone);
    return [
      ...(finishedAt === undefined ? [] : undone(planned, told)),
      ...told.flatMap((zone) => ofZone(planned, zone)),
    ];
  });
}

function ofZone({ title, minutes: plannedMin, mlPerPiece }: PlannedZone, zone: ZoneRecord): DeviationFact[] {
  const { piece, inAt, doneAt, leftReason, ml, note } = zone;
  if (leftReason !== null) return [{ code: 'zoneLeft', title, piece, text: leftReason }];
  const minutes = inAt !== null && doneAt !== null ? (Date.parse(doneAt) - Date.parse(inAt)) / 60_000 : plannedMin;
  return [
    ...(Math.abs(minutes - plannedMin) > Math.max(TIME_MIN, plannedMin * TIME_SHARE)
      ? [{ code: 'zoneTime' as const, title, piece, minutes, plannedMin }]
      : []),
    ...(ml !== null && mlPerPiece !== null && Math.abs(ml - mlPerPiece) > mlPerPiece * ML_SHARE
      ? [{ code: 'zoneMl' as const, title, piece, ml, plannedMl: mlPerPiece }]
      : []),
    ...(note === '' ? [] : [{ code: 'zoneNote' as const, title, piece, text: note }]),
  ];
}

/** Pieces that were to get a zone and of which nothing was told, once the step is over. */
function undone({ title, pieces, pieceByPiece }: PlannedZone, told: readonly ZoneRecord[]): DeviationFact[] {
  if (told.some((z) => z.piece === null)) return [];
  const missing = pieceByPiece
    ? Array.from({ length: pieces }, (_, i) => i + 1).filter((piece) => !told.some((z) => z.piece === piece))
    : [];
  if (told.length === 0) return [{ code: 'zoneUndone', title, pieces: [] }];
  return missing.length === 0 ? [] : [{ code: 'zoneUndone', title, pieces: missing }];
}
