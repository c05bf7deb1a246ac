import type { KeptFibre, LotDetail } from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import { formatWeight } from '@vestigia/core';
import { eq, sql } from 'drizzle-orm';
import { baseFacts } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { materials, movements, stockLots } from '../db/schema';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { amountOf, findMaterial, nextTag } from '../stores/materials-store';
import { studioToday } from '../studio/studio-store';
import { readLot } from './lots-store';

/**
 * Keeps pieces of a lot as stock that can be a base: mordanted ahead, or dyed. They name the lot, and count no more
 * than went into it.
 */
export async function keepFibre(db: Db, lotId: string, kept: KeptFibre, by: By): Promise<{ id: string }> {
  const lot = await readLot(db, lotId);
  if (lot.summary.state === 'planned' || lot.summary.state === 'cancelled')
    throw new Refusal('refused', `${lot.summary.tag} has nothing in it yet. Begin it at the bench first.`);
  const base = kept.baseId === null ? await newBase(db, lot, kept) : await findMaterial(db, kept.baseId);
  baseFacts(base);
  const amount = await amountOf(db, kept.quantityText, base);
  const wofG = lot.plan.wof.value;
  const left = Math.round(wofG * 1000) - (await keptBefore(db, lotId));
  if (amount > left)
    throw new Refusal(
      'refused',
      `${lot.summary.tag} is of ${formatWeight(wofG)} of dry fibre${left < wofG * 1000 ? `, and ${formatWeight(left / 1000)} of it are not kept yet` : ''}. Weigh it dry, and keep no more than that.`,
      { reason: 'moreThanTheLot' },
    );
  const at = by.now.toISOString();
  await db.insert(stockLots).values({
    id: kept.id,
    materialId: base.id,
    tag: kept.tag === '' ? await nextTag(db, base.name) : kept.tag,
    receivedOn: await studioToday(db, by.now),
    bestBefore: null,
    place: kept.place,
    source: lot.summary.tag,
    note: kept.note,
    facts: { ...NO_STOCK_FACTS, origin: 'made', fromLotId: lotId, treatment: kept.treatment },
  });
  await db.insert(movements).values({
    id: kept.movementId,
    stockLotId: kept.id,
    kind: 'receive',
    amount,
    note: `${kept.treatment}, from ${lot.summary.tag}`,
    at,
    byId: by.byId,
  });
  return { id: kept.id };
}

/** What was kept of a lot's fibre already, mg. */
async function keptBefore(db: Db, lotId: string): Promise<number> {
  const [row] = await db
    .select({ amount: sql<number>`coalesce(sum(${movements.amount}), 0)::bigint` })
    .from(movements)
    .innerJoin(stockLots, eq(stockLots.id, movements.stockLotId))
    .where(
      sql`${stockLots.facts}->>'fromLotId' = ${lotId} AND ${stockLots.facts}->>'treatment' IS NOT NULL
        AND ${movements.kind} IN ('receive', 'reverse')`,
    );
  return Number(row?.amount ?? 0);
}

/** A base as the lot's own, undyed as it lies there now. */
async function newBase(db: Db, lot: LotDetail, { newBaseId, newBase: name, treatment }: KeptFibre) {
  if (name.trim() === '') throw new Refusal('refused', 'Give the fibre a name, for example “Rug wool, mordanted”.');
  const own = await findMaterial(db, lot.base.id);
  const facts = baseFacts(own);
  const undyed = treatment === 'dyed' && lot.summary.result ? lot.summary.result : facts.undyed;
  await db.insert(materials).values({
    id: newBaseId,
    name: name.trim(),
    kind: 'fibre',
    measure: 'weight',
    hazards: [],
    note: `${treatment}; of ${own.name}`,
    base: { ...facts, undyed },
    facts: NO_FACTS,
  });
  return findMaterial(db, newBaseId);
}
