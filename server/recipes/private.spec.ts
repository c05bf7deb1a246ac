import type {
  Bench,
  Colourway,
  LotDetail,
  LotsBeside,
  Problem,
  Proposal,
  RecipeOutline,
  RecipeSummary,
  RecipeVersionDetail,
  StockLot,
} from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  agreed,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  runEntry,
  stripTrial,
  weighing,
  wholeDocument,
} from '../test/test-studio';

describe.each(KINDS)('a recipe kept to some, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let ada: string;
  let tam: string;
  let lotId: string;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    tam = newId();
    await studio.agent
      .post('/api/people')
      .send({ id: tam, name: 'Tam', passphrase: 'six brown skeins', role: 'owner' })
      .expect(200);
    await studio.stranger.post('/api/auth/session').send({ personId: tam, passphrase: 'six brown skeins' }).expect(200);
    const { people } = (await studio.agent.get('/api/auth').expect(200)).body as {
      people: { id: string; name: string }[];
    };
    ada = people.find((p) => p.name === 'Ada Reed')?.id ?? '';
    lotId = await makeLot(studio, f);
    await studio.agent.post(`/api/lots/${lotId}/entries`).send(runEntry(0, 'start')).expect(200);
    await studio.agent
      .post(`/api/lots/${lotId}/entries`)
      .send(runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '600 g') }))
      .expect(200);
  });
  afterAll(() => studio.close());

  const keep = (keptTo: string[] | null, before: string[] | null, agent = studio.agent) =>
    agent.put(`/api/recipes/${f.recipeId}/kept-to`).send({ keptTo, before });
  const mine = async <T>(path: string): Promise<T> => (await studio.agent.get(path).expect(200)).body as T;
  const theirs = async <T>(path: string): Promise<T> => (await studio.stranger.get(path).expect(200)).body as T;
  const notThere = async (path: string): Promise<void> => {
    const reply = await studio.stranger.get(path);
    expect([path, reply.status]).toEqual([path, 404]);
    expect((reply.body as Problem).detail).toMatch(/recipe|cost/i);
  };

  it('is everybody’s at first', async () => {
    expect((await theirs<RecipeSummary[]>('/api/recipes')).map((r) => [r.id, r.isPrivate])).toEqual([
      [f.recipeId, false],
    ]);
    expect((await mine<RecipeVersionDetail>(`/api/recipe-versions/${f.version}`)).recipe.keptTo).toBeNull();
  });

  it('is kept by one who keeps it to themselves too, and not over somebody else’s decision', async () => {
    expect((await keep([tam], null)).status).toBe(422);
    expect((await keep([], null)).status).toBe(400);
    await keep([ada], null).expect(200);
    expect((await keep(null, null)).status).toBe(409);
    expect((await keep([ada, newId()], [ada])).status).toBe(404);
  });

  it('is not there for the others, by whatever way they ask', async () => {
    expect(await theirs<RecipeSummary[]>('/api/recipes')).toEqual([]);
    await notThere(`/api/recipe-versions/${f.version}`);
    await notThere(`/api/recipe-versions/${f.version}/file`);
    await notThere(`/api/notes?subject=recipe&id=${f.recipeId}`);
    await notThere(`/api/lots/${lotId}/cost`);
    expect((await keep(null, [ada], studio.stranger)).status).toBe(404);
    const version = { id: newId(), body: (await mine<RecipeVersionDetail>(`/api/recipe-versions/${f.version}`)).body };
    expect((await studio.stranger.post(`/api/recipes/${f.recipeId}/versions`).send(version)).status).toBe(404);
    const ask = { colourwayId: f.colourway, quantityText: '2 hanks', waterId: f.water, reorderOfId: null };
    expect((await studio.stranger.post('/api/lots/proposal').send(ask)).status).toBe(404);
    expect((await studio.stranger.post(`/api/lots/${lotId}/as-done`).send({ id: newId() })).status).toBe(404);
    expect((await theirs<{ kind: string }[]>('/api/search?q=weld')).filter((h) => h.kind === 'recipe')).toEqual([]);
    const trial = stripTrial(f);
    expect((await studio.stranger.post('/api/strip-trials').send(trial)).status).toBe(404);
    const note = runEntry(0, 'note', { text: 'weld stood overnight' });
    await studio.agent.post(`/api/lots/${lotId}/entries`).send(note).expect(200);
    expect(JSON.stringify(await mine('/api/search?q=overnight'))).toContain('weld stood');
    expect(await theirs('/api/search?q=overnight')).toEqual([]);
    const [colourway] = await theirs<Colourway[]>('/api/colourways');
    expect(colourway?.recipe.name).toBe('kept private');
  });

  it('its amounts alone are kept: the others see what goes in, and dye by code names', async () => {
    await keep(null, [ada]).expect(200);
    const path = `/api/recipes/${f.recipeId}/amounts-kept-to`;
    await studio.agent
      .put(path)
      .send({ keptTo: [ada], before: null })
      .expect(200);
    const [row] = await theirs<RecipeSummary[]>('/api/recipes');
    expect([row?.lacksAmounts, row?.versions.map((v) => v.id), row?.materials]).toEqual([
      true,
      [f.version],
      expect.arrayContaining(['Weld']),
    ]);
    await notThere(`/api/recipe-versions/${f.version}`);
    await notThere(`/api/recipe-versions/${f.version}/file`);
    expect((await studio.stranger.put(path).send({ keptTo: null, before: [ada] })).status).toBe(404);
    const outline = await theirs<RecipeOutline>(`/api/recipe-versions/${f.version}/outline`);
    expect(outline.keptTo.map((p) => p.name)).toEqual(['Ada Reed']);
    expect(outline.steps.flatMap((s) => s.materials)).toEqual(expect.arrayContaining(['Weld']));
    expect(JSON.stringify(outline)).not.toMatch(/owf|percent|amount"/i);
    expect((await theirs<LotDetail>(`/api/lots/${lotId}`)).codeNames?.mine).toBe(false);
    expect((await mine<LotDetail>(`/api/lots/${lotId}`)).codeNames?.mine).toBe(true);
    expect((await mine<RecipeVersionDetail>(`/api/recipe-versions/${f.version}`)).recipe.amountsKeptTo).toHaveLength(1);
    await studio.agent
      .put(path)
      .send({ keptTo: null, before: [ada] })
      .expect(200);
  });

  it('what makes one colourway is kept, while its recipe is everybody’s', async () => {
    const path = `/api/colourways/${f.colourway}/kept-to`;
    await studio.agent
      .put(path)
      .send({ keptTo: [ada], before: null })
      .expect(200);
    const [colourway] = await theirs<Colourway[]>('/api/colourways');
    expect([colourway?.isVeiled, colourway?.recipe.name]).toEqual([true, 'kept private']);
    expect(colourway?.recipe.versionId).not.toBe(f.version);
    const lot = await theirs<LotDetail>(`/api/lots/${lotId}`);
    expect([lot.codeNames?.mine, lot.recipe.name]).toEqual([false, 'kept private']);
    expect(lot.recipe.versionId).not.toBe(f.version);
    const seen = await theirs<RecipeVersionDetail>(`/api/recipe-versions/${f.version}`);
    expect([seen.colourways, seen.lots]).toEqual([[], []]);
    expect((await mine<RecipeVersionDetail>(`/api/recipe-versions/${f.version}`)).lots).not.toEqual([]);
    const ask = { colourwayId: f.colourway, quantityText: '2 hanks', waterId: f.water, reorderOfId: null };
    expect((await studio.stranger.post('/api/lots/proposal').send(ask)).status).toBe(404);
    const edit = { version: 1, recipeVersionId: f.version, toleranceDeltaE: 2, note: '' };
    expect((await studio.stranger.put(`/api/colourways/${f.colourway}`).send(edit)).status).toBe(404);
    expect((await studio.stranger.put(path).send({ keptTo: null, before: [ada] })).status).toBe(404);
    await studio.stranger.get('/api/studio-file').expect(422);
    const whole = await wholeDocument(studio.context.database.db);
    expect(whole.colourways.map((c) => c.keptTo)).toEqual([[ada]]);
    await studio.agent
      .put(path)
      .send({ keptTo: null, before: [ada] })
      .expect(200);
    await keep([ada], null).expect(200);
  });

  it('a lot beside another tells nothing of what went into it', async () => {
    const other = await makeLot(studio, f, { quantityText: '1 hank of 50 g' });
    const path = `/api/lots/${lotId}/beside?other=${other}`;
    expect((await mine<LotsBeside>(path)).factors.map((x) => x.name)).toContain('Weld');
    const { factors, otherwise } = await theirs<LotsBeside>(path);
    expect([factors, otherwise]).toEqual([[], []]);
    await studio.agent
      .post(`/api/lots/${other}/entries`)
      .send(runEntry(0, 'cancel', { text: 'only to lay beside' }))
      .expect(200);
  });

  it('neither the book, nor what was tried, nor a trial’s colours tell what went in', async () => {
    const jar = newId();
    const send = (path: string, body: object) => studio.agent.post(path).send(body).expect(200);
    await send('/api/swatches', { id: newId(), name: 'Snippet', lotId, place: null, note: '' });
    const fading = { id: newId(), kind: 'light', place: 'window', name: 'Card', lotId, cloths: [], note: '' };
    await send('/api/fastness', { ...fading, startedOn: '2026-01-01' });
    await send(`/api/lots/${lotId}/fibre`, {
      id: jar,
      movementId: newId(),
      newBaseId: newId(),
      treatment: 'finished',
      light: 'open',
      baseId: null,
      newBase: 'Kept hanks',
      tag: '',
      quantityText: '50 g',
      place: 'shop',
      note: '',
    });
    const trial = stripTrial(f) as { id: string };
    await send('/api/strip-trials', trial);
    const lab = { L: 60, a: 5, b: 40 };
    const read = { id: newId(), number: 1, lab, illuminant: 'D65', observer: '10', note: '', replacesId: null };
    await send(`/api/strip-trials/${trial.id}/readings`, read);
    const paths = [
      '/api/swatches',
      '/api/fastness',
      `/api/fastness/of?subject=stockLot&id=${jar}`,
      '/api/colours',
      '/api/colours/nearest?L=60&a=5&b=40&count=9',
      `/api/colours?materialId=${f.weld}`,
    ];
    const knowing = JSON.stringify(await Promise.all(paths.map((path) => mine(path))));
    expect(knowing).toMatch(/Weld/);
    for (const path of paths)
      expect([path, /weld|alum\b/i.exec(JSON.stringify(await theirs(path)))]).toEqual([path, null]);
  });

  it('a whole file of the studio is taken by who may see all of it', async () => {
    await studio.agent.get('/api/studio-file').expect(200);
    const refused = (await studio.stranger.get('/api/studio-file').expect(422)).body as Problem;
    expect(refused.detail).toContain('kept to Ada Reed');
    await studio.stranger.get('/api/stores/export?kind=movements').expect(422);
  });

  it('at the bench the others see what to do, with code names; no name of a material or jar is told', async () => {
    const lot = await theirs<LotDetail>(`/api/lots/${lotId}`);
    expect(lot.codeNames).toEqual({
      mine: false,
      names: [
        { code: 'A', name: 'A' },
        { code: 'B', name: 'B' },
      ],
    });
    expect(lot.recipe.name).toBe('kept private');
    const bench = await theirs<Bench>('/api/bench');
    for (const shown of [lot, bench.lots.find((l) => l.summary.id === lotId)]) {
      const { plan, stockLots, madeFrom, factors } = shown!;
      const told = JSON.stringify({ plan, stockLots, madeFrom });
      expect(/.{0,40}(weld|alum\b).{0,20}/i.exec(told)?.[0]).toBeUndefined();
      expect(factors).toEqual([]);
      expect(plan.steps.flatMap((s) => s.weighings.map((w) => w.materialName))).toEqual(['Rug wool', 'A', 'B']);
      expect(stockLots.map((j) => j.tag)).toEqual(expect.arrayContaining(['A1', 'B1']));
    }
    const own = await mine<LotDetail>(`/api/lots/${lotId}`);
    expect(own.codeNames?.mine).toBe(true);
    expect(JSON.stringify(own.codeNames)).toMatch(/A1 = .*Potassium alum/);
  });

  it('the others weigh by the codes, and the shelf stays true; the jar doesn’t tell them the lot', async () => {
    const at = (body: object) => studio.stranger.post(`/api/lots/${lotId}/entries`).send(body).expect(200);
    await at(runEntry(0, 'finish'));
    await at(runEntry(1, 'start'));
    await at(runEntry(1, 'weigh', { weighing: weighing(f.alum, f.alumStockLot, '90 g') }));
    const [seen, known] = [
      await theirs<StockLot>(`/api/stock-lots/${f.alumStockLot}`),
      await mine<StockLot>(`/api/stock-lots/${f.alumStockLot}`),
    ];
    expect(seen.row.onHand).toBe(known.row.onHand);
    expect(known.lines.at(-1)?.lot?.id ?? known.lines.find((l) => l.kind === 'use')?.lot?.id).toBe(lotId);
    expect(seen.lines.map((l) => l.lot?.tag).filter(Boolean)).toEqual(expect.arrayContaining(['a private lot']));
    expect(JSON.stringify(seen)).not.toContain(lotId);
  });

  it('is shown to more, and to everybody again', async () => {
    await keep([ada, tam], [ada]).expect(200);
    await studio.stranger.get(`/api/recipe-versions/${f.version}`).expect(200);
    await keep(null, [tam, ada]).expect(200);
    expect((await theirs<LotDetail>(`/api/lots/${lotId}`)).codeNames).toBeNull();
  });

  it('one version is kept alone: the others find the recipe without it, and dye that by code names', async () => {
    const { body } = await mine<RecipeVersionDetail>(`/api/recipe-versions/${f.version}`);
    const secret = newId();
    await studio.agent.post(`/api/recipes/${f.recipeId}/versions`).send({ id: secret, body }).expect(200);
    const keepVersion = (keptTo: string[] | null, before: string[] | null, id = secret, agent = studio.agent) =>
      agent.put(`/api/recipe-versions/${id}/kept-to`).send({ keptTo, before });
    await keepVersion([tam], null).expect(422);
    await keepVersion([ada], [tam]).expect(409);
    await keepVersion([ada], null, newId()).expect(404);
    await keepVersion([ada], null).expect(200);
    expect((await mine<RecipeVersionDetail>(`/api/recipe-versions/${secret}`)).keptTo?.map((p) => p.name)).toEqual([
      'Ada Reed',
    ]);
    await notThere(`/api/recipe-versions/${secret}`);
    await keepVersion(null, [ada], secret, studio.stranger).expect(404);
    const [recipe] = await theirs<RecipeSummary[]>('/api/recipes');
    expect(recipe?.versions.map((v) => v.id)).toEqual([f.version]);
    const shown = await theirs<RecipeVersionDetail>(`/api/recipe-versions/${f.version}`);
    expect(shown.recipe.versions.map((v) => v.number)).toEqual([1]);
    expect((await theirs<LotDetail>(`/api/lots/${lotId}`)).recipe.name).not.toBe('kept private');
    const colourway = newId();
    await studio.agent
      .post('/api/colourways')
      .send({
        id: colourway,
        name: 'Nobody’s business',
        recipeVersionId: secret,
        baseMaterialId: f.wool,
        master: null,
        toleranceDeltaE: 2,
        note: '',
      })
      .expect(200);
    const ask = { colourwayId: colourway, quantityText: '1 hank of 50 g', waterId: null, reorderOfId: null };
    expect((await studio.stranger.post('/api/lots/proposal').send(ask)).status).toBe(404);
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    const secretLot = newId();
    await studio.agent
      .post('/api/lots')
      .send({ id: secretLot, ask, ...agreed(proposal) })
      .expect(200);
    const lot = await theirs<LotDetail>(`/api/lots/${secretLot}`);
    expect([lot.recipe.name, lot.codeNames?.mine]).toEqual(['kept private', false]);
    expect((await mine<LotDetail>(`/api/lots/${secretLot}`)).codeNames?.mine).toBe(true);
    await keepVersion(null, [ada]).expect(200);
    await theirs(`/api/recipe-versions/${secret}`);
  });
});
