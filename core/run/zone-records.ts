import type { RunEntryOf } from './run-entry';
import type { ZoneRecord } from './step-record';

/** Folds what was told of zones into one record a zone and piece. */
export function foldZones(entries: readonly RunEntryOf<'zone'>[]): ZoneRecord[] {
  const zones = new Map<string, ZoneRecord>();
  for (const { at, text, detail } of entries) {
    const { zone, piece = null, did, ml } = detail;
    const key = `${zone} ${piece ?? 'all'}`;
    const before = zones.get(key) ?? { zone, piece, inAt: null, doneAt: null, leftReason: null, ml: null, note: '' };
    zones.set(key, {
      ...before,
      ...(did === 'in' ? { inAt: at } : did === 'done' ? { doneAt: at } : { leftReason: text ?? '' }),
      ml: ml ?? before.ml,
      note: did === 'left' ? before.note : [before.note, text ?? ''].filter((part) => part !== '').join(' · '),
    });
  }
  return [...zones.values()];
}

/** Whether nothing is left to do at a zone. */
export const zoneIsOver = ({ doneAt, leftReason }: ZoneRecord): boolean => doneAt !== null || leftReason !== null;
