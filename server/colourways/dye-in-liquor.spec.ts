import type { LotDetail, Problem, Proposal, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, agreed, furnish, keptLiquor, newId, openTestStudio } from '../test/test-studio';

describe.each(KINDS)('other pieces into a liquor that stands (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  const post = (path: string, body: object) => studio.agent.post(path).send(body);
  const keep = async (tag: string, rest: object = {}): Promise<string> => {
    const contents = [{ materialId: f.weld, name: 'Weld', grams: 60 }];
    const liquor = keptLiquor(`${tag} liquor`, tag, { contents, ...rest });
    await post('/api/liquors', liquor).expect(200);
    return liquor.id;
  };
  const dyeIn = (id: string, rest: object = {}) =>
    post(`/api/stock-lots/${id}/dye-in`, {
      id: newId(),
      recipeId: newId(),
      versionId: newId(),
      name: `Pieces ${newId()}`,
      baseMaterialId: f.wool,
      temperatureC: 60,
      minutes: 45,
      dips: 1,
      airMinutes: 20,
      ...rest,
    });
  const proposed = async (colourwayId: string): Promise<Proposal> => {
    const ask = { colourwayId, quantityText: '2 hanks of 100 g', waterId: null, reorderOfId: null };
    return (await post('/api/lots/proposal', ask).expect(200)).body as Proposal;
  };
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  it('are a small lot of their own that takes all of it, and waits for what comes out', async () => {
    const bath = await keep('WB-1');
    const { id } = (await dyeIn(bath).expect(200)).body as { id: string };
    const proposal = await proposed(id);
    const dye = proposal.plan.steps.find((s) => s.kind === 'dye');
    expect(dye).toMatchObject({ title: 'Dye in WB-1', temperatureC: 60, durationMin: 45 });
    expect(dye?.weighings).toMatchObject([{ target: { value: 9000 }, picks: [{ stockLotId: bath }] }]);
    expect([dye?.baths[0]?.liquor.value, dye?.baths[0]?.water?.value]).toEqual([9000, 0]);
    const lot = newId();
    const ask = { colourwayId: id, quantityText: '2 hanks of 100 g', waterId: null, reorderOfId: null };
    await post('/api/lots', { id: lot, ask, ...agreed(proposal) }).expect(200);
    const { summary } = (await studio.agent.get(`/api/lots/${lot}`).expect(200)).body as LotDetail;
    expect([summary.state, summary.master]).toEqual(['planned', null]);
    expect(((await studio.agent.get(`/api/stock-lots/${bath}`).expect(200)).body as StockLot).row.reserved).toBe(
      9_000_000,
    );
  });

  it('are dipped and aired where it is a vat, as its kind works', async () => {
    const vat = await keep('VAT-9', { what: 'vat', vatKind: 'reducer' });
    const { id } = (await dyeIn(vat, { temperatureC: null, minutes: 4, dips: 5, airMinutes: 12 }).expect(200)).body as {
      id: string;
    };
    expect((await proposed(id)).plan.steps.find((s) => s.kind === 'dye')).toMatchObject({
      repeats: 5,
      course: [
        { do: 'hold', toC: 48, minutes: 4 },
        { do: 'air', minutes: 12 },
      ],
    });
  });

  it('are refused in a sentence where there is no liquor, or none left, and leave nothing behind', async () => {
    const bath = await keep('WB-2');
    await post(`/api/stock-lots/${bath}/takings`, {
      id: newId(),
      kind: 'spoil',
      quantityText: '9 l',
      note: 'gone off',
    }).expect(200);
    const sentence = async (id: string) => ((await dyeIn(id).expect(422)).body as Problem).detail;
    expect(await sentence(bath)).toMatch(/Nothing is left of WB-2/);
    expect(await sentence(f.weldStockLot)).toMatch(/not a kept liquor/);
    const { body } = await studio.agent.get('/api/recipes').expect(200);
    expect((body as { name: string }[]).filter((r) => r.name.startsWith('Pieces'))).toHaveLength(2);
  });
});
