import type { LotState, NewRunEntry, RunEntryView } from '@vestigia/contract';
import type { PlannedStep, StepRecord } from '@vestigia/core';
import { foldRun, formatAmount, nextStepIndex, readAmount, standingEntries, stepState } from '@vestigia/core';
import { and, eq } from 'drizzle-orm';
import type { By } from '../by';
import type { Db } from '../db/database';
import { runEntries, stockBalances, stockLots } from '../db/schema';
import { Refusal, notFound } from '../problem';
import { giveBackFromLot, takeForLot } from '../stores/movements';
import { readState, refoldProgress } from './lot-progress';
import type { LotRow } from './lots-store';
import { findLot, readEntries } from './lots-store';
import { consumePromise, releasePromises } from './release-promises';

const CLOSED: readonly LotState[] = ['released', 'refused', 'cancelled'];
/** A tablet's clock may run this far ahead of the server's. */
const AHEAD_MS = 2 * 60_000;

/** Records one thing done at the bench, moves stock by what was really weighed, and folds the lot again. */
export async function recordEntry(db: Db, lotId: string, entry: NewRunEntry, by: By): Promise<{ id: string }> {
  const lot = await findLot(db, lotId);
  const state = await readState(db, lotId);
  if (CLOSED.includes(state)) throw new Refusal('refused', `This lot is ${state}; its record is closed. Start a new lot to dye it again.`, { reason: 'closed' });
  const entries = await readEntries(db, lotId);
  const replaced = findReplaced(entries, entry);
  const records = foldRun(entries, lot.plan.steps.length);
  const step = lot.plan.steps[entry.stepIndex];
  const record = records[entry.stepIndex];
  if (!step || !record) throw notFound('step');
  const at = checkTime(entry, lot, record, by.now);
  checkOrder(entry, replaced, records, record, step);

  const amount = entry.kind === 'weigh' ? await checkWeighing(db, entry, step, lot, replaced) : 0;
  const { weighing, ...rest } = entry;
  const kept = weighing === null ? null : { batch: weighing.batch, materialId: weighing.materialId, stockLotId: weighing.stockLotId, amount };
  await db.insert(runEntries).values({ ...rest, lotId, at, recordedAt: by.now.toISOString(), byId: by.byId, weighing: kept });
  if (weighing !== null) {
    if (replaced) await giveBackFromLot(db, replaced.id, by);
    await takeForLot(db, { id: weighing.movementId, stockLotId: weighing.stockLotId, amount, lotId, runEntryId: entry.id }, by);
    await consumePromise(db, lotId, weighing.stockLotId, weighing.materialId, amount, by);
  }
  if (entry.kind === 'cancel') await releasePromises(db, lotId, by);
  if (entry.kind === 'finish' || entry.kind === 'skip') await releaseWhatIsOver(db, lot, entry.stepIndex, by);
  await refoldProgress(db, lotId);
  return { id: entry.id };
}

function findReplaced(entries: readonly RunEntryView[], entry: NewRunEntry): RunEntryView | undefined {
  if (entry.replacesId === null) return undefined;
  const found = entries.find((e) => e.id === entry.replacesId);
  if (!found || found.kind !== entry.kind || found.stepIndex !== entry.stepIndex) throw new Refusal('refused', 'A correction names an entry of the same step and kind. Choose the entry to correct again.');
  if (!standingEntries(entries).includes(found)) throw new Refusal('alreadyDone', 'That entry was corrected already. Correct the newest one.');
  return found;
}

function checkTime(entry: NewRunEntry, lot: LotRow, record: StepRecord, now: Date): string {
  const at = entry.at ?? now.toISOString();
  const ms = Date.parse(at);
  if (ms > now.getTime() + AHEAD_MS) throw new Refusal('refused', 'That time is still to come. Write when it really happened.', { reason: 'inFuture' });
  if (ms < Date.parse(lot.at) - AHEAD_MS) throw new Refusal('refused', 'That is before the lot was made. Check the date.', { reason: 'beforeLot' });
  if (entry.kind === 'finish' && record.startedAt !== undefined && ms < Date.parse(record.startedAt)) throw new Refusal('refused', 'A step can’t be finished before it began. Check the time.', { reason: 'finishedBeforeStart' });
  return at;
}

