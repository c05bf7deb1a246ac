import type { CourseWatch, FibreKind, PlannedStep, PotBody } from '@vestigia/core';
import { ReadingLog, foldRun, watchCourse } from '@vestigia/core';
import type { ChangeBus, PotCall } from '../shared/context';
import type { Db } from '../db/database';
import { readLot } from '../lots/lots-store';
import type { ProbePoint } from '../lots/probe-log';
import { readRoom } from '../studio/room';

/** A bath nobody reads any more calls no longer. */
const SILENT_MS = 2 * 60_000;
/** A watch looks again this often, and back over this much. */
const LOOK_EVERY_MS = 2000;
const LOOK_BACK_MS = 30 * 60_000;
const POINTS = 600;

interface Bath {
  readonly lotId: string;
  readonly step: PlannedStep;
  readonly fibres: readonly FibreKind[];
  readonly pot: PotBody | undefined;
  readonly roomC: number;
  readonly beganMs: number;
  readonly log: ReadingLog;
  lookedMs: number;
  watch: CourseWatch | undefined;
}

/** Follows every bath a probe hangs in, whichever page anybody looks at, and calls when one is at its ceiling. */
export class PotWatch {
  private readonly baths = new Map<string, Bath>();

  constructor(private readonly changes: ChangeBus) {}

  async begin(db: Db, lotId: string, stepIndex: number, nowMs: number): Promise<void> {
    const lot = await readLot(db, lotId);
    const step = lot.plan.steps[stepIndex];
    if (!step || this.baths.has(keyOf(lotId, stepIndex))) return;
    const bath = step.baths[0];
    const startedAt = foldRun(lot.entries, lot.plan.steps.length)[stepIndex]?.startedAt;
    this.end(lotId);
    this.baths.set(keyOf(lotId, stepIndex), {
      lotId,
      step,
      fibres: lot.plan.groups.map((g) => g.fibre),
      pot: bath ? { liquorMl: bath.liquor.value, wofG: bath.wof.value } : undefined,
      roomC: (await readRoom(db)).room.roomC,
      beganMs: startedAt === undefined ? nowMs : Date.parse(startedAt),
      log: new ReadingLog(),
      lookedMs: -Infinity,
      watch: undefined,
    });
  }

  add(lotId: string, stepIndex: number, points: readonly ProbePoint[]): void {
    const bath = this.baths.get(keyOf(lotId, stepIndex));
    if (!bath) return;
    for (const [atMs, temperatureC] of points) bath.log.add(atMs, temperatureC);
    const lastMs = bath.log.last()?.atMs ?? 0;
    if (lastMs - bath.lookedMs < LOOK_EVERY_MS) return;
    bath.lookedMs = lastMs;
    const before = codesOf(bath);
    const readings = bath.log
      .sampled(POINTS, lastMs - LOOK_BACK_MS)
      .map(([atMs, temperatureC]) => ({ minute: (atMs - bath.beganMs) / 60_000, temperatureC }));
    bath.watch = watchCourse({ step: bath.step, readings, fibres: bath.fibres, pot: bath.pot, roomC: bath.roomC });
    if (codesOf(bath) !== before) this.changes.tell(['lots']);
  }

  /** A lot's baths, or one step's, are watched no longer. */
  end(lotId: string, stepIndex?: number): void {
    for (const [key, bath] of this.baths)
      if (bath.lotId === lotId && (stepIndex === undefined || bath.step.index === stepIndex)) this.baths.delete(key);
  }

  calls(nowMs: number): PotCall[] {
    return [...this.baths.values()]
      .filter((b) => nowMs - (b.log.last()?.atMs ?? 0) <= SILENT_MS)
      .flatMap((b) =>
        urgent(b).map(({ code, message }) => ({
          lotId: b.lotId,
          stepIndex: b.step.index,
          code,
          message: `${b.step.title}: ${message}`,
        })),
      );
  }
}

const keyOf = (lotId: string, stepIndex: number): string => `${lotId} ${stepIndex}`;
const urgent = (bath: Bath) => (bath.watch?.alarms ?? []).filter((a) => a.urgent);
const codesOf = (bath: Bath): string =>
  urgent(bath)
    .map((a) => a.code)
    .join();
