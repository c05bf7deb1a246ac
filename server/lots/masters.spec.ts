import type { ColourwayDetail, LotDetail, Problem } from '@vestigia/contract';
import { BANDS_NM, takenBy } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  delivery,
  dyeLot,
  freePots,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  recipeBody,
  verdict,
} from '../test/test-studio';

const D65 = { illuminant: 'D65', observer: '10' } as const;

describe.each(KINDS)('a result that is not known beforehand (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  const waiting = newId();
  const post = (path: string, body: object) => studio.agent.post(path).send(body);
  const master = (rest: object) =>
    post(`/api/colourways/${waiting}/masters`, { id: newId(), lab: null, reason: '', ...rest });
  const read = async (): Promise<ColourwayDetail> =>
    (await studio.agent.get(`/api/colourways/${waiting}`).expect(200)).body as ColourwayDetail;
  const lotOf = async (id: string): Promise<LotDetail> =>
    (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
  const dyed = async (): Promise<string> => {
    await freePots(studio);
    const id = await makeLot(studio, { ...f, colourway: waiting });
    await dyeLot(studio, f, id);
    return id;
  };
  let first: string;

  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    await post('/api/colourways', {
      id: waiting,
      name: 'Whatever comes',
      recipeVersionId: f.version,
      baseMaterialId: f.wool,
      master: null,
      toleranceDeltaE: 2,
      note: '',
    }).expect(200);
  });
  afterAll(() => studio.close());

  it('an empty master is empty: a lot is dyed, read and passed without one', async () => {
    expect((await read()).colourway.master).toBeNull();
    first = await dyed();
    expect(((await master({ lotId: first }).expect(422)).body as Problem).detail).toMatch(/no dry reading yet/);
    await post(`/api/lots/${first}/readings`, reading('dry', 71)).expect(200);
    await post(`/api/lots/${first}/verdicts`, verdict('pass')).expect(200);
    const { summary, verdicts } = await lotOf(first);
    expect([summary.state, summary.master, summary.deltaE, summary.result?.L]).toEqual(['released', null, null, 71]);
    expect(verdicts[0]?.toMaster).toBeNull();
  });

  it('“this is it” makes what came out the master, and the lot is the first under it', async () => {
    await master({ lotId: first }).expect(200);
    const { colourway, masters } = await read();
    expect(colourway.master).toMatchObject({ L: 71, ...D65 });
    expect(masters).toMatchObject([{ reason: '', fromLot: { id: first } }]);
    const { summary } = await lotOf(first);
    expect([summary.master?.L, summary.deltaE]).toEqual([71, 0]);
  });

  it('judged by another formula, its lots lie otherwise from what was wanted', async () => {
    const own = newId();
    const spectrum = BANDS_NM.map(() => 0.4);
    const taken = takenBy('spectrum', { spectrum });
    await post('/api/colourways', {
      id: own,
      name: 'Brought by somebody',
      recipeVersionId: f.version,
      baseMaterialId: f.wool,
      master: { L: 70, a: -4, b: 46, ...D65 },
      masterTaken: taken,
      toleranceDeltaE: 2,
      note: '',
    }).expect(200);
    const detail = (await studio.agent.get(`/api/colourways/${own}`).expect(200)).body as ColourwayDetail;
    expect(detail.masters).toMatchObject([{ reason: 'as it was named', taken: { way: 'spectrum' } }]);
    await freePots(studio);
    const id = await makeLot(studio, { ...f, colourway: own }, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, id, { grams: 100 });
    await post(`/api/lots/${id}/readings`, reading('dry', 74)).expect(200);
    const { summary, masterSpectrum } = await lotOf(id);
    expect(masterSpectrum).toEqual(spectrum);
    const { version, recipe } = detail.colourway;
    const edit = { version, recipeVersionId: recipe.versionId, toleranceDeltaE: 2, note: '' };
    await studio.agent
      .put(`/api/colourways/${own}`)
      .send({ ...edit, formula: 'cmc21' })
      .expect(200);
    const after = (await lotOf(id)).summary;
    expect(after.deltaE).not.toBeNull();
    expect(Math.abs((after.deltaE ?? 0) - (summary.deltaE ?? 0))).toBeGreaterThan(0.01);
  });

  it('another master takes a reason, and every lot keeps the one it was dyed under', async () => {
    const second = await dyed();
    await post(`/api/lots/${second}/readings`, reading('dry', 72)).expect(200);
    const swatch = { L: 66, a: -2, b: 45, ...D65 };
    expect(((await master({ lab: swatch }).expect(422)).body as Problem).detail).toMatch(
      /Say why another takes its place/,
    );
    await master({ lab: swatch, reason: 'the customer chose the deeper one' }).expect(200);
    expect((await read()).masters.map((m) => m.lab.L)).toEqual([66, 71]);
    for (const id of [first, second]) expect((await lotOf(id)).summary.master?.L).toBe(71);
    await post(`/api/lots/${second}/verdicts`, verdict('pass')).expect(200);
    expect((await lotOf(second)).verdicts[0]?.toMaster).toBeLessThan(1);
    const third = await dyed();
    await post(`/api/lots/${third}/readings`, reading('dry', 72)).expect(200);
    expect((await lotOf(third)).summary.deltaE).toBeGreaterThan(3);
  });

  it('a master from before masters were recorded is not lost', async () => {
    await post(`/api/colourways/${f.colourway}/masters`, {
      id: newId(),
      lab: { L: 70, a: 0, b: 40, ...D65 },
      reason: 'faded on the card',
    }).expect(200);
    const { body } = await studio.agent.get(`/api/colourways/${f.colourway}`).expect(200);
    expect((body as ColourwayDetail).masters.map((m) => m.lab.L)).toEqual([70, 74]);
  });

  it('is neither another colourway’s lot nor nothing at all; and a record is never rewritten', async () => {
    await freePots(studio);
    const other = await makeLot(studio, f);
    await dyeLot(studio, f, other);
    await post(`/api/lots/${other}/readings`, reading('dry')).expect(200);
    expect(((await master({ lotId: other, reason: 'so' }).expect(422)).body as Problem).detail).toMatch(
      /another colourway/,
    );
    expect(((await master({ reason: 'so' }).expect(422)).body as Problem).detail).toMatch(/Say which colour/);
    await expect(studio.context.database.db.execute(`UPDATE masters SET reason = 'x'`)).rejects.toThrow();
  });

  it('a variegated master has its zones: read in the lot that was liked, they are what the next is held against', async () => {
    await freePots(studio);
    await post('/api/stock-lots', delivery(f.alum, '500 g')).expect(200);
    await post('/api/stock-lots', delivery(f.weld, '3 kg')).expect(200);
    const banded = newId();
    const [recipeId, version] = [newId(), newId()];
    const zone = (title: string, fromPercent: number, toPercent: number) => ({
      title,
      way: 'dip',
      fromPercent,
      toPercent,
      order: 1,
      minutes: 5,
      waitMin: 0,
      mlPerPiece: null,
      materialId: null,
      spacingCm: null,
    });
    const body = {
      ...recipeBody(f.alum, f.weld),
      placed: { lengthCm: 80, piece: 'skein', bleedPercent: 2, zones: [zone('Foot', 0, 30), zone('Head', 60, 100)] },
    };
    await post('/api/recipes', { id: recipeId, name: 'Banded', versionId: version, body }).expect(200);
    await post('/api/colourways', {
      id: banded,
      name: 'Banded gold',
      recipeVersionId: version,
      baseMaterialId: f.wool,
      master: null,
      toleranceDeltaE: 2,
      note: '',
    }).expect(200);
    const dyedBands = async (foot: number, head: number): Promise<string> => {
      await freePots(studio);
      const id = await makeLot(studio, { ...f, colourway: banded }, { quantityText: '2 hanks of 50 g' });
      await dyeLot(studio, f, id, { grams: 100 });
      for (const [title, L] of [
        ['Foot', foot],
        ['Head', head],
      ] as const)
        await post(`/api/lots/${id}/readings`, reading('dry', L, { zone: title })).expect(200);
      return id;
    };
    const liked = await dyedBands(60, 80);
    const piece = reading('dry', 72, { piece: '2' });
    await post(`/api/lots/${liked}/readings`, piece).expect(200);
    const readingId = (piece as { id: string }).id;
    const made = { id: newId(), lab: null, lotId: liked, readingId, reason: '' };
    expect((await post(`/api/colourways/${banded}/masters`, { ...made, readingId: newId() })).status).toBe(404);
    await post(`/api/colourways/${banded}/masters`, made).expect(200);
    const { colourway, masters } = (await studio.agent.get(`/api/colourways/${banded}`).expect(200))
      .body as ColourwayDetail;
    expect(colourway.master?.L).toBe(72);
    expect(masters[0]?.zones.map((z) => [z.zone, z.L])).toEqual([
      ['Foot', 60],
      ['Head', 80],
    ]);
    const next = await lotOf(await dyedBands(60, 70));
    expect(next.zoneStandards.map((z) => z.zone)).toEqual(['Foot', 'Head']);
    const off = Object.fromEntries(next.summary.family.map((m) => [m.label, m.deltaE]));
    expect(off['Foot']).toBe(0);
    expect(off['Head']).toBeGreaterThan(5);
  });
});
