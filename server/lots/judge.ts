import type { NewReading, NewVerdict } from '@vestigia/contract';
import {
  checkVerdict,
  ciede2000,
  foldRun,
  lotColour,
  sameConditions,
  settledReadings,
  currentEntries,
  stepState,
  countLabel,
} from '@vestigia/core';
import { eq } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { colourways, lotProgress, readings, verdicts } from '../db/schema';
import { Refusal, notFound } from '../shared/problem';
import { readState, refoldProgress } from './lot-progress';
import { masterOf } from './master-of';
import { findFirstLotId, findLot, readEntries, readReadings, currentReadings } from './lots-store';
import { releaseReservations } from './release-reservations';

export async function recordReading(
  db: Db,
  lotId: string,
  reading: NewReading,
  { now, byId }: By,
): Promise<{ id: string }> {
  const lot = await findLot(db, lotId);
  const state = await readState(db, lotId);
  if (state === 'planned' || state === 'cancelled')
    throw new Refusal(
      'refused',
      `This lot is ${state === 'planned' ? 'not begun' : 'cancelled'}: there is nothing to read yet.`,
    );
  if (reading.batch > lot.plan.batches.length)
    throw new Refusal(
      'refused',
      `This lot has ${countLabel(lot.plan.batches.length, 'batch', 'batches')}. Choose one of them.`,
    );
  if (reading.replacesId !== null) {
    const before = await readReadings(db, lotId);
    const old = before.find((r) => r.id === reading.replacesId);
    if (!old) throw notFound('reading');
    if (!currentEntries(before).includes(old))
      throw new Refusal('alreadyDone', 'That reading was corrected already. Correct the newest one.');
  }
  const { illuminant, observer, ...rest } = reading;
  await db
    .insert(readings)
    .values({ ...rest, lotId, conditions: { illuminant, observer }, at: now.toISOString(), byId });
  await refoldProgress(db, lotId);
  return { id: reading.id };
}

export async function giveVerdict(
  db: Db,
  lotId: string,
  { id, verdict, reason }: NewVerdict,
  by: By,
): Promise<{ id: string }> {
  const lot = await findLot(db, lotId);
  const state = await readState(db, lotId);
  if (state === 'released' || state === 'refused' || state === 'cancelled')
    throw new Refusal('alreadyDone', `This lot is ${state} already; a verdict stands once given.`);
  if (state === 'planned') throw new Refusal('refused', 'This lot has not been begun: there is nothing to judge.');
  const [colourway] = await db.select().from(colourways).where(eq(colourways.id, lot.colourwayId));
  if (!colourway) throw notFound('colourway');
  const master = await masterOf(db, lot);
  const status = currentReadings(await readReadings(db, lotId));
  const records = foldRun(await readEntries(db, lotId), lot.plan.steps.length);
  const refusal = checkVerdict({
    verdict,
    reason,
    batches: lot.plan.batches.length,
    readings: status,
    master: master && {
      lab: master,
      illuminant: master.illuminant,
      observer: master.observer,
      toleranceDeltaE: colourway.toleranceDeltaE,
    },
    openSteps: records.filter((r) => !['done', 'skipped'].includes(stepState(r))).length,
  });
  if (refusal) throw new Refusal('refused', refusal.message, { reason: refusal.code });

  const settled = [...settledReadings(status).values()].filter((r, _, all) => sameConditions(r, master ?? all[0] ?? r));
  const colour = settled.length === 0 ? undefined : lotColour(master, settled);
  const firstId = await findFirstLotId(db, lot);
  const [first] =
    firstId === undefined
      ? []
      : await db.select({ result: lotProgress.result }).from(lotProgress).where(eq(lotProgress.lotId, firstId));
  const toFirst = colour && first?.result ? ciede2000(first.result, colour.lab, { kL: 1, kC: 1, kH: 1 }).deltaE : null;
  await db.insert(verdicts).values({
    id,
    lotId,
    verdict,
    reason,
    toMaster: colour?.worstDeltaE ?? null,
    toFirst,
    betweenBatches: colour?.betweenBatchesDeltaE ?? null,
    at: by.now.toISOString(),
    byId: by.byId,
  });
  if (verdict !== 'hold') await releaseReservations(db, lotId, by);
  await refoldProgress(db, lotId);
  return { id };
}
