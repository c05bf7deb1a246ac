import type { LotDetail, Problem, Proposal, StockLot } from '@vestigia/contract';
import type { LotPlan } from '@vestigia/core';
import { pouredLiquors } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  agreed,
  colourwayOf,
  delivery,
  furnish,
  keptLiquor,
  newId,
  openTestStudio,
  runEntry,
  weighing,
} from '../test/test-studio';

describe.each(KINDS)('a vat that is kept and fed (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  const vat = newId();
  let vatMaterial: string;
  const jars: Record<string, string> = {};
  let colourway: string;
  const post = (path: string, body: object) => studio.agent.post(path).send(body);
  const read = async (id: string): Promise<StockLot> =>
    (await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot;
  const record = (entry: object) => post(`/api/stock-lots/${vat}/liquor`, { id: newId(), note: '', ...entry });
  const look = (as: string, ph: number | null = 10.4, temperatureC: number | null = 45) =>
    record({ kind: 'vat', look: as, ph, temperatureC });
  const gramsOf = (jar: StockLot, name: string): number | undefined =>
    jar.liquorNow.find((c) => c.name === name)?.grams;

  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    for (const [name, what, hazards] of [
      ['Indigo', 'dyestuff', ['dust']],
      ['Fructose', 'assistant', []],
      ['Hydrated lime', 'assistant', ['dust', 'caustic']],
    ] as const) {
      const id = newId();
      await post('/api/materials', { id, name, kind: what, measure: 'weight', hazards, note: '', base: null }).expect(
        200,
      );
      jars[name] = ((await post('/api/stock-lots', delivery(id, '500 g')).expect(200)).body as { id: string }).id;
    }
    await post('/api/liquors', {
      ...keptLiquor('Fructose vat', 'VAT-1', { what: 'vat', vatKind: 'fruit', quantityText: '16 l' }),
      id: vat,
    }).expect(200);
    vatMaterial = (await read(vat)).row.materialId;
    const dips = {
      key: 'dips',
      kind: 'dye',
      title: 'Dip and air',
      instruction: '',
      durationMin: 60,
      attended: true,
      lookFor: '',
      usesBath: true,
      course: [
        { do: 'hold', toC: 45, minutes: 5 },
        { do: 'air', minutes: 15 },
      ],
      repeats: 3,
      doses: [{ materialId: vatMaterial, by: 'allThere' }],
    };
    colourway = await colourwayOf(studio, f, 'Slack water', [dips]);
  });
  afterAll(() => studio.close());

  const ask = () => ({ colourwayId: colourway, quantityText: '2 hanks of 100 g', waterId: null, reorderOfId: null });
  const propose = async (): Promise<Proposal> => (await post('/api/lots/proposal', ask()).expect(200)).body as Proposal;
  const vatChecks = ({ checks }: Proposal) => checks.filter((c) => c.message.startsWith('VAT-1'));

  it('is set by feeding it from its jars, which give what they gave', async () => {
    const part = (name: string, quantityText: string) => ({
      movementId: newId(),
      stockLotId: jars[name],
      quantityText,
    });
    await record({
      kind: 'feed',
      parts: [part('Indigo', '40 g'), part('Hydrated lime', '80 g'), part('Fructose', '120 g')],
    }).expect(200);
    const jar = await read(vat);
    expect([gramsOf(jar, 'Indigo'), gramsOf(jar, 'Hydrated lime'), gramsOf(jar, 'Fructose')]).toEqual([40, 80, 120]);
    expect((await read(jars['Indigo'] ?? '')).row.onHand).toBe(460_000);
    expect(jar.liquorLog.at(-1)?.note).toMatch(/40 g of Indigo added.*120 g of Fructose/);
  });

  it('nothing is fed when one of the jars can’t give it', async () => {
    const parts = ['Indigo', 'Fructose'].map((name, i) => ({
      movementId: newId(),
      stockLotId: jars[name],
      quantityText: i === 0 ? '10 g' : '9 kg',
    }));
    expect(((await record({ kind: 'feed', parts }).expect(422)).body as Problem).detail).toMatch(/holds 380 g/);
    expect((await read(jars['Indigo'] ?? '')).row.onHand).toBe(460_000);
  });

  it('is looked at before a lot: unseen is a caution, blue is a stop, yellow is neither', async () => {
    expect(vatChecks(await propose()).map((c) => c.severity)).toEqual(['caution']);
    await look('blue').expect(200);
    const [blue] = vatChecks(await propose());
    expect(blue).toMatchObject({ severity: 'stop', message: expect.stringMatching(/not reduced.*Feed it fructose/) });
    await look('yellow', 11.2).expect(200);
    expect(vatChecks(await propose())[0]).toMatchObject({
      severity: 'stop',
      message: expect.stringMatching(/dissolves wool/),
    });
    await look('yellow').expect(200);
    const { checks, plan } = await propose();
    expect(checks.filter((c) => /VAT-1|mordant/.test(c.message))).toEqual([]);
    expect(plan.steps[1]).toMatchObject({ durationMin: 60, repeats: 3 });
    studio.pass(60 * 30);
    expect(vatChecks(await propose())[0]?.message).toMatch(/1 day ago/);
    await look('yellow').expect(200);
  });

  it('is dipped in, gives its dye dip by dip, and goes back to its jar weaker', async () => {
    const proposal = await propose();
    const id = newId();
    await post('/api/lots', { id, ask: ask(), ...agreed(proposal) }).expect(200);
    const entry = (step: number, what: string, rest: object = {}) =>
      post(`/api/lots/${id}/entries`, runEntry(step, what, rest)).expect(200);
    await entry(0, 'start');
    await entry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') });
    await entry(0, 'finish');
    await entry(1, 'start');
    await entry(1, 'weigh', { weighing: weighing(vatMaterial, vat, '16 l') });
    studio.pass(60);
    await entry(1, 'finish');
    expect((await read(vat)).row.onHand).toBe(0);
    const out = (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
    expect(pouredLiquors(out.plan as LotPlan, out.entries)).toMatchObject([
      { stockLotId: vat, poured: 16_000_000, stepIndex: 1, batch: 1, leftMl: 15_700 },
    ]);
    const back = {
      id: newId(),
      movementId: newId(),
      stepIndex: 1,
      batch: 1,
      stockLotId: vat,
      quantityText: '15.5 l',
      note: '',
    };
    await post(`/api/lots/${id}/returned-liquor`, back).expect(200);
    const jar = await read(vat);
    expect(jar.row.onHand).toBe(15_500_000);
    // Three dips, each 1 − e^(−3 × 200 ÷ 16 000) of the indigo, and what 200 g of wool carry away of the rest.
    const left = 40 * Math.exp((-3 * 3 * 200) / 16_000);
    expect(gramsOf(jar, 'Indigo')).toBeLessThan(left);
    expect(gramsOf(jar, 'Indigo')).toBeGreaterThan(left * 0.95);
    expect(gramsOf(jar, 'Fructose')).toBeGreaterThan(120 * 0.95);
    expect(jar.liquor?.vat).toMatchObject({ kind: 'fruit', look: null });
    const detail = (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
    expect(detail.madeFrom.find((m) => m.stockLotId === vat)?.amount).toBe(500_000);
    const twice = { ...back, id: newId(), movementId: newId() };
    expect(((await post(`/api/lots/${id}/returned-liquor`, twice).expect(409)).body as Problem).detail).toMatch(
      /already/,
    );
    expect(vatChecks(await propose())[0]?.message).toMatch(/Nobody has looked/);
  });

  it('a jar that is no vat is not looked at as one', async () => {
    const { detail } = (
      await post(`/api/stock-lots/${jars['Indigo']}/liquor`, {
        id: newId(),
        kind: 'vat',
        look: 'yellow',
        ph: 10,
        temperatureC: 40,
        note: '',
      }).expect(422)
    ).body as Problem;
    expect(detail).toMatch(/not a kept liquor/);
  });
});
