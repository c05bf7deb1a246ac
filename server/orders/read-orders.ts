import type { OrderDetail, OrderSummary } from '@vestigia/contract';
import type { ClaimedLot, Goods, LineStanding } from '@vestigia/core';
import { foldGoods, saySetCaution, setsOfLine, standLines, standOrder } from '@vestigia/core';
import { asc, eq, inArray } from 'drizzle-orm';
import type { Db } from '../db/database';
import { colourways, customers, orderLineLots, orderLines, orders, people, studio } from '../db/schema';
import { notFound } from '../shared/problem';
import { customerName } from './customer-name';
import { readMoves } from './goods-store';
import type { LotOfGoods } from './lot-groups';
import { readLotsOfGoods } from './lot-groups';

type Order = typeof orders.$inferSelect & { readonly customer: typeof customers.$inferSelect };
type Line = typeof orderLines.$inferSelect;
type Colourway = Pick<typeof colourways.$inferSelect, 'id' | 'name' | 'master'>;

/** Nothing more comes of such a lot. */
const OVER = new Set(['cancelled', 'refused']);

/** All orders with where their lines stand: those promised first have the first claim on what there is. */
interface OrderBook {
  readonly orders: readonly Order[];
  readonly lines: readonly Line[];
  readonly colourways: ReadonlyMap<string, Colourway>;
  readonly meant: ReadonlyMap<string, readonly string[]>;
  readonly lots: ReadonlyMap<string, LotOfGoods>;
  readonly goods: Goods;
  readonly standings: ReadonlyMap<string, LineStanding>;
}

/** Those wanted first at the top; without a day, in the order they came. */
const byPromise = (one: Order, other: Order): number =>
  (one.wantedOn ?? '9999').localeCompare(other.wantedOn ?? '9999') || one.number - other.number;

async function readBook(db: Db): Promise<OrderBook> {
  const rows = await db.select().from(orders).innerJoin(customers, eq(customers.id, orders.customerId));
  const all = rows.map((r) => ({ ...r.orders, customer: r.customers })).sort(byPromise);
  const place = new Map(all.map((o, i) => [o.id, i]));
  const lines = (await db.select().from(orderLines)).sort(
    (one, other) => (place.get(one.orderId) ?? 0) - (place.get(other.orderId) ?? 0) || one.position - other.position,
  );
  const meant = new Map<string, string[]>();
  for (const { lineId, lotId } of await db.select().from(orderLineLots).orderBy(asc(orderLineLots.at)))
    meant.set(lineId, [...(meant.get(lineId) ?? []), lotId]);
  const lotIds = [...new Set([...[...meant.values()].flat(), ...lines.flatMap((l) => l.matchLotId ?? [])])];
  const moves = await readMoves(db);
  const lots = await readLotsOfGoods(db, [...lotIds, ...moves.map((m) => m.lotId)]);
  const goods = foldGoods(moves);
  const known = lines.flatMap((l) => l.colourwayId ?? []);
  const names =
    known.length === 0
      ? []
      : await db
          .select({ id: colourways.id, name: colourways.name, master: colourways.master })
          .from(colourways)
          .where(inArray(colourways.id, known));
  const states = new Map(all.map((o) => [o.id, o.state]));
  // What is only asked for, or called off, claims nothing.
  const claims = lines.map((l) => ({
    lineId: l.id,
    pieces: l.pieces,
    lotIds: states.get(l.orderId) === 'agreed' ? (meant.get(l.id) ?? []) : [],
  }));
  const claimed: ClaimedLot[] = [...lots.values()].map((l) => ({
    lotId: l.id,
    pieces: l.pieces,
    isOver: OVER.has(l.state),
  }));
  return {
    orders: all,
    lines,
    colourways: new Map(names.map((c) => [c.id, c])),
    meant,
    lots,
    goods,
    standings: new Map(standLines(claims, claimed, goods).map((s) => [s.lineId, s])),
  };
}

const colourOf = (book: OrderBook, line: Line): OrderSummary['lines'][number]['lab'] =>
  line.brought ??
  book.lots.get(line.matchLotId ?? '')?.lab ??
  book.colourways.get(line.colourwayId ?? '')?.master ??
  null;

const standingOf = (book: OrderBook, line: Line): OrderSummary['lines'][number]['standing'] => {
  const { lineId: _lineId, ...standing } = book.standings.get(line.id) ?? {
    lineId: line.id,
    state: 'toDye' as const,
    handedOver: 0,
    setAside: 0,
    onShelf: 0,
    inWork: 0,
    toDye: line.pieces,
  };
  return standing;
};

const customerOf = ({ customer }: Order): OrderSummary['customer'] => ({
  id: customer.id,
  number: customer.number,
  name: customerName(customer),
});

