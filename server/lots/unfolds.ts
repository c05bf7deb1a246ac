import type { Proposal } from '@vestigia/contract';
import type { LotPlan } from '@vestigia/core';
import { desc, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, lots, stockLots } from '../db/schema';
import { lotTag } from '../shared/lot-tag';

/**
 * Lots to dye before this one: what it is short of was what their baths left, as the second dip of a bath is what the
 * first leaves.
 */
export async function readUnfolds(db: Db, plan: LotPlan): Promise<Proposal['unfolds']> {
  const short = plan.materials.filter((m) => m.short > 0 && m.measure === 'volume');
  if (short.length === 0) return [];
  const kept = await db
    .select({ materialId: stockLots.materialId, facts: stockLots.facts })
    .from(stockLots)
    .where(
      inArray(
        stockLots.materialId,
        short.map((m) => m.materialId),
      ),
    )
    .orderBy(desc(stockLots.receivedOn));
  const unfolds: Proposal['unfolds'] = [];
  for (const { materialId, name } of short) {
    const lotId = kept.find((s) => s.materialId === materialId && s.facts.fromLotId)?.facts.fromLotId;
    if (!lotId) continue;
    const [lot] = await db
      .select({ number: lots.number, colourway: colourways.name })
      .from(lots)
      .innerJoin(colourways, eq(colourways.id, lots.colourwayId))
      .where(eq(lots.id, lotId));
    if (lot) unfolds.push({ lotId, tag: lotTag(lot.number), colourway: lot.colourway, material: name });
  }
  return unfolds;
}
