import type { LotDetail, MatchRecord, MaterialPage, Problem, Proposal, StockLot } from '@vestigia/contract';
import { BANDS_NM, MATCH_CONDITIONS, labOfSpectrum } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  colourwayOf,
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

describe.each(KINDS)('what a shade begins from (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const record = async (): Promise<MatchRecord> =>
    (await studio.agent.get('/api/match/record').expect(200)).body as MatchRecord;
  const groundOf = async (of: string) => (await record()).undyed.find((u) => u.of === of)?.colour;
  const stockLot = async (id: string): Promise<StockLot> =>
    (await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot;
  const keepColour = async (id: string, facts: object) => {
    const { row, note, version, facts: before } = await stockLot(id);
    const body = { version, place: row.place, note, bestBefore: row.bestBefore, facts: { ...before, ...facts } };
    return studio.agent.put(`/api/stock-lots/${id}`).send(body);
  };
  const ask = (more: object): object => ({
    colourwayId: f.colourway,
    quantityText: '2 hanks of 50 g',
    waterId: f.water,
    reorderOfId: null,
    ...more,
  });
  const propose = async (more: object): Promise<Proposal> =>
    (await studio.agent.post('/api/lots/proposal').send(ask(more)).expect(200)).body as Proposal;

  it('is the base’s own colour; a bale that was read by itself begins from there, band by band where it was read so', async () => {
    expect(await groundOf(f.wool)).toEqual({ lab: { L: 84, a: 1, b: 12 }, spectrum: null });
    expect(await groundOf(f.woolStockLot)).toBeUndefined();
    const under = { illuminant: 'D65', observer: '10' };
    await keepColour(f.woolStockLot, { colour: { L: 78, a: 3, b: 22, ...under } }).then((r) =>
      expect(r.status).toBe(200),
    );
    const id = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, id, { grams: 100 });
    await studio.agent.post(`/api/lots/${id}/readings`).send(reading('dry', 70)).expect(200);
    const dyed = (await record()).readings.find((r) => r.lotId === id)?.dyeing;
    expect(dyed).toMatchObject({ baseLotId: f.woolStockLot, undyed: { lab: { L: 78, a: 3, b: 22 } } });

    const spectrum = BANDS_NM.map((nm) => 0.4 + (nm - 400) / 1000);
    await keepColour(f.woolStockLot, { colour: { L: 0, a: 0, b: 0, ...under }, colourSpectrum: spectrum });
    const read = await groundOf(f.woolStockLot);
    expect(read?.spectrum).toEqual(spectrum);
    expect(read?.lab.L).toBeCloseTo(labOfSpectrum(spectrum, MATCH_CONDITIONS).L, 9);
    const { material } = (await studio.agent.get(`/api/materials/${f.wool}`).expect(200)).body as MaterialPage;
    const base = { ...material.base, undyedSpectrum: spectrum };
    await studio.agent
      .put(`/api/materials/${f.wool}`)
      .send({ ...material, base })
      .expect(200);
    expect((await groundOf(f.wool))?.spectrum).toEqual(spectrum);
    const wrong = await keepColour(f.woolStockLot, { colourSpectrum: [0.2, 0.3] });
    expect(wrong.status).toBe(400);
    await keepColour(f.woolStockLot, { colour: null, colourSpectrum: null });
    expect(await groundOf(f.woolStockLot)).toBeUndefined();
  });

  it('another lot of the base is planned where it is asked for, said, and offered with what is free of it', async () => {
    const { id: other } = (await studio.agent.post('/api/stock-lots').send(delivery(f.wool, '2 kg')).expect(200))
      .body as { id: string };
    const { tag } = (await stockLot(other)).row;
    expect((await record()).baseLots).toContainEqual({ id: other, tag, baseId: f.wool, free: 2_000_000 });
    const { plan, checks } = await propose({ outOf: [{ materialId: f.wool, stockLotId: other, part: 1 }] });
    expect(plan.materials.find((m) => m.materialId === f.wool)?.picks.map((p) => p.stockLotId)).toEqual([other]);
    expect(checks.map((c) => c.message).join(' ')).toContain(`Rug wool out of ${tag}`);
    const refused = (
      await studio.agent
        .post('/api/lots/proposal')
        .send(ask({ outOf: [{ materialId: f.wool, stockLotId: f.weldStockLot, part: 1 }] }))
        .expect(422)
    ).body as Problem;
    expect(refused.detail).toMatch(/holds no Rug wool/);
  });

  it('fibre that was kept mordanted brings its mordant along', async () => {
    await freePots(studio);
    const first = await makeLot(studio, f, { quantityText: '4 hanks of 50 g' });
    await studio.agent.post(`/api/lots/${first}/entries`).send(runEntry(0, 'start')).expect(200);
    const [stockLotId, baseId] = [newId(), newId()];
    const kept = {
      id: stockLotId,
      movementId: newId(),
      newBaseId: baseId,
      treatment: 'mordanted',
      baseId: null,
      newBase: 'Rug wool, mordanted',
      tag: '',
      quantityText: '150 g',
      place: 'loft',
      note: '',
    };
    await studio.agent.post(`/api/lots/${first}/fibre`).send(kept).expect(200);
    const { mordanted } = await record();
    expect(mordanted.map((m) => m.stockLotId)).toEqual([stockLotId]);
    expect(mordanted[0]?.doses).toMatchObject([{ stage: 'mordant', materialId: f.alum, percentOwf: 15 }]);
    expect(mordanted[0]?.courses.map((c) => c.stage)).toEqual(['mordant']);

    await freePots(studio);
    const [, dye, dry] = (recipeBody(f.alum, f.weld) as { steps: object[] }).steps;
    const [versionId, colourwayId] = [newId(), newId()];
    const body = { ...recipeBody(f.alum, f.weld), steps: [dye, dry] };
    await studio.agent
      .post('/api/recipes')
      .send({ id: newId(), name: 'Weld on what is mordanted', versionId, body })
      .expect(200);
    const master = { L: 70, a: 0, b: 30, ...MATCH_CONDITIONS };
    await studio.agent
      .post('/api/colourways')
      .send({
        id: colourwayId,
        name: 'Dune',
        recipeVersionId: versionId,
        baseMaterialId: baseId,
        master,
        toleranceDeltaE: 2,
        note: '',
      })
      .expect(200);
    const asked = ask({ colourwayId, quantityText: '100 g' });
    const proposal = (await studio.agent.post('/api/lots/proposal').send(asked).expect(200)).body as Proposal;
    const id = newId();
    const acknowledged = proposal.checks.map((c) => ({ key: c.key, reason: 'looked at' }));
    const agreed = { digest: proposal.digest, acceptShortages: true, note: '', acknowledged };
    await studio.agent
      .post('/api/lots')
      .send({ id, ask: asked, ...agreed })
      .expect(200);
    const { plan } = (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
    const at = (entry: object) => studio.agent.post(`/api/lots/${id}/entries`).send(entry).expect(200);
    const weighed = [weighing(baseId, stockLotId, '100 g'), weighing(f.weld, f.weldStockLot, '100 g')];
    for (const { index } of plan.steps) {
      await at(runEntry(index, 'start'));
      if (weighed[index]) await at(runEntry(index, 'weigh', { weighing: weighed[index] }));
      studio.pass(index === plan.steps.length - 1 ? 600 : 60);
      await at(runEntry(index, 'finish'));
    }
    await studio.agent.post(`/api/lots/${id}/readings`).send(reading('dry', 70)).expect(200);
    const own = (await record()).readings.find((r) => r.lotId === id)?.dyeing;
    expect(own?.doses.map((d) => [d.stage, d.materialId])).toEqual([
      ['mordant', f.alum],
      ['dye', f.weld],
    ]);
    expect(own?.courses.map((c) => c.stage)).toEqual(['mordant', 'dye']);
  });

  it('where it is dyed in dips, a longer stay is one dip more, and said so', async () => {
    const [mordant, dye, dry] = (recipeBody(f.alum, f.weld) as { steps: object[] }).steps;
    const colourwayId = await colourwayOf(studio, f, 'Dipped', [mordant!, { ...dye, repeats: 4 }, dry!]);
    const { plan, checks } = await propose({ colourwayId, dyeTimeShare: 1.25 });
    expect(plan.steps.find((s) => s.kind === 'dye')?.repeats).toBe(5);
    const said = checks.map((c) => c.message).join(' ');
    expect(said).toContain('one dip more');
    expect(said).not.toContain('longer in the dye');
  });
});
