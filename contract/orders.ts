import { GOODS_KINDS, LINE_STATES } from '@vestigia/core';
import { z } from 'zod';
import { id, isoDate, isoTime, labUnder, lineOf, nameOf, noteOf, numberIn, personRef, version } from './common';
import { lotState } from './lots';

const customerFields = {
  name: nameOf(() => $localize`The customer’s name`),
  /** How they are reached: address, telephone, letters, as people write it. */
  reach: noteOf(() => $localize`How they are reached`).default(''),
  note: noteOf(() => $localize`The note`).default(''),
};
export const newCustomer = z.object({ id, ...customerFields });
export const customerEdit = z.object({ version, ...customerFields });
export const customer = z
  .object({
    id,
    number: z.int(),
    ...customerFields,
    /** Empty once they were erased. */
    name: z.string(),
    version,
    /** When what was known of them was erased; their orders stay, without a name. */
    erasedAt: isoTime.nullable(),
    at: isoTime,
  })
  .meta({ id: 'Customer' });
export type Customer = z.infer<typeof customer>;
export type NewCustomer = z.input<typeof newCustomer>;

/** What an order is: asked for and quoted; agreed to; called off. */
export const ORDER_STATES = ['asked', 'agreed', 'calledOff'] as const;
export const orderState = z.enum(ORDER_STATES);
export type OrderState = (typeof ORDER_STATES)[number];

const MOST_PIECES = 2000;
const lineFields = {
  /** In the customer’s words. */
  what: nameOf(() => $localize`What is wanted`),
  pieces: z
    .int({ error: () => $localize`Say how many pieces, as a whole number.` })
    .min(1, {
      error: () => $localize`A line is of one piece or more.`,
    })
    .max(MOST_PIECES, {
      error: () => $localize`More than ${MOST_PIECES} pieces are taken for a slip of the pen. Divide the line.`,
    }),
  pieceWeightG: numberIn(() => $localize`The weight of a piece`, 0.1, 25_000, 'g')
    .nullable()
    .default(null),
  colourwayId: id.nullable().default(null),
  /** The lot it is to match. */
  matchLotId: id.nullable().default(null),
  /** The colour they brought, and what it was read on. */
  brought: labUnder.nullable().default(null),
  broughtNote: lineOf(() => $localize`What they brought`).default(''),
  /** Pieces that go out as one and have to match; `null`: each goes by itself. */
  setOf: z
    .int()
    .min(2, { error: () => $localize`A set is of two pieces or more. Leave it empty where each goes by itself.` })
    .max(500)
    .nullable()
    .default(null),
  /** For a piece, in minor units of money. */
  priceMinor: z.int().min(0).max(100_000_000).nullable().default(null),
  care: noteOf(() => $localize`The care text`).default(''),
};
export const newOrderLine = z.object({ id, ...lineFields });
const lines = z
  .array(newOrderLine)
  .min(1, { error: () => $localize`Write what is wanted, a line at least.` })
  .max(60);
const orderFields = {
  wantedOn: isoDate.nullable(),
  note: noteOf(() => $localize`The note`).default(''),
  lines,
};
export const newOrder = z.object({
  id,
  customerId: id,
  /** Somebody new, written down under that id with their first order. */
  customer: z.object(customerFields).nullable().default(null),
  state: orderState.exclude(['calledOff']).default('agreed'),
  ...orderFields,
});
export const orderEdit = z.object({ version, state: orderState, ...orderFields });
export type NewOrder = z.input<typeof newOrder>;
export type ReadNewOrder = z.infer<typeof newOrder>;
export type OrderEdit = z.input<typeof orderEdit>;
export type ReadOrderEdit = z.infer<typeof orderEdit>;
export type NewOrderLine = z.infer<typeof newOrderLine>;

const lotRef = z.object({ id, tag: z.string() });
const customerRef = z.object({ id, number: z.int(), name: z.string() });

export const lineStanding = z.object({
  state: z.enum(LINE_STATES),
  handedOver: z.int(),
  setAside: z.int(),
  onShelf: z.int(),
  inWork: z.int(),
  toDye: z.int(),
});

/** A line as lists show it. */
const lineSummary = z.object({
  id,
  what: z.string(),
  pieces: z.int(),
  colourway: z.string().nullable(),
  lab: labUnder.nullable(),
  standing: lineStanding,
});
export const orderSummary = z
  .object({
    id,
    number: z.int(),
    customer: customerRef,
    state: orderState,
    wantedOn: isoDate.nullable(),
    at: isoTime,
    /** Where its line furthest back stands. */
    stands: z.enum(LINE_STATES),
    lines: z.array(lineSummary),
  })
  .meta({ id: 'OrderSummary' });
export type OrderSummary = z.infer<typeof orderSummary>;

/** Pieces that lie ready for a line, or went out on it. */
const heldPieces = z.object({
  lot: lotRef,
  group: z.string().nullable(),
  label: z.string(),
  set: z.int().nullable(),
  setAside: z.int(),
  handedOver: z.int(),
});
/** A lot meant for a line. */
const meantLot = lotRef.extend({ state: lotState, pieces: z.int() });

