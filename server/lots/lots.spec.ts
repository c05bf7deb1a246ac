import type { LotDetail, LotsBeside, Problem, Proposal, ShelfRow, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  agreed,
  KINDS,
  delivery,
  dyeLot,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  recipeBody,
  runEntry,
  verdict,
  weighing,
} from '../test/test-studio';

describe.each(KINDS)('a lot, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const shelf = async (stockLotId: string): Promise<ShelfRow> =>
    ((await studio.agent.get('/api/stores').expect(200)).body as ShelfRow[]).find(
      (r) => r.id === stockLotId,
    ) as ShelfRow;
  const lotOf = async (id: string): Promise<LotDetail> =>
    (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  const refused = async (path: string, body: object, status: number, reason?: string): Promise<Problem> => {
    const reply = await studio.agent.post(path).send(body);
    expect([reply.status, reply.type]).toEqual([status, 'application/problem+json']);
    const problem = reply.body as Problem;
    expect(problem.detail).toMatch(/^[A-Z“0-9Δ].*[.?]$/s);
    if (reason !== undefined) expect(problem.reason ?? problem.code).toBe(reason);
    return problem;
  };

  it('is proposed with working, promised, weighed out by what was really used, read, judged and traced both ways', async () => {
    const ask = { colourwayId: f.colourway, quantityText: '6 hanks of 100 g', waterId: f.water, reorderOfId: null };
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    expect(proposal.understoodAs).toBe('6 hanks of 100 g, 600 g dry');
    expect(proposal.plan.batches.map((b) => [b.vesselName, b.pieces, b.liquor.value])).toEqual([['Pan', 6, 18_000]]);
    expect(proposal.plan.materials.map((m) => [m.name, m.total.value])).toEqual([
      ['Rug wool', 600],
      ['Potassium alum', 90],
      ['Weld', 600],
    ]);
    expect(proposal.plan.materials[1]?.total.working.inputs[0]?.value).toBe(90);
    expect((await shelf(f.alumStockLot)).reserved).toBe(0);

    const lotId = await makeLot(studio, f);
    expect(await shelf(f.alumStockLot)).toMatchObject({ onHand: 500_000, reserved: 90_000, free: 410_000 });

    const at = (entry: object) => studio.agent.post(`/api/lots/${lotId}/entries`).send(entry).expect(200);
    await at(runEntry(0, 'start'));
    await at(runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '600 g') }));
    await at(runEntry(0, 'finish'));
    await at(runEntry(1, 'start'));
    await at(runEntry(1, 'weigh', { weighing: weighing(f.alum, f.alumStockLot, '96,5 g') }));
    await at(runEntry(1, 'temperature', { temperatureC: 93 }));
    studio.pass(60);
    await at(runEntry(1, 'finish'));
    expect(await shelf(f.alumStockLot)).toMatchObject({ onHand: 403_500, reserved: 0 });
    expect((await lotOf(lotId)).deviations.map((d) => d.message)).toEqual([
      '6.5 g more Potassium alum than planned in batch 1',
      'reached 93 °C, above the ceiling of 88 °C: the colour may have dulled',
    ]);

    await at(runEntry(2, 'start'));
    await at(runEntry(2, 'weigh', { weighing: weighing(f.weld, f.weldStockLot, '600 g') }));
    studio.pass(60);
    await at(runEntry(2, 'finish'));
    await studio.agent.post(`/api/lots/${lotId}/readings`).send(reading('wet', 62)).expect(200);
    await at(runEntry(3, 'start'));
    studio.pass(600);
    await at(runEntry(3, 'finish'));
    expect((await lotOf(lotId)).summary.state).toBe('toJudge');
    await refused(`/api/lots/${lotId}/verdicts`, verdict('pass'), 422, 'onlyWet');
    await studio.agent.post(`/api/lots/${lotId}/readings`).send(reading('dry', 75)).expect(200);
    await studio.agent.post(`/api/lots/${lotId}/verdicts`).send(verdict('pass')).expect(200);

    const lot = await lotOf(lotId);
    expect(lot.summary.state).toBe('released');
    expect(lot.verdicts[0]?.toMaster).toBeCloseTo(0.72, 1);
    expect(lot.madeFrom.map((m) => [m.material, m.amount])).toEqual([
      ['Potassium alum', 96_500],
      ['Rug wool', 600_000],
      ['Weld', 600_000],
    ]);
    const stockLot = (await studio.agent.get(`/api/stock-lots/${f.weldStockLot}`).expect(200)).body as StockLot;
    expect(stockLot.wentInto).toMatchObject([
      { lot: { id: lotId, tag: lot.summary.tag, colourway: 'Marram' }, amount: 600_000 },
    ]);
    expect(stockLot.lines.filter((l) => l.kind !== 'release').at(-1)).toMatchObject({
      kind: 'use',
      amount: -600_000,
      balance: 2_400_000,
    });
  });

  it('is dyed again beside what was, and judged against the first', async () => {
    const first = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    await dyeLot(studio, f, first, { grams: 200 });
    await studio.agent.post(`/api/lots/${first}/readings`).send(reading('dry', 75)).expect(200);
    const early = { colourwayId: f.colourway, quantityText: '2 hanks of 100 g', waterId: f.water, reorderOfId: first };
    await refused('/api/lots/proposal', early, 422);
    await studio.agent.post(`/api/lots/${first}/verdicts`).send(verdict('pass')).expect(200);

    await studio.agent
      .post('/api/stock-lots')
      .send(delivery(f.weld, '5 kg', { bestBefore: '2026-12-01' }))
      .expect(200);
    const rain = (
      (
        await studio.agent
          .post('/api/waters')
          .send({ id: newId(), name: 'Rain', ph: 6.2, hardnessDh: 1, note: '' })
          .expect(200)
      ).body as { id: string }
    ).id;
    await studio.agent
      .post(`/api/recipes/${f.recipeId}/versions`)
      .send({ id: newId(), body: recipeBody(f.alum, f.weld) })
      .expect(200);
    const again = { ...early, waterId: rain };
    const proposal = (await studio.agent.post('/api/lots/proposal').send(again).expect(200)).body as Proposal;
    expect(proposal.factors.filter((x) => !x.same).map((x) => x.name)).toEqual(['Weld', 'Water']);
    expect(proposal.factors.find((x) => x.name === 'Weld')).toMatchObject({
      then: '100 % WOF from WEL-1',
      now: '100 % WOF from WEL-2',
    });

    const second = newId();
    await studio.agent
      .post('/api/lots')
      .send({ id: second, ask: again, ...agreed(proposal) })
      .expect(200);
    const weldStockLot = proposal.stockLots.find((j) => j.tag === 'WEL-2')?.id ?? '';
    await dyeLot(studio, { ...f, weldStockLot }, second, { grams: 200 });
    await studio.agent.post(`/api/lots/${second}/readings`).send(reading('dry', 73)).expect(200);
    await studio.agent.post(`/api/lots/${second}/verdicts`).send(verdict('pass')).expect(200);
    const lot = await lotOf(second);
    expect(lot.first).toMatchObject({ id: first, colour: { L: 75 } });
    expect(lot.verdicts[0]?.toFirst).toBeGreaterThan(lot.verdicts[0]?.toMaster ?? 9);
    expect(lot.factors.filter((x) => !x.same)).toHaveLength(2);
    expect((await lotOf(first)).again).toEqual([{ id: second, tag: lot.summary.tag }]);
    // Side by side the earlier stands first, whichever was asked about.
    const beside = (await studio.agent.get(`/api/lots/${second}/beside`).query({ other: first }).expect(200))
      .body as LotsBeside;
    expect(beside.lots.map((l) => [l.id, l.result?.L])).toEqual([
      [first, 75],
      [second, 73],
    ]);
    expect(beside.factors.filter((x) => !x.same).map((x) => x.name)).toEqual(['Weld', 'Water']);
    await studio.agent.get(`/api/lots/${second}/beside`).query({ other: second }).expect(422);
    await studio.agent.get(`/api/lots/${second}/beside`).query({ other: newId() }).expect(404);
  });

  it('a refused lot is dyed again, better: why it was refused is told, and it is nothing to match', async () => {
    const first = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    await dyeLot(studio, f, first, { grams: 100 });
    await studio.agent.post(`/api/lots/${first}/readings`).send(reading('dry', 50)).expect(200);
    await studio.agent.post(`/api/lots/${first}/verdicts`).send(verdict('refuse', 'far too dark')).expect(200);
    const ask = { colourwayId: f.colourway, quantityText: '1 hank of 100 g', waterId: f.water, reorderOfId: first };
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    expect(proposal.then?.said.map((s) => s.text)).toEqual(['far too dark']);
    const second = newId();
    await studio.agent
      .post('/api/lots')
      .send({ id: second, ask, ...agreed(proposal) })
      .expect(200);
    expect((await lotOf(second)).first).toBeNull();
  });

  it.each<[string, string, string]>([
    ['negative', '-2 hanks of 100 g', 'notPositive'],
    ['zero', '0 hanks of 100 g', 'notPositive'],
    ['absurd', '2 hanks of 900 kg', 'tooHeavy'],
    ['not a number', 'a few', 'notANumber'],
    ['without a unit', '12', 'noUnit'],
    ['bigger than all vessels', '60 hanks of 100 g', 'lotTooBig'],
    ['a piece bigger than any', '1 hank of 3 kg', 'pieceTooBig'],
    ['a script', '2 hanks of <script>alert(1)</script>', 'notANumber'],
  ])('refuses a size that is %s', async (_name, quantityText, reason) => {
    await refused(
      '/api/lots/proposal',
      { colourwayId: f.colourway, quantityText, waterId: f.water, reorderOfId: null },
      422,
      reason,
    );
  });

  it('refuses a recipe whose metal no vessel has, and pots that are not chosen', async () => {
    const ask = { colourwayId: f.colourway, quantityText: '1 hank of 100 g', waterId: f.water, reorderOfId: null };
    await refused('/api/lots/proposal', { ...ask, vesselIds: [] }, 422, 'noVesselOfMetal');
    await refused('/api/lots/proposal', { ...ask, vesselIds: [newId()] }, 404, 'notFound');
  });

  it('goes on with a shortage only when it is named and agreed to, and never below nothing', async () => {
    const ask = { colourwayId: f.colourway, quantityText: '16 hanks of 100 g', waterId: null, reorderOfId: null };
    await studio.agent
      .post('/api/materials')
      .send({ id: newId(), name: 'Chalk', kind: 'assistant', measure: 'weight', hazards: [], note: '', base: null })
      .expect(200);
    const held = await makeLot(studio, f, { quantityText: '16 hanks of 100 g' });
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    const { plan } = proposal;
    const short = plan.materials.filter((m) => m.short > 0).map((m) => m.name);
    expect(short).toEqual(['Potassium alum']);
    const id = newId();
    const reply = await refused('/api/lots', { id, ask, ...agreed(proposal) }, 422, 'short');
    expect(reply.detail).toContain('Potassium alum');
    await studio.agent.get(`/api/lots/${id}`).expect(404);
    await studio.agent
      .post('/api/lots')
      .send({ id: newId(), ask, ...agreed(proposal), acceptShortages: true })
      .expect(200);
    const row = await shelf(f.alumStockLot);
    expect(row.free).toBe(0);
    expect(row.onHand).toBeGreaterThanOrEqual(0);
    await studio.agent
      .post(`/api/lots/${held}/entries`)
      .send(runEntry(0, 'cancel', { text: 'order withdrawn' }))
      .expect(200);
    expect((await shelf(f.alumStockLot)).free).toBe(240_000);
    await refused(`/api/lots/${held}/entries`, runEntry(0, 'start'), 422, 'closed');
  });

  it('tells the second of two who take the last of a jar', async () => {
    const ask = { colourwayId: f.colourway, quantityText: '12 hanks of 100 g', waterId: null, reorderOfId: null };
    const [a, b] = await Promise.all(
      [0, 1].map(async () => (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal),
    );
    const replies = await Promise.all(
      [a, b].map((p) => studio.agent.post('/api/lots').send({ id: newId(), ask, ...agreed(p as Proposal) })),
    );
    expect(replies.map((r) => r.status).sort()).toEqual([200, 409]);
    const reply = replies.find((r) => r.status === 409)?.body as Problem;
    expect(reply.code).toBe('changedMeanwhile');
    expect((reply.theirs as Proposal).plan.materials[1]?.short).toBeGreaterThan(0);
  });

  describe('at the bench', () => {
    let lotId: string;
    const path = (): string => `/api/lots/${lotId}/entries`;
    beforeAll(async () => {
      await studio.agent.post('/api/stock-lots').send(delivery(f.alum, '2 kg')).expect(200);
      lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    });

    it.each<[string, () => object, string]>([
      ['a step out of order', () => runEntry(2, 'start'), 'outOfOrder'],
      [
        'a weighing before its step',
        () => runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '100 g') }),
        'notBegun',
      ],
      ['a finish before its start', () => runEntry(0, 'finish'), 'notBegun'],
      ['a skip without a reason', () => runEntry(0, 'skip'), 'reasonMissing'],
      ['an empty note', () => runEntry(0, 'note', { text: '  ' }), 'missing'],
      ['a time still to come', () => runEntry(0, 'start', { at: '2031-01-01T00:00:00.000Z' }), 'inFuture'],
      ['a time before the lot', () => runEntry(0, 'start', { at: '2020-01-01T00:00:00.000Z' }), 'beforeLot'],
      ['a step that is not there', () => runEntry(55, 'start'), 'notFound'],
      ['a correction of nothing', () => runEntry(0, 'note', { text: 'x', replacesId: newId() }), 'badCorrection'],
    ])('refuses %s', async (_name, body, reason) => {
      await refused(path(), body(), reason === 'notFound' ? 404 : 422, reason);
    });

    it('takes what a jar lacks by less than a step of the balance as given, and no more than that', async () => {
      const jar = async (quantityText: string): Promise<string> =>
        (
          (await studio.agent.post('/api/stock-lots').send(delivery(f.alum, quantityText)).expect(200)).body as {
            id: string;
          }
        ).id;
      const [nearly, short] = [await jar('14.97 g'), await jar('14.8 g')];
      const lot = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
      const enter = (entry: object) => studio.agent.post(`/api/lots/${lot}/entries`).send(entry);
      await enter(runEntry(0, 'start')).expect(200);
      await enter(runEntry(0, 'finish', { text: 'weighed before' })).expect(200);
      await enter(runEntry(1, 'start')).expect(200);
      await enter(runEntry(1, 'weigh', { weighing: weighing(f.alum, short, '15 g') })).expect(422);
      await enter(runEntry(1, 'weigh', { weighing: weighing(f.alum, nearly, '15 g') })).expect(200);
      const { entries } = await lotOf(lot);
      expect(entries.at(-1)?.weighing).toMatchObject({ stockLotId: nearly, amount: 14_970 });
      expect((await shelf(nearly)).onHand).toBe(0);
    });

    it('refuses the wrong jar, more than the jar holds, no weight, and finishing unweighed', async () => {
      await studio.agent.post(path()).send(runEntry(0, 'start')).expect(200);
      await refused(path(), runEntry(0, 'start'), 422, 'alreadyBegun');
      expect(
        (
          await refused(
            path(),
            runEntry(0, 'weigh', { weighing: weighing(f.wool, f.weldStockLot, '100 g') }),
            422,
            'wrongStockLot',
          )
        ).detail,
      ).toContain('WEL-1 does not hold Rug wool');
      await refused(
        path(),
        runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '90 kg') }),
        422,
        'notOnHand',
      );
      await refused(path(), runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '100') }), 422, 'noUnit');
      await refused(
        path(),
        runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '-1 g') }),
        422,
        'notPositive',
      );
      await refused(path(), runEntry(0, 'finish'), 422, 'notWeighed');
      await refused(path(), runEntry(0, 'temperature', { temperatureC: 4000 }), 400, 'invalid');
      expect((await lotOf(lotId)).entries).toHaveLength(1);
    });

    it('records the same touch sent five times once, and corrects by adding', async () => {
      const before = (await shelf(f.woolStockLot)).onHand;
      const draft = runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '104 g') });
      for (let i = 0; i < 5; i += 1) await studio.agent.post(path()).send(draft).expect(200);
      expect((await shelf(f.woolStockLot)).onHand).toBe(before - 104_000);
      await refused(path(), { ...draft, text: 'changed' }, 422, 'idReused');

      const id = (draft as { id: string }).id;
      await studio.agent
        .post(path())
        .send(runEntry(0, 'weigh', { replacesId: id, weighing: weighing(f.wool, f.woolStockLot, '100 g') }))
        .expect(200);
      expect((await shelf(f.woolStockLot)).onHand).toBe(before - 100_000);
      await refused(
        path(),
        runEntry(0, 'weigh', { replacesId: id, weighing: weighing(f.wool, f.woolStockLot, '99 g') }),
        409,
        'alreadyDone',
      );
      const lot = await lotOf(lotId);
      expect(lot.entries).toHaveLength(3);
      expect(lot.madeFrom.map((m) => m.amount)).toEqual([100_000]);
      const stockLot = (await studio.agent.get(`/api/stock-lots/${f.woolStockLot}`).expect(200)).body as StockLot;
      expect(
        stockLot.lines
          .filter((l) => l.kind !== 'reservation' && l.kind !== 'release')
          .slice(-3)
          .map((l) => [l.kind, l.amount]),
      ).toEqual([
        ['use', -104_000],
        ['reverse', 104_000],
        ['use', -100_000],
      ]);
    });

    it('refuses a finish before the start, and judging what is not done', async () => {
      const started = (await lotOf(lotId)).entries[0]?.at ?? '';
      studio.pass(30);
      await refused(
        path(),
        runEntry(0, 'finish', { at: new Date(Date.parse(started) - 60_000).toISOString() }),
        422,
        'finishedBeforeStart',
      );
      await studio.agent.post(`/api/lots/${lotId}/readings`).send(reading('dry')).expect(200);
      await refused(`/api/lots/${lotId}/verdicts`, verdict('pass'), 422, 'stepsOpen');
      await refused(`/api/lots/${lotId}/verdicts`, verdict('hold'), 422, 'reasonMissing');
      await refused(`/api/lots/${lotId}/readings`, reading('dry', 74, { batch: 7 }), 422);
      await refused(`/api/lots/${lotId}/readings`, reading('dry', 740), 400, 'invalid');
      await studio.agent.post(`/api/lots/${lotId}/verdicts`).send(verdict('refuse', 'felted')).expect(200);
      expect((await lotOf(lotId)).summary.state).toBe('refused');
      await refused(`/api/lots/${lotId}/verdicts`, verdict('pass'), 409, 'alreadyDone');
    });
  });

  it('knows nothing of a lot that is not there', async () => {
    await studio.agent.get(`/api/lots/${newId()}`).expect(404);
    await studio.agent.get('/api/lots/nonsense').expect(404);
    await refused(
      '/api/lots/proposal',
      { colourwayId: newId(), quantityText: '1 hank of 100 g', waterId: null, reorderOfId: null },
      404,
      'notFound',
    );
  });
});