/** Orders as lists show them, those wanted first at the top. */
export async function readOrders(db: Db, { customerId }: { customerId?: string } = {}): Promise<OrderSummary[]> {
  const book = await readBook(db);
  return book.orders
    .filter((o) => customerId === undefined || o.customerId === customerId)
    .map((order) => {
      const lines = book.lines.filter((l) => l.orderId === order.id);
      return {
        id: order.id,
        number: order.number,
        customer: customerOf(order),
        state: order.state,
        wantedOn: order.wantedOn,
        at: new Date(order.at).toISOString(),
        stands: standOrder(lines.map((l) => standingOf(book, l).state)) ?? 'toDye',
        lines: lines.map((line) => ({
          id: line.id,
          what: line.what,
          pieces: line.pieces,
          colourway: book.colourways.get(line.colourwayId ?? '')?.name ?? null,
          lab: colourOf(book, line),
          standing: standingOf(book, line),
        })),
      };
    });
}

/** One order, whole. */
export async function readOrder(db: Db, id: string): Promise<OrderDetail> {
  const book = await readBook(db);
  const order = book.orders.find((o) => o.id === id);
  if (!order) throw notFound('order');
  const [by] = await db.select({ id: people.id, name: people.name }).from(people).where(eq(people.id, order.byId));
  const taggers = new Map(
    (await db.select({ id: people.id, name: people.name }).from(people)).map((p) => [p.id, p.name]),
  );
  const [house] = await db.select({ currency: studio.currency }).from(studio);
  return {
    id: order.id,
    number: order.number,
    version: order.version,
    customer: customerOf(order),
    state: order.state,
    wantedOn: order.wantedOn,
    note: order.note,
    at: new Date(order.at).toISOString(),
    by: by ?? { id: order.byId, name: '' },
    currency: house?.currency ?? 'EUR',
    lines: book.lines.filter((l) => l.orderId === id).map((line) => detailOf(book, line, taggers)),
  };
}

function detailOf(
  book: OrderBook,
  { orderId: _orderId, position: _position, pieceWeightMg, taggedAt, taggedById, ...line }: Line,
  taggers: ReadonlyMap<string, string>,
): OrderDetail['lines'][number] {
  const whole = book.lines.find((l) => l.id === line.id);
  const colourway = book.colourways.get(line.colourwayId ?? '');
  const match = book.lots.get(line.matchLotId ?? '');
  const held = book.goods.lines.filter((g) => g.lineId === line.id);
  const { setOf } = line;
  const tags = new Map([...book.lots].map(([lotId, l]) => [lotId, l.tag]));
  const sets =
    setOf === null ? [] : setsOfLine(held, setOf, new Map([...book.lots].map(([lotId, l]) => [lotId, l.lab])));
  return {
    ...line,
    pieceWeightG: pieceWeightMg === null ? null : pieceWeightMg / 1000,
    colourway: colourway ? { id: colourway.id, name: colourway.name, lab: colourway.master } : null,
    matchLot: match ? { id: match.id, tag: match.tag, lab: match.lab } : null,
    standing: standingOf(book, whole as Line),
    lots: (book.meant.get(line.id) ?? []).flatMap((lotId) => {
      const lot = book.lots.get(lotId);
      return lot ? [{ id: lotId, tag: lot.tag, state: lot.state, pieces: lot.pieces }] : [];
    }),
    held: held.map(({ lotId, group, set, setAside, handedOver }) => {
      const lot = book.lots.get(lotId);
      const label = lot?.groups.find((g) => g.key === group)?.label ?? '';
      return { lot: { id: lotId, tag: lot?.tag ?? '' }, group, label, set, setAside, handedOver };
    }),
    sets: sets.map((s) => ({
      set: s.set,
      pieces: s.pieces,
      isFull: s.isFull,
      caution: saySetCaution(s, setOf ?? 0, tags) ?? null,
    })),
    tagged:
      taggedAt === null ? null : { at: new Date(taggedAt).toISOString(), by: taggers.get(taggedById ?? '') ?? '' },
  };
}

/** The day the first of its agreed orders wants a lot by, with that order; lots nobody waits for aren't in it. */
export async function readPromisedLots(
  db: Db,
): Promise<ReadonlyMap<string, { readonly wantedOn: string; readonly order: { id: string; number: number } }>> {
  const book = await readBook(db);
  const found = new Map<string, { wantedOn: string; order: { id: string; number: number } }>();
  for (const order of book.orders) {
    if (order.state !== 'agreed' || order.wantedOn === null) continue;
    for (const line of book.lines.filter((l) => l.orderId === order.id)) {
      // What is ready already waits for no lot.
      if (standingOf(book, line).inWork === 0) continue;
      for (const lotId of book.meant.get(line.id) ?? [])
        if (!found.has(lotId))
          found.set(lotId, { wantedOn: order.wantedOn, order: { id: order.id, number: order.number } });
    }
  }
  return found;
}
