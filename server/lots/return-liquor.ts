import type { StandingLiquor } from '@vestigia/core';
import type { ReturnedLiquor } from '@vestigia/contract';
import {
  changeLiquor,
  contentsAtVolume,
  currentEntries,
  entriesOfKind,
  foldRun,
  formatAmount,
  potLiquor,
} from '@vestigia/core';
import { liquorEntries } from '../db/schema';
import type { Db } from '../db/database';
import type { By } from '../shared/recorded-by';
import { lotTag } from '../shared/lot-tag';
import { Refusal, notFound } from '../shared/problem';
import { findLiquor } from '../stores/liquor-level';
import { amountOf } from '../stores/materials-store';
import { giveBackFromLot, takeForLot, wasGivenBack } from '../stores/movements';
import { findStockLot } from '../stores/stock-lot-store';
import { findLot, readEntries } from './lots-store';

/**
 * Puts what is left in a lot’s pot back into the jar it was poured from: the lot has then taken the difference, and the
 * liquor holds what the pot’s record leaves in it. A vat lives on this way from lot to lot.
 */
export async function returnLiquor(
  db: Db,
  lotId: string,
  { id, movementId, stepIndex, batch, stockLotId, quantityText, note }: ReturnedLiquor,
  by: By,
): Promise<{ id: string }> {
  const lot = await findLot(db, lotId);
  const [entries, jar, last] = [
    currentEntries(await readEntries(db, lotId)),
    await findStockLot(db, stockLotId),
    await findLiquor(db, stockLotId),
  ];
  const step = lot.plan.steps[stepIndex];
  if (!step) throw notFound('step');
  if (!last) throw new Refusal('refused', $localize`${jar.tag} is not a kept liquor. Keep what is left as a new one.`);
  const poured = entriesOfKind(entries, 'weigh').filter(
    (e) => e.weighing.stockLotId === stockLotId && e.detail?.contents,
  );
  const first = poured[0];
  if (!first || poured.length > 1)
    throw new Refusal(
      'refused',
      $localize`${jar.tag} was not poured into one pot of this lot. Keep what is left as a new liquor.`,
    );
  if (await wasGivenBack(db, first.id))
    throw new Refusal('alreadyDone', $localize`What was left is back in ${jar.tag} already.`);
  const backUl = await amountOf(db, quantityText, jar.material);
  const { left } = potLiquor(lot.plan, foldRun(entries, lot.plan.steps.length), step, batch);
  const there = contentsAtVolume(last.contents, last.volumeUl, jar.onHand);
  const joined = left.contents.reduce<StandingLiquor>(
    (liquor, content) => changeLiquor(liquor, { kind: 'dosed', content }),
    {
      volumeMl: jar.onHand / 1000,
      contents: there,
    },
  );
  await giveBackFromLot(db, first.id, by, $localize`poured back`);
  const taken = first.weighing.amount - backUl;
  // More came back than was poured: water was added in the pot, and the jar holds it now.
  if (taken !== 0) {
    const runEntryId = first.id;
    await takeForLot(db, { id: movementId, stockLotId, amount: taken, lotId, runEntryId, atMs: by.now.getTime() }, by);
  }
  await db.insert(liquorEntries).values({
    id,
    stockLotId,
    kind: 'return',
    after: {
      ...last,
      contents: joined.contents.map((c) => ({ ...c })),
      volumeUl: jar.onHand + backUl,
      working: null,
      // It was stirred, and gave dye: how it looked before says nothing now.
      vat: last.vat && { ...last.vat, look: null },
      at: by.now.toISOString(),
    },
    note: [$localize`${formatAmount(backUl, 'volume')} back from ${lotTag(lot.number)}`, note]
      .filter(Boolean)
      .join(' · '),
    at: by.now.toISOString(),
    byId: by.byId,
  });
  return { id };
}
