import { worded } from '@vestigia/core';
import type { LiquorEntryKind, LiquorTakeBack, Reversal } from '@vestigia/contract';
import { contentsAtVolume } from '@vestigia/core';
import { and, asc, eq, inArray } from 'drizzle-orm';
import type { By } from '../shared/recorded-by';
import type { Db } from '../db/database';
import { liquorEntries, movements, stockBalances, stockLots } from '../db/schema';
import { uuidv7 } from '../shared/ids';
import { Refusal, notFound } from '../shared/problem';

type Movement = typeof movements.$inferSelect;
type LoggedLiquor = typeof liquorEntries.$inferSelect;

/**
 * Puts a movement right by an equal and opposite one; of a conversion, all its movements; of what went into a kept
 * liquor, the liquor's entry with it. What a lot used is corrected at the bench.
 */
export async function reverseMovement(
  db: Db,
  id: string,
  { id: reversalId, note }: Reversal,
  by: By,
): Promise<{ id: string }> {
  const [movement] = await db.select().from(movements).where(eq(movements.id, id));
  if (!movement) throw notFound('movement');
  if (movement.kind === 'reverse')
    throw new Refusal('refused', $localize`A reversal is not reversed again. Book the delivery or the count anew.`);
  if (movement.lotId !== null)
    throw new Refusal(
      'refused',
      $localize`That went into a lot. Correct the weighing at the bench, and the shelf follows.`,
    );
  if (movement.liquorEntryId !== null) {
    await takeBackLiquorEntry(db, movement.liquorEntryId, { id: uuidv7(by.now), note }, by, { [id]: reversalId });
    return { id: reversalId };
  }
  const together =
    movement.conversionId === null
      ? [movement]
      : await db
          .select()
          .from(movements)
          .where(and(eq(movements.conversionId, movement.conversionId), eq(movements.kind, 'convert')));
  await reverseAll(db, together, note, by, { [id]: reversalId });
  return { id: reversalId };
}

/** Reverses movements that belong together, or none of them. @param ids ids of the reversals, by what they reverse */
async function reverseAll(
  db: Db,
  together: readonly Movement[],
  note: string,
  { now, byId }: By,
  ids: Readonly<Record<string, string>>,
): Promise<void> {
  const [reversed] = await db
    .select({ id: movements.id })
    .from(movements)
    .where(
      inArray(
        movements.reversesId,
        together.map((m) => m.id),
      ),
    );
  if (reversed) throw new Refusal('alreadyDone', $localize`That movement was reversed already.`);
  for (const m of together) {
    const [balance] = await db
      .select({ onHand: stockBalances.onHand, tag: stockLots.tag })
      .from(stockBalances)
      .innerJoin(stockLots, eq(stockLots.id, stockBalances.stockLotId))
      .where(eq(stockBalances.stockLotId, m.stockLotId));
    if (balance && balance.onHand - m.amount < 0)
      throw new Refusal(
        'refused',
        $localize`Some of ${balance.tag} has been used since, so it can’t be taken back whole. Count the jar instead.`,
      );
  }
  await db.insert(movements).values(
    together.map((m) => ({
      id: ids[m.id] ?? uuidv7(now),
      stockLotId: m.stockLotId,
      kind: 'reverse' as const,
      amount: -m.amount,
      reversesId: m.id,
      conversionId: m.conversionId,
      liquorEntryId: m.liquorEntryId,
      note,
      at: now.toISOString(),
      byId,
    })),
  );
}

/** Entries after which something else is in the liquor, or more or less of it. */
const CHANGES_IT: ReadonlySet<LiquorEntryKind> = new Set(['use', 'replenish', 'feed', 'return', 'level', 'ladder']);
const BELONGS_ELSEWHERE: Readonly<Partial<Record<LiquorEntryKind, string>>> = worded(() => ({
  save: $localize`With that entry the liquor was kept. Reverse its receipt in the ledger below instead.`,
  return: $localize`That came back from a lot’s pot: it belongs to the lot’s record. Measure the liquor instead.`,
  takeBack: $localize`That took an entry back. Write the entry anew instead.`,
}));

/**
 * Takes back what was written of a kept liquor: what it moved goes back to its jars, and the liquor is as it would be
 * without it. What was poured off since is gone at the strength it then had.
 */
export async function takeBackLiquorEntry(
  db: Db,
  entryId: string,
  { id, note }: LiquorTakeBack,
  by: By,
  ids: Readonly<Record<string, string>> = {},
): Promise<{ id: string }> {
  const log = await logAround(db, entryId);
  const at = log.findIndex((e) => e.id === entryId);
  const [entry, before, last] = [log[at], log[at - 1], log.at(-1)];
  if (!entry || !last) throw notFound('entry');
  const elsewhere = BELONGS_ELSEWHERE[entry.kind];
  if (elsewhere !== undefined || !before)
    throw new Refusal('refused', elsewhere ?? BELONGS_ELSEWHERE.save ?? '', { reason: 'notOfTheLiquor' });
  const gone = new Set(log.map((e) => e.takesBackId));
  if (gone.has(entryId)) throw new Refusal('alreadyDone', $localize`That was taken back already.`);
  const since = log.slice(at + 1).find((e) => CHANGES_IT.has(e.kind) && !gone.has(e.id));
  if (CHANGES_IT.has(entry.kind) && since)
    throw new Refusal('refused', $localize`The liquor was changed since: “${since.note}”. Take that back first.`, {
      reason: 'changedSince',
    });
  const moved = await db.select().from(movements).where(eq(movements.liquorEntryId, entryId));
  if (moved.length > 0) await reverseAll(db, moved, note, by, ids);
  const onHand = await onHandOf(db, entry.stockLotId);
  await db.insert(liquorEntries).values({
    id,
    stockLotId: entry.stockLotId,
    kind: 'takeBack',
    takesBackId: entryId,
    after: without(entry, before, last, onHand, by),
    note: $localize`taken back: “${entry.note}” · ${note}`,
    at: by.now.toISOString(),
    byId: by.byId,
  });
  return { id };
}

/** The whole log of the liquor an entry belongs to, in the order it was written. */
async function logAround(db: Db, entryId: string): Promise<LoggedLiquor[]> {
  const [entry] = await db
    .select({ stockLotId: liquorEntries.stockLotId })
    .from(liquorEntries)
    .where(eq(liquorEntries.id, entryId));
  if (!entry) return [];
  return db
    .select()
    .from(liquorEntries)
    .where(eq(liquorEntries.stockLotId, entry.stockLotId))
    .orderBy(asc(liquorEntries.seq));
}

async function onHandOf(db: Db, stockLotId: string): Promise<number> {
  const [balance] = await db
    .select({ onHand: stockBalances.onHand })
    .from(stockBalances)
    .where(eq(stockBalances.stockLotId, stockLotId));
  return balance?.onHand ?? 0;
}

/** The liquor as it stands without one entry: only what that entry said is as it was before. */
function without(
  { kind }: LoggedLiquor,
  { after: before }: LoggedLiquor,
  { after: last }: LoggedLiquor,
  onHand: number,
  { now }: By,
): LoggedLiquor['after'] {
  const dissolved = CHANGES_IT.has(kind) ? before : last;
  return {
    ...last,
    contents: contentsAtVolume(dissolved.contents, dissolved.volumeUl, onHand),
    volumeUl: onHand,
    working: kind === 'use' || kind === 'ladder' ? before.working : last.working,
    signs: kind === 'check' ? before.signs : last.signs,
    vat: kind === 'vat' ? before.vat : last.vat,
    at: now.toISOString(),
  };
}
