import type { Call, Problem, ShelfRow, StockLot, Stocktake } from '@vestigia/contract';
import { api } from '@vestigia/contract';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Topic } from '@vestigia/contract';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, delivery, furnish, newId, openTestStudio } from '../test/test-studio';

const STORES_CALLS = (Object.entries(api) as [string, Call][]).filter(([, c]) =>
  /^\/api\/(stores|materials|stock-lots|movements|conversions|liquors|count-walks|balance|attachments)/.test(c.path),
);

describe.each(KINDS)('stores, whoever asks and however often, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const stockLotOf = async (id: string): Promise<StockLot> =>
    (await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot;
  const shelf = async (): Promise<ShelfRow[]> => (await studio.agent.get('/api/stores').expect(200)).body as ShelfRow[];
  const out = (rest: object = {}) => ({
    movementId: newId(),
    stockLotId: newId(),
    materialId: null,
    newMaterial: '',
    tag: '',
    quantityText: '90 g',
    place: '',
    bestBefore: null,
    container: '',
    tareText: '',
    ...rest,
  });

  it.each(STORES_CALLS)('%s is not for strangers', async (_name, call) => {
    const path = call.path.replace('{id}', newId());
    const sent = call.upload
      ? studio.stranger[call.method](path)
          .set('content-type', call.upload[0] ?? '')
          .send(Buffer.from('x'))
      : studio.stranger[call.method](path).send(call.body ? {} : undefined);
    expect((await sent).status).toBe(401);
  });

  it.each(STORES_CALLS.filter(([, c]) => c.path.includes('{id}') && !c.upload))(
    '%s says so when there is no such thing',
    async (_name, call) => {
      const reply = await studio.agent[call.method](call.path.replace('{id}', newId())).send(
        call.body ? {} : undefined,
      );
      expect([400, 404]).toContain(reply.status);
      expect((reply.body as Problem).detail).toMatch(/[.]$/);
      expect(
        (await studio.agent[call.method](call.path.replace('{id}', 'not-an-id')).send(call.body ? {} : undefined))
          .status,
      ).toBe(404);
    },
  );

  it('does a thing once, however often the same touch is sent', async () => {
    const before = (await stockLotOf(f.weldStockLot)).row.onHand;
    const conversionOut = out();
    const sends: [string, object][] = [
      [
        `/api/stock-lots/${f.weldStockLot}/takings`,
        { id: newId(), kind: 'use', quantityText: '10 g', note: 'strip', auxiliaries: [] },
      ],
      [
        '/api/conversions',
        {
          id: newId(),
          kind: 'grind',
          inputs: [{ movementId: newId(), stockLotId: f.weldStockLot, quantityText: '100 g' }],
          output: conversionOut,
          note: '',
        },
      ],
      [
        `/api/materials/${f.alum}/spoons`,
        { id: newId(), unit: 'tsp', system: 'metric', quantityText: '4.8 g', fromBalance: false },
      ],
      [
        '/api/liquors',
        {
          id: newId(),
          movementId: newId(),
          what: 'dyeBath',
          materialId: null,
          newMaterial: 'Weld bath',
          tag: '',
          quantityText: '5 l',
          contents: [],
          working: null,
          fromLotId: null,
          vessel: '',
          place: '',
          bestBefore: null,
          note: '',
        },
      ],
      ['/api/stocktakes', { id: newId(), place: 'Shelf', blind: false }],
    ];
    for (const [path, body] of sends) {
      const replies = await Promise.all([1, 2, 3].map(() => studio.agent.post(path).send(body)));
      expect(
        replies.map((r) => r.status),
        path,
      ).toEqual([200, 200, 200]);
      expect(new Set(replies.map((r) => JSON.stringify(r.body))).size).toBe(1);
      expect(
        (await studio.agent.post(path).send({ ...body, note: 'another', place: 'another', quantityText: '3 g' }))
          .status,
        path,
      ).toBe(422);
    }
    expect((await stockLotOf(f.weldStockLot)).row.onHand).toBe(before - 110_000);
    expect((await stockLotOf(conversionOut.stockLotId)).lines).toHaveLength(1);
  });

  it.each<[string, (f: Furniture) => object, RegExp]>([
    [
      'a jar that is not here',
      () => ({ inputs: [{ movementId: newId(), stockLotId: newId(), quantityText: '1 g' }] }),
      /no such jar/,
    ],
    [
      'more than the jar holds',
      (g) => ({ inputs: [{ movementId: newId(), stockLotId: g.weldStockLot, quantityText: '99 kg' }] }),
      /holds .* can’t come out of it/,
    ],
    ['nothing coming out', () => ({ output: null }), /Say what came out/],
    ['something out of the compost', () => ({ kind: 'compost' }), /Nothing comes out of the compost/],
    ['a powder opened like a packet', () => ({ kind: 'open' }), /no packet/],
    [
      'an unknown unit',
      (g) => ({ inputs: [{ movementId: newId(), stockLotId: g.weldStockLot, quantityText: '3 handfuls' }] }),
      /not a unit of weight/,
    ],
    ['a name that is taken', () => ({ output: out({ newMaterial: 'Weld' }) }), /has that name already/],
    ['a tag that is taken', () => ({ output: out({ tag: 'WEL-1' }) }), /Another jar has that tag/],
    [
      'a solution kept as a powder',
      () => ({ kind: 'dissolve', output: out({ quantityText: '1 l' }) }),
      /kept by volume/,
    ],
    ['going off before it is made', () => ({ output: out({ bestBefore: '2020-01-01' }) }), /past its best before/],
    ['a container that is no weight', () => ({ output: out({ tareText: 'heavy' }) }), /The container alone/],
  ])('refuses a change of form with %s, and does none of it', async (_name, change, message) => {
    const before = await shelf();
    const body = {
      id: newId(),
      kind: 'dry',
      inputs: [{ movementId: newId(), stockLotId: f.weldStockLot, quantityText: '100 g' }],
      output: out(),
      note: '',
      ...change(f),
    };
    const reply = await studio.agent.post('/api/conversions').send(body);
    expect((reply.body as Problem).detail).toMatch(message);
    expect(reply.status).toBeLessThan(500);
    expect(await shelf()).toEqual(before);
  });

  it('tells other browsers what changed in Stores, and not before it is written', async () => {
    const reply: (readonly Topic[])[] = [];
    const stop = studio.context.changes.listen((topics) => reply.push(topics));
    await studio.agent
      .post(`/api/stock-lots/${f.weldStockLot}/takings`)
      .send({ id: newId(), kind: 'give', quantityText: '99 kg', note: 'x' })
      .expect(422);
    expect(reply).toEqual([]);
    await studio.agent
      .post(`/api/stock-lots/${f.weldStockLot}/takings`)
      .send({ id: newId(), kind: 'give', quantityText: '5 g', note: 'the school' })
      .expect(200);
    expect(reply).toEqual([['stores']]);
    stop();
  });

  it('shows the newest lines of a long ledger and the rest when asked, each with its balance', async () => {
    const { id } = (
      await studio.agent
        .post('/api/stock-lots')
        .send(delivery(f.weld, '1 kg', { tag: 'LONG' }))
        .expect(200)
    ).body as { id: string };
    const [person] = (
      (await studio.context.database.db.execute(sql`SELECT id FROM people LIMIT 1`)) as unknown as {
        rows: { id: string }[];
      }
    ).rows;
    await studio.context.database.db.execute(
      sql`INSERT INTO movements (id, stock_lot_id, kind, amount, at, by_id) SELECT gen_random_uuid(), ${id}, 'use', -1000, '2026-05-20T00:00:00Z'::timestamptz + n * interval '1 minute', ${person?.id} FROM generate_series(1, 300) n`,
    );
    const stockLot = await stockLotOf(id);
    expect([stockLot.lines.length, stockLot.earlier, stockLot.otherwise]).toEqual([
      120,
      181,
      [{ kind: 'use', amount: 300_000 }],
    ]);
    const all = (await studio.agent.get(`/api/stock-lots/${id}/ledger`).expect(200)).body as StockLot['lines'];
    expect(all).toHaveLength(301);
    let balance = 0;
    for (const line of all) expect(line.balance).toBe((balance += line.amount));
    expect(all.slice(-120)).toEqual(stockLot.lines);
    expect(balance).toBe(stockLot.row.onHand);
  });

  it('counts a jar that was emptied elsewhere only after it was looked at again', async () => {
    const { id } = (
      await studio.agent
        .post('/api/stock-lots')
        .send(delivery(f.weld, '300 g', { tag: 'GONE', place: 'Attic' }))
        .expect(200)
    ).body as { id: string };
    const stocktake = newId();
    await studio.agent.post('/api/stocktakes').send({ id: stocktake, place: 'Attic', blind: true }).expect(200);
    await studio.agent
      .post(`/api/stocktakes/${stocktake}/entries`)
      .send({
        id: newId(),
        stockLotId: id,
        quantityText: '300 g',
        gross: false,
        seenOnHand: 300_000,
        fromBalance: false,
      })
      .expect(200);
    await studio.agent
      .post(`/api/stock-lots/${id}/takings`)
      .send({ id: newId(), kind: 'spoil', quantityText: '300 g', note: 'moths' })
      .expect(200);
    const late = await studio.agent.post(`/api/stocktakes/${stocktake}/booking`).send({ id: newId(), reasons: [] });
    expect([late.status, (late.body as Problem).detail]).toEqual([
      409,
      'GONE moved since it was counted. Count it again, then book. Nothing is booked yet.',
    ]);
    expect(
      ((await studio.agent.get(`/api/stocktakes/${stocktake}`).expect(200)).body as Stocktake).lines,
    ).toMatchObject([{ row: { tag: 'GONE', onHand: 0 }, movedSince: true }]);
    await studio.agent
      .post(`/api/stocktakes/${stocktake}/entries`)
      .send({ id: newId(), stockLotId: id, quantityText: '0', gross: false, seenOnHand: 0, fromBalance: false })
      .expect(200);
    expect(
      (await studio.agent.post(`/api/stocktakes/${stocktake}/booking`).send({ id: newId(), reasons: [] }).expect(200))
        .body,
    ).toEqual({ booked: 0 });
    expect((await stockLotOf(id)).lines.map((l) => l.kind)).toEqual(['receive', 'spoil']);
  });

  it('sends the shelf packed or plain, as it is asked for, and anew once it changed', async () => {
    const plain = await studio.agent.get('/api/stores').set('accept-encoding', 'identity').expect(200);
    const packed = await studio.agent.get('/api/stores').set('accept-encoding', 'gzip').expect(200);
    expect([plain.headers['content-encoding'], packed.headers['content-encoding']]).toEqual(['identity', 'gzip']);
    expect(packed.body).toEqual(plain.body);
    await studio.agent
      .post('/api/stock-lots')
      .send(delivery(f.weld, '1 g', { tag: 'NEW-1' }))
      .expect(200);
    expect((await shelf()).map((r) => r.tag)).toContain('NEW-1');
  });
});
