import type { ReadAgreement, Proposal } from '@vestigia/contract';
import { lotExtras } from '@vestigia/contract';
import { AHEAD_MS, convertGramsToMilligrams, formatAmount } from '@vestigia/core';
import { max } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lots, orderLineLots, reservations } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { Refusal } from '../shared/problem';
import { refoldProgress } from './lot-progress';
import { propose } from './propose';

/**
 * Makes a lot of a proposal and promises it its stock. The proposal is worked out again on what stands now: if that is
 * not what was agreed to (someone took from a jar meanwhile), it is refused with the new one beside the old. A stop is
 * never gone past; a caution only with its reason, which is kept with the lot.
 */
export async function agree(
  db: Db,
  agreement: ReadAgreement,
  { now, byId }: { now: Date; byId: string },
): Promise<{ id: string }> {
  const { id, ask, note, told } = agreement;
  const offBooks = told?.beforeBooks === true;
  if (told && Date.parse(told.at) > now.getTime() + AHEAD_MS)
    throw new Refusal(
      'refused',
      $localize`That is still to come. Say when it was really dyed, or leave that out to plan it.`,
      {
        reason: 'inFuture',
      },
    );
  const { proposal, colourway, plan, water } = await propose(db, ask, now);
  if (proposal.digest !== agreement.digest) {
    throw new Refusal(
      'changedMeanwhile',
      $localize`What is on the shelf or in the room has changed since this was proposed. Look at the new proposal, then agree to it.`,
      { theirs: proposal },
    );
  }
  const checks = checkAcknowledged(proposal.checks, agreement.acknowledged);
  const short = plan.materials.filter((m) => m.short > 0);
  if (short.length > 0 && !offBooks && !agreement.acceptShortages) {
    const named = short.map((m) => $localize`${formatAmount(m.short, m.measure)} of ${m.name}`).join(', ');
    throw new Refusal(
      'refused',
      $localize`There is not enough on the shelf: short by ${named}. Book in a delivery, make the lot smaller, or agree to go on with that shortage.`,
      { reason: 'short' },
    );
  }
  const [highest] = await db.select({ number: max(lots.number) }).from(lots);
  const at = now.toISOString();
  await db.insert(lots).values({
    id,
    number: (highest?.number ?? 0) + 1,
    colourwayId: colourway.id,
    recipeVersionId: proposal.recipe.versionId,
    baseMaterialId: colourway.base.id,
    waterId: ask.waterId,
    water,
    reorderOfId: ask.reorderOfId,
    quantityText: ask.quantityText,
    master: colourway.master,
    pieces: plan.pieces,
    pieceWeightMg: convertGramsToMilligrams(plan.pieceWeightG),
    batches: plan.batches.length,
    plan,
    extras: lotExtras.parse(ask),
    checks,
    factors: proposal.factors,
    note,
    at: told?.at ?? at,
    recordedAt: told ? at : null,
    offBooks,
    byId,
  });
  if (agreement.forLineId !== null)
    await db.insert(orderLineLots).values({ lineId: agreement.forLineId, lotId: id, at, byId });
  const reserved = (offBooks ? [] : plan.materials)
    .flatMap((m) => m.picks)
    .flatMap((p) =>
      p.stockLotId === null
        ? []
        : [{ id: uuidv7(now), lotId: id, stockLotId: p.stockLotId, amount: p.amount, at, byId }],
    );
  if (reserved.length > 0) await db.insert(reservations).values(reserved);
  await refoldProgress(db, id);
  return { id };
}

function checkAcknowledged(
  checks: Proposal['checks'],
  acknowledged: ReadAgreement['acknowledged'],
): (Proposal['checks'][number] & { reason: string })[] {
  const stop = checks.find((c) => c.severity === 'stop');
  if (stop)
    throw new Refusal('refused', $localize`${stop.message} ${stop.why} This lot can’t start so.`, {
      reason: 'stopped',
    });
  return checks.map((check) => {
    const reason = acknowledged.find((a) => a.key === check.key)?.reason.trim() ?? '';
    if (reason === '')
      throw new Refusal(
        'refused',
        check.protection
          ? $localize`${check.message} Say that the protection is at hand.`
          : $localize`${check.message} Say why you go on all the same: it is kept with the lot.`,
        { reason: 'notAcknowledged' },
      );
    return { ...check, reason };
  });
}
