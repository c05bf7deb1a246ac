import type { CoursePoint, PlannedStep } from '@vestigia/core';
import { ReadingLog, cornerPoints, heldMinutes, holdOf } from '@vestigia/core';
import { and, asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { probeLogs } from '../db/schema';
import { uuidv7 } from '../shared/ids';

const PAIR_BYTES = 12;
const MIN_READINGS = 3;
export type ProbePoint = readonly [atMs: number, temperatureC: number];

/** Packs readings as they are kept: epoch ms in 64 bits, °C in 32, little end first. */
export function packReadings(points: readonly ProbePoint[]): Uint8Array {
  const packed = new DataView(new ArrayBuffer(points.length * PAIR_BYTES));
  points.forEach(([atMs, temperatureC], i) => {
    packed.setFloat64(i * PAIR_BYTES, atMs, true);
    packed.setFloat32(i * PAIR_BYTES + 8, temperatureC, true);
  });
  return new Uint8Array(packed.buffer);
}

export function unpackInto(log: ReadingLog, bytes: Uint8Array): void {
  const packed = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let i = 0; i + PAIR_BYTES <= bytes.byteLength; i += PAIR_BYTES)
    log.add(packed.getFloat64(i, true), packed.getFloat32(i + 8, true));
}

export async function keepReadings(
  db: Db,
  of: { id?: string; lotId: string; stepIndex: number; simulated: boolean },
  points: readonly ProbePoint[],
  now: Date,
): Promise<void> {
  await db.insert(probeLogs).values({
    id: of.id ?? uuidv7(now),
    lotId: of.lotId,
    stepIndex: of.stepIndex,
    simulated: of.simulated,
    readings: packReadings(points),
    at: now.toISOString(),
  });
}

/** What the probe read in a lot, or in one step of it. */
export async function readProbe(
  db: Db,
  lotId: string,
  stepIndex?: number,
): Promise<{ log: ReadingLog; simulated: boolean }> {
  const rows = await db
    .select({ readings: probeLogs.readings, simulated: probeLogs.simulated })
    .from(probeLogs)
    .where(and(eq(probeLogs.lotId, lotId), stepIndex === undefined ? undefined : eq(probeLogs.stepIndex, stepIndex)))
    .orderBy(asc(probeLogs.seq));
  const log = new ReadingLog();
  for (const row of rows) unpackInto(log, row.readings);
  return { log, simulated: rows.some((r) => r.simulated) };
}

export interface ProbedStep {
  readonly hottestC: number;
  readonly atMs: number;
  /** Minutes of its hold in band; `undefined` where nothing is held. */
  readonly heldMin: number | undefined;
  readonly course: readonly CoursePoint[];
  readonly simulated: boolean;
}

/**
 * What a probe says of a step since it began: the hottest, and how much of its hold was truly held. `undefined` where
 * it saw too little to say.
 */
export async function probedStep(
  db: Db,
  lotId: string,
  step: PlannedStep,
  sinceMs: number,
): Promise<ProbedStep | undefined> {
  const { log, simulated } = await readProbe(db, lotId, step.index);
  const recent = log.since(sinceMs);
  const hottest = recent.reduce<(typeof recent)[number] | undefined>(
    (a, b) => (a === undefined || b.value > a.value ? b : a),
    undefined,
  );
  if (hottest === undefined || recent.length < MIN_READINGS) return undefined;
  const hold = holdOf(step);
  const readings = recent.map((r) => ({ minute: (r.atMs - sinceMs) / 60_000, temperatureC: r.value }));
  const heldMin = hold ? Math.round(heldMinutes(readings, hold.atC)) : undefined;
  const hottestC = Math.round(hottest.value * 10) / 10;
  return { hottestC, atMs: hottest.atMs, heldMin, course: cornerPoints(readings), simulated };
}
