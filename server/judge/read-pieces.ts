import type { ReadPieces } from '@vestigia/contract';
import { convertMilligramsToGrams, currentEntries, isSettled } from '@vestigia/core';
import { and, asc, eq, isNotNull, sql } from 'drizzle-orm';
import type { Db } from '../db/database';
import { lots, readings, stockBalances, stockLots } from '../db/schema';
import { lotTag } from '../shared/lot-tag';

/** The pieces of a colourway’s lots that were read by themselves, and what of each lot stands finished on the shelf. */
export async function readPieces(db: Db, colourwayId: string): Promise<ReadPieces[]> {
  const rows = await db
    .select({ lotId: lots.id, number: lots.number, reading: readings })
    .from(readings)
    .innerJoin(lots, eq(lots.id, readings.lotId))
    .where(and(eq(lots.colourwayId, colourwayId), isNotNull(readings.piece)))
    .orderBy(asc(lots.number), asc(readings.seq));
  const shelf = await db
    .select({ lotId: sql<string>`${stockLots.facts}->>'fromLotId'`, onHand: stockBalances.onHand })
    .from(stockLots)
    .innerJoin(stockBalances, eq(stockBalances.stockLotId, stockLots.id))
    .where(sql`${stockLots.facts}->>'treatment' = 'finished'`);
  const current = new Set(currentEntries(rows.map((r) => r.reading)));
  const read = rows.filter(({ reading }) => current.has(reading) && isSettled(reading.state));
  return [...new Set(read.map((r) => r.lotId))]
    .map((lotId) => ({ lotId, own: read.filter((r) => r.lotId === lotId) }))
    .map(({ lotId, own }) => ({
      lotId,
      tag: lotTag(own[0]?.number ?? 0),
      onShelfG: convertMilligramsToGrams(shelf.filter((s) => s.lotId === lotId).reduce((sum, s) => sum + s.onHand, 0)),
      pieces: [...new Map(own.map(({ reading: r }) => [r.piece ?? '', { ...r.lab, ...r.conditions }]))].map(
        ([mark, lab]) => ({ mark, lab }),
      ),
    }));
}
