import type { DepthAt, StepRecord } from '@vestigia/core';

/** Samples of one batch's pieces or liquor, in minutes from when the step began. */
export function samplesOf(record: StepRecord, of: 'liquor' | 'piece', batch: number): DepthAt[] {
  const beganMs = Date.parse(record.startedAt ?? '') + (record.pausedMs ?? 0);
  return (record.samples ?? [])
    .filter((s) => s.of === of && s.batch === batch)
    .map((s) => ({ minute: Math.max(0, (Date.parse(s.at) - beganMs) / 60_000), depth: s.depth }));
}
