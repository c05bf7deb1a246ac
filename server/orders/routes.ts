import { api } from '@vestigia/contract';
import type { Db } from '../db/database';
import type { Routes } from '../http/routes';
import { readFastnessOf } from '../judge/fastness-store';
import { readStudio, studioToday } from '../studio/studio-store';
import {
  addCustomer,
  editCustomer,
  eraseCustomer,
  exportCustomer,
  findCustomer,
  readCustomer,
  readCustomers,
} from './customers';
import { customerName } from './customer-name';
import { moveGoods, readGoods, readGoodsOfLot, takeGoodsBack } from './goods-store';
import type { CareOfLot, OrderSheet } from './print-order';
import { printDeliveryNote, printQuotation } from './print-order';
import { readOrder, readOrders } from './read-orders';
import { editOrder, meanLots, tagLine, takeOrder } from './write-orders';

const DONE = { ok: true as const };

export function ordersRoutes(routes: Routes): void {
  routes.reads(api.customers, ({ db }) => readCustomers(db));
  routes.writes(api.addCustomer, ['orders'], async ({ db, body, now, person }) => {
    await addCustomer(db, body, { now, byId: person.id });
    return { id: body.id };
  });
  routes.reads(api.customer, ({ db, id }) => readCustomer(db, id));
  routes.writes(api.editCustomer, ['orders'], async ({ db, id, body }) => {
    await editCustomer(db, id, body);
    return DONE;
  });
  routes.reads(api.exportCustomer, async ({ db, id, now }) => ({
    type: 'application/json',
    ...(await exportCustomer(db, id, now)),
  }));
  routes.writes(api.eraseCustomer, ['orders'], async ({ db, id, now, person }) => {
    await eraseCustomer(db, id, { now, byId: person.id });
    return DONE;
  });
  routes.reads(api.orders, ({ db }) => readOrders(db));
  routes.writes(api.takeOrder, ['orders'], async ({ db, body, now, person }) => {
    await takeOrder(db, body, { now, byId: person.id });
    return { id: body.id };
  });
  routes.reads(api.order, ({ db, id }) => readOrder(db, id));
  routes.writes(api.editOrder, ['orders', 'plan'], async ({ db, id, body, now, person }) => {
    await editOrder(db, id, body, { now, byId: person.id });
    return DONE;
  });
  routes.reads(api.quotation, async ({ db, id, now }) => {
    const sheet = await sheetOf(db, id, now);
    return pdf($localize`quotation ${sheet.order.number}`, await printQuotation(sheet));
  });
  routes.reads(api.deliveryNote, async ({ db, id, now }) => {
    const sheet = await sheetOf(db, id, now);
    return pdf(
      $localize`delivery note ${sheet.order.number}`,
      await printDeliveryNote(sheet, await careOf(db, sheet, await studioToday(db, now))),
    );
  });
  routes.writes(api.meanLots, ['orders', 'plan'], async ({ db, id, body, now, person }) => {
    await meanLots(db, id, body.lotIds, { now, byId: person.id });
    return DONE;
  });
  routes.writes(api.tagLine, ['orders'], async ({ db, id, body, now, person }) => {
    await tagLine(db, id, body.tagged, { now, byId: person.id });
    return DONE;
  });
  routes.reads(api.goods, ({ db }) => readGoods(db));
  routes.writes(api.moveGoods, ['orders'], async ({ db, body, now, person }) => {
    await moveGoods(db, body, { now, byId: person.id });
    return { id: body.id };
  });
  routes.writes(api.takeGoodsBack, ['orders'], async ({ db, id, body, now, person }) => {
    await takeGoodsBack(db, id, body.id, { now, byId: person.id });
    return { id: body.id };
  });
  routes.reads(api.goodsOfLot, ({ db, id }) => readGoodsOfLot(db, id));
}

const pdf = (name: string, content: Uint8Array) => ({ name: `${name}.pdf`, type: 'application/pdf', content });

async function sheetOf(db: Db, orderId: string, now: Date): Promise<OrderSheet> {
  const order = await readOrder(db, orderId);
  const { name, zone } = await readStudio(db);
  const customer = await findCustomer(db, order.customer.id);
  return { order, studio: { name, zone }, customer: { name: customerName(customer), reach: customer.reach }, now };
}

/** How to care for the pieces that went out, by their lots. */
async function careOf(db: Db, { order }: OrderSheet, today: string): Promise<ReadonlyMap<string, CareOfLot>> {
  const found = new Map<string, CareOfLot>();
  for (const { lot, handedOver } of order.lines.flatMap((l) => l.held))
    if (handedOver > 0 && !found.has(lot.id))
      found.set(lot.id, { tag: lot.tag, care: (await readFastnessOf(db, 'lot', lot.id, today, undefined)).care });
  return found;
}