export const orderLine = newOrderLine.extend({
  what: z.string(),
  colourway: z.object({ id, name: z.string(), lab: labUnder.nullable() }).nullable(),
  matchLot: lotRef.extend({ lab: labUnder.nullable() }).nullable(),
  standing: lineStanding,
  lots: z.array(meantLot),
  held: z.array(heldPieces),
  sets: z.array(z.object({ set: z.int(), pieces: z.int(), isFull: z.boolean(), caution: z.string().nullable() })),
  tagged: z.object({ at: isoTime, by: z.string() }).nullable(),
});
export type OrderLine = z.infer<typeof orderLine>;

export const orderDetail = z
  .object({
    id,
    number: z.int(),
    version,
    customer: customerRef,
    state: orderState,
    wantedOn: isoDate.nullable(),
    note: z.string(),
    at: isoTime,
    by: personRef,
    currency: z.string(),
    lines: z.array(orderLine),
  })
  .meta({ id: 'OrderDetail' });
export type OrderDetail = z.infer<typeof orderDetail>;

/** The lots meant for a line of an order. */
export const lotsOfLine = z.object({ lotIds: z.array(id).max(60) });
export const taggedLine = z.object({ tagged: z.boolean() });

/** Finished pieces move: they come from a lot, are set aside, handed over, come back, are sold or go another way. */
export const newGoodsMove = z
  .object({
    id,
    kind: z.enum(GOODS_KINDS),
    lotId: id,
    group: z.string().max(200).nullable().default(null),
    pieces: z
      .int({ error: () => $localize`Say how many pieces, as a whole number.` })
      .min(1, {
        error: () => $localize`Say how many pieces, one at least.`,
      })
      .max(MOST_PIECES),
    lineId: id.nullable().default(null),
    set: z.int().min(1).max(500).nullable().default(null),
    note: lineOf(() => $localize`The note`).default(''),
  })
  .refine((m) => ['setAside', 'putBack', 'handOver', 'cameBack'].includes(m.kind) === (m.lineId !== null), {
    error: () => $localize`Pieces are set aside, handed over and come back for a line of an order. Choose it.`,
    path: ['lineId'],
  });
export type NewGoodsMove = z.input<typeof newGoodsMove>;
export type ReadNewGoodsMove = z.infer<typeof newGoodsMove>;
export const goodsTakeBack = z.object({ id });

/** Finished pieces of one base and part of a lot. */
export const goodsRow = z
  .object({
    lot: lotRef,
    group: z.string().nullable(),
    /** What they are, where the lot has several. */
    label: z.string(),
    base: z.string(),
    colourway: z.object({ id, name: z.string() }),
    lab: labUnder.nullable(),
    /** Held or refused by itself, while the lot went on without it. */
    apart: z.enum(['hold', 'refuse']).nullable(),
    /** Pieces of it in the lot. */
    inLot: z.int(),
    came: z.int(),
    onShelf: z.int(),
    setAside: z.int(),
    handedOver: z.int(),
    gone: z.int(),
  })
  .meta({ id: 'GoodsRow' });
export type GoodsRow = z.infer<typeof goodsRow>;

const goodsMove = z.object({
  id,
  kind: z.enum(GOODS_KINDS),
  label: z.string(),
  pieces: z.int(),
  set: z.int().nullable(),
  order: z.object({ id, number: z.int() }).nullable(),
  note: z.string(),
  at: isoTime,
  by: z.string(),
  /** It was a slip, and counts no longer. */
  isTakenBack: z.boolean(),
});
export const goodsOfLot = z
  .object({
    rows: z.array(goodsRow),
    moves: z.array(goodsMove),
    /** Orders it is meant for. */
    orders: z.array(
      z.object({
        id,
        number: z.int(),
        customer: z.string(),
        what: z.string(),
        pieces: z.int(),
        wantedOn: isoDate.nullable(),
      }),
    ),
  })
  .meta({ id: 'GoodsOfLot' });
export type GoodsOfLot = z.infer<typeof goodsOfLot>;

export const customerDetail = z.object({ customer, orders: z.array(orderSummary) }).meta({ id: 'CustomerDetail' });
export type CustomerDetail = z.infer<typeof customerDetail>;

/** As a studio’s file keeps them. */
export const customerRecord = customer.omit({ version: true });
export const orderRecord = z.object({
  id,
  number: z.int().min(1),
  customerId: id,
  state: orderState,
  wantedOn: isoDate.nullable(),
  note: z.string(),
  at: isoTime,
  byId: id,
});
export const orderLineRecord = newOrderLine.extend({
  orderId: id,
  position: z.int(),
  taggedAt: isoTime.nullable(),
  taggedById: id.nullable(),
});
export const orderLineLotRecord = z.object({ lineId: id, lotId: id, at: isoTime, byId: id });
export const goodsRecord = z.object({
  id,
  kind: z.enum(GOODS_KINDS),
  lotId: id,
  group: z.string().nullable(),
  pieces: z.int(),
  lineId: id.nullable(),
  set: z.int().nullable(),
  note: z.string(),
  reversesId: id.nullable(),
  at: isoTime,
  byId: id,
});
