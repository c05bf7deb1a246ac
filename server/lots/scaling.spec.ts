import type { LotDetail, Problem, Proposal, Studio } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  agreed,
  callsOf,
  delivery,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  recipeBody,
  runEntry,
  verdict,
  weighing,
} from '../test/test-studio';

describe.each(KINDS)('scaling through the server, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const { post, created } = callsOf(() => studio);
  const ask = (rest: object = {}): object => ({
    colourwayId: f.colourway,
    quantityText: '2 hanks of 100 g',
    waterId: f.water,
    reorderOfId: null,
    ...rest,
  });
  const proposed = async (rest: object = {}): Promise<Proposal> =>
    (await post('/api/lots/proposal', ask(rest)).expect(200)).body as Proposal;

  /** Does every step, weighing what was planned, and passes the lot. */
  const dyeAsPlanned = async (lotId: string): Promise<void> => {
    const enter = (entry: object) => post(`/api/lots/${lotId}/entries`, entry).expect(200);
    const { plan } = (await studio.agent.get(`/api/lots/${lotId}`)).body as LotDetail;
    for (const step of plan.steps) {
      await enter(runEntry(step.index, 'start'));
      for (const w of step.weighings)
        for (const pick of w.picks)
          await enter(
            runEntry(step.index, 'weigh', {
              weighing: weighing(w.materialId, pick.stockLotId ?? '', `${pick.amount / 1000} g`, w.batch),
            }),
          );
      studio.pass(step.index === plan.steps.length - 1 ? 600 : 90);
      await enter(runEntry(step.index, 'finish'));
    }
    for (const { number } of plan.batches)
      await post(`/api/lots/${lotId}/readings`, { ...reading('dry'), batch: number }).expect(200);
    await post(`/api/lots/${lotId}/verdicts`, verdict('pass')).expect(200);
  };

  it('offers ways out that work when a lot fits no way', async () => {
    const refused = (await post('/api/lots/proposal', ask({ quantityText: '24 hanks of 100 g' })).expect(422))
      .body as Problem;
    expect(refused.ways?.map((w) => w.code)).toEqual(['smaller', 'fills', 'vessel']);
    const twice = await proposed({ quantityText: '24 hanks of 100 g', fills: 2 });
    expect(twice.plan.batches.map((b) => b.fill)).toEqual(expect.arrayContaining([1, 2]));
    expect(((await post('/api/lots/proposal', ask({ liquorRatio: 12 })).expect(422)).body as Problem).reason).toBe(
      'ratioOutside',
    );
  });

  it('stops a lot whose recipe brings bleach and vinegar together, though nobody wrote down what they are', async () => {
    const material = (name: string, facts: object): Promise<string> =>
      created('/api/materials', {
        id: newId(),
        name,
        kind: 'modifier',
        measure: 'volume',
        hazards: [],
        note: '',
        base: null,
        facts,
      });
    const bleach = await material('Pot bleach', { catalogueKey: 'chlorine-bleach' });
    const vinegar = await material('Kitchen vinegar', { catalogueKey: 'white-vinegar' });
    for (const id of [bleach, vinegar]) await post('/api/stock-lots', delivery(id, '2 l')).expect(200);
    const body = recipeBody(f.alum, f.weld) as { steps: object[] };
    const dose = (materialId: string): object => ({ materialId, by: 'solution', mlPer100G: 250, gPerL: 50 });
    const clean = { kind: 'modify', title: 'Clear', usesBath: true, doses: [dose(bleach), dose(vinegar)] };
    const recipeId = newId();
    const version = await created('/api/recipes', {
      id: recipeId,
      name: 'Not to be dyed',
      versionId: newId(),
      body: {
        ...body,
        steps: [...body.steps, { instruction: '', durationMin: 10, attended: true, lookFor: '', ...clean }],
      },
    });
    const colourway = await created('/api/colourways', {
      id: newId(),
      name: 'Chlorine',
      recipeVersionId: version,
      baseMaterialId: f.wool,
      master: { L: 90, a: 0, b: 5, illuminant: 'D65', observer: '10' },
      toleranceDeltaE: 2,
      note: '',
    });
    const proposal = await proposed({ colourwayId: colourway });
    expect(proposal.checks.filter((c) => c.severity === 'stop').map((c) => c.message)).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/“Clear” brings .*(bleach|vinegar).* together in one liquor/),
        expect.stringContaining('Pot bleach on protein fibre'),
      ]),
    );
    const refused = await post('/api/lots', {
      id: newId(),
      ask: ask({ colourwayId: colourway }),
      ...agreed(proposal),
    });
    expect(refused.status).toBe(422);
    const kept = (await studio.agent.get('/api/materials')).body as { name: string; hazards: string[] }[];
    expect(kept.find((m) => m.name === 'Pot bleach')?.hazards).toContain('chlorineBleach');
  });

  it('keeps no lot past a caution without its reason, and keeps the reasons', async () => {
    const proposal = await proposed({ intake: { flags: ['stain'], syntheticPercent: null } });
    const messages = proposal.checks.map((c) => c.message);
    expect(messages).toEqual(
      expect.arrayContaining([
        'There are stains.',
        expect.stringContaining('a trial, not proven'),
        expect.stringContaining('Potassium alum: fine powder'),
      ]),
    );
    const body = {
      id: newId(),
      ask: ask({ intake: { flags: ['stain'], syntheticPercent: null } }),
      ...(agreed(proposal) as { acknowledged: { key: string; reason: string }[] }),
    };
    const silent = (
      await post('/api/lots', {
        ...body,
        acknowledged: body.acknowledged.map((a) => (a.key === 'stain' ? { ...a, reason: ' ' } : a)),
      }).expect(422)
    ).body as Problem;
    expect([silent.reason, silent.detail]).toEqual(['notAcknowledged', expect.stringContaining('There are stains.')]);
    const id = await created('/api/lots', body);
    const lot = (await studio.agent.get(`/api/lots/${id}`).expect(200)).body as LotDetail;
    expect(lot.checks.every((c) => c.reason === 'looked at')).toBe(true);
    await post(`/api/lots/${id}/entries`, runEntry(0, 'cancel', { text: 'test' })).expect(200);
    const stopped = await proposed({ intake: { flags: ['notWeighed'], syntheticPercent: null } });
    expect(
      (
        (
          await post('/api/lots', {
            id: newId(),
            ask: ask({ intake: { flags: ['notWeighed'], syntheticPercent: null } }),
            ...agreed(stopped),
          }).expect(422)
        ).body as Problem
      ).reason,
    ).toBe('stopped');
  });

  it('takes more of a weaker jar, as its strength was measured', async () => {
    const [stockLot] = (await studio.agent.get('/api/stores').expect(200)).body.filter(
      (j: { id: string }) => j.id === f.weldStockLot,
    ) as { id: string }[];
    const before = (await studio.agent.get(`/api/stock-lots/${stockLot?.id}`).expect(200)).body as {
      label?: { version: number };
      version?: number;
      facts?: object;
    };
    const version = (before as { version?: number }).version ?? before.label?.version ?? 1;
    const facts = {
      origin: 'receipt',
      plantPart: '',
      stage: '',
      form: 'dried',
      container: '',
      grossMg: null,
      tareMg: null,
      moisturePercent: null,
      strengthPercent: 80,
      strengthBasis: 'strip',
      reference: false,
      gathering: null,
    };
    await studio.agent
      .put(`/api/stock-lots/${f.weldStockLot}`)
      .send({ version, place: 'Shelf', note: '', bestBefore: null, facts })
      .expect(200);
    const { plan } = await proposed();
    expect(plan.materials.find((m) => m.materialId === f.weld)?.total.value).toBe(250);
    await studio.agent
      .put(`/api/stock-lots/${f.weldStockLot}`)
      .send({
        version: version + 1,
        place: 'Shelf',
        note: '',
        bestBefore: null,
        facts: { ...facts, strengthPercent: null },
      })
      .expect(200);
  });

  it('lays the chain anew for another school, tells it, and says what the version was proven with', async () => {
    const cold = await proposed({ schools: [{ key: 'mordantHeat', answer: 'cold' }] });
    expect(cold.plan.steps[1]).toMatchObject({ title: 'Mordant cold', durationMin: 4320 });
    expect(cold.checks.map((c) => c.message)).toContain(
      'Heat of the mordant bath: cold, one to seven days, for this lot.',
    );
    expect(
      (
        (await post('/api/lots/proposal', ask({ schools: [{ key: 'tartar', answer: 'none' }] })).expect(422))
          .body as Problem
      ).detail,
    ).toMatch(/changes nothing in this recipe’s chain/);
    expect(
      (
        (await post('/api/lots/proposal', ask({ schools: [{ key: 'mordantHeat', answer: 'tepid' }] })).expect(400))
          .body as Problem
      ).detail,
    ).toMatch(/schools offered/);
  });

  it('dyes two fibres in one pot, each weighed and taken from its own jar', async () => {
    const silk = await created('/api/materials', {
      id: newId(),
      name: 'Silk ribbon',
      kind: 'fibre',
      measure: 'weight',
      hazards: [],
      note: '',
      base: {
        fibre: 'silk',
        pieceWord: 'reel',
        usualPieceWeightG: 25,
        undyed: { L: 91, a: 0, b: 6, illuminant: 'D65', observer: '10' },
      },
    });
    await created('/api/stock-lots', delivery(silk, '500 g'));
    expect(
      (
        (
          await post('/api/lots/proposal', ask({ also: [{ baseId: silk, quantityText: '4 reels of 25 g' }] })).expect(
            422,
          )
        ).body as Problem
      ).reason,
    ).toBe('fibreNotSuited');
    const version = await created(`/api/recipes/${f.recipeId}/versions`, {
      id: newId(),
      body: { ...recipeBody(f.alum, f.weld), fibres: ['wool', 'silk'] },
    });
    const colourway = await created('/api/colourways', {
      id: newId(),
      name: 'Both',
      recipeVersionId: version,
      baseMaterialId: f.wool,
      master: { L: 74, a: -4, b: 50, illuminant: 'D65', observer: '10' },
      toleranceDeltaE: 2,
      note: '',
    });
    const both = await proposed({ colourwayId: colourway, also: [{ baseId: silk, quantityText: '4 reels of 25 g' }] });
    expect(both.understoodAs).toBe(
      '2 hanks of 100 g, 200 g dry of Rug wool and 4 reels of 25 g, 100 g dry of Silk ribbon',
    );
    expect(both.plan.steps[0]?.weighings.map((w) => [w.materialName, w.target.value])).toEqual([
      ['Rug wool', 200],
      ['Silk ribbon', 100],
    ]);
    expect(both.plan.materials.find((m) => m.materialId === f.alum)?.total.value).toBe(45);
    // A base that stands there twice is one: its pieces were weighed one by one.
    const twice = (
      await post(
        '/api/lots/proposal',
        ask({ colourwayId: colourway, also: [{ baseId: f.wool, quantityText: '1 hank of 60 g' }] }),
      ).expect(200)
    ).body as Proposal;
    expect([twice.plan.pieces, twice.plan.wof.value]).toEqual([3, 260]);
    expect(twice.understoodAs).toBe('2 hanks of 100 g + 1 hank of 60 g, 260 g dry');

    // Dyed again, it is the lot that it was: all its bases, and doses by all its fibre.
    const first = await created('/api/lots', {
      id: newId(),
      ask: ask({
        colourwayId: colourway,
        also: [{ baseId: silk, quantityText: '4 reels of 25 g' }],
        intake: { flags: ['scoured'], syntheticPercent: null },
      }),
      ...agreed(
        await proposed({
          colourwayId: colourway,
          also: [{ baseId: silk, quantityText: '4 reels of 25 g' }],
          intake: { flags: ['scoured'], syntheticPercent: null },
        }),
      ),
    });
    await dyeAsPlanned(first);
    const then = (await studio.agent.get(`/api/lots/${first}`).expect(200)).body as LotDetail;
    expect([then.quantityText, then.extras.also, then.extras.intake.flags]).toEqual([
      '2 hanks of 100 g',
      [{ baseId: silk, quantityText: '4 reels of 25 g' }],
      ['scoured'],
    ]);
    const repeated = await proposed({
      colourwayId: colourway,
      reorderOfId: first,
      quantityText: then.quantityText,
      ...then.extras,
    });
    expect(repeated.plan.wof.value).toBe(300);
    expect(repeated.factors.filter((x) => x.name.startsWith('Potassium alum'))).toMatchObject([
      { same: true, then: expect.stringContaining('15 % WOF'), now: expect.stringContaining('15 % WOF') },
    ]);
  });

  it('measures out what is kept by volume or in packets, and books it so', async () => {
    const vinegar = await created('/api/materials', {
      id: newId(),
      name: 'Vinegar',
      kind: 'modifier',
      measure: 'volume',
      hazards: ['acid'],
      note: '',
      base: null,
    });
    const stockLot = await created('/api/stock-lots', delivery(vinegar, '2 l'));
    const body = recipeBody(f.alum, f.weld) as { steps: object[] };
    const version = await created(`/api/recipes/${f.recipeId}/versions`, {
      id: newId(),
      body: {
        ...body,
        steps: [
          {
            kind: 'rinse',
            title: 'Sour rinse',
            instruction: '',
            durationMin: 10,
            attended: true,
            lookFor: '',
            usesBath: true,
            doses: [{ materialId: vinegar, by: 'solution', mlPer100G: 20, gPerL: 50 }],
          },
          ...body.steps,
        ],
      },
    });
    const colourway = await created('/api/colourways', {
      id: newId(),
      name: 'Sour',
      recipeVersionId: version,
      baseMaterialId: f.wool,
      master: { L: 74, a: -4, b: 50, illuminant: 'D65', observer: '10' },
      toleranceDeltaE: 2,
      note: '',
    });
    const sour = { ...f, colourway };
    const lotId = await makeLot(studio, sour, { quantityText: '2 hanks of 100 g' });
    const lot = (await studio.agent.get(`/api/lots/${lotId}`).expect(200)).body as LotDetail;
    expect(lot.plan.materials.find((m) => m.materialId === vinegar)).toMatchObject({
      measure: 'volume',
      total: { value: 40 },
      picks: [{ stockLotId: stockLot, amount: 40_000 }],
    });
    for (const entry of [
      runEntry(0, 'start'),
      runEntry(0, 'weigh', { weighing: weighing(f.wool, f.woolStockLot, '200 g') }),
      runEntry(0, 'finish'),
      runEntry(1, 'start'),
    ])
      await post(`/api/lots/${lotId}/entries`, entry).expect(200);
    expect(
      (
        (
          await post(
            `/api/lots/${lotId}/entries`,
            runEntry(1, 'weigh', { weighing: weighing(vinegar, stockLot, '40 g') }),
          ).expect(422)
        ).body as Problem
      ).detail,
    ).toMatch(/./);
    await post(
      `/api/lots/${lotId}/entries`,
      runEntry(1, 'weigh', { weighing: weighing(vinegar, stockLot, '42 ml') }),
    ).expect(200);
    const row = (
      (await studio.agent.get('/api/stores').expect(200)).body as { id: string; onHand: number; reserved: number }[]
    ).find((j) => j.id === stockLot);
    expect(row).toMatchObject({ onHand: 1_958_000, reserved: 0 });
  });

  it('takes a vessel out of the studio, unless a lot is planned in it', async () => {
    const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const lot = (await studio.agent.get(`/api/lots/${lotId}`).expect(200)).body as LotDetail;
    const vesselId = lot.plan.batches[0]?.vesselId ?? '';
    const reply = (await studio.agent.delete(`/api/vessels/${vesselId}`).expect(422)).body as Problem;
    expect(reply.detail).toMatch(new RegExp(`is planned for .*${lot.summary.tag}`));
    const spare = await created('/api/vessels', {
      id: newId(),
      name: 'Spare',
      metal: 'glass',
      workingMl: 2000,
      note: '',
    });
    await studio.agent.delete(`/api/vessels/${spare}`).expect(200);
    await studio.agent.delete(`/api/vessels/${spare}`).expect(404);
    const { vessels } = (await studio.agent.get('/api/studio').expect(200)).body as Studio;
    expect(vessels.map((v) => v.name)).not.toContain('Spare');
    expect(
      ((await post('/api/lots/proposal', ask({ quantityText: '1 hank of 2 kg' })).expect(422)).body as Problem).reason,
    ).toBe('pieceTooBig');
  });

  it('keeps heat sources and house practice, and heats with them', async () => {
    const ring = await created('/api/heat-sources', {
      id: newId(),
      name: 'Ring',
      powerW: 3000,
      efficiencyPercent: 50,
      note: '',
    });
    const studioNow = (await studio.agent.get('/api/studio').expect(200)).body as Studio;
    const { people: _p, vessels, waters: _w, heatSources, ...settings } = studioNow;
    expect(heatSources.map((h) => h.name)).toEqual(['Ring']);
    for (const { id, ...v } of vessels)
      await studio.agent
        .put(`/api/vessels/${id}`)
        .send({ ...v, heatSourceId: ring, emptyG: 3000 })
        .expect(200);
    await studio.agent
      .put('/api/studio')
      .send({ ...settings, practice: { mordantHeat: 'hot' }, energyMinorPerKwh: 30 })
      .expect(200);
    const bath = (await proposed()).plan.steps[1]?.baths[0];
    expect(bath?.heating).toMatchObject({ ok: true });
    expect(bath?.fullWeight.value).toBeGreaterThan(6);
    expect(
      (
        (
          await studio.agent
            .put('/api/studio')
            .send({ ...settings, version: settings.version + 1, practice: { mordantHeat: 'tepid' } })
            .expect(400)
        ).body as Problem
      ).detail,
    ).toMatch(/answers offered/);
  });
});
