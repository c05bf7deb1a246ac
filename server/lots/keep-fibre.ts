import type { LotDetail, ReadKeptFibre } from '@vestigia/contract';
import { NO_FACTS, NO_STOCK_FACTS } from '@vestigia/contract';
import { WHOLE, formatWeight, sayShade, standingMoves } from '@vestigia/core';
import { eq, sql } from 'drizzle-orm';
import { baseFacts } from '../colourways/colourways-store';
import type { Db } from '../db/database';
import { goods, materials, movements, stockLots } from '../db/schema';
import { Refusal } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { amountOf, findMaterial, nextTag } from '../stores/materials-store';
import { studioToday } from '../studio/studio-store';
import { readLot } from './lots-store';

/**
 * Keeps pieces of a lot as stock that can be a base: mordanted ahead, or dyed. They name the lot, and count no more
 * than went into it.
 */
export async function keepFibre(db: Db, lotId: string, kept: ReadKeptFibre, by: By): Promise<{ id: string }> {
  const lot = await readLot(db, lotId);
  if (lot.summary.state === 'planned' || lot.summary.state === 'cancelled')
    throw new Refusal('refused', $localize`${lot.summary.tag} has nothing in it yet. Begin it at the bench first.`);
  const colour = kept.treatment === 'mordanted' ? null : colourOf(lot, kept.group);
  const base = kept.baseId === null ? await newBase(db, lot, kept, colour) : await findMaterial(db, kept.baseId);
  baseFacts(base);
  const amount = await amountOf(db, kept.quantityText, base);
  const wofG = lot.plan.wof.value;
  const left = Math.round(wofG * 1000) - (await keptBefore(db, lotId)) - (await countedMg(db, lot));
  if (amount > left)
    throw new Refusal(
      'refused',
      $localize`${lot.summary.tag} is of ${formatWeight(wofG)} of dry fibre${left < wofG * 1000 ? $localize`, and ${formatWeight(Math.max(0, left) / 1000)} of it are neither kept nor counted as finished` : ''}. Weigh it dry, and keep no more than that.`,
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
    facts: {
      ...NO_STOCK_FACTS,
      origin: 'made',
      fromLotId: lotId,
      treatment: kept.treatment,
      light: kept.light,
      colour,
    },
  });
  await db.insert(movements).values({
    id: kept.movementId,
    stockLotId: kept.id,
    kind: 'receive',
    amount,
    note: $localize`${kept.treatment}, from ${lot.summary.tag}`,
    at,
    byId: by.byId,
  });
  return { id: kept.id };
}

/** What was kept of a lot's fibre already, mg. */
export async function keptBefore(db: Db, lotId: string): Promise<number> {
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

/** What of a lot is counted as finished pieces, mg. */
async function countedMg(db: Db, { summary, plan }: LotDetail): Promise<number> {
  const moves = await db.select().from(goods).where(eq(goods.lotId, summary.id));
  return standingMoves(moves)
    .filter((m) => m.kind === 'came' || m.kind === 'gone')
    .reduce((sum, { kind, pieces, groupKey }) => {
      const weightG = plan.groups.find((g) => g.key === groupKey)?.pieceWeightG ?? summary.pieceWeightG;
      // What is gone another way may have become fibre.
      return sum + (kind === 'came' ? 1 : -1) * pieces * weightG * 1000;
    }, 0);
}

type Colour = LotDetail['summary']['result'];

/** The shade of one of the lot's groups as it was read last; that of the whole lot where nobody read the group. */
function colourOf({ summary, plan }: LotDetail, group: string | null): Colour {
  const label = sayShade(plan, { ...WHOLE, group });
  const own = group === null || group === plan.groups[0]?.key ? summary.result : null;
  return summary.family.find((m) => m.label === label)?.lab ?? own;
}

/** A base as the lot's own, undyed as it lies there now. */
async function newBase(
  db: Db,
  lot: LotDetail,
  { newBaseId, newBase: name, treatment, group }: ReadKeptFibre,
  colour: Colour,
) {
  if (name.trim() === '')
    throw new Refusal('refused', $localize`Give the fibre a name, for example “Rug wool, mordanted”.`);
  const own = await findMaterial(db, lot.plan.groups.find((g) => g.key === group)?.baseId ?? lot.base.id);
  const facts = baseFacts(own);
  await db.insert(materials).values({
    id: newBaseId,
    name: name.trim(),
    kind: 'fibre',
    measure: 'weight',
    hazards: [],
    note: $localize`${treatment}; of ${own.name}`,
    base: { ...facts, undyed: colour ?? facts.undyed },
    facts: NO_FACTS,
  });
  return findMaterial(db, newBaseId);
}
