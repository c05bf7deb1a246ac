import type {
  Problem,
  RecipeFile,
  RecipeFileCheck,
  RecipeSummary,
  RecipeVersionDetail,
  StripTrialDetail,
} from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  callsOf,
  dyeLot,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  proof,
  reading,
  recipeBody,
  stripReading,
  stripTrial,
  verdict,
} from '../test/test-studio';

describe.each(KINDS)('recipes, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const { post, created, get } = callsOf(() => studio);
  const version = (id: string): Promise<RecipeVersionDetail> => get(`/api/recipe-versions/${id}`);
  const count = async (): Promise<number> =>
    ((await studio.agent.get('/api/recipes').expect(200)).body as RecipeSummary[]).flatMap((r) => r.versions).length;
  type Body = { steps: Record<string, unknown>[] } & Record<string, unknown>;
  const body = (): Body => recipeBody(f.alum, f.weld) as Body;
  const withStep = (change: object): Body => ({
    ...body(),
    steps: [{ ...body().steps[0], ...change }, ...body().steps.slice(1)],
  });
  const dosed = (dose: object): Body => withStep({ doses: [{ materialId: f.alum, ...dose }] });
  const zone = (title: string, fromPercent: number, toPercent: number): object => ({
    title,
    way: 'dip',
    fromPercent,
    toPercent,
    order: 1,
    minutes: 10,
    waitMin: 0,
    mlPerPiece: null,
    materialId: null,
    spacingCm: null,
  });
  const placed = (...zones: object[]): Body => ({
    ...body(),
    placed: { lengthCm: 75, piece: 'skein', bleedPercent: 4, zones },
  });

  it.each<[string, () => Body, number, RegExp]>([
    ['a per cent below nothing', () => dosed({ percentOwf: -5 }), 400, /from 0.001 to 2000 %/],
    ['a per cent over 2,000', () => dosed({ by: 'percentOwf', percentOwf: 2001 }), 400, /from 0.001 to 2000 %/],
    [
      'a chain with a circle',
      () => ({
        ...body(),
        steps: [
          { ...body().steps[0], key: 'a', after: ['b'] },
          { ...body().steps[1], key: 'b', after: ['a'] },
        ],
      }),
      400,
      /goes round in a circle/,
    ],
    [
      'a wait shorter than its least',
      () => withStep({ wait: { minMinutes: 600, maxMinutes: 60 } }),
      400,
      /60 min at most, but wants 600 min/,
    ],
    [
      'zones that overlap',
      () => placed(zone('low', 0, 50), zone('high', 40, 90)),
      400,
      /overlap between 40 % and 50 %/,
    ],
    ['zones beyond the piece', () => placed(zone('low', 60, 130)), 400, /from 0 to 100 %/],
    ['a zone that ends before it begins', () => placed(zone('low', 60, 60)), 400, /ends before it begins/],
    ['no steps', () => ({ ...body(), steps: [] }), 400, /at least one step/],
    ['hotter than its ceiling', () => withStep({ temperatureC: 95, ceilingC: 88 }), 400, /above its own ceiling/],
    [
      'a shortest bath longer than its own',
      () => ({ ...body(), minLiquorRatio: 60 }),
      400,
      /longer than the recipe’s own/,
    ],
    ['a pH upside down', () => withStep({ targetPh: { low: 9, high: 5 } }), 400, /Swap them/],
    ['a school nobody holds', () => ({ ...body(), practice: { mordantHeat: 'tepid' } }), 400, /answers offered/],
    ['a dose of fibre', () => dosed({ materialId: f.wool, percentOwf: 5 }), 422, /is a base/],
    ['a packet of what is weighed', () => dosed({ by: 'packet' }), 422, /how much fibre a packet/],
    ['a material from nowhere', () => dosed({ materialId: newId(), percentOwf: 5 }), 404, /not in Stores/],
    [
      'one material twice in a step',
      () =>
        withStep({
          doses: [
            { materialId: f.alum, percentOwf: 5 },
            { materialId: f.alum, by: 'gPerLitre', gPerL: 2 },
          ],
        }),
      422,
      /one material twice/,
    ],
  ])('refuses %s, and keeps nothing', async (_name, quantityText, status, message) => {
    const before = await count();
    const reply = await post('/api/recipes', {
      id: newId(),
      name: `Bad ${newId()}`,
      versionId: newId(),
      body: quantityText(),
    });
    expect([reply.status, (reply.body as Problem).detail]).toEqual([status, expect.stringMatching(message)]);
    expect(await count()).toBe(before);
  });
  it('refuses a second recipe of one name', async () => {
    const reply = await post('/api/recipes', { id: newId(), name: 'Weld on alum', versionId: newId(), body: body() });
    expect((reply.body as Problem).detail).toMatch(/has that name already/);
  });

  it('reads a body of before doses had ways as per cent of fibre, everything else filled in', async () => {
    const { steps, water, placed: none } = (await version(f.version)).body;
    expect(steps[0]?.doses[0]).toEqual({ materialId: f.alum, by: 'percentOwf', percentOwf: 15 });
    expect([steps[0]?.after, steps[0]?.course, water, none]).toEqual([
      null,
      [],
      { asks: 'any', hardnessDh: null },
      null,
    ]);
  });

  it('calls a version proven only on lots and proofs within tolerance, and retires it only for a reason', async () => {
    const id = await created(`/api/recipes/${f.recipeId}/versions`, { id: newId(), body: body() });
    const stand = (status: string, reason = '') =>
      post(`/api/recipe-versions/${id}/standings`, { id: newId(), status, reason });
    expect(((await stand('proven').expect(422)).body as Problem).detail).toMatch(
      /wants 3 lots or proofs.*0 lots and 0 proofs/,
    );
    for (const L of [74, 75, 60]) await created(`/api/recipe-versions/${id}/proofs`, proof(L));
    expect((await version(id)).evidence).toEqual({ lotsInTolerance: 0, proofsInTolerance: 2, needed: 3 });
    expect(((await stand('proven').expect(422)).body as Problem).detail).toMatch(/judge 1 more/);
    const before = (await studio.agent.get('/api/colourways').expect(200)).body as { id: string; version: number }[];
    await studio.agent
      .put(`/api/colourways/${f.colourway}`)
      .send({ version: before[0]?.version, recipeVersionId: id, toleranceDeltaE: 2, note: '' })
      .expect(200);
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    await dyeLot(studio, f, lotId, { grams: 100 });
    const gave = async (): Promise<RecipeSummary['gave'] | undefined> =>
      ((await studio.agent.get('/api/recipes').expect(200)).body as RecipeSummary[]).find((r) =>
        r.versions.some((v) => v.id === id),
      )?.gave;
    expect(await gave()).toBeNull();
    await created(`/api/lots/${lotId}/readings`, reading('dry', 73));
    expect(await gave()).toMatchObject({ lab: { L: 73 } });
    await created(`/api/lots/${lotId}/verdicts`, verdict('pass'));
    await stand('proven').expect(200);
    expect(await version(id)).toMatchObject({
      status: 'proven',
      evidence: { lotsInTolerance: 1 },
      lots: [{ state: 'released' }],
    });
    await stand('trial').expect(422);
    expect(((await stand('retired').expect(422)).body as Problem).detail).toMatch(/Say why/);
    await stand('retired', 'fades').expect(200);
    const ask = { colourwayId: f.colourway, quantityText: '1 hank of 100 g', waterId: null, reorderOfId: null };
    const proposal = (await post('/api/lots/proposal', ask).expect(200)).body as {
      digest: string;
      checks: { severity: string; message: string }[];
    };
    expect(proposal.checks[0]).toMatchObject({
      severity: 'stop',
      message: expect.stringContaining('is retired') as string,
    });
    expect(
      (
        (
          await post('/api/lots', {
            id: newId(),
            ask,
            digest: proposal.digest,
            acceptShortages: false,
            note: '',
          }).expect(422)
        ).body as Problem
      ).detail,
    ).toMatch(/can’t start so/);
    await studio.agent
      .put(`/api/colourways/${f.colourway}`)
      .send({ version: (before[0]?.version ?? 0) + 1, recipeVersionId: f.version, toleranceDeltaE: 2, note: '' })
      .expect(200);
  });

  describe('strips in bowls, placed by eye', () => {
    const bowls = (rest: object = {}) =>
      stripTrial(f, {
        recipeVersionId: null,
        factor: 'liquor',
        materialId: null,
        totalText: '',
        levels: ['coffee', 'coffee, grounds in', 'red onion'].map((label) => ({ value: null, refId: null, label })),
        ...rest,
      });
    const look = (seen: object[], rest: object = {}) => ({
      id: newId(),
      state: 'dry',
      light: 'daylight',
      seen: seen.map((s) => ({ warmth: 'between', evenness: 'even', goodFor: '', ...s })),
      replacesId: null,
      ...rest,
    });
    it('need no recipe, no balance and no instrument', async () => {
      const id = await created('/api/strip-trials', bowls());
      await created(`/api/strip-trials/${id}/looks`, look([{ number: 1, place: 1 }], { state: 'wet' }));
      const first = await created(`/api/strip-trials/${id}/looks`, look([{ number: 3, place: 1 }]));
      const again = look([{ number: 3, place: 2, warmth: 'warm', goodFor: 'backing' }], { replacesId: first });
      await created(`/api/strip-trials/${id}/looks`, again);
      await post(`/api/strip-trials/${id}/looks`, { ...again, id: newId() }).expect(409);
      const trial = await get<StripTrialDetail>(`/api/strip-trials/${id}`);
      expect([trial.summary.recipeVersionId, trial.summary.seen, trial.totalG]).toEqual([null, 2, null]);
      expect(trial.layout.map((s) => [s.label, s.weight])).toContainEqual(['red onion', null]);
      expect(trial.looks.map((l) => l.state)).toEqual(['wet', 'dry', 'dry']);
      const promoted = await post(`/api/strip-trials/${id}/promotions`, {
        id: newId(),
        number: 3,
        name: null,
        recipeId: newId(),
      }).expect(422);
      expect((promoted.body as Problem).detail).toMatch(/by no recipe/);
    });
    it.each<[string, object, RegExp]>([
      ['a strip that there is not', look([{ number: 4, place: 1 }]), /has 3 strips/],
      ['nothing', look([]), /at least one strip/],
      ['somebody else’s word', look([{ number: 1, place: 1 }], { replacesId: newId() }), /said yourself/],
    ])('refuse %s', async (_name, said, sentence) => {
      const id = await created('/api/strip-trials', bowls());
      expect(((await post(`/api/strip-trials/${id}/looks`, said).expect(422)).body as Problem).detail).toMatch(
        sentence,
      );
    });
    it('are the only ones without a recipe and a weight', async () => {
      const without = await post('/api/strip-trials', stripTrial(f, { recipeVersionId: null })).expect(422);
      expect((without.body as Problem).detail).toMatch(/Choose the recipe/);
      const unweighed = await post('/api/strip-trials', stripTrial(f, { totalText: '' })).expect(422);
      expect((unweighed.body as Problem).detail).toMatch(/Weigh all strips together/);
    });
  });

  describe('strip trials', () => {
    let id: string;
    const read = (): Promise<StripTrialDetail> => get(`/api/strip-trials/${id}`);
    beforeAll(async () => (id = await created('/api/strip-trials', stripTrial(f))));

    it('lays out equal strips with their knots and what each is weighed', async () => {
      const { layout } = await read();
      expect(
        layout.map((s) => [s.weight?.value, s.knots, s.weighings.find((w) => w.materialId === f.weld)?.target.value]),
      ).toEqual([
        [20, [1], 5],
        [20, [2], 10],
        [20, [3], 20],
      ]);
    });
    it('ranks what was read, deepest first, by the reading that stands', async () => {
      const wrong = await created(`/api/strip-trials/${id}/readings`, stripReading(1, 40));
      await created(`/api/strip-trials/${id}/readings`, stripReading(1, 80, { replacesId: wrong }));
      await created(`/api/strip-trials/${id}/readings`, stripReading(3, 60));
      expect((await read()).ranked.map((r) => r.number)).toEqual([3, 1]);
      expect((await read()).readings).toHaveLength(3);
      expect(
        ((await post(`/api/strip-trials/${id}/readings`, stripReading(9, 60)).expect(422)).body as Problem).detail,
      ).toMatch(/has 3 strips/);
      await post(`/api/strip-trials/${id}/readings`, stripReading(1, 82, { replacesId: wrong })).expect(409);
    });
    it('makes a recipe of the best one in a step: the next version, or one of its own', async () => {
      const next = await created(`/api/strip-trials/${id}/promotions`, {
        id: newId(),
        number: 2,
        name: null,
        recipeId: newId(),
      });
      const own = await created(`/api/strip-trials/${id}/promotions`, {
        id: newId(),
        number: 3,
        name: 'Weld deep',
        recipeId: newId(),
      });
      expect(await version(next)).toMatchObject({
        status: 'trial',
        recipe: { id: f.recipeId },
        body: { steps: [{}, { doses: [{ percentOwf: 50 }] }, {}], note: expect.stringContaining('Strip 2') as string },
      });
      expect(await version(own)).toMatchObject({
        number: 1,
        recipe: { name: 'Weld deep' },
        body: { steps: [{}, { doses: [{ percentOwf: 100 }] }, {}] },
      });
      expect((await read()).promoted.map((p) => [p.number, p.versionId])).toEqual([
        [2, next],
        [3, own],
      ]);
    });
    it.each<[string, object, RegExp]>([
      ['crumbs', { totalText: '3 g' }, /too little for a balance/],
      ['a weight nobody can read', { totalText: 'some' }, /./],
      ['one level', { levels: [{ value: 5, refId: null, label: '5' }] }, /2 to 24 strips/],
      [
        'sources that are no jars',
        { factor: 'source', levels: [1, 2].map((n) => ({ value: null, refId: newId(), label: `${n}` })) },
        /one jar of the dyestuff/,
      ],
      ['a name that is taken', { name: 'twice' }, /name already/],
    ])('refuses %s', async (_name, change, message) => {
      if ('name' in change) await created('/api/strip-trials', stripTrial(f, change));
      const reply = await post('/api/strip-trials', stripTrial(f, change)).expect(422);
      expect((reply.body as Problem).detail).toMatch(message);
    });
    it('varies source, time, mordant and water as well', async () => {
      const two = (values: (number | null)[], refs: (string | null)[], change: object): Promise<string> =>
        created(
          '/api/strip-trials',
          stripTrial(f, {
            ...change,
            levels: values.map((value, i) => ({ value, refId: refs[i] ?? null, label: `level ${i}` })),
          }),
        );
      const timed = await two([30, 90], [], { factor: 'time', materialId: null });
      await two([null, null], [f.weldStockLot, f.weldStockLot], { factor: 'source' });
      await two([10, 20], [], { factor: 'mordant', materialId: f.alum });
      const acetate = await created('/api/materials', {
        id: newId(),
        name: 'Aluminium acetate',
        kind: 'mordant',
        measure: 'weight',
        hazards: [],
        note: '',
        base: null,
      });
      const salts = await two([null, null], [f.alum, acetate], { factor: 'mordant', materialId: f.alum });
      expect(
        (
          await version(
            await created(`/api/strip-trials/${salts}/promotions`, {
              id: newId(),
              number: 2,
              name: null,
              recipeId: newId(),
            }),
          )
        ).body.steps[0]?.doses,
      ).toEqual([{ materialId: acetate, by: 'percentOwf', percentOwf: 15 }]);
      const water = await two([null, null], [f.water, f.water], { factor: 'water', materialId: null });
      expect(
        (
          await version(
            await created(`/api/strip-trials/${timed}/promotions`, {
              id: newId(),
              number: 2,
              name: null,
              recipeId: newId(),
            }),
          )
        ).body.steps[1]?.durationMin,
      ).toBe(90);
      expect(
        (
          await version(
            await created(`/api/strip-trials/${water}/promotions`, {
              id: newId(),
              number: 1,
              name: null,
              recipeId: newId(),
            }),
          )
        ).body.water,
      ).toEqual({ asks: 'hard', hardnessDh: 14 });
    });
  });

  describe('recipe files', () => {
    const file = async (): Promise<RecipeFile> =>
      JSON.parse((await studio.agent.get(`/api/recipe-versions/${f.version}/file`).expect(200)).text) as RecipeFile;
    it('holds one version and what it calls every material, by the published schema', async () => {
      const out = await file();
      expect(out).toMatchObject({
        format: 'vestigia-recipe',
        formatVersion: 2,
        name: 'Weld on alum',
        number: 1,
        materials: [{ name: 'Potassium alum' }, { name: 'Weld' }],
      });
      const schema = (await studio.agent.get('/api/recipes/schema.json').expect(200)).body as { required: string[] };
      expect(Object.keys(out)).toEqual(expect.arrayContaining(schema.required));
    });
    it('finds the studio’s own materials, by id, by name, by plant, and says what is missing', async () => {
      const out = await file();
      const strange = {
        ...out,
        name: 'From elsewhere',
        materials: [
          { ...out.materials[0], id: f.alum, name: 'Alum of theirs' },
          { ...out.materials[1], id: f.weld, name: 'Weld' },
        ],
      };
      const moved = JSON.parse(JSON.stringify(strange).replaceAll(f.weld, newId())) as RecipeFile;
      const check = (await post('/api/recipe-files/check', moved).expect(200)).body as RecipeFileCheck;
      expect(check.materials.map((m) => m.how)).toEqual(['same', 'byName']);
      const missing = JSON.parse(JSON.stringify(moved).replaceAll('"Weld"', '"Woad"')) as RecipeFile;
      expect(
        ((await post('/api/recipe-files/check', missing).expect(200)).body as RecipeFileCheck).materials[1],
      ).toMatchObject({ how: 'missing', here: null });

      const fileId = missing.materials[1]?.id ?? '';
      const take = (mapping: object[], name = 'From elsewhere') =>
        post('/api/recipe-files', { id: newId(), versionId: newId(), name, file: missing, mapping });
      const before = await count();
      expect(((await take([]).expect(422)).body as Problem).detail).toMatch(/Say what Alum of theirs is here/);
      expect(
        (
          (
            await take(
              [
                { fileId: f.alum, materialId: f.alum, newId: newId() },
                { fileId, materialId: f.alum, newId: newId() },
              ],
              'Weld on alum',
            ).expect(422)
          ).body as Problem
        ).detail,
      ).toMatch(/has that name already/);
      expect(await count()).toBe(before);
      const woad = newId();
      const id = (
        (
          await take([
            { fileId: f.alum, materialId: f.alum, newId: newId() },
            { fileId, materialId: null, newId: woad },
          ]).expect(200)
        ).body as { id: string }
      ).id;
      const brought = await version(id);
      expect([brought.status, brought.body.steps[1]?.doses[0]?.materialId]).toEqual(['trial', woad]);
    });
    it('comes back as it went: written, taken in and written again', async () => {
      const out = await file();
      const id = (
        (
          await post('/api/recipe-files', {
            id: newId(),
            versionId: newId(),
            name: 'Weld again',
            file: out,
            mapping: out.materials.map((m) => ({ fileId: m.id, materialId: m.id, newId: newId() })),
          }).expect(200)
        ).body as { id: string }
      ).id;
      const again = JSON.parse(
        (await studio.agent.get(`/api/recipe-versions/${id}/file`).expect(200)).text,
      ) as RecipeFile;
      expect({ ...again, name: out.name, status: out.status }).toEqual(out);
    });
    it.each<[string, object, RegExp]>([
      ['a newer file', { formatVersion: 3 }, /newer version. Update/],
      ['another program’s file', { format: 'else' }, /not a recipe file/],
      [
        'a circle in it',
        {
          body: {
            steps: [
              {
                kind: 'dye',
                title: 'x',
                key: 'x',
                after: ['x'],
                instruction: '',
                durationMin: 1,
                attended: false,
                lookFor: '',
                usesBath: false,
                doses: [],
              },
            ],
            fibres: ['wool'],
            liquorRatio: 30,
            allowedMetals: ['stainless'],
            note: '',
          },
        },
        /circle/,
      ],
    ])('refuses %s', async (_name, change, message) => {
      const reply = await post('/api/recipe-files/check', { ...(await file()), ...change }).expect(400);
      expect((reply.body as Problem).detail).toMatch(message);
    });
  });
});
