import type {
  CustomerDetail,
  Deed,
  GoodsOfLot,
  GoodsRow,
  OrderDetail,
  OrderSummary,
  PlanFactsView,
  SearchHit,
  Today,
} from '@vestigia/contract';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { elsewhere } from '../test/elsewhere';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  callsOf,
  delivery,
  dyeLot,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  verdict,
  weighing,
  wholeDocument,
} from '../test/test-studio';

const JUNE = '2026-06-12';

describe('orders, and the pieces that go out on them', () => {
  let studio: TestStudio;
  let f: Furniture;
  let lotId: string;
  const customerId = newId();
  const orderId = newId();
  const [wrap, ribbon] = [newId(), newId()];
  const { post, get } = callsOf(() => studio);
  const put = (path: string, body: object) => studio.agent.put(path).send(body);
  const order = (): Promise<OrderDetail> => get<OrderDetail>(`/api/orders/${orderId}`);
  const line = async (id = wrap) => (await order()).lines.find((l) => l.id === id);
  const move = (kind: string, pieces: number, rest: object = {}) =>
    post('/api/goods', { id: newId(), kind, lotId, pieces, ...rest });
  const lines = (): object[] => [
    {
      id: wrap,
      what: 'hanks for a wrap',
      pieces: 4,
      pieceWeightG: 100,
      colourwayId: f.colourway,
      setOf: 2,
      priceMinor: 1850,
    },
    {
      id: ribbon,
      what: 'a hank to try',
      pieces: 1,
      brought: { L: 70, a: 1, b: 40, illuminant: 'D65', observer: '10' },
      broughtNote: 'a glove',
    },
  ];

  beforeAll(async () => {
    studio = await openTestStudio('folder');
    f = await furnish(studio);
    lotId = await makeLot(studio, f);
  });
  afterAll(() => studio.close());

  it('are taken from a customer, with what they want and by when', async () => {
    const odd = { id: newId(), customerId: newId(), customer: { name: 'Nobody', reach: '' }, wantedOn: '2026-05-01' };
    expect((await post('/api/orders', { ...odd, lines: lines() })).body).toMatchObject({ reason: 'dayPast' });
    expect(await get('/api/customers')).toEqual([]);
    await post('/api/customers', { id: customerId, name: 'Odile Marsh', reach: 'Quay 3\nodile@example.org' }).expect(
      200,
    );
    await post('/api/orders', { id: orderId, customerId, wantedOn: JUNE, note: 'as the last', lines: lines() }).expect(
      200,
    );
    expect(await order()).toMatchObject({
      number: 1,
      state: 'agreed',
      customer: { name: 'Odile Marsh' },
      currency: 'EUR',
    });
    expect(await line()).toMatchObject({ colourway: { name: 'Marram' }, standing: { state: 'toDye', toDye: 4 } });
  });

  it.each<[string, object, string]>([
    ['a day past', { wantedOn: '2026-05-01' }, 'That day is past. Choose today or a day to come.'],
    ['nothing wanted', { lines: [] }, 'Write what is wanted, a line at least.'],
    ['no piece', { lines: [{ id: newId(), what: 'x', pieces: 0 }] }, 'A line is of one piece or more.'],
    [
      'a set of one',
      { lines: [{ id: newId(), what: 'x', pieces: 1, setOf: 1 }] },
      'A set is of two pieces or more. Leave it empty where each goes by itself.',
    ],
  ])('are refused with %s, and nothing is kept', async (_what, said, detail) => {
    const { body } = await post('/api/orders', { id: newId(), customerId, wantedOn: null, lines: lines(), ...said });
    expect(body).toMatchObject({ detail });
    expect(await get<OrderSummary[]>('/api/orders')).toHaveLength(1);
  });

  it('have no delivery note before anything goes out', async () => {
    const { body } = await studio.agent.get(`/api/orders/${orderId}/delivery-note`).expect(422);
    expect(body).toMatchObject({
      reason: 'nothingHandedOver',
      detail: 'Nothing of order 1 is handed over yet. Hand over what goes out, then print what goes with it.',
    });
  });

  it('let the plan know by when a lot is wanted that is meant for them', async () => {
    await put(`/api/order-lines/${wrap}/lots`, { lotIds: [lotId] }).expect(200);
    expect((await line())?.standing).toMatchObject({ state: 'inWork', inWork: 4 });
    const { lots } = await get<PlanFactsView>('/api/plan');
    expect(lots[0]).toMatchObject({ wantedOn: JUNE, order: { id: orderId, number: 1 } });
    await put(`/api/lots/${lotId}/wanted`, { wantedOn: '2026-06-10' }).expect(200);
    expect((await get<PlanFactsView>('/api/plan')).lots[0]).toMatchObject({ wantedOn: '2026-06-10', order: null });
  });

  it('get no pieces of a lot that isn’t dyed, and none of one that isn’t passed without a word why', async () => {
    expect((await move('came', 1)).body).toMatchObject({ reason: 'notDyed' });
    await dyeLot(studio, f, lotId);
    expect((await move('came', 6)).body).toMatchObject({ reason: 'notPassed' });
    await post(`/api/lots/${lotId}/readings`, reading('dry')).expect(200);
    await post(`/api/lots/${lotId}/verdicts`, verdict('pass')).expect(200);
    const fibre = {
      id: newId(),
      movementId: newId(),
      tag: '',
      quantityText: '200 g',
      place: '',
      note: '',
      treatment: 'dyed',
      baseId: null,
      newBaseId: newId(),
      newBase: 'Rug wool, dyed',
    };
    await post(`/api/lots/${lotId}/fibre`, fibre).expect(200);
    expect((await move('came', 6)).body).toMatchObject({ reason: 'keptAsFibre' });
    const kept = await get<{ movements: { id: string }[] }>(`/api/stock-lots/${fibre.id}`);
    expect(kept).toBeDefined();
    await post(`/api/movements/${fibre.movementId}/reversal`, { id: newId(), note: 'not kept after all' }).expect(200);
    await move('came', 6).expect(200);
    const late = { ...fibre, id: newId(), movementId: newId(), newBaseId: newId(), newBase: 'Rug wool, dyed again' };
    expect((await post(`/api/lots/${lotId}/fibre`, late)).body).toMatchObject({ reason: 'moreThanTheLot' });
    expect((await move('came', 1)).body).toMatchObject({ reason: 'moreThanLot' });
    expect(await get<GoodsRow[]>('/api/goods')).toMatchObject([
      { onShelf: 6, inLot: 6, colourway: { name: 'Marram' } },
    ]);
    expect((await line())?.standing).toMatchObject({ state: 'onShelf', onShelf: 4 });
  });

  it('are made ready in sets, tagged and handed over; what is left can be told', async () => {
    await move('setAside', 2, { lineId: wrap, set: 1 }).expect(200);
    await move('setAside', 2, { lineId: wrap, set: 2 }).expect(200);
    expect(await line()).toMatchObject({
      standing: { state: 'ready' },
      sets: [{ isFull: true, caution: null }, { isFull: true }],
    });
    await put(`/api/order-lines/${wrap}/tagged`, { tagged: true }).expect(200);
    expect((await line())?.tagged).toMatchObject({ by: 'Ada Reed' });
    expect((await get<Today>('/api/today')).orders).toMatchObject([{ number: 1, pieces: 5, stands: 'toDye' }]);
    await move('handOver', 2, { lineId: wrap, set: 1 }).expect(200);
    expect((await move('handOver', 2, { lineId: wrap, set: 1 })).body).toMatchObject({ reason: 'moreThanSetAside' });
    expect(await get<GoodsRow[]>('/api/goods')).toMatchObject([{ onShelf: 2, setAside: 2, handedOver: 2 }]);
  });

  it('are found by number, customer and what is wanted', async () => {
    const found = async (words: string) =>
      (await get<SearchHit[]>(`/api/search?q=${encodeURIComponent(words)}`)).map((h) => `${h.kind} ${h.title}`);
    expect(await found('order 1')).toContain('order Order 1');
    expect(await found('odile')).toEqual(['order Order 1', 'customer Odile Marsh']);
    expect(await found('for a wrap')).toEqual(['order Order 1']);
  });

  it('take a slip back, and no move on which something rests', async () => {
    const { moves } = await get<GoodsOfLot>(`/api/lots/${lotId}/goods`);
    const [came] = moves;
    const out = moves.at(-1);
    const back = (id = '') => post(`/api/goods/${id}/take-back`, { id: newId() });
    expect((await back(came?.id)).body).toMatchObject({ reason: 'wentOn' });
    expect((await back(out?.id)).status).toBe(200);
    expect((await back(out?.id)).body).toMatchObject({ code: 'alreadyDone' });
    expect((await line())?.standing).toMatchObject({ handedOver: 0, setAside: 4 });
    await move('handOver', 2, { lineId: wrap, set: 1 }).expect(200);
  });

  it('are changed by one after another, and keep a line that pieces belong to', async () => {
    const { version, wantedOn, note, state } = await order();
    const edit = { version, wantedOn, note, state };
    expect((await put(`/api/orders/${orderId}`, { ...edit, lines: lines().slice(1) })).body).toMatchObject({
      reason: 'lineInUse',
    });
    await put(`/api/orders/${orderId}`, { ...edit, note: 'in a box', lines: lines() }).expect(200);
    expect((await put(`/api/orders/${orderId}`, { ...edit, lines: lines() })).body).toMatchObject({ code: 'stale' });
    expect(await order()).toMatchObject({ note: 'in a box' });
    // What was written stays out of what is told, so that it can be forgotten.
    const told = async (): Promise<Deed['changes'] | undefined> =>
      (await get<{ deeds: Deed[] }>('/api/deeds?thing=order')).deeds[0]?.changes;
    expect(await told()).toEqual({});
    const more = [lines()[0], { ...lines()[1], pieces: 3 }];
    await put(`/api/orders/${orderId}`, { ...edit, version: version + 1, note: 'in a box', lines: more }).expect(200);
    expect(await told()).toEqual({ pieces: [5, 7] });
    await put(`/api/orders/${orderId}`, { ...edit, version: version + 2, note: 'in a box', lines: lines() }).expect(
      200,
    );
  });

  it('print as a quotation and a delivery note', async () => {
    for (const sheet of ['quotation', 'delivery-note']) {
      const { headers, body } = await studio.agent.get(`/api/orders/${orderId}/${sheet}`).expect(200);
      expect(headers['content-type']).toContain('application/pdf');
      expect((body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    }
  });

  it('are nobody’s business who only looks on', async () => {
    const [personId, passphrase] = [newId(), 'nine grey hanks'];
    await post('/api/people', { id: personId, name: 'Gus Sedge', passphrase, role: 'guest' }).expect(200);
    const guest = request.agent(studio.app);
    await guest.post('/api/auth/session').send({ personId, passphrase }).expect(200);
    for (const path of ['/api/orders', '/api/customers', `/api/customers/${customerId}/export`])
      expect((await guest.get(path)).body).toMatchObject({ code: 'notAllowed' });
    expect(((await guest.get('/api/today')).body as Today).orders).toEqual([]);
    expect((await guest.get('/api/search?q=odile')).body).toEqual([]);
  });

  it('are not finished of a base that is held by itself, but with a word why', async () => {
    const material = { kind: 'fibre', measure: 'weight', hazards: [], note: '' };
    const undyed = { L: 91, a: 0, b: 6, illuminant: 'D65', observer: '10' };
    const silk = newId();
    const base = { fibre: 'wool', pieceWord: 'reel', usualPieceWeightG: 25, undyed };
    await post('/api/materials', { ...material, id: silk, name: 'Lambswool', base }).expect(200);
    const came = await post('/api/stock-lots', delivery(silk, '500 g')).expect(200);
    const more = { also: [{ baseId: silk, quantityText: '4 reels of 25 g' }] };
    const both = await makeLot(studio, f, { quantityText: '2 hanks of 100 g', more });
    await dyeLot(studio, f, both, { grams: 200, also: [weighing(silk, (came.body as { id: string }).id, '100 g')] });
    const { rows } = await get<GoodsOfLot>(`/api/lots/${both}/goods`);
    const [first, second] = rows.map((r) => r.group);
    const of = { batch: 1, group: second, zone: null, piece: null };
    await post(`/api/lots/${both}/readings`, { ...reading('dry', 60), group: second }).expect(200);
    await post(`/api/lots/${both}/readings`, { ...reading('dry', 74.3), group: first }).expect(200);
    await post(`/api/lots/${both}/verdicts`, { ...verdict('hold', 'washed once more'), of }).expect(200);
    await post(`/api/lots/${both}/verdicts`, verdict('pass')).expect(200);
    const finish = (group: unknown, note = '') => move('came', 1, { lotId: both, group, note });
    expect((await finish(first)).status).toBe(200);
    expect((await finish(second)).body).toMatchObject({ reason: 'notPassed' });
    expect((await finish(second, 'as a second')).status).toBe(200);
    const finished = (await get<GoodsOfLot>(`/api/lots/${both}/goods`)).rows;
    expect(finished.map((r) => [r.came, r.apart])).toEqual([
      [1, null],
      [1, 'hold'],
    ]);
  });

  it('go into the studio’s file and come back out of it', async () => {
    const was = await wholeDocument(studio.context.database.db, studio.context.clock());
    expect([was.orders.length, was.orderLines.length, was.goods.length]).toEqual([1, 2, 8]);
    const [came] = was.goods;
    const now = await elsewhere(async ({ open, whole }) => {
      expect((await open({ ...was, goods: was.goods.filter((g) => g.id !== came?.id) })).body).toMatchObject({
        detail: expect.stringContaining('of Lot 1 more finished pieces went out than came') as string,
      });
      expect((await open(was)).status).toBe(200);
      return whole();
    });
    for (const key of ['customers', 'orders', 'orderLines', 'orderLineLots', 'goods'] as const)
      expect(now[key]).toEqual(was[key]);
  });

  it('give a customer what is kept of them, and forget who they are without breaking the record', async () => {
    const file = await get<{ customer: object; orders: object[] }>(`/api/customers/${customerId}/export`);
    expect(file).toMatchObject({ customer: { name: 'Odile Marsh' }, orders: [{ number: 1, note: 'in a box' }] });
    await studio.agent.delete(`/api/customers/${customerId}`).expect(200);
    const { customer, orders } = await get<CustomerDetail>(`/api/customers/${customerId}`);
    expect(customer).toMatchObject({ name: 'Customer 1, erased', reach: '', note: '' });
    expect(orders).toHaveLength(1);
    expect((await line())?.held).toHaveLength(2);
    const everything = JSON.stringify([
      await wholeDocument(studio.context.database.db),
      (await get<{ deeds: Deed[] }>('/api/deeds')).deeds,
    ]);
    for (const word of ['Odile', 'Quay 3', 'odile@', 'in a box', 'a glove']) expect(everything).not.toContain(word);
    const again = await post('/api/orders', { id: newId(), customerId, wantedOn: null, lines: lines() });
    expect(again.body).toMatchObject({ reason: 'erased' });
  });
});
