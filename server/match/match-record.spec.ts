import type { LotDetail, LotSummary, MatchRecord, Proposal, StockLot } from '@vestigia/contract';
import { BANDS_NM, takenBy } from '@vestigia/core';
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
  stripReading,
  stripTrial,
  weighing,
} from '../test/test-studio';

describe.each(KINDS)('what shades are foretold from (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let lot: string;
  const record = async (): Promise<MatchRecord> =>
    (await studio.agent.get('/api/match/record').expect(200)).body as MatchRecord;
  /** What is planned of two hanks. */
  const ask = (more: object = {}): object => ({
    colourwayId: f.colourway,
    quantityText: '2 hanks of 50 g',
    waterId: null,
    reorderOfId: null,
    ...more,
  });
  const propose = async (more: object = {}): Promise<Proposal> =>
    (await studio.agent.post('/api/lots/proposal').send(ask(more)).expect(200)).body as Proposal;
  const said = ({ checks }: Proposal): string => checks.map((c) => c.message).join(' ');
  /** A material of so much on the shelf. */
  const stocked = async (name: string, ofKind: string, quantityText: string): Promise<string> => {
    const id = newId();
    const material = { id, name, kind: ofKind, measure: 'weight', hazards: [], note: '', base: null };
    await studio.agent.post('/api/materials').send(material).expect(200);
    await studio.agent.post('/api/stock-lots').send(delivery(id, quantityText)).expect(200);
    return id;
  };
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    lot = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, lot, { grams: 100 });
  });
  afterAll(() => studio.close());

  it('is nothing of a lot before it was read dry; then what really went in, out of which jar, how long and how hot', async () => {
    const readings = async () => (await record()).readings.filter((r) => !r.isMaster);
    expect(await readings()).toEqual([]);
    await studio.agent.post(`/api/lots/${lot}/readings`).send(reading('wet', 60)).expect(200);
    expect(await readings()).toEqual([]);
    await studio.agent.post(`/api/lots/${lot}/readings`).send(reading('dry', 74)).expect(200);
    const [own] = await readings();
    expect(own).toMatchObject({ lotId: lot, title: 'Lot 1', colour: { lab: { L: 74 } } });
    expect(own?.dyeing).toMatchObject({
      fibre: 'wool',
      baseId: f.wool,
      baseLotId: f.woolStockLot,
      dip: 1,
      purpose: 'lot',
    });
    const weld = own?.dyeing.doses.find((d) => d.materialId === f.weld);
    expect(weld).toMatchObject({ stage: 'dye', role: 'dyestuff', stockLotId: f.weldStockLot });
    expect(weld?.percentOwf).toBeGreaterThan(0);
    expect(own?.dyeing.courses.map((c) => c.stage)).toContain('dye');
  });

  it('a master is what its recipe gives out of the reference jars, told as no lot', async () => {
    const masters = (await record()).readings.filter((r) => r.isMaster);
    expect(masters).toMatchObject([{ lotId: null, dyeing: { colourwayId: f.colourway, metal: 'stainless' } }]);
    expect(masters[0]?.dyeing.doses.every((d) => d.stockLotId.startsWith('reference of'))).toBe(true);
    const { strengths, jars } = await record();
    expect(strengths.some((s) => s.stockLotId === `reference of ${f.weld}` && s.isReference)).toBe(true);
    expect(jars.map((j) => j.id)).toContain(f.weldStockLot);
  });

  it('of a first lot that was corrected the master is what its recipe says without that', async () => {
    const { steps } = recipeBody(f.alum, f.weld) as { steps: object[] };
    const colourway = await colourwayOf(studio, f, 'Sea holly', steps);
    const more = { corrected: [{ materialId: f.weld, share: 1.5 }], dyeTimeShare: 1.25 };
    await makeLot(studio, { ...f, colourway }, { quantityText: '2 hanks of 50 g', more });
    const master = (await record()).readings.find((r) => r.isMaster && r.dyeing.colourwayId === colourway)?.dyeing;
    expect(master?.doses.find((d) => d.materialId === f.weld)?.percentOwf).toBeCloseTo(100, 0);
    const plain = (await record()).readings.find((r) => r.isMaster && r.dyeing.colourwayId === f.colourway)?.dyeing;
    expect(master?.courses).toEqual(plain?.courses);
  });

  it('a spectrum is seen in the light that is worked in; another light without one is left out', async () => {
    const spectrum = BANDS_NM.map(() => 0.5);
    const again = reading('dry', 74, { taken: takenBy('spectrum', { spectrum }), illuminant: 'A' });
    await studio.agent.post(`/api/lots/${lot}/readings`).send(again).expect(200);
    const means = (await record()).readings.filter((r) => r.lotId === lot);
    expect(means[0]?.colour.lab.L).toBeCloseTo((74 + 76.07) / 2, 0);
    const lamp = { ...reading('dry', 20), illuminant: 'A' };
    await studio.agent.post(`/api/lots/${lot}/readings`).send(lamp).expect(200);
    expect((await record()).readings.find((r) => r.lotId === lot)?.colour.lab.L).toBeCloseTo((74 + 76.07) / 2, 0);
  });

  it('a shade says how far off its readings may be; of several the errors cancel in part', async () => {
    const within = async () => (await record()).readings.find((r) => r.lotId === lot)?.readWithin80 ?? null;
    expect(await within()).toBeNull();
    const photo = reading('dry', 74, { taken: takenBy('photo', { within80: 4 }) });
    await studio.agent.post(`/api/lots/${lot}/readings`).send(photo).expect(200);
    // One photograph beside two readings of a reader.
    expect(await within()).toBeCloseTo(4 / 3, 6);
  });

  it('a strength that was worked out from lots isn’t counted beside them; one that was tested is', async () => {
    const told = async () => (await record()).strengths.find((s) => s.stockLotId === f.weldStockLot);
    const { row, note, facts, version } = (await studio.agent.get(`/api/stock-lots/${f.weldStockLot}`))
      .body as StockLot;
    const keep = (v: number, more: object) =>
      studio.agent
        .put(`/api/stock-lots/${f.weldStockLot}`)
        .send({
          version: v,
          place: row.place,
          note,
          bestBefore: row.bestBefore,
          facts: { ...facts, reference: false, ...more },
        })
        .expect(200);
    await keep(version, { strengthPercent: 84, strengthLearnt: true });
    expect(await told()).toBeUndefined();
    await keep(version + 1, { strengthPercent: 84, strengthLearnt: false });
    expect(await told()).toMatchObject({ percent: 84, isReference: false });
    await keep(version + 2, facts);
  });

  it('a jar says what a gram of it cost, and nothing where nobody wrote that down', async () => {
    const costOf = async (id: string) => (await record()).jars.find((j) => j.id === id)?.costMinorPerG;
    expect(await costOf(f.weldStockLot)).toBeNull();
    const bought = { ...delivery(f.weld, '500 g'), cost: '12.50' };
    await studio.agent.post('/api/stock-lots').send(bought).expect(200);
    const jars = (await record()).jars.filter((j) => j.materialId === f.weld && j.costMinorPerG !== null);
    expect(jars.map((j) => j.costMinorPerG)).toEqual([2.5]);
  });

  it('a strip is what was weighed out for it, and is learnt from once it was read', async () => {
    const trial = stripTrial(f) as { readonly id: string };
    await studio.agent.post('/api/strip-trials').send(trial).expect(200);
    const strips = async () => (await record()).readings.filter((r) => r.dyeing.purpose === 'strip');
    expect(await strips()).toEqual([]);
    await studio.agent.post(`/api/strip-trials/${trial.id}/readings`).send(stripReading(2, 76)).expect(200);
    const [own] = await strips();
    expect(own).toMatchObject({ lotId: null, isMaster: false, colour: { lab: { L: 76 } } });
    expect(own?.dyeing).toMatchObject({ colourwayId: null, fibre: 'wool', baseId: f.wool });
    const weld = own?.dyeing.doses.find((d) => d.materialId === f.weld);
    expect(weld?.percentOwf).toBeCloseTo(50, 0);
    expect(weld?.stockLotId).toBe(f.weldStockLot);
  });

  it('doses corrected for one lot are weighed so, said before it may start, and leave the recipe as it was', async () => {
    await freePots(studio);
    const weldOf = (p: Proposal): number => p.plan.materials.find((m) => m.materialId === f.weld)?.total.value ?? 0;
    const [plain, more] = [await propose(), await propose({ corrected: [{ materialId: f.weld, share: 1.2 }] })];
    expect(weldOf(more) / weldOf(plain)).toBeCloseTo(1.2, 1);
    expect(said(more)).toMatch(/Corrected for this lot, beside what the recipe says: Weld 20 % more/);
    expect(said(plain)).not.toMatch(/Corrected/);
    expect(more.recipe.versionId).toBe(plain.recipe.versionId);
    await studio.agent
      .post('/api/lots/proposal')
      .send(ask({ corrected: [{ materialId: newId(), share: 40 }] }))
      .expect(400);
  });

  it('a little of another dyestuff and a longer stay are in the plan, said, and refused beyond what is another recipe', async () => {
    const madder = await stocked('Madder root', 'dyestuff', '100 g');
    const dyeMin = (p: Proposal): number => p.plan.steps.find((s) => s.kind === 'dye')?.durationMin ?? 0;
    const [plain, more] = [
      await propose(),
      await propose({ added: [{ materialId: madder, percentOwf: 0.5 }], dyeTimeShare: 1.5 }),
    ];
    expect(more.plan.materials.find((m) => m.materialId === madder)?.total.value).toBeCloseTo(0.5, 2);
    expect(dyeMin(more)).toBe(Math.round(1.5 * dyeMin(plain)));
    expect(said(more)).toMatch(/0\.5 % Madder root besides and 50 % longer in the dye/);
    await studio.agent
      .post('/api/lots/proposal')
      .send(ask({ dyeTimeShare: 5 }))
      .expect(400);
  });

  it('a touch of something after the dye is a bath of its own in the plan, and said', async () => {
    const iron = await stocked('Iron', 'modifier', '50 g');
    const touched = await propose({ added: [{ materialId: iron, percentOwf: 1, afterDye: true }] });
    const kinds = touched.plan.steps.map((s) => s.kind);
    expect(kinds.indexOf('modify')).toBe(kinds.lastIndexOf('dye') + 1);
    const touch = touched.plan.steps.find((s) => s.kind === 'modify');
    expect(touch?.weighings).toMatchObject([{ materialId: iron }]);
    expect(touch?.baths).toHaveLength(1);
    expect(said(touched)).toContain('1 % Iron after the dye');
  });

  it('a jar that is asked for is the one that is weighed from, said; one of another material is refused', async () => {
    const other = delivery(f.weld, '400 g');
    const { id: second } = (await studio.agent.post('/api/stock-lots').send(other).expect(200)).body as { id: string };
    const { tag } = ((await studio.agent.get(`/api/stock-lots/${second}`).expect(200)).body as StockLot).row;
    const outOf = (...stockLotIds: string[]): object => ({
      outOf: stockLotIds.map((stockLotId) => ({ materialId: f.weld, stockLotId, part: 1 / stockLotIds.length })),
    });
    const jarsOf = ({ plan }: Proposal): (string | null)[] =>
      plan.materials.find((m) => m.materialId === f.weld)?.picks.map((p) => p.stockLotId) ?? [];
    expect(jarsOf(await propose())).toEqual([f.weldStockLot]);
    const asked = await propose(outOf(second));
    expect(jarsOf(asked)).toEqual([second]);
    expect(said(asked)).toContain(`Weld out of ${tag}`);
    expect(said(await propose({ ...outOf(second), strikeOff: true }))).not.toContain('Corrected');
    expect(jarsOf(await propose(outOf(second, f.weldStockLot))).sort()).toEqual([second, f.weldStockLot].sort());
    const wrong = await studio.agent
      .post('/api/lots/proposal')
      .send(ask(outOf(f.woolStockLot)))
      .expect(422);
    expect((wrong.body as { detail: string }).detail).toMatch(/holds no Weld/);
  });

  it('a piece that was pulled tells of a shorter stay; a wet reading what it will be, less surely; a snippet likewise', async () => {
    await freePots(studio);
    // Six pieces read both ways let wet be foreseen as dry.
    for (let n = 0; n < 6; n += 1)
      await studio.agent
        .post(`/api/lots/${lot}/readings`)
        .send(reading('wet', 58 + n))
        .expect(200);
    const id = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    const at = (entry: object) => studio.agent.post(`/api/lots/${id}/entries`).send(entry).expect(200);
    const { plan } = (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
    const dye = plan.steps.findIndex((s) => s.kind === 'dye');
    for (let step = 0; step < dye; step += 1) await at(runEntry(step, 'skip', { text: 'done before' }));
    await at(runEntry(dye, 'start'));
    await at(runEntry(dye, 'weigh', { weighing: weighing(f.weld, f.weldStockLot, '100 g') }));
    await at(runEntry(dye, 'pulls', { detail: { pullMinutes: [20, 60] } }));
    studio.pass(20);
    const snippet = { sampleOf: 'piece', batch: 1, lab: { L: 64, a: -3, b: 40 }, depth: 0.5, readBy: 'hand' };
    await at(runEntry(dye, 'sample', { detail: snippet }));
    await at(runEntry(dye, 'pull', { detail: { piece: 1 } }));
    studio.pass(40);
    await at(runEntry(dye, 'finish'));
    for (const { index } of plan.steps.slice(dye + 1)) await at(runEntry(index, 'skip', { text: 'hung up' }));
    await studio.agent.post(`/api/lots/${id}/readings`).send(reading('wet', 60)).expect(200);
    await studio.agent
      .post(`/api/lots/${id}/readings`)
      .send(reading('dry', 80, { piece: '1' }))
      .expect(200);
    const own = (await record()).readings.filter((r) => r.lotId === id);
    const lastMinute = (r: (typeof own)[number]): number =>
      r.dyeing.courses.find((c) => c.stage === 'dye')?.points.at(-1)?.minute ?? NaN;
    expect(own.map((r) => r.title.replace(/^Lot \d+(, )?/, ''))).toEqual(['', 'piece 1', 'a sample at 20 min']);
    const [whole, piece, sample] = own;
    expect([lastMinute(piece!), lastMinute(sample!)]).toEqual([20, 20]);
    expect(lastMinute(whole!)).toBeGreaterThan(20);
    expect([whole!.readWithin80! > 0, piece!.readWithin80, sample!.readWithin80! > 0]).toEqual([true, null, true]);
    // Wet was read about 12 L* darker than dry there.
    expect(whole!.colour.lab.L).toBeGreaterThan(66);
    expect(piece!.colour.lab.L).toBe(80);
  });

  it('a strike-off is told as one: in the list, and to what is foretold from it', async () => {
    await freePots(studio);
    const proof = await makeLot(studio, f, { quantityText: '20 g', strikeOff: true });
    await dyeLot(studio, f, proof, { grams: 20 });
    await studio.agent.post(`/api/lots/${proof}/readings`).send(reading('dry', 71)).expect(200);
    const own = (await record()).readings.find((r) => r.lotId === proof);
    expect(own?.dyeing.purpose).toBe('strikeOff');
    const all = (await studio.agent.get('/api/lots').expect(200)).body as LotSummary[];
    expect(all.filter((l) => l.strikeOff).map((l) => l.id)).toEqual([proof]);
  });
});
