import type { LotState, NewEyeReading, NewReading, NewVerdict, VerdictTakeBack } from '@vestigia/contract';
import type { JudgedAlone, ShadeOf } from '@vestigia/core';
import {
  checkVerdict,
  ciede2000,
  countLabel,
  currentEntries,
  foldFamily,
  foldRun,
  hasShade,
  isWholeLot,
  isWithin,
  judgedAlone,
  placeShade,
  sayAlone,
  seenOfRest,
  seenOfShade,
  standardFor,
  stepState,
  takeBackable,
  unitsOf,
  verdictRestsOn,
} from '@vestigia/core';
import { and, eq, gt } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import type { KeptFiles } from '../db/kept-files';
import { colourways, eyeReadings, lots, readings, verdictTakeBacks, verdicts } from '../db/schema';
import { Refusal, notFound } from '../shared/problem';
import { findVersion } from '../recipes/recipes-store';
import { attach } from '../stores/materials-store';
import { readState, refoldProgress } from './lot-progress';
import { readParts } from './lot-parts';
import type { LotRow } from './lots-store';
import { currentEyes, currentReadings, findLot, firstsOfLines } from './lots-store';
import { lotTag } from '../shared/lot-tag';
import { releaseReservations } from './release-reservations';
import { readStandards } from './standards';

type Seen = Pick<NewReading, 'batch' | 'group' | 'zone' | 'piece' | 'dip' | 'replacesId'>;

/** Whether something may be said of a shade of a lot: it is begun, it has that shade, and what is corrected stands. */
async function checkSeen(
  db: Db,
  lot: LotRow,
  seen: Seen,
  before: readonly (Pick<Seen, 'batch' | 'piece' | 'replacesId'> & { readonly id: string })[],
): Promise<void> {
  const state = await readState(db, lot.id);
  if (state === 'planned' || state === 'cancelled')
    throw new Refusal(
      'refused',
      $localize`This lot is ${state === 'planned' ? $localize`not begun` : $localize`cancelled`}:state:: there is nothing to read yet.`,
    );
  if (seen.batch > lot.plan.batches.length)
    throw new Refusal(
      'refused',
      $localize`This lot has ${countLabel(lot.plan.batches.length, 'batch')}. Choose one of them.`,
    );
  await checkShade(db, lot, seen);
  const elsewhere = currentEntries(before).find(
    (r) => seen.piece !== null && r.piece === seen.piece && r.batch !== seen.batch && r.id !== seen.replacesId,
  );
  if (elsewhere)
    throw new Refusal(
      'refused',
      $localize`Piece ${seen.piece} was read in batch ${elsewhere.batch} before, and a piece is in one place. Choose that batch, or correct that reading.`,
      { reason: 'inTwoPlaces' },
    );
  if (seen.replacesId === null) return;
  const old = before.find((r) => r.id === seen.replacesId);
  if (!old) throw notFound('reading');
  if (!currentEntries(before).includes(old))
    throw new Refusal('alreadyDone', $localize`That reading was corrected already. Correct the newest one.`);
}

/** Refuses what is said to be of a batch, a base, a zone or a piece that the lot hasn’t. */
async function checkShade(db: Db, lot: LotRow, of: ShadeOf): Promise<void> {
  const { body } = await findVersion(db, lot.recipeVersionId);
  const zones = (body.placed?.zones ?? []).map((z) => z.title);
  if (!hasShade(lot.plan, of, zones))
    throw new Refusal(
      'refused',
      $localize`That batch holds no such pieces, there is no piece of that number, or they have no such zone. Choose what the lot has.`,
      {
        reason: 'noSuchShade',
      },
    );
}

export async function recordReading(
  db: Db,
  lotId: string,
  { illuminant, observer, group, ...reading }: NewReading,
  { now, byId }: By,
): Promise<{ id: string }> {
  const lot = await findLot(db, lotId);
  await checkSeen(db, lot, { ...reading, group }, (await readParts(db, lotId, 'readings')).readings);
  const conditions = { illuminant, observer };
  await db.insert(readings).values({ ...reading, groupKey: group, lotId, conditions, at: now.toISOString(), byId });
  await refoldProgress(db, lotId);
  return { id: reading.id };
}

/** Records what an eye saw, with how sure that is: an eye’s word. */
export async function recordEye(
  db: Db,
  lotId: string,
  { group, ...reading }: NewEyeReading,
  { now, byId }: By,
): Promise<{ id: string }> {
  const lot = await findLot(db, lotId);
  await checkSeen(db, lot, { ...reading, group }, (await readParts(db, lotId, 'eyes')).eyes);
  await db.insert(eyeReadings).values({ ...reading, groupKey: group, lotId, at: now.toISOString(), byId });
  await refoldProgress(db, lotId);
  return { id: reading.id };
}

