import type { LotState, ReadingView, RunEntryView } from '@vestigia/contract';
import type { KeptPlan, StepRecord } from '@vestigia/core';
import { completePlan, findDeviations, foldRun, lotColour, nextStepIndex, sameConditions, settledReadings, standingEntries, stepState } from '@vestigia/core';
import { asc, eq } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lotProgress, lots, verdicts } from '../db/schema';
import type { LotRow } from './lots-store';
import { findLot, readEntries, readReadings, standingReadings } from './lots-store';

type Progress = typeof lotProgress.$inferInsert;
type Master = typeof colourways.$inferSelect['master'];

export interface LotFacts {
  readonly lot: Pick<LotRow, 'id' | 'at'> & { readonly plan: KeptPlan };
  readonly master: Master;
  readonly entries: readonly RunEntryView[];
  readonly readings: readonly ReadingView[];
  /** Verdicts in the order they were given. */
  readonly verdicts: readonly ('pass' | 'hold' | 'refuse')[];
}

/** Folds everything recorded of a lot into where it stands. Pure: the same facts always give the same progress. */
export function foldProgress({ lot, master, entries, readings, verdicts: given }: LotFacts): Progress {
  const { steps } = completePlan(lot.plan);
  const records = foldRun(entries, steps.length);
  const next = nextStepIndex(records);
  const nextStep = next === undefined ? undefined : steps[next];
  const cancelled = standingEntries(entries).some((e) => e.kind === 'cancel');
  const settled = [...settledReadings(standingReadings(readings)).values()].filter((r) => sameConditions(r, master));
  const colour = settled.length === 0 ? undefined : lotColour(master, settled);
  return {
    lotId: lot.id,
    state: cancelled ? 'cancelled' : stateOf(given.at(-1), next, records),
    stations: steps.map((step, i) => {
      const record = records[i] ?? { stepIndex: i, temperaturesC: [], weighings: [] };
      return { kind: step.kind, title: step.title, state: stepState(record), knotted: findDeviations(step, record, () => 'another jar').length > 0 };
    }),
    next: nextStep === undefined || cancelled ? null : { index: nextStep.index, title: nextStep.title, startedAt: records[nextStep.index]?.startedAt ?? null, durationMin: nextStep.durationMin, attended: nextStep.attended },
    result: colour ? { ...colour.lab, illuminant: master.illuminant, observer: master.observer } : null,
    deltaE: colour?.worstDeltaE ?? null,
    lastAt: entries.at(-1)?.recordedAt ?? lot.at,
  };
}

function stateOf(verdict: 'pass' | 'hold' | 'refuse' | undefined, next: number | undefined, records: readonly StepRecord[]): LotState {
  if (verdict === 'pass') return 'released';
  if (verdict === 'refuse') return 'refused';
  if (verdict === 'hold') return 'held';
  if (next === undefined) return 'toJudge';
  return records.some((r) => stepState(r) !== 'waiting') ? 'inWork' : 'planned';
}

/** Folds a lot again and keeps the result; called in the transaction of whatever changed it. */
export async function refoldProgress(db: Db, lotId: string): Promise<Progress> {
  const lot = await findLot(db, lotId);
  const [colourway] = await db.select({ master: colourways.master }).from(colourways).where(eq(colourways.id, lot.colourwayId));
  if (!colourway) throw new Error(`lot ${lotId} without its colourway`);
  const given = await db.select({ verdict: verdicts.verdict }).from(verdicts).where(eq(verdicts.lotId, lotId)).orderBy(asc(verdicts.seq));
  const progress = foldProgress({ lot, master: colourway.master, entries: await readEntries(db, lotId), readings: await readReadings(db, lotId), verdicts: given.map((v) => v.verdict) });
  await db.insert(lotProgress).values(progress).onConflictDoUpdate({ target: lotProgress.lotId, set: progress });
  return progress;
}

export async function readState(db: Db, lotId: string): Promise<LotState> {
  const [row] = await db.select({ state: lotProgress.state }).from(lotProgress).where(eq(lotProgress.lotId, lotId));
  return row?.state ?? 'planned';
}

/** Folds every lot: after a studio file was opened. */
export async function refoldAll(db: Db): Promise<void> {
  for (const { id } of await db.select({ id: lots.id }).from(lots)) await refoldProgress(db, id);
}