function checkOrder(entry: NewRunEntry, replaced: RunEntryView | undefined, records: readonly StepRecord[], record: StepRecord, step: PlannedStep): void {
  const refuse = (sentence: string, reason: string): never => {
    throw new Refusal('refused', sentence, { reason });
  };
  const said = (entry.text ?? '').trim() !== '';
  const now = stepState(record);
  switch (entry.kind) {
    case 'cancel':
      if (!said) refuse('Say why the lot is cancelled.', 'reasonMissing');
      return;
    case 'note':
      if (!said) refuse('The note is empty. Write what you saw.', 'empty');
      return;
    case 'start':
      if (replaced) return;
      if (now !== 'waiting') refuse(`“${step.title}” was begun already.`, 'alreadyBegun');
      if (nextStepIndex(records) !== entry.stepIndex) refuse('An earlier step is not finished. Finish it or skip it with a reason first.', 'outOfOrder');
      return;
    case 'skip':
      if (!said) refuse('Say why the step is skipped: the next lot will want to know.', 'reasonMissing');
      if (nextStepIndex(records) !== entry.stepIndex) refuse('Only the step that is next can be skipped.', 'outOfOrder');
      return;
    case 'temperature':
      if (entry.temperatureC === null) refuse('Write the temperature in °C.', 'empty');
      if (now === 'waiting') refuse(`“${step.title}” has not been begun. Begin it, then take its temperature.`, 'notBegun');
      return;
    case 'weigh':
      if (now === 'waiting') refuse(`“${step.title}” has not been begun. Begin it, then weigh out.`, 'notBegun');
      return;
    case 'finish': {
      if (replaced) return;
      if (now === 'waiting') refuse(`“${step.title}” has not been begun. Begin it, then finish it.`, 'notBegun');
      if (now !== 'running') refuse(`“${step.title}” is over already.`, 'alreadyDone');
      const missing = step.weighings.filter((w) => !record.weighings.some((r) => r.batch === w.batch && r.materialId === w.materialId));
      if (missing.length > 0 && !said) refuse(`Not weighed yet: ${missing.map((w) => `${w.materialName} for batch ${w.batch}`).join(', ')}. Weigh it, or say why it is left out.`, 'notWeighed');
    }
  }
}

async function checkWeighing(db: Db, entry: NewRunEntry, step: PlannedStep, lot: LotRow, replaced: RunEntryView | undefined): Promise<number> {
  const { weighing } = entry;
  if (weighing === null) throw new Refusal('refused', 'Write what was weighed, and from which jar.');
  const planned = step.weighings.find((w) => w.batch === weighing.batch && w.materialId === weighing.materialId);
  if (!planned) throw new Refusal('refused', 'This step does not weigh that material for that batch. Choose it from the list.');
  const reading = readAmount(weighing.written, planned.measure);
  if (!reading.ok) throw new Refusal('refused', reading.sentence, { reason: 'code' in reading ? String(reading.code) : 'notAnAmount' });
  const [jar] = await db.select({ tag: stockLots.tag, materialId: stockLots.materialId, onHand: stockBalances.onHand }).from(stockLots).innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id)).where(and(eq(stockLots.id, weighing.stockLotId)));
  if (!jar) throw notFound('jar');
  if (jar.materialId !== weighing.materialId) {
    const wanted = lot.plan.materials.find((m) => m.materialId === weighing.materialId)?.name ?? 'another material';
    throw new Refusal('refused', `Wrong jar: ${jar.tag} does not hold ${wanted}. Put it back and take one that does.`, { reason: 'wrongJar' });
  }
  const { amount } = reading;
  const back = replaced?.weighing?.stockLotId === weighing.stockLotId ? replaced.weighing.amount : 0;
  if (amount > jar.onHand + back) {
    throw new Refusal('refused', `${jar.tag} holds ${formatAmount(jar.onHand + back, planned.measure)}, so ${formatAmount(amount, planned.measure)} can’t have come from it. Count the jar if the screen is wrong, or take the rest from another.`, { reason: 'notOnHand' });
  }
  return amount;
}

/** A material that no open step needs is promised no longer. */
async function releaseWhatIsOver(db: Db, lot: LotRow, finishedIndex: number, by: By): Promise<void> {
  const idsIn = (steps: readonly PlannedStep[]): string[] => steps.flatMap((s) => s.weighings.map((w) => w.materialId));
  const needed = new Set(idsIn(lot.plan.steps.filter((s) => s.index > finishedIndex)));
  const over = idsIn(lot.plan.steps.filter((s) => s.index <= finishedIndex)).filter((id) => !needed.has(id));
  if (over.length > 0) await releasePromises(db, lot.id, by, over);
}