export async function giveVerdict(
  db: Db,
  lotId: string,
  { id, verdict, of: asked, reason }: NewVerdict,
  by: By,
): Promise<{ id: string }> {
  const lot = await findLot(db, lotId);
  const of = asked && placeShade(lot.plan, asked);
  if (of) await checkShade(db, lot, of);
  const parts = await readParts(db, lotId, 'entries', 'readings', 'eyes', 'verdicts');
  const alone = judgedAlone(parts.verdicts);
  checkOpen(lot, await readState(db, lotId), of, alone);
  const [colourway] = await db.select().from(colourways).where(eq(colourways.id, lot.colourwayId));
  if (!colourway) throw notFound('colourway');
  const { standards, rule } = await readStandards(db, lot);
  const records = foldRun(parts.entries, lot.plan.steps.length);
  const seen = {
    units: unitsOf(lot.plan),
    readings: currentReadings(parts.readings).map((r) => placeShade(lot.plan, r)),
    eyes: currentEyes(parts.eyes).map((r) => placeShade(lot.plan, r)),
  };
  const judged = of ? seenOfShade(seen, of, lot.plan) : seenOfRest(seen, alone);
  const refusal = checkVerdict({
    ...judged,
    verdict,
    reason,
    standardOf: (of) => standardFor(lot.plan, of, standards),
    toleranceDeltaE: colourway.toleranceDeltaE,
    rule,
    openSteps: records.filter((r) => !['done', 'skipped'].includes(stepState(r))).length,
  });
  if (refusal) throw new Refusal('refused', refusal.message, { reason: refusal.code });
  const family = foldFamily(lot.plan, standards, judged.readings);
  const far = family.flatMap((m) => m.deltaE ?? []);
  const shown = of ? null : (family[0]?.lab ?? family.find((m) => m.lab)?.lab ?? null);
  await db.insert(verdicts).values({
    id,
    lotId,
    verdict,
    of,
    reason,
    toMaster: far.length > 0 ? Math.max(...far) : null,
    toFirst: await differenceToFirst(db, lot, shown),
    betweenBatches: shown ? Math.max(...family.map((m) => m.betweenBatchesDeltaE)) : null,
    restsOn: verdictRestsOn(judged),
    at: by.now.toISOString(),
    byId: by.byId,
  });
  if (!of && verdict !== 'hold') await releaseReservations(db, lotId, by);
  await refoldProgress(db, lotId);
  return { id };
}

/** Takes a verdict back that was a slip. It stays in the record, beside who took it back and when. */
export async function takeVerdictBack(
  db: Db,
  lotId: string,
  { id, verdictId }: VerdictTakeBack,
  { now, byId }: By,
): Promise<{ id: string }> {
  const { verdicts: given } = await readParts(db, lotId, 'verdicts');
  const verdict = given.find((v) => v.id === verdictId);
  if (!verdict) throw notFound('verdict');
  if (verdict.takenBack)
    throw new Refusal('alreadyDone', $localize`${verdict.takenBack.by.name} took that verdict back already.`);
  if (takeBackable(given, now.getTime()) !== verdict)
    throw new Refusal(
      'refused',
      $localize`Only the last verdict can be taken back, and within the hour. Write a note on the lot instead; what came of it is read afterwards.`,
      { reason: 'tooLate' },
    );
  const [later] = await db
    .select({ number: lots.number })
    .from(lots)
    .where(and(eq(lots.reorderOfId, lotId), gt(lots.at, verdict.at)));
  if (later)
    throw new Refusal('refused', $localize`${lotTag(later.number)} was agreed to match it since: the verdict stands.`, {
      reason: 'goneBy',
    });
  await db.insert(verdictTakeBacks).values({ id, verdictId, at: now.toISOString(), byId });
  await refoldProgress(db, lotId);
  return { id };
}

/** Whether a verdict may still be given: one that stands stays, of the lot and of what was judged by itself. */
function checkOpen(
  { plan }: Pick<LotRow, 'plan'>,
  state: LotState,
  of: ShadeOf | null,
  alone: readonly JudgedAlone[],
): void {
  if (state === 'planned')
    throw new Refusal('refused', $localize`This lot has not been begun: there is nothing to judge.`);
  const isHeldAlone = of !== null && alone.some((v) => v.verdict === 'hold' && isWithin(of, v.of));
  if (state === 'refused' || state === 'cancelled' || (state === 'released' && !isHeldAlone))
    throw new Refusal('alreadyDone', $localize`This lot is ${state} already; a verdict stands once given.`);
  if (!of) return;
  if (isWholeLot(plan, of))
    throw new Refusal('refused', $localize`That is all there is of this lot. Give the verdict on the lot.`);
  const stands = alone.find((v) => v.verdict !== 'hold' && isWithin(of, v.of));
  if (stands)
    throw new Refusal(
      'alreadyDone',
      $localize`${sayAlone(plan, stands.of)} was ${stands.verdict === 'pass' ? $localize`passed` : $localize`refused`} already; a verdict stands once given.`,
    );
}

/** How far a lot lies from the first of its line, ΔE00. */
async function differenceToFirst(
  db: Db,
  lot: LotRow,
  shown: NonNullable<LotRow['master']> | null,
): Promise<number | null> {
  const first = (await firstsOfLines(db, [lot.id])).get(lot.id);
  return first?.colour && shown ? ciede2000(first.colour, shown, { kL: 1, kC: 1, kH: 1 }).deltaE : null;
}

/** A photograph of what an eye saw, in the light it was seen in. */
export async function attachToEye(
  db: Db,
  lotId: string,
  eyeReadingId: string,
  photo: { readonly id: string; readonly name: string; readonly file: Uint8Array },
  by: By & { readonly files: KeptFiles },
): Promise<{ id: string }> {
  const { eyes } = await readParts(db, lotId, 'eyes');
  if (!eyes.some((e) => e.id === eyeReadingId))
    throw new Refusal(
      'notFound',
      $localize`That was not seen of this lot. Write down what you see first, then add the photograph.`,
    );
  return attach(db, { eyeReadingId }, photo, by);
}
