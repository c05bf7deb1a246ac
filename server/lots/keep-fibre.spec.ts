import type { LotDetail, Problem, Proposal, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, furnish, makeLot, newId, openTestStudio, recipeBody, runEntry } from '../test/test-studio';

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
      detail: expect.stringMatching(/200 g of it are not kept/),
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
});
