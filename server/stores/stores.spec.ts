import type { Problem, SearchHit, ShelfRow, StockLot, Studio } from '@vestigia/contract';
import { foldOnHand } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, delivery, furnish, makeLot, newId, openTestStudio, recipeBody } from '../test/test-studio';

describe.each(KINDS)('stores, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const stockLotOf = async (id: string): Promise<StockLot> =>
    (await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot;
  const count = (stockLotId: string, quantityText: string, seenOnHand: number) =>
    studio.agent.post(`/api/stock-lots/${stockLotId}/counts`).send({ id: newId(), quantityText, seenOnHand, note: '' });

  it('books a delivery under a tag of its own', async () => {
    const { id } = (await studio.agent.post('/api/stock-lots').send(delivery(f.weld, '3 lb 4 oz')).expect(200))
      .body as { id: string };
    const stockLot = await stockLotOf(id);
    expect(stockLot.row).toMatchObject({
      tag: 'WEL-2',
      onHand: 1_474_175,
      reserved: 0,
      free: 1_474_175,
      place: 'Shelf',
    });
    expect(stockLot.lines.map((l) => [l.kind, l.amount, l.by.name])).toEqual([['receive', 1_474_175, 'Ada Reed']]);
  });

  it.each<[string, object, RegExp]>([
    ['no amount', { quantityText: '' }, /Write a weight/],
    ['no unit', { quantityText: '12' }, /Which unit/],
    ['less than nothing', { quantityText: '-2 kg' }, /below zero/],
    ['another measure', { quantityText: '2 l' }, /teach it a spoon/],
    ['past before it came', { bestBefore: '2026-04-01' }, /past its best before/],
    ['a day to come', { receivedOn: '2027-01-01' }, /before it comes/],
    ['a tag in use', { tag: 'WEL-1' }, /Another jar has that tag/],
    ['no date', { receivedOn: 'May' }, /year-month-day/],
  ])('refuses a delivery with %s', async (_name, change, message) => {
    const before = ((await studio.agent.get('/api/stores')).body as ShelfRow[]).length;
    const reply = await studio.agent.post('/api/stock-lots').send({ ...delivery(f.weld, '1 kg'), ...change });
    expect(reply.status).toBeLessThan(500);
    expect((reply.body as Problem).detail).toMatch(message);
    expect((await studio.agent.get('/api/stores')).body).toHaveLength(before);
  });

  it('books what a count finds, and tells when the shelf moved under the counter', async () => {
    expect((await count(f.alumStockLot, '480 g', 500_000).expect(200)).body).toEqual({ difference: -20_000 });
    expect((await count(f.alumStockLot, '480 g', 480_000).expect(200)).body).toEqual({ difference: 0 });
    const late = await count(f.alumStockLot, '500 g', 500_000).expect(409);
    expect(late.body as Problem).toMatchObject({ code: 'changedMeanwhile', theirs: 480_000 });
    expect((await stockLotOf(f.alumStockLot)).lines.map((l) => l.kind)).toEqual(['receive', 'count']);
  });

  it('counts below what is promised, because that is the truth, and shows it short', async () => {
    const lot = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    await count(f.alumStockLot, '10 g', 480_000).expect(200);
    expect((await stockLotOf(f.alumStockLot)).row).toMatchObject({ onHand: 10_000, reserved: 30_000, free: -20_000 });
    const { short } = (await studio.agent.get('/api/today').expect(200)).body as { short: ShelfRow[] };
    expect(short.map((s) => s.id)).toEqual([f.alumStockLot]);
    expect((await stockLotOf(f.alumStockLot)).reservations).toMatchObject([{ lot: { id: lot }, amount: 30_000 }]);
  });

  it('reverses once, by an opposite movement, and never what a lot used or what is gone', async () => {
    const { id } = (await studio.agent.post('/api/stock-lots').send(delivery(f.weld, '100 g')).expect(200)).body as {
      id: string;
    };
    const movement = (await stockLotOf(id)).lines[0]?.id ?? '';
    const reverse = (note: string) =>
      studio.agent.post(`/api/movements/${movement}/reversal`).send({ id: newId(), note });
    await reverse('').expect(400);
    await count(id, '60 g', 100_000).expect(200);
    expect(((await reverse('booked twice').expect(422)).body as Problem).detail).toMatch(/used since/);
    await count(id, '100 g', 60_000).expect(200);
    await reverse('booked twice').expect(200);
    await reverse('booked twice').expect(409);
    const stockLot = await stockLotOf(id);
    expect([stockLot.row.onHand, stockLot.lines[0]?.reversed, stockLot.lines.at(-1)?.amount]).toEqual([
      0,
      true,
      -100_000,
    ]);
    await studio.agent.post(`/api/movements/${newId()}/reversal`).send({ id: newId(), note: 'x' }).expect(404);
  });

  it('answers a stale edit with both sides and changes nothing', async () => {
    const { version } = await stockLotOf(f.weldStockLot);
    const put = (place: string) =>
      studio.agent.put(`/api/stock-lots/${f.weldStockLot}`).send({ version, place, note: '', bestBefore: null });
    await put('Cabinet 1').expect(200);
    expect((await put('Cabinet 2').expect(409)).body).toMatchObject({
      code: 'stale',
      yours: { place: 'Cabinet 2' },
      theirs: { place: 'Cabinet 1' },
    });
    expect((await stockLotOf(f.weldStockLot)).row.place).toBe('Cabinet 1');
    const { vessels } = (await studio.agent.get('/api/studio')).body as Studio;
    const [first] = vessels;
    const { id, ...fields } = first as NonNullable<typeof first>;
    await studio.agent
      .put(`/api/vessels/${id}`)
      .send({ ...fields, workingMl: 21_000 })
      .expect(200);
    await studio.agent
      .put(`/api/vessels/${id}`)
      .send({ ...fields, workingMl: 22_000 })
      .expect(409);
    await studio.agent.put(`/api/vessels/${newId()}`).send(fields).expect(404);
    const settings = (await studio.agent.get('/api/studio')).body as Studio;
    await studio.agent
      .put('/api/studio')
      .send({ ...settings, balanceResolutionG: 1 })
      .expect(200);
    expect(
      (
        await studio.agent
          .put('/api/studio')
          .send({ ...settings, balanceResolutionG: 5 })
          .expect(409)
      ).body,
    ).toMatchObject({ theirs: { balanceResolutionG: 1 } });
  });

  it('refuses recipes and colourways that can’t be dyed', async () => {
    const recipe = (body: object) =>
      studio.agent.post('/api/recipes').send({ id: newId(), name: newId(), versionId: newId(), body });
    const good = recipeBody(f.alum, f.weld) as { steps: { doses: object[] }[] };
    const dosing = (...doses: object[]) => ({ ...good, steps: [{ ...good.steps[0], doses }] });
    for (const [body, message] of [
      [dosing({ materialId: f.wool, percentOwf: 5 }), /is a base/],
      [dosing({ materialId: newId(), percentOwf: 5 }), /not in Stores/],
      [dosing({ materialId: f.alum, percentOwf: 5 }, { materialId: f.alum, percentOwf: 6 }), /twice/],
      [dosing({ materialId: f.alum, percentOwf: 2001 }), /from 0.001 to 2000/],
      [dosing({ materialId: f.alum, percentOwf: -1 }), /from 0.001 to 2000/],
      [{ ...good, steps: [] }, /at least one step/],
    ] as const)
      expect(((await recipe(body)).body as Problem).detail).toMatch(message);
    const linen = (
      (
        await studio.agent
          .post('/api/materials')
          .send({
            id: newId(),
            name: 'Scrim',
            kind: 'fibre',
            measure: 'weight',
            hazards: [],
            note: '',
            base: {
              fibre: 'linen',
              pieceWord: 'length',
              usualPieceWeightG: 250,
              undyed: { L: 80, a: 1, b: 13, illuminant: 'D65', observer: '10' },
            },
          })
          .expect(200)
      ).body as { id: string }
    ).id;
    const colourway = await studio.agent.post('/api/colourways').send({
      id: newId(),
      name: 'Odd',
      recipeVersionId: f.version,
      baseMaterialId: linen,
      master: { L: 70, a: 0, b: 40, illuminant: 'D65', observer: '10' },
      toleranceDeltaE: 2,
      note: '',
    });
    expect((colourway.body as Problem).detail).toMatch(/not for linen/);
  });

  it('keeps every standing of a version, and refuses the one it has', async () => {
    const stand = (status: string) =>
      studio.agent.post(`/api/recipe-versions/${f.version}/standings`).send({ id: newId(), status, reason: 'proofs' });
    await stand('proof').expect(200);
    await stand('proof').expect(409);
    const { recipeStatuses } = (await studio.agent.get(`/api/recipe-versions/${f.version}`).expect(200)).body as {
      recipeStatuses: { status: string }[];
    };
    expect(recipeStatuses.map((s) => s.status)).toEqual(['trial', 'proof']);
  });

  it('finds lots, jars, recipes and colourways', async () => {
    const hits = async (q: string): Promise<string[]> =>
      ((await studio.agent.get('/api/search').query({ q }).expect(200)).body as SearchHit[]).map(
        (h) => `${h.kind} ${h.title}`,
      );
    expect(await hits('weld')).toEqual(expect.arrayContaining(['stockLot WEL-1', 'recipe Weld on alum']));
    expect((await hits('lot 1'))[0]).toBe('lot Lot 1');
    expect(await hits('marram')).toEqual(expect.arrayContaining(['colourway Marram']));
    expect(await hits('100%_')).toEqual([]);
    await studio.agent
      .get('/api/search')
      .query({ q: 'x'.repeat(300) })
      .expect(400);
  });

  it('never lets on hand and the ledger disagree, whatever is tried', async () => {
    const { id } = (await studio.agent.post('/api/stock-lots').send(delivery(f.weld, '1 kg')).expect(200)).body as {
      id: string;
    };
    let model = 1_000_000;
    await fc.assert(
      fc.asyncProperty(
        fc.oneof(
          fc.record({ kind: fc.constant('count'), grams: fc.integer({ min: 0, max: 3000 }), stale: fc.boolean() }),
          fc.record({ kind: fc.constant('take'), grams: fc.integer({ min: 1, max: 2000 }), stale: fc.constant(false) }),
        ),
        async ({ kind: what, grams, stale }) => {
          if (what === 'count') {
            const reply = await count(id, `${grams} g`, stale ? model + 1 : model);
            if (!stale) model = grams * 1000;
            expect(reply.status).toBe(stale ? 409 : 200);
          } else {
            const take = studio.context.database.db.execute(
              sql`INSERT INTO movements (id, stock_lot_id, kind, amount, at, by_id) SELECT ${newId()}, ${id}, 'use', ${-grams * 1000}, now(), id FROM people LIMIT 1`,
            );
            if (grams * 1000 > model) await expect(take).rejects.toThrow();
            else {
              await take;
              model -= grams * 1000;
            }
          }
          const stockLot = await stockLotOf(id);
          expect(stockLot.row.onHand).toBe(model);
          expect(foldOnHand(stockLot.lines.map((l) => ({ stockLotId: id, amount: l.amount }))).get(id)).toBe(model);
        },
      ),
      { seed: 51, numRuns: 25 },
    );
  });
});
