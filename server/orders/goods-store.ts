import type { GoodsOfLot, GoodsRow, ReadNewGoodsMove } from '@vestigia/contract';
import type { GoodsMove } from '@vestigia/core';
import { foldGoods, formatWeight, goodsRefusal, sayGoodsRefusal, standingMoves } from '@vestigia/core';
import { asc, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { customers, goods, orderLineLots, orderLines, orders, people } from '../db/schema';
import { keptBefore } from '../lots/keep-fibre';
import { findLot } from '../lots/lots-store';
import { Refusal, notFound } from '../shared/problem';
import type { By } from '../shared/recorded-by';
import { customerName } from './customer-name';
import type { LotOfGoods } from './lot-groups';
import { readLotsOfGoods } from './lot-groups';

type Row = typeof goods.$inferSelect;
const moveOf = ({ groupKey, ...m }: Row): GoodsMove => ({ ...m, group: groupKey });

/** What happened to finished pieces, of some lots or of all. */
export async function readMoves(db: Db, lotIds?: readonly string[]): Promise<(GoodsMove & Pick<Row, 'at' | 'note'>)[]> {
  if (lotIds?.length === 0) return [];
  const rows = await db
    .select()
    .from(goods)
    .where(lotIds ? inArray(goods.lotId, [...lotIds]) : undefined)
    .orderBy(asc(goods.seq));
  return rows.map((row) => ({ ...moveOf(row), at: row.at, note: row.note }));
}

/** Nothing of such a lot can be finished; of one that isn’t passed it wants a word why. */
const NOTHING_YET = new Set(['planned', 'cancelled']);

/**
 * Writes down that finished pieces moved.
 * @throws {Refusal} where more would move than there is, or a lot isn't passed and nobody says why
 */
export async function moveGoods(db: Db, move: ReadNewGoodsMove, { now, byId }: By): Promise<void> {
  const lot = await lotOf(db, move.lotId);
  if (NOTHING_YET.has(lot.state))
    throw new Refusal('refused', $localize`${lot.tag} has nothing in it yet. Begin it at the bench first.`, {
      reason: 'notDyed',
    });
  const apart = lot.groups.find((g) => g.key === move.group)?.apart ?? null;
  if (move.kind === 'came' && (lot.state !== 'released' || apart !== null) && move.note === '')
    throw new Refusal(
      'refused',
      $localize`${lot.tag} isn’t passed yet. Judge it first; or write why its pieces are finished all the same, for example as seconds.`,
      { reason: 'notPassed', errors: [{ field: 'note', detail: $localize`Write why.` }] },
    );
  if (move.kind === 'gone' && move.note === '')
    throw new Refusal('refused', $localize`Write what became of them.`, {
      reason: 'whyGone',
      errors: [{ field: 'note', detail: $localize`Write what became of them.` }],
    });
  if (move.lineId !== null) await assertLineOpen(db, move.lineId, move.kind);
  await write(db, { ...move, reversesId: null }, lot, { now, byId });
}

/** A move was a slip: it counts no longer, while nothing rests on it. */
export async function takeGoodsBack(db: Db, moveId: string, id: string, by: By): Promise<void> {
  const [row] = await db.select().from(goods).where(eq(goods.id, moveId));
  if (!row || row.reversesId !== null) throw notFound('move');
  const lot = await lotOf(db, row.lotId);
  const before = await readMoves(db, [row.lotId]);
  if (!standingMoves(before).some((m) => m.id === moveId))
    throw new Refusal('alreadyDone', $localize`That was taken back already.`);
  await write(db, { ...moveOf(row), id, note: '', reversesId: moveId }, lot, by);
}

async function write(
  db: Db,
  { group, ...move }: GoodsMove & { readonly note: string },
  lot: LotOfGoods,
  { now, byId }: By,
): Promise<void> {
  const of = lot.groups.find((g) => g.key === group);
  if (!of)
    throw new Refusal('refused', $localize`${lot.tag} has several kinds of pieces. Choose which of them.`, {
      reason: 'whichOfThem',
      errors: [{ field: 'group', detail: $localize`Choose which of them.` }],
    });
  const before = await readMoves(db, [lot.id]);
  const refusal = goodsRefusal(before, { ...move, group }, { tag: lot.tag, pieces: of.pieces });
  if (refusal) throw new Refusal('refused', sayGoodsRefusal(refusal), { reason: refusal.code });
  if (move.kind === 'came' && move.reversesId === null) await assertNotKept(db, lot, [...before, { ...move, group }]);
  await db.insert(goods).values({ ...move, groupKey: group, at: now.toISOString(), byId });
}

/** What was kept as fibre in Stores isn’t finished as well; half a piece is left to the balance. */
async function assertNotKept(db: Db, lot: LotOfGoods, moves: readonly GoodsMove[]): Promise<void> {
  const keptMg = await keptBefore(db, lot.id);
  if (keptMg === 0) return;
  const counts = new Map(foldGoods(moves).groups.map((g) => [g.group, g.came - g.gone]));
  const leftMg = lot.groups.reduce((sum, g) => sum + (g.pieces - (counts.get(g.key) ?? 0)) * g.pieceWeightMg, -keptMg);
  if (leftMg >= -Math.max(...lot.groups.map((g) => g.pieceWeightMg)) / 2) return;
  throw new Refusal(
    'refused',
    $localize`Of ${lot.tag} ${formatWeight(keptMg / 1000)} are kept as fibre in Stores. Count only the pieces that are left.`,
    { reason: 'keptAsFibre' },
  );
}

async function lotOf(db: Db, lotId: string): Promise<LotOfGoods> {
  const lot = (await readLotsOfGoods(db, [lotId])).get(lotId);
  if (!lot) throw notFound('lot');
  return lot;
}

/** Nothing more is set aside for what was called off; what is there can go back. */
async function assertLineOpen(db: Db, lineId: string, kind: GoodsMove['kind']): Promise<void> {
  const [line] = await db
    .select({ number: orders.number, state: orders.state })
    .from(orderLines)
    .innerJoin(orders, eq(orders.id, orderLines.orderId))
    .where(eq(orderLines.id, lineId));
  if (!line) throw notFound('order');
  if (line.state === 'agreed' || kind === 'putBack' || kind === 'cameBack') return;
  throw new Refusal(
    'refused',
    line.state === 'asked'
      ? $localize`Order ${line.number} is only asked for. Agree to it first.`
      : $localize`Order ${line.number} was called off. Nothing is set aside or handed over for it.`,
    { reason: 'notAgreed' },
  );
}

/** Finished pieces by lot and group, the newest lots first. */
export async function readGoods(db: Db): Promise<GoodsRow[]> {
  const { groups } = foldGoods(await readMoves(db));
  const lots = await readLotsOfGoods(
    db,
    groups.map((g) => g.lotId),
  );
  const numberOf = (row: GoodsRow): number => lots.get(row.lot.id)?.number ?? 0;
  return groups.flatMap((g) => rowOf(lots, g)).sort((one, other) => numberOf(other) - numberOf(one));
}

type GroupCounts = Omit<GoodsRow, 'lot' | 'label' | 'base' | 'colourway' | 'lab' | 'apart' | 'inLot'> & {
  lotId: string;
};

function rowOf(lots: ReadonlyMap<string, LotOfGoods>, { lotId, group, ...counts }: GroupCounts): GoodsRow[] {
  const lot = lots.get(lotId);
  if (!lot) return [];
  const of = lot.groups.find((g) => g.key === group);
  return [
    {
      lot: { id: lotId, tag: lot.tag },
      group,
      label: of?.label ?? '',
      base: of?.base ?? '',
      colourway: { ...lot.colourway },
      lab: lot.lab,
      apart: of?.apart ?? null,
      inLot: of?.pieces ?? 0,
      ...counts,
    },
  ];
}

/** Finished pieces of one lot, all that happened to them, and who waits for it. */
export async function readGoodsOfLot(db: Db, lotId: string): Promise<GoodsOfLot> {
  await findLot(db, lotId);
  const lots = await readLotsOfGoods(db, [lotId]);
  const rows = await db
    .select({ move: goods, by: people.name, orderId: orders.id, number: orders.number })
    .from(goods)
    .innerJoin(people, eq(people.id, goods.byId))
    .leftJoin(orderLines, eq(orderLines.id, goods.lineId))
    .leftJoin(orders, eq(orders.id, orderLines.orderId))
    .where(eq(goods.lotId, lotId))
    .orderBy(asc(goods.seq));
  const moves = rows.map((r) => moveOf(r.move));
  const standing = new Set(standingMoves(moves).map((m) => m.id));
  const { groups } = foldGoods(moves);
  const known = new Set(groups.map((g) => g.group));
  const lot = lots.get(lotId);
  const none = (lot?.groups ?? [])
    .filter((g) => !known.has(g.key))
    .map((g) => ({ lotId, group: g.key, came: 0, onShelf: 0, setAside: 0, handedOver: 0, gone: 0 }));
  const meant = await db
    .select({
      id: orders.id,
      number: orders.number,
      customer: { name: customers.name, number: customers.number, erasedAt: customers.erasedAt },
      what: orderLines.what,
      pieces: orderLines.pieces,
      wantedOn: orders.wantedOn,
    })
    .from(orderLineLots)
    .innerJoin(orderLines, eq(orderLines.id, orderLineLots.lineId))
    .innerJoin(orders, eq(orders.id, orderLines.orderId))
    .innerJoin(customers, eq(customers.id, orders.customerId))
    .where(eq(orderLineLots.lotId, lotId))
    .orderBy(asc(orders.number), asc(orderLines.position));
  return {
    rows: [...groups, ...none].flatMap((g) => rowOf(lots, g)),
    moves: rows
      .filter((r) => r.move.reversesId === null)
      .map(({ move, by, orderId, number }) => ({
        id: move.id,
        kind: move.kind,
        label: lot?.groups.find((g) => g.key === move.groupKey)?.label ?? '',
        pieces: move.pieces,
        set: move.set,
        order: orderId !== null && number !== null ? { id: orderId, number } : null,
        note: move.note,
        at: new Date(move.at).toISOString(),
        by,
        isTakenBack: !standing.has(move.id),
      })),
    orders: meant.map(({ customer, ...o }) => ({ ...o, customer: customerName(customer) })),
  };
}
