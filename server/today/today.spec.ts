import type { LotDetail, Today } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  delivery,
  dyeLot,
  furnish,
  makeLot,
  openTestStudio,
  reading,
  runEntry,
  verdict,
  weighing,
} from '../test/test-studio';

describe('today', () => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio('folder');
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const today = async (): Promise<Today> => (await studio.agent.get('/api/today').expect(200)).body as Today;

  it('has nothing to say of an idle studio', async () => {
    expect(await today()).toMatchObject({ running: [], inWork: [], planned: [], toJudge: [], short: [], goingOff: [] });
  });

  it('follows a lot from planned to judged', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    expect((await today()).planned.map((l) => l.id)).toEqual([lotId]);

    const at = (entry: object) => studio.agent.post(`/api/lots/${lotId}/entries`).send(entry).expect(200);
    await at(runEntry(0, 'start'));
    await at(runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') }));
    expect((await today()).running).toMatchObject([
      { lotId, title: 'Weigh the fibre dry', vesselNames: [], attended: true },
    ]);
    await at(runEntry(0, 'finish'));
    expect((await today()).running).toEqual([]);

    await at(runEntry(1, 'start'));
    expect((await today()).running).toMatchObject([
      { title: 'Mordant', vesselNames: ['Pan'], durationMin: 60, attended: false },
    ]);
    expect((await today()).inWork.map((l) => l.next?.title)).toEqual(['Mordant']);
    studio.pass(60);
    await at(runEntry(1, 'finish', { text: 'alum left out for the test' }));
    for (const step of [2, 3]) await at(runEntry(step, 'skip', { text: 'for the test' }));
    expect((await today()).toJudge.map((l) => l.id)).toEqual([lotId]);

    const lot = (await studio.agent.get(`/api/lots/${lotId}`).expect(200)).body as LotDetail;
    expect(lot.deviations.map((d) => d.message)).toEqual([
      'no Potassium alum weighed for batch 1',
      'skipped: for the test',
      'skipped: for the test',
    ]);
    await studio.agent.post(`/api/lots/${lotId}/verdicts`).send(verdict('hold', 'wait for daylight')).expect(200);
    expect((await today()).toJudge.map((l) => l.state)).toEqual(['held']);
    await studio.agent.post(`/api/lots/${lotId}/verdicts`).send(verdict('refuse', 'undyed')).expect(200);
    expect(await today()).toMatchObject({ toJudge: [], inWork: [] });
  });

  it('names what goes off within a month, soonest first, and not what is empty', async () => {
    await studio.agent
      .post('/api/stock-lots')
      .send(delivery(f.weld, '1 kg', { tag: 'SOON', bestBefore: '2026-06-20' }))
      .expect(200);
    await studio.agent
      .post('/api/stock-lots')
      .send(delivery(f.weld, '1 kg', { tag: 'PAST', bestBefore: '2026-05-20' }))
      .expect(200);
    await studio.agent
      .post('/api/stock-lots')
      .send(delivery(f.weld, '1 kg', { tag: 'LATE', bestBefore: '2027-06-20' }))
      .expect(200);
    expect((await today()).goingOff.map((j) => j.tag)).toEqual(['PAST', 'SOON']);
  });

  it('never takes what is past its best before into a lot', async () => {
    const ask = { colourwayId: f.colourway, quantityText: '2 hanks of 100 g', waterId: null, reorderOfId: null };
    const { stockLots } = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as {
      stockLots: { tag: string }[];
    };
    expect(stockLots.map((j) => j.tag)).toContain('SOON');
    expect(stockLots.map((j) => j.tag)).not.toContain('PAST');
  });

  it('keeps readings of a released lot coming, but not its verdict', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    await dyeLot(studio, f, lotId, { grams: 200 });
    await studio.agent.post(`/api/lots/${lotId}/readings`).send(reading('dry', 74)).expect(200);
    await studio.agent.post(`/api/lots/${lotId}/verdicts`).send(verdict('pass')).expect(200);
    await studio.agent.post(`/api/lots/${lotId}/readings`).send(reading('washed', 76)).expect(200);
    const lot = (await studio.agent.get(`/api/lots/${lotId}`).expect(200)).body as LotDetail;
    expect(lot.summary).toMatchObject({ state: 'released', result: { L: 76 } });
    expect(lot.verdicts).toHaveLength(1);
    await studio.agent.post(`/api/lots/${lotId}/verdicts`).send(verdict('refuse', 'second thoughts')).expect(409);
  });
});
