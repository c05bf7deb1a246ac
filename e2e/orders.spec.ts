import type {
  CustomerDetail,
  GoodsRow,
  LotSummary,
  OrderDetail,
  OrderSummary,
  PlanFactsView,
} from '@vestigia/contract';
import { beforeAll, describe, expect, it } from 'vitest';
import { inDemoStudio } from './demo-studio';
import type { Someone } from './person';

describe('an order', () => {
  const demo = inDemoStudio();
  let isaby: Someone;
  beforeAll(() => {
    ({ isaby } = demo);
  });
  const orders = (): Promise<OrderSummary[]> => isaby.ask<OrderSummary[]>('/api/orders');
  const newest = async (): Promise<OrderDetail> => {
    const last = (await orders()).reduce((x, y) => (x.number > y.number ? x : y));
    return isaby.ask<OrderDetail>(`/api/orders/${last.id}`);
  };
  const left = async (tag: string): Promise<number | undefined> =>
    (await isaby.ask<GoodsRow[]>('/api/goods')).find((g) => g.lot.tag === tag)?.onShelf;

  it('is taken from somebody new, who is told how soon it could be ready', async () => {
    await isaby.settled('/orders/new');
    await isaby.sees('Who wants it is still missing.');
    await isaby.write('Their name', 'Hesper Lunt');
    await isaby.write('Pieces', '3');
    await isaby.write('What, in their words', 'hanks for a shawl');
    await isaby.choose('Colourway', 'Foreshore');
    await isaby.choose('Must match', 'Lot 84, Foreshore');
    await isaby.press('How soon could it be ready?');
    await isaby.sees(/It could be ready .+, beside all that is planned/);
    await isaby.write('Wanted by', 'in 10 days');
    await isaby.press('Keep the order');
    await isaby.sees(/Order 6/, 'h1');
    expect(await newest()).toMatchObject({
      customer: { name: 'Hesper Lunt' },
      lines: [{ what: 'hanks for a shawl', pieces: 3, matchLot: { tag: 'Lot 84' }, standing: { state: 'toDye' } }],
    });
  });

  it('is made ready from what is left of the lot it must match, and handed over', async () => {
    const before = await left('Lot 84');
    await isaby.sees('Of 3 pieces 3 to dye');
    await isaby.press('Set them aside');
    await isaby.sees('Of 3 pieces 3 set aside');
    expect(await left('Lot 84')).toBe((before ?? 0) - 3);
    await isaby.press('They carry their tags');
    await isaby.sees('tagged by Isaby Fennimore');
    await isaby.press(/^Hand over/);
    await isaby.sees('Of 3 pieces 3 handed over');
    expect((await newest()).lines[0]?.standing).toMatchObject({ state: 'handedOver', handedOver: 3 });
  });

  it('takes a slip back on the page of the lot', async () => {
    const lot = (await isaby.ask<LotSummary[]>('/api/lots')).find((l) => l.tag === 'Lot 84');
    await isaby.settled(`/lots/${lot?.id}`);
    await isaby.press('Where they went', 'summary');
    await isaby.page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('vs-lot-goods tr button')].at(-1)?.click(),
    );
    await isaby.sees('a slip, taken back');
    expect((await newest()).lines[0]?.standing).toMatchObject({ setAside: 3, handedOver: 0 });
    await isaby.settled('/today');
    await isaby.sees('Orders wanted soon', 'h2');
    expect(await isaby.text()).toMatch(/Order 6 Hesper Lunt[\s\S]*3 pieces to hand over, ready/);
  });

  it('lets a lot be dyed for it, which then knows its day', async () => {
    const four = (await orders()).find((o) => o.number === 4);
    const three = (await orders()).find((o) => o.number === 3);
    const { lots } = await isaby.ask<PlanFactsView>('/api/plan');
    expect(lots.find((l) => l.order?.number === 3)?.wantedOn).toBe(three?.wantedOn);
    await isaby.settled(`/orders/${four?.id}/edit`);
    await isaby.choose('It is', 'agreed');
    await isaby.press('Keep the order');
    await isaby.sees('Of 8 pieces 8 to dye');
    await isaby.press('Dye a lot for it');
    await isaby.sees('8 hanks of 200 g');
    await isaby.lookOver();
    await isaby.press('Plan the lot and promise its stock');
    await isaby.sees('Begin at the bench');
    const detail = await isaby.ask<OrderDetail>(`/api/orders/${four?.id}`);
    expect(detail.lines[0]).toMatchObject({ lots: [{ state: 'planned', pieces: 8 }], standing: { state: 'inWork' } });
    const now = await isaby.ask<PlanFactsView>('/api/plan');
    expect(now.lots.find((l) => l.order?.number === 4)?.wantedOn).toBe(four?.wantedOn);
  });

  it('stays without a name once its customer is erased', async () => {
    const { customer } = await newest();
    await isaby.settled(`/orders/customers/${customer.id}`);
    await isaby.press('Erase what is known of them');
    await isaby.sees(/goes for good/);
    await isaby.press('Erase them for good');
    await isaby.sees(/What was known of them was erased/);
    const after = await isaby.ask<CustomerDetail>(`/api/customers/${customer.id}`);
    expect([after.customer.name, after.orders.length]).toEqual([`Customer ${customer.number}, erased`, 1]);
    await isaby.settled('/orders?show=all');
    expect(await isaby.text()).not.toContain('Hesper');
  });
});
