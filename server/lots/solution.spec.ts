import type { LotDetail, Problem, Proposal, StockLot } from '@vestigia/contract';
import type { SolutionTaken } from '@vestigia/core';
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

describe.each(KINDS)('a dose too small for the balance, at the bench (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let iron: string;
  let jar: string;
  let colourway: string;
  const post = (path: string, body: object) => studio.agent.post(path).send(body);

  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    iron = newId();
    await post('/api/materials', {
      id: iron,
      name: 'Iron sulphate',
      kind: 'modifier',
      measure: 'weight',
      hazards: ['ironSalt'],
      note: '',
      base: null,
    }).expect(200);
    jar = ((await post('/api/stock-lots', delivery(iron, '20 g')).expect(200)).body as { id: string }).id;
    const step = {
      kind: 'modify',
      title: 'Sadden',
      instruction: '',
      durationMin: 5,
      attended: true,
      lookFor: '',
      usesBath: true,
      doses: [{ materialId: iron, percentOwf: 0.3 }],
    };
    colourway = await colourwayOf(studio, f, 'Barely', [step]);
  });
  afterAll(() => studio.close());

  const began = async (): Promise<string> => {
    const ask = { colourwayId: colourway, quantityText: '1 hank of 100 g', waterId: null, reorderOfId: null };
    const proposal = (await post('/api/lots/proposal', ask).expect(200)).body as Proposal;
    expect(proposal.plan.steps[1]?.weighings[0]?.solution).toEqual({ dissolveG: 5, inMl: 500, takeMl: 30 });
    const id = newId();
    await post('/api/lots', { id, ask, ...agreed(proposal) }).expect(200);
    const entry = (step: number, what: string, rest: object = {}) =>
      post(`/api/lots/${id}/entries`, runEntry(step, what, rest)).expect(200);
    await entry(0, 'start');
    await entry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '100 g') });
    await entry(0, 'finish');
    await entry(1, 'start');
    return id;
  };
  const take = (lotId: string, solution: SolutionTaken) =>
    post(
      `/api/lots/${lotId}/entries`,
      runEntry(1, 'weigh', {
        weighing: weighing(iron, solution.stockLotId, '30 ml'),
        detail: { readBy: 'hand', solution },
      }),
    );
  const read = async (id: string): Promise<StockLot> =>
    (await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot;
  const done = async (id: string): Promise<LotDetail> => {
    studio.pass(5);
    await post(`/api/lots/${id}/entries`, runEntry(1, 'finish')).expect(200);
    return (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  };
  const made = { dissolvedG: 5, madeUpMl: 500 };
  let solution: string;

  it('one press makes the solution, books what is dissolved, and takes the dose', async () => {
    const lot = await began();
    solution = newId();
    const entry = { stockLotId: solution, takenMl: 30, gPerL: 10, made: { fromStockLotId: jar, ...made } };
    await take(lot, entry).expect(200);
    const [crystals, liquid] = [await read(jar), await read(solution)];
    expect([crystals.row.onHand, crystals.row.reserved]).toEqual([15_000, 0]);
    expect([liquid.row.onHand, liquid.row.material, liquid.liquorNow[0]?.grams]).toEqual([
      470_000,
      'Iron sulphate, 10 g/l',
      4.7,
    ]);
    const detail = await done(lot);
    expect(detail.madeFrom.find((m) => m.stockLotId === solution)?.amount).toBe(30_000);
    expect(detail.entries.at(-2)).toMatchObject({ weighing: { amount: 300, stockLotId: solution } });
    expect(detail.deviations).toEqual([]);
  });

  it('the next lot takes its dose of the solution that stands, and is told which', async () => {
    const lot = await began();
    const { stockLots } = (await studio.agent.get(`/api/lots/${lot}`).expect(200)).body as LotDetail;
    expect(stockLots.find((j) => j.id === solution)?.solutionOf).toEqual({ materialId: iron, gPerL: 10 });
    await take(lot, { stockLotId: solution, takenMl: 30, gPerL: 10 }).expect(200);
    expect((await read(solution)).row.onHand).toBe(440_000);
    const { entries, deviations } = await done(lot);
    expect(entries.at(-2)?.weighing).toMatchObject({ amount: 300 });
    expect(deviations).toEqual([]);
  });

  it('a correction puts back what was taken, by the millilitre, however it is written', async () => {
    const lot = await began();
    await take(lot, { stockLotId: solution, takenMl: 40, gPerL: 10 }).expect(200);
    const { entries } = (await studio.agent.get(`/api/lots/${lot}`).expect(200)).body as LotDetail;
    await post(
      `/api/lots/${lot}/entries`,
      runEntry(1, 'weigh', {
        replacesId: entries.at(-1)?.id,
        weighing: weighing(iron, solution, '30 ml'),
        detail: { solution: { stockLotId: solution, takenMl: 30, gPerL: 10 } },
      }),
    ).expect(200);
    expect((await read(solution)).row.onHand).toBe(410_000);
    const again = (await studio.agent.get(`/api/lots/${lot}`).expect(200)).body as LotDetail;
    await post(
      `/api/lots/${lot}/entries`,
      runEntry(1, 'weigh', { replacesId: again.entries.at(-1)?.id, weighing: weighing(iron, solution, '0.4 g') }),
    ).expect(200);
    expect((await read(solution)).row.onHand).toBe(400_000);
    await done(lot);
  });

  it('is refused in a sentence: more dissolved than the jar has free, another stuff, more than there is', async () => {
    const lot = await began();
    const refused = async (entry: SolutionTaken): Promise<string> =>
      ((await take(lot, entry).expect(422)).body as Problem).detail;
    const big = {
      stockLotId: newId(),
      takenMl: 30,
      gPerL: 10,
      made: { fromStockLotId: jar, dissolvedG: 50, madeUpMl: 5000 },
    };
    expect(await refused(big)).toMatch(/15 g of .* can be dissolved.*50 g are wanted/);
    expect(
      await refused({ ...big, made: { ...big.made, fromStockLotId: f.alumStockLot, dissolvedG: 5, madeUpMl: 500 } }),
    ).toMatch(/Wrong jar/);
    expect(await refused({ stockLotId: solution, takenMl: 600, gPerL: 10 })).toMatch(/holds 400 ml/);
    expect(await refused({ ...big, made: { fromStockLotId: jar, dissolvedG: 5, madeUpMl: 20 } })).toMatch(
      /how much of the solution was taken/,
    );
    expect((await read(jar)).row.onHand).toBe(15_000);
    const bath = newId();
    await post('/api/liquors', {
      ...keptLiquor('Iron bath', 'IB-1'),
      id: bath,
      what: 'mordantBath',
      contents: [{ materialId: iron, name: 'Iron sulphate', grams: 100 }],
    }).expect(200);
    // A bath that was used holds iron too, and nobody knows what else: it is no stock solution.
    expect(await refused({ stockLotId: bath, takenMl: 30, gPerL: 10 })).toMatch(/Wrong jar: IB-1/);
  });
});
