import type { KeptOfLot, LotDetail, Problem, Proposal, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  agreed,
  delivery,
  dyeLot,
  freePots,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  recipeBody,
  runEntry,
  weighing,
} from '../test/test-studio';

describe.each(KINDS)('fibre kept from a lot (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const keep = (lotId: string, quantityText: string, rest: object = {}) =>
    studio.agent.post(`/api/lots/${lotId}/fibre`).send({
      id: newId(),
      movementId: newId(),
      newBaseId: newId(),
      treatment: 'mordanted',
      baseId: null,
      newBase: 'Rug wool, mordanted',
      tag: '',
      quantityText,
      place: 'loft',
      note: '',
      ...rest,
    });

  it('is stock that names the lot, no more of it than went in, and a base whose mordant is seen at intake', async () => {
    const lotId = await makeLot(studio, f);
    const planned = (await keep(lotId, '300 g').expect(422)).body as Problem;
    expect(planned.detail).toMatch(/has nothing in it yet/);
    await studio.agent.post(`/api/lots/${lotId}/entries`).send(runEntry(0, 'start')).expect(200);
    const [stockLotId, baseId] = [newId(), newId()];
    await keep(lotId, '400 g', { id: stockLotId, newBaseId: baseId }).expect(200);
    const { summary } = (await studio.agent.get(`/api/lots/${lotId}`).expect(200)).body as LotDetail;
    const kept = (await studio.agent.get(`/api/stock-lots/${stockLotId}`).expect(200)).body as StockLot;
    expect(kept).toMatchObject({
      row: { onHand: 400_000, source: summary.tag, material: 'Rug wool, mordanted' },
      facts: { fromLotId: lotId, treatment: 'mordanted', origin: 'made' },
    });
    const tooMuch = (await keep(lotId, '300 g', { baseId }).expect(422)).body as Problem;
    expect(tooMuch).toMatchObject({
      reason: 'moreThanTheLot',
      detail: expect.stringMatching(/200 g of it are neither kept nor counted/),
    });

    const [versionId, colourway] = [newId(), newId()];
    await studio.agent
      .post('/api/recipes')
      .send({ id: newId(), name: 'Weld again', versionId, body: recipeBody(f.alum, f.weld) })
      .expect(200);
    const master = { L: 70, a: 0, b: 30, illuminant: 'D65', observer: '10' };
    const named = { name: 'Again', recipeVersionId: versionId, baseMaterialId: baseId, toleranceDeltaE: 2, note: '' };
    await studio.agent
      .post('/api/colourways')
      .send({ id: colourway, ...named, master })
      .expect(200);
    const ask = { colourwayId: colourway, quantityText: '2 hanks of 100 g', waterId: null, reorderOfId: null };
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    expect(proposal.plan.materials[0]?.picks.map((p) => p.stockLotId)).toEqual([stockLotId]);
    expect(proposal.checks.map((c) => c.message)).toContain(
      'It is mordanted already, and the recipe mordants it again.',
    );
  });

  const entry = async (lotId: string, body: object, status = 200): Promise<{ detail?: string; reason?: string }> =>
    (await studio.agent.post(`/api/lots/${lotId}/entries`).send(body).expect(status)).body as object;
  const jar = async (id: string): Promise<StockLot> =>
    (await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot;
  const keptOf = async (lotId: string): Promise<KeptOfLot[]> =>
    (await studio.agent.get(`/api/lots/${lotId}/kept`).expect(200)).body as KeptOfLot[];

  it('finished pieces keep their shade and how they lie; the lot knows what came of it, and where it went', async () => {
    const lotId = await makeLot(studio, f);
    await dyeLot(studio, f, lotId);
    await studio.agent.post(`/api/lots/${lotId}/readings`).send(reading('dry', 71)).expect(200);
    const [stockLotId, baseId] = [newId(), newId()];
    await keep(lotId, '200 g', {
      id: stockLotId,
      newBaseId: baseId,
      newBase: 'Finished gold',
      treatment: 'finished',
      light: 'open',
    }).expect(200);
    expect((await jar(stockLotId)).facts).toMatchObject({ light: 'open', treatment: 'finished', colour: { L: 71 } });
    const spent = newId();
    await studio.agent
      .post(`/api/lots/${lotId}/spent`)
      .send({
        id: spent,
        movementId: newId(),
        newMaterialId: newId(),
        ofMaterialId: f.weld,
        materialId: null,
        newMaterial: 'Weld, drawn once',
        form: 'frozen',
        tag: '',
        quantityText: '900 g',
        place: 'Freezer',
        note: '',
      })
      .expect(200);
    expect((await jar(spent)).row).toMatchObject({ onHand: 900_000, form: 'frozen', material: 'Weld, drawn once' });
    expect(await keptOf(lotId)).toEqual([
      expect.objectContaining({ stockLotId, onHand: 200_000, light: 'open', wentInto: [] }),
      expect.objectContaining({ stockLotId: spent, form: 'frozen', colour: null }),
    ]);
  });

  it('a lot is not its own cloth', async () => {
    const lotId = await makeLot(studio, f);
    await entry(lotId, runEntry(0, 'start'));
    const own = newId();
    await keep(lotId, '100 g', { id: own, baseId: f.wool, newBase: '', treatment: 'dyed' }).expect(200);
    const refused = await entry(lotId, runEntry(0, 'weigh', { weighing: weighing(f.wool, own, '100 g') }), 422);
    expect(refused).toMatchObject({ reason: 'ofItself' });
    expect((await jar(own)).row.onHand).toBe(100_000);
  });

  it('what the shelf says wrong is put right with the weighing: more in the jar, or the last of it', async () => {
    const lotId = await makeLot(studio, f);
    await entry(lotId, runEntry(0, 'start'));
    const small = newId();
    await studio.agent
      .post('/api/stock-lots')
      .send(delivery(f.wool, '50 g', { id: small }))
      .expect(200);
    const weigh = (quantityText: string, detail: object = {}) =>
      runEntry(0, 'weigh', { weighing: weighing(f.wool, small, quantityText), detail: { more: true, ...detail } });
    expect((await entry(lotId, weigh('80 g'), 422)).detail).toContain('Count the jar');
    await entry(lotId, weigh('80 g', { settles: 'more' }));
    const { row, lines } = await jar(small);
    expect(row.onHand).toBe(0);
    expect(lines.map((l) => [l.kind, l.amount])).toEqual(
      expect.arrayContaining([
        ['count', 30_000],
        ['use', -80_000],
      ]),
    );
    // A slip takes what was found along: the jar is as its books had it.
    const slip = newId();
    await entry(lotId, { ...weigh('10 g', { settles: 'more' }), id: slip });
    expect((await jar(small)).row.onHand).toBe(0);
    await entry(lotId, runEntry(0, 'takeBack', { replacesId: slip }));
    expect((await jar(small)).row.onHand).toBe(0);
    const net = (await jar(small)).lines.reduce((sum, l) => sum + (l.kind === 'count' ? l.amount : 0), 0);
    expect(net).toBe(40_000);
    const full = newId();
    await studio.agent
      .post('/api/stock-lots')
      .send(delivery(f.wool, '200 g', { id: full }))
      .expect(200);
    await entry(lotId, {
      ...runEntry(0, 'weigh', { weighing: weighing(f.wool, full, '150 g'), detail: { more: true, settles: 'empty' } }),
    });
    expect((await jar(full)).row.onHand).toBe(0);
  });

  it('a customer’s own is weighed from no jar; weighed damp, it is told until it is weighed dry', async () => {
    const base = newId();
    await studio.agent
      .post('/api/materials')
      .send({
        id: base,
        name: 'A cardigan',
        kind: 'fibre',
        measure: 'weight',
        hazards: [],
        note: '',
        base: {
          fibre: 'wool',
          pieceWord: 'piece',
          usualPieceWeightG: 400,
          undyed: { L: 84, a: 1, b: 12, illuminant: 'D65', observer: '10' },
        },
      })
      .expect(200);
    const colourway = newId();
    await studio.agent
      .post('/api/colourways')
      .send({
        id: colourway,
        name: 'The cardigan, gold',
        recipeVersionId: f.version,
        baseMaterialId: base,
        toleranceDeltaE: 3,
        note: '',
        master: null,
      })
      .expect(200);
    await freePots(studio);
    const ask = {
      colourwayId: colourway,
      quantityText: '1 piece of 400 g',
      waterId: null,
      reorderOfId: null,
      ownGoods: [base],
    };
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    expect(proposal.plan.materials[0]).toMatchObject({ ownGoods: true, short: 0, picks: [] });
    const lotId = newId();
    await studio.agent
      .post('/api/lots')
      .send({ id: lotId, ask, ...agreed(proposal) })
      .expect(200);
    await entry(lotId, runEntry(0, 'start'));
    const damp = runEntry(0, 'weigh', {
      weighing: { ...weighing(base, newId(), '430 g'), stockLotId: null },
      detail: { notDry: 'damp' },
    });
    await entry(lotId, damp);
    await entry(lotId, runEntry(0, 'finish'));
    const said = async (): Promise<string> =>
      JSON.stringify(((await studio.agent.get(`/api/lots/${lotId}`).expect(200)).body as LotDetail).deviations);
    expect(await said()).toContain('weighed damp');
    await entry(
      lotId,
      runEntry(0, 'weigh', {
        replacesId: (damp as { id: string }).id,
        weighing: { ...weighing(base, newId(), '398 g'), stockLotId: null },
      }),
    );
    expect(await said()).not.toContain('weighed damp');
    const strangersJar = runEntry(0, 'weigh', {
      weighing: { ...weighing(f.wool, newId(), '10 g'), stockLotId: null },
    });
    expect((await entry(lotId, strangersJar, 422)).detail).toMatch(/./);
  });
});
