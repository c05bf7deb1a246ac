import type { Bench, LotDetail, RunEntryResult, Studio } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, delivery, furnish, makeLot, newId, openTestStudio, runEntry, weighing } from '../test/test-studio';

describe.each(KINDS)('pots at the bench (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const send = async (lotId: string, ...entries: object[]): Promise<RunEntryResult[]> => {
    const drafts = entries.map((entry) => ({ lotId, ageMs: 0, entry }));
    const { body } = await studio.agent.post('/api/bench/run-entries').send({ drafts }).expect(200);
    return (body as { results: RunEntryResult[] }).results;
  };
  const lot = async (id: string): Promise<LotDetail> =>
    (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  const started = { text: 'fibre weighed before', detail: { outOfOrder: true } };

  it('a lot can’t be begun in a pot that another holds, but in another pot or with a reason', async () => {
    const [first, second] = [await makeLot(studio, f), await makeLot(studio, f)];
    expect(await send(first, runEntry(1, 'start', started))).toMatchObject([{ ok: true }]);
    const [fibre, pot] = await send(second, runEntry(0, 'skip', { text: 'weighed before' }), runEntry(1, 'start'));
    expect(fibre?.ok).toBe(true);
    const { summary, plan } = await lot(first);
    const [bath] = plan.steps[1]?.baths ?? [];
    expect(pot).toMatchObject({
      ok: false,
      reason: 'potInUse',
      message: `${bath?.vesselName} still holds “Mordant” of ${summary.tag}. Finish that first, choose another pot, or say why it is begun there all the same.`,
    });
    const spare = { batch: 1, vesselId: newId(), vesselName: 'a neighbour’s pot' };
    const [elsewhere] = await send(second, runEntry(1, 'start', { detail: { vessels: [spare] } }));
    expect(elsewhere).toMatchObject({ ok: true });
    // Over at last, it holds the pot no more.
    await send(first, runEntry(1, 'finish', { text: 'alum from the bath that was kept' }));
    expect((await send(first, runEntry(2, 'start')))[0]).toMatchObject({ ok: true });
    // The one that is asked for first, and each as it is by itself.
    const { lots } = (await studio.agent.get(`/api/bench?lot=${second}`).expect(200)).body as Bench;
    expect(lots[0]?.summary.id).toBe(second);
    for (const id of [first, second]) expect(lots).toContainEqual(await lot(id));
    await studio.agent.get(`/api/bench?lot=${newId()}`).expect(404);
    for (const id of [first, second]) await send(id, runEntry(0, 'cancel', { text: 'only tried' }));
  });

  it('weighing iron into a pot marks it, until the studio says it is clean', async () => {
    const iron = newId();
    const call = { id: iron, name: 'Iron sulphate', kind: 'modifier', measure: 'weight', hazards: ['ironSalt'] };
    await studio.agent
      .post('/api/materials')
      .send({ ...call, note: '', base: null })
      .expect(200);
    const stockLotId = newId();
    await studio.agent
      .post('/api/stock-lots')
      .send({ ...delivery(iron, '200 g'), id: stockLotId })
      .expect(200);
    const version = newId();
    const step = { kind: 'modify', title: 'Sadden', instruction: '', durationMin: 20, attended: true, lookFor: '' };
    const body = {
      fibres: ['wool'],
      liquorRatio: 30,
      allowedMetals: ['stainless'],
      note: '',
      steps: [{ ...step, usesBath: true, doses: [{ materialId: iron, percentOwf: 2 }] }],
    };
    await studio.agent
      .post('/api/recipes')
      .send({ id: newId(), name: 'Iron alone', versionId: version, body })
      .expect(200);
    const colourway = newId();
    const master = { L: 40, a: 0, b: 5, illuminant: 'D65', observer: '10' };
    await studio.agent
      .post('/api/colourways')
      .send({
        id: colourway,
        name: 'Slate',
        recipeVersionId: version,
        baseMaterialId: f.wool,
        master,
        toleranceDeltaE: 2,
        note: '',
      })
      .expect(200);
    const lotId = await makeLot(studio, { ...f, colourway });
    const { plan } = await lot(lotId);
    expect(plan.cautions.map((c) => c.code)).toContain('ironMarksPot');
    const pot = plan.steps[1]?.baths[0]?.vesselId;
    const isMarked = async (): Promise<boolean | undefined> =>
      ((await studio.agent.get('/api/studio').expect(200)).body as Studio).vessels.find((v) => v.id === pot)?.heldIron;
    expect(await isMarked()).toBe(false);
    const results = await send(
      lotId,
      runEntry(1, 'start', started),
      runEntry(1, 'weigh', { weighing: weighing(iron, stockLotId, '12 g') }),
    );
    expect(results.map((r) => r.message)).toEqual(['', '']);
    expect(await isMarked()).toBe(true);
    const { vessels } = (await studio.agent.get('/api/studio').expect(200)).body as Studio;
    const card = { ...vessels.find((v) => v.id === pot), id: undefined };
    await studio.agent
      .put(`/api/vessels/${pot}`)
      .send({ ...card, heldIron: false })
      .expect(200);
    expect(await isMarked()).toBe(false);
  });
});
