import type { LotDetail, Problem, Proposal } from '@vestigia/contract';
import { takenBy } from '@vestigia/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
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
  runEntry,
  verdict,
} from '../test/test-studio';

const same = {
  against: 'master',
  depth: 0,
  hue: null,
  clarity: 0,
  evenness: 'even',
  where: '',
  light: 'daylight',
};

describe.each(KINDS)('judging by eye (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  const post = (path: string, body: object) => studio.agent.post(path).send(body);
  const look = (lot: string, seen: object = {}, rest: object = {}) =>
    post(`/api/lots/${lot}/eyes`, {
      id: newId(),
      batch: 1,
      state: 'dry',
      seen: { ...same, ...seen },
      note: '',
      replacesId: null,
      ...rest,
    });
  const judge = (lot: string, given: string, reason = '') => post(`/api/lots/${lot}/verdicts`, verdict(given, reason));
  const read = async (id: string): Promise<LotDetail> =>
    (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  const dyed = async (): Promise<string> => {
    const id = await makeLot(studio, f);
    await dyeLot(studio, f, id);
    return id;
  };
  const rule = (to: string) => studio.context.database.db.execute(`UPDATE studio SET judge_rule = '${to}'`);

  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  beforeEach(async () => {
    await freePots(studio);
    await rule('eye');
  });
  afterAll(() => studio.close());

  it('passes a lot without any instrument, and its certainty is kept as what it is', async () => {
    const lot = await dyed();
    expect(((await judge(lot, 'pass').expect(422)).body as Problem).detail).toMatch(/or judge it by eye/);
    await look(lot, { depth: -1 }, { state: 'wet' }).expect(200);
    expect(((await judge(lot, 'pass').expect(422)).body as Problem).detail).toMatch(/Still wet/);
    await look(lot).expect(200);
    expect((await read(lot)).summary.seen).toMatchObject({ depth: 0, against: 'master' });
    await judge(lot, 'pass').expect(200);
    const { summary, verdicts, eyes } = await read(lot);
    expect([summary.state, summary.deltaE]).toEqual(['released', null]);
    expect(verdicts).toMatchObject([{ verdict: 'pass', restsOn: 'eye', toMaster: null }]);
    expect(eyes.map((e) => e.by.name)).toEqual(['Ada Reed', 'Ada Reed']);
  });

  it('what was seen otherwise takes a reason, and a slip is corrected, not erased', async () => {
    const lot = await dyed();
    await look(lot, { depth: -1, hue: 'redder' }).expect(200);
    expect(((await judge(lot, 'pass').expect(422)).body as Problem).detail).toMatch(/It was seen paler and redder/);
    const [first] = (await read(lot)).eyes;
    await look(lot, {}, { replacesId: first?.id }).expect(200);
    expect(((await look(lot, {}, { replacesId: first?.id }).expect(409)).body as Problem).detail).toMatch(/already/);
    await judge(lot, 'pass').expect(200);
    expect((await read(lot)).eyes).toHaveLength(2);
  });

  it('a piece is one of the lot’s, and in one place', async () => {
    const lot = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    await post(`/api/lots/${lot}/entries`, runEntry(0, 'start')).expect(200);
    await look(lot, {}, { piece: '1' }).expect(200);
    expect(((await look(lot, {}, { piece: '2' }).expect(422)).body as Problem).detail).toMatch(
      /no piece of that number/,
    );
  });

  it('a photograph goes with what was seen, and with nothing else', async () => {
    const lot = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    await dyeLot(studio, f, lot, { grams: 100 });
    const eye = newId();
    await look(lot, {}, { id: eye }).expect(200);
    const png = Buffer.from('89504e470d0a1a0a', 'hex');
    const send = (of: string, name = 'pot.png') =>
      studio.agent
        .post(`/api/lots/${lot}/eye-photos`)
        .query({ id: newId(), eye: of, name })
        .set('content-type', 'image/png')
        .send(png);
    await send(eye).expect(200);
    expect((await read(lot)).eyes[0]?.photos).toHaveLength(1);
    const { status, body } = await send(newId());
    expect([status, (body as Problem).detail]).toEqual([404, expect.stringContaining('Write down what you see first')]);
  });

  it('a reading says how it was taken and how sure it is; one of an early version says nothing', async () => {
    const lot = await makeLot(studio, f, { quantityText: '1 hank of 50 g' });
    await dyeLot(studio, f, lot, { grams: 50 });
    const taken = { way: 'photo', within80: 1.8, evenness: { meanDeltaE00: 0.4, maxDeltaE00: 1 } };
    await post(`/api/lots/${lot}/readings`, { ...reading('dry', 74.3), taken }).expect(200);
    await post(`/api/lots/${lot}/readings`, reading('dry', 74.4)).expect(200);
    expect((await read(lot)).readings.map((r) => r.taken)).toEqual([
      takenBy('photo', { ...taken, way: 'photo' }),
      null,
    ]);
    const wrong = { ...taken, within80: -1 };
    await post(`/api/lots/${lot}/readings`, { ...reading('dry'), taken: wrong }).expect(400);
  });

  it('a dip is a shade of its own: seen beside the lot, and passing nothing of it', async () => {
    await rule('reading');
    const lot = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, lot, { grams: 100 });
    const readAs = (L: number, dip: number | null) => post(`/api/lots/${lot}/readings`, { ...reading('dry', L), dip });
    await readAs(82, 1).expect(200);
    await readAs(82, 9).expect(422);
    await judge(lot, 'pass').expect(422);
    await readAs(74, null).expect(200);
    await judge(lot, 'pass').expect(200);
    const { summary, readings } = await read(lot);
    expect(readings.map((r) => r.dip)).toEqual([1, null]);
    expect([summary.state, summary.result?.L]).toEqual(['released', 74]);
    expect(summary.family.map((m) => m.label)).toEqual(['', 'after dip 1']);
  });

  it('goes by the studio’s rule: one eye, two people, or only a reading', async () => {
    const lot = await dyed();
    await look(lot).expect(200);
    await rule('twoEyes');
    expect(((await judge(lot, 'pass').expect(422)).body as Problem).detail).toMatch(/ask somebody else/);
    await rule('reading');
    expect(((await judge(lot, 'pass').expect(422)).body as Problem).detail).toMatch(/only with a reading/);
    await judge(lot, 'hold', 'until the reader is back').expect(200);
    await post(`/api/lots/${lot}/readings`, reading('dry')).expect(200);
    await judge(lot, 'pass').expect(200);
    expect((await read(lot)).verdicts.at(-1)?.restsOn).toBe('reading');
  });

  it('a piece read again later, faded, adds to its history, and the judged figure stays', async () => {
    const lot = await dyed();
    await post(`/api/lots/${lot}/readings`, reading('dry', 74.5)).expect(200);
    await judge(lot, 'pass').expect(200);
    const before = (await read(lot)).summary;
    studio.pass(120);
    await post(`/api/lots/${lot}/readings`, reading('washed', 82)).expect(200);
    const after = await read(lot);
    expect(after.readings).toHaveLength(2);
    expect([after.summary.result, after.summary.deltaE]).toEqual([before.result, before.deltaE]);
  });

  it('one piece is refused by itself, and the lot is passed without it', async () => {
    const lot = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, lot, { grams: 100 });
    const of = { batch: 1, group: null, zone: null, piece: '2' };
    const alone = (given: string, reason: string, rest: object = {}) =>
      post(`/api/lots/${lot}/verdicts`, { ...verdict(given, reason), of: { ...of, ...rest } });
    const refused = async (asked: ReturnType<typeof alone>, status: number) =>
      ((await asked.expect(status)).body as Problem).detail;
    expect(await refused(alone('refuse', ''), 422)).toMatch(/Say why it is refused/);
    expect(await refused(alone('refuse', 'it bled', { piece: '70' }), 422)).toMatch(/no piece of that number/);
    expect(await refused(alone('refuse', 'it bled', { piece: null }), 422)).toMatch(/all there is of this lot/);
    await post(`/api/lots/${lot}/readings`, { ...reading('dry', 60), piece: '2' }).expect(200);
    await post(`/api/lots/${lot}/readings`, reading('dry', 74.3)).expect(200);
    expect(await refused(judge(lot, 'pass'), 422)).toMatch(/beyond the tolerance/);
    await alone('hold', 'washed once more').expect(200);
    await judge(lot, 'pass').expect(200);
    const { summary, verdicts } = await read(lot);
    expect([summary.state, summary.result?.L, (summary.deltaE ?? 9) < 2]).toEqual(['released', 74.3, true]);
    expect(summary.family.map((m) => [m.label, m.lab?.L, m.apart])).toEqual([
      ['', 74.3, null],
      ['piece 2', 60, 'hold'],
    ]);
    expect(verdicts.map((v) => [v.verdict, v.of?.piece ?? null])).toEqual([
      ['hold', '2'],
      ['pass', null],
    ]);
    // What was held by itself still waits for its own verdict, once.
    await alone('refuse', 'it bled').expect(200);
    expect(await refused(alone('pass', 'after all'), 409)).toMatch(/released already/);
    expect((await read(lot)).summary.family.at(-1)?.apart).toBe('refuse');
    const again = { colourwayId: f.colourway, quantityText: '2 hanks of 50 g', waterId: null, reorderOfId: lot };
    const then = ((await post('/api/lots/proposal', again).expect(200)).body as Proposal).then;
    expect(then?.said.map((s) => s.text)).toContain('piece 2: it bled');
  });

  it('wool and linen in one pot are two shades, each read and judged by its own', async () => {
    const linen = newId();
    const base = {
      fibre: 'linen',
      pieceWord: 'length',
      usualPieceWeightG: 100,
      undyed: { L: 80, a: 1, b: 13, illuminant: 'D65', observer: '10' },
    };
    await post('/api/materials', {
      id: linen,
      name: 'Linen',
      kind: 'fibre',
      measure: 'weight',
      hazards: [],
      note: '',
      base,
    }).expect(200);
    await post('/api/stock-lots', delivery(linen, '2 kg')).expect(200);
    const [versionId, colourway] = [newId(), newId()];
    const dye = {
      kind: 'dye',
      title: 'Dye together',
      instruction: '',
      temperatureC: 60,
      durationMin: 60,
      attended: false,
      lookFor: '',
      usesBath: true,
      doses: [{ materialId: f.weld, percentOwf: 50 }],
    };
    const onLinen = { baseMaterialId: linen, L: 80, a: -3, b: 34, illuminant: 'D65', observer: '10', note: '' };
    await post('/api/recipes', {
      id: newId(),
      name: 'Together',
      versionId,
      body: {
        fibres: ['wool', 'linen'],
        liquorRatio: 30,
        allowedMetals: ['stainless'],
        note: '',
        expectedShades: [onLinen],
        steps: [dye],
      },
    }).expect(200);
    await post('/api/colourways', {
      id: colourway,
      name: 'Together',
      recipeVersionId: versionId,
      baseMaterialId: f.wool,
      master: { L: 74, a: -4, b: 50, illuminant: 'D65', observer: '10' },
      toleranceDeltaE: 2,
      note: '',
    }).expect(200);
    const ask = {
      colourwayId: colourway,
      quantityText: '2 hanks of 100 g',
      waterId: null,
      reorderOfId: null,
      also: [{ baseId: linen, quantityText: '2 lengths of 100 g' }],
    };
    const proposal = (await post('/api/lots/proposal', ask).expect(200)).body as Proposal;
    const lot = newId();
    await post('/api/lots', { id: lot, ask, ...agreed(proposal) }).expect(200);
    const steps = proposal.plan.steps.map((s) => s.index);
    for (const step of steps)
      await post(`/api/lots/${lot}/entries`, runEntry(step, 'skip', { text: 'only a test' })).expect(200);
    const [woolKey, linenKey] = proposal.plan.groups.map((g) => g.key);
    const ofLinen = { lab: { L: 80.4, a: -3, b: 34 }, group: linenKey };
    await post(`/api/lots/${lot}/readings`, { ...reading('dry', 74.3), group: woolKey }).expect(200);
    expect(((await judge(lot, 'pass').expect(422)).body as Problem).detail).toMatch(
      /Linen in batch 1 has not been seen dry/,
    );
    await post(`/api/lots/${lot}/readings`, { ...reading('dry', 80), ...ofLinen }).expect(200);
    await judge(lot, 'pass').expect(200);
    const { summary } = await read(lot);
    expect(summary.family.map((m) => [m.label, m.lab?.L])).toEqual([
      ['Rug wool', 74.3],
      ['Linen', 80.4],
    ]);
    expect([summary.result?.L, (summary.deltaE ?? 9) < 1]).toEqual([74.3, true]);
    const alone = { batch: 1, group: linenKey, zone: null, piece: null, dip: null };
    const late = await post(`/api/lots/${lot}/verdicts`, { ...verdict('refuse', 'it bled'), of: alone }).expect(409);
    expect((late.body as Problem).detail).toMatch(/released already/);
    const nowhere = { ...reading('dry'), group: 'silk' };
    expect(((await post(`/api/lots/${lot}/readings`, nowhere).expect(422)).body as Problem).detail).toMatch(
      /no such pieces/,
    );
  });
});
