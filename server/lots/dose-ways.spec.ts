import type { LotDetail, PlanFactsView, Problem, Proposal } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  agreed,
  colourwayOf,
  dyeLot,
  furnish,
  keptLiquor,
  makeLot,
  newId,
  openTestStudio,
  reading,
  verdict,
} from '../test/test-studio';

describe.each(KINDS)('doses as people give them (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const post = (path: string, body: object) => studio.agent.post(path).send(body);
  const dye = (doses: object[]) => ({
    key: 'dye',
    kind: 'dye',
    title: 'Dye',
    instruction: '',
    durationMin: 60,
    attended: false,
    lookFor: '',
    usesBath: true,
    doses,
  });
  const ask = (colourwayId: string, rest: object = {}) => ({
    colourwayId,
    quantityText: '4 hanks of 100 g',
    waterId: null,
    reorderOfId: null,
    ...rest,
  });
  const proposed = async (body: object): Promise<Proposal> =>
    (await post('/api/lots/proposal', body).expect(200)).body as Proposal;

  it('a range is told, chosen within, refused outside, and dyed again as it was chosen', async () => {
    const range = { materialId: f.weld, by: 'percentOwf', percentOwf: 25, toPercentOwf: 50 };
    const colourway = await colourwayOf(studio, f, 'By choice', [dye([range])]);
    const least = await proposed(ask(colourway));
    expect(least.ranges).toEqual([
      {
        stepKey: 'dye',
        stepTitle: 'Dye',
        materialId: f.weld,
        material: 'Weld',
        fromPercentOwf: 25,
        toPercentOwf: 50,
        percentOwf: 25,
      },
    ]);
    const choice = (percentOwf: number) => ({ doses: [{ stepKey: 'dye', materialId: f.weld, percentOwf }] });
    const outside = (await post('/api/lots/proposal', ask(colourway, choice(60))).expect(422)).body as Problem;
    expect(outside).toMatchObject({ reason: 'doseOutside', detail: expect.stringMatching(/25 to 50 %.*within/) });
    const chosen = await proposed(ask(colourway, choice(40)));
    expect(chosen.plan.materials.find((m) => m.materialId === f.weld)?.total.value).toBe(160);
    expect(chosen.ranges[0]?.percentOwf).toBe(40);
    const id = newId();
    await post('/api/lots', { id, ask: ask(colourway, choice(40)), ...agreed(chosen) }).expect(200);
    const lot = (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
    expect(lot.extras.doses).toEqual(choice(40).doses);
  });

  it('a kept bath is the liquor of the next lot; when it is used up, the lot that left it is named to be dyed first', async () => {
    const first = await makeLot(studio, f);
    await dyeLot(studio, f, first);
    await post(`/api/lots/${first}/readings`, reading('dry')).expect(200);
    await post(`/api/lots/${first}/verdicts`, verdict('pass')).expect(200);
    const bath = newId();
    await post('/api/liquors', {
      ...keptLiquor('Marram bath', 'MB-1'),
      id: bath,
      quantityText: '8 l',
      contents: [{ materialId: f.weld, name: 'Weld', grams: 100 }],
      fromLotId: first,
    }).expect(200);
    const stockLot = (await studio.agent.get(`/api/stock-lots/${bath}`).expect(200)).body as {
      row: { materialId: string };
    };
    const colourway = await colourwayOf(studio, f, 'Second dip', [
      dye([{ materialId: stockLot.row.materialId, by: 'liquor' }]),
    ]);
    const second = await proposed(ask(colourway));
    const [filled] = second.plan.steps[1]?.baths ?? [];
    expect([filled?.liquor.value, filled?.water?.value, second.unfolds]).toEqual([12_000, 4000, []]);
    await post(`/api/stock-lots/${bath}/takings`, {
      id: newId(),
      kind: 'spoil',
      quantityText: '8 l',
      note: 'poured away',
    }).expect(200);
    const used = await proposed(ask(colourway));
    const { summary } = (await studio.agent.get(`/api/lots/${first}`).expect(200)).body as LotDetail;
    expect(used.unfolds).toEqual([{ lotId: first, tag: summary.tag, colourway: 'Marram', material: 'Marram bath' }]);
    expect(used.plan.cautions.map((c) => c.code)).toContain('short');
    // Nobody delivers it: the plan waits for nothing unless somebody says a day.
    const agreement = { ...agreed(used), acceptShortages: true };
    await post('/api/lots', { id: newId(), ask: ask(colourway), ...agreement }).expect(200);
    const { awaited, now } = (await studio.agent.get('/api/plan').expect(200)).body as PlanFactsView;
    expect(awaited).toMatchObject([
      { name: 'Marram bath', isMadeHere: true, isSaid: false, arrivesOn: now.slice(0, 10) },
    ]);
  });
});
