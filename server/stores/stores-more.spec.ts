import type {
  DeedPage,
  Forecast,
  BalanceReading,
  LotCost,
  Material,
  MaterialPage,
  Problem,
  ShelfOn,
  ShelfRow,
  StockLot,
  ValuationReport,
  Stocktake,
} from '@vestigia/contract';
import { CATALOGUE } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, callsOf, delivery, dyeLot, furnish, makeLot, newId, openTestStudio } from '../test/test-studio';

describe.each(KINDS)('stores beyond jars, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  const { post, created, get } = callsOf(() => studio);
  const refused = async (path: string, body: object): Promise<string> => {
    const before = await get<ShelfRow[]>('/api/stores');
    const reply = await post(path, body);
    expect(reply.status, JSON.stringify(reply.body)).toBeGreaterThanOrEqual(400);
    expect(reply.status).toBeLessThan(500);
    expect(await get('/api/stores')).toEqual(before);
    return (reply.body as Problem).detail;
  };
  const stockLotOf = (id: string): Promise<StockLot> => get(`/api/stock-lots/${id}`);
  const material = (name: string, rest: object = {}): Promise<string> =>
    created('/api/materials', {
      id: newId(),
      name,
      kind: 'dyestuff',
      measure: 'weight',
      hazards: [],
      note: '',
      base: null,
      ...rest,
    });
  const book = (materialId: string, quantityText: string, rest: object = {}): Promise<string> =>
    created('/api/stock-lots', delivery(materialId, quantityText, rest));
  const part = (stockLotId: string, quantityText: string) => ({ movementId: newId(), stockLotId, quantityText });
  const output = (quantityText: string, rest: object = {}) => ({
    movementId: newId(),
    stockLotId: newId(),
    materialId: null,
    newMaterial: '',
    tag: '',
    quantityText,
    place: 'Loft',
    bestBefore: null,
    container: '',
    tareText: '',
    ...rest,
  });
  const convert = (kindOf: string, inputs: object[], out: object | null) => ({
    id: newId(),
    kind: kindOf,
    inputs,
    output: out,
    note: '',
  });
  /** Weeks go by in a test: nobody stays signed in that long. */
  const signInAgain = async (): Promise<void> => {
    const { people } = (await studio.stranger.get('/api/auth').expect(200)).body as { people: { id: string }[] };
    await studio.agent
      .post('/api/auth/session')
      .send({ personId: people[0]?.id, passphrase: 'ten green hanks' })
      .expect(200);
  };
  const gathering = { permission: 'our own bed', sharePercent: 20, note: '' };

  it('takes the whole catalogue as it stands, and edits it with both sides shown', async () => {
    for (const { key: _key, name, kind: of, measure, hazards, note, ...facts } of CATALOGUE.slice(0, 12)) {
      await post('/api/materials', {
        id: newId(),
        name: `${name} (catalogue)`,
        kind: of,
        measure,
        hazards,
        note,
        base: null,
        facts,
      }).expect(200);
    }
    const weld = (await get<Material[]>('/api/materials')).find((m) => m.name === 'Weld (catalogue)');
    expect(weld?.facts).toMatchObject({
      botanicalName: 'Reseda luteola',
      ceilingC: 80,
      water: 'hard',
      season: { fromMonth: 6, toMonth: 8 },
    });
    const { id, version, ...fields } = weld as Material;
    const edit = (v: number, leadTimeDays: number) =>
      studio.agent
        .put(`/api/materials/${id}`)
        .send({ ...fields, version: v, facts: { ...fields.facts, leadTimeDays } });
    await edit(version, 9).expect(200);
    expect((await edit(version, 12).expect(409)).body).toMatchObject({ code: 'stale', theirs: { version: 2 } });
    expect(await refused('/api/materials', { ...fields, id: newId(), name: 'Tin crystals' })).toMatch(
      /not in this catalogue/,
    );
  });

  it('books a harvest only with leave, net of its container, at its own day', async () => {
    const stockLot = delivery(f.weld, '', {
      grossText: '1.84 kg',
      tareText: '640 g',
      facts: { origin: 'harvest', form: 'fresh', plantPart: 'tops', stage: 'full flower', gathering },
    }) as Record<string, unknown>;
    expect(await refused('/api/stock-lots', { ...stockLot, facts: { origin: 'harvest' } })).toMatch(/permission/);
    expect(await refused('/api/stock-lots', { ...stockLot, tareText: '2 kg' })).toMatch(
      /less than the container alone/,
    );
    expect(await refused('/api/stock-lots', { ...stockLot, cost: 'a lot' })).toMatch(/not an amount of money/);
    const id = await created('/api/stock-lots', stockLot);
    const { row, facts, lines } = await stockLotOf(id);
    expect(row).toMatchObject({ onHand: 1_200_000, form: 'fresh' });
    expect(facts).toMatchObject({ tareMg: 640_000, grossMg: 1_840_000, gathering, strengthPercent: null });
    expect(lines).toMatchObject([{ kind: 'gather', amount: 1_200_000, at: '2026-05-01T11:00:00.000Z' }]);
    const past = (on: string) => get<ShelfOn>(`/api/stores/on?on=${on}`);
    expect((await past('2026-04-30')).rows.map((r) => r.id)).not.toContain(id);
    expect((await past('2026-05-02')).rows.find((r) => r.id === id)).toMatchObject({ onHand: 1_200_000 });
    expect(await past('2026-12-01')).toMatchObject({ when: 'forecast' });
  });

  it('takes out for no lot, never what is promised, and gives packets their auxiliaries', async () => {
    const salt = await material('Salt', { kind: 'assistant' });
    const saltStockLot = await book(salt, '1 kg');
    const black = await material('Black packets', {
      kind: 'packet',
      measure: 'pieces',
      facts: { packet: { contentsG: 20, fibreG: 250, auxiliaries: [{ materialId: salt, amount: 60_000 }] } },
    });
    const packets = await book(black, '6 packets');
    const taking = (of: string, quantityText: string, note = 'wings', auxiliaries: object[] = []) => ({
      id: newId(),
      kind: of,
      quantityText,
      note,
      auxiliaries,
    });
    expect(await refused(`/api/stock-lots/${packets}/takings`, taking('use', '1.5 packets'))).toMatch(/opened whole/);
    expect(await refused(`/api/stock-lots/${packets}/takings`, taking('use', '2'))).toMatch(/goes with an auxiliary/);
    expect(await refused(`/api/stock-lots/${packets}/takings`, taking('give', '2', ''))).toMatch(/to whom/);
    await post(
      `/api/stock-lots/${packets}/takings`,
      taking('use', '2', 'wings', [{ movementId: newId(), stockLotId: saltStockLot }]),
    ).expect(200);
    expect([(await stockLotOf(packets)).row.onHand, (await stockLotOf(saltStockLot)).row.onHand]).toEqual([4, 880_000]);
    await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    const { row } = await stockLotOf(f.alumStockLot);
    expect(row.reserved).toBe(30_000);
    expect(await refused(`/api/stock-lots/${f.alumStockLot}/takings`, taking('give', '490 g'))).toMatch(
      /470 g of POT-1 is free; the rest is promised/,
    );
    expect((await stockLotOf(f.alumStockLot)).lines.map((l) => [l.kind, l.amount, l.reserved])).toEqual([
      ['receive', 500_000, 0],
      ['reservation', 30_000, 30_000],
    ]);
  });

  it('dries, blends and dissolves with lineage, mass and strength kept, and takes all of it back', async () => {
    const fresh = await material('Tansy, fresh');
    const stockLot = await book(fresh, '6 kg');
    const dry = convert('dry', [part(stockLot, '5 kg')], output('1.25 kg', { newMaterial: 'Tansy, dried' }));
    expect(
      await refused('/api/conversions', { ...dry, output: { ...(dry.output as object), quantityText: '5.1 kg' } }),
    ).toMatch(/can’t come out of/);
    expect(
      await refused(
        '/api/conversions',
        convert('blend', [part(stockLot, '1 kg')], output('1 kg', { stockLotId: stockLot })),
      ),
    ).toMatch(/into itself/);
    expect(
      await refused(
        '/api/conversions',
        convert('blend', [part(stockLot, '1 kg'), part(stockLot, '1 kg')], output('2 kg')),
      ),
    ).toMatch(/twice/);
    const driedId = await created('/api/conversions', dry);
    const dried = await stockLotOf(driedId);
    expect(dried).toMatchObject({
      row: { onHand: 1_250_000, form: 'dried', material: 'Tansy, dried' },
      parents: [{ id: stockLot, kind: 'dry', amount: 5_000_000, share: 1_250_000 }],
    });
    expect((await stockLotOf(stockLot)).children).toMatchObject([{ id: driedId, amount: 1_250_000, share: 5_000_000 }]);
    expect((await get<MaterialPage>(`/api/materials/${fresh}`)).dryings).toMatchObject([{ factor: { value: 4 } }]);

    const second = await book(dried.row.materialId, '1 kg');
    const label = async (id: string, strengthPercent: number, reference: boolean): Promise<void> => {
      const { facts, version } = await stockLotOf(id);
      await studio.agent
        .put(`/api/stock-lots/${id}`)
        .send({ version, place: '', note: '', bestBefore: null, facts: { ...facts, strengthPercent, reference } })
        .expect(200);
    };
    await label(driedId, 100, true);
    await label(second, 70, false);
    const blendId = await created(
      '/api/conversions',
      convert('blend', [part(driedId, '750 g'), part(second, '250 g')], output('998 g')),
    );
    const blend = await stockLotOf(blendId);
    expect(blend).toMatchObject({ facts: { strengthPercent: 92.5, origin: 'made' }, row: { onHand: 998_000 } });
    expect(blend.parents.map((p) => p.id).sort()).toEqual([driedId, second].sort());
    const movement = blend.lines[0]?.id ?? '';
    await post(`/api/movements/${movement}/reversal`, { id: newId(), note: 'wrong jar' }).expect(200);
    expect([
      (await stockLotOf(blendId)).row.onHand,
      (await stockLotOf(driedId)).row.onHand,
      (await stockLotOf(second)).row.onHand,
    ]).toEqual([0, 1_250_000, 1_000_000]);
    expect((await stockLotOf(driedId)).children).toEqual([]);

    const solution = await stockLotOf(
      await created(
        '/api/conversions',
        convert('dissolve', [part(f.alumStockLot, '50 g')], output('1 l', { newMaterial: 'Alum, solution' })),
      ),
    );
    expect(solution).toMatchObject({
      row: { measure: 'volume', onHand: 1_000_000 },
      liquor: { what: 'stockSolution', working: { value: 50, unit: 'g/l' } },
      liquorNow: [{ grams: 50 }],
    });
    await post('/api/conversions', convert('compost', [part(stockLot, '1 kg')], null)).expect(200);
    expect((await stockLotOf(stockLot)).row.onHand).toBe(0);
  });

  it('keeps a bath, tells what is in it after each use, and measures an iron liquor by a ladder', async () => {
    const bath = await created('/api/liquors', {
      id: newId(),
      movementId: newId(),
      what: 'mordantBath',
      materialId: null,
      newMaterial: 'Alum bath',
      tag: 'BATH',
      quantityText: '20 l',
      contents: [{ materialId: f.alum, name: 'Potassium alum', grams: 100 }],
      working: null,
      fromLotId: null,
      vessel: 'bucket',
      place: 'sink',
      bestBefore: null,
      note: '',
    });
    const entry = (body: object) => post(`/api/stock-lots/${bath}/liquor`, { id: newId(), note: '', ...body });
    await entry({
      kind: 'use',
      movementId: newId(),
      fibreText: '400 g',
      carriedOffText: '2 l',
      uptakePercent: 60,
      measuredLeftG: null,
    }).expect(200);
    expect(await stockLotOf(bath)).toMatchObject({ row: { onHand: 18_000_000 }, liquorNow: [{ grams: 36 }] });
    await entry({ kind: 'replenish', movementId: newId(), stockLotId: f.alumStockLot, quantityText: '20 g' }).expect(
      200,
    );
    await entry({ kind: 'check', signs: ['cloudy', 'growth'] }).expect(200);
    const kept = await stockLotOf(bath);
    expect(kept.liquorNow).toMatchObject([{ grams: 56 }]);
    expect(kept.liquorLog.map((l) => l.note)).toEqual([
      '',
      'used for 400 g of dry fibre',
      '20 g of Potassium alum added, from POT-1',
      'cloudy, growth: don’t use it; pour it away as your local rules say',
    ]);
    await post(`/api/stock-lots/${bath}/takings`, {
      id: newId(),
      kind: 'spoil',
      quantityText: '9 l',
      note: 'poured away',
    }).expect(200);
    expect((await stockLotOf(bath)).liquorNow).toMatchObject([{ grams: 28 }]);
    // Boiled down it holds as much; counted, too: what is missing has steamed off.
    await entry({ kind: 'level', movementId: newId(), quantityText: '5 l' }).expect(200);
    expect(await stockLotOf(bath)).toMatchObject({ row: { onHand: 5_000_000 }, liquorNow: [{ grams: 28 }] });
    const count = { id: newId(), quantityText: '9 l', seenOnHand: 5_000_000, note: '' };
    await post(`/api/stock-lots/${bath}/counts`, count).expect(200);
    expect(await stockLotOf(bath)).toMatchObject({ row: { onHand: 9_000_000 }, liquorNow: [{ grams: 28 }] });
    expect(
      await refused(`/api/stock-lots/${bath}/liquor`, {
        id: newId(),
        note: '',
        kind: 'ladder',
        rungs: [{ percentOwf: 1, lightness: 50 }],
        lightness: 45,
        liquorMl: 10,
        fibreG: 10,
      }),
    ).toMatch(/two strips or more/);
    await entry({
      kind: 'ladder',
      rungs: [
        { percentOwf: 1, lightness: 54 },
        { percentOwf: 2, lightness: 46 },
      ],
      lightness: 46,
      liquorMl: 40,
      fibreG: 10,
    }).expect(200);
    expect((await stockLotOf(bath)).liquorNow).toMatchObject([{ grams: 45 }]);
    await studio.context.database.db.execute(sql`SELECT 1`);
    await expect(studio.context.database.db.execute(sql`UPDATE liquor_entries SET note = 'x'`)).rejects.toThrow();
  });

  it('teaches a spoon, typed or from the simulated balance, and then reads spoons and cups of that alone', async () => {
    const spoonful = (quantityText: string, fromBalance = false) => ({
      id: newId(),
      unit: 'tsp',
      system: 'imperial',
      quantityText,
      fromBalance,
    });
    expect(
      await refused(`/api/stock-lots/${f.alumStockLot}/takings`, {
        id: newId(),
        kind: 'use',
        quantityText: '1 imperial tsp',
        note: '',
      }),
    ).toMatch(/teach it a spoon/);
    expect(await refused(`/api/materials/${f.alum}/spoons`, spoonful('900 g'))).toMatch(/can’t be a level spoonful/);
    const read = (await post('/api/balance/reading', { what: 'spoon', materialId: f.alum, spoonMl: 5.92 }).expect(200))
      .body as BalanceReading;
    expect(read).toMatchObject({ simulated: true, overload: false });
    for (const g of ['5.1 g', '5.0 g', '5.2 g']) await post(`/api/materials/${f.alum}/spoons`, spoonful(g)).expect(200);
    const { spoons } = await get<MaterialPage>(`/api/materials/${f.alum}`);
    expect(spoons).toMatchObject([{ name: 'imperial tsp', weighings: 3 }]);
    expect(spoons[0]?.meanG).toBeCloseTo(5.1, 6);
    const before = (await stockLotOf(f.alumStockLot)).row.onHand;
    await post(`/api/stock-lots/${f.alumStockLot}/takings`, {
      id: newId(),
      kind: 'use',
      quantityText: '2 imperial tsp',
      note: 'trial',
    }).expect(200);
    expect(before - (await stockLotOf(f.alumStockLot)).row.onHand).toBeCloseTo(10_200, -1);
    expect(
      await refused(`/api/stock-lots/${f.alumStockLot}/takings`, {
        id: newId(),
        kind: 'use',
        quantityText: '1 cup',
        note: '',
      }),
    ).toMatch(/Which cup/);
  });

  it('walks a place, books all differences together, and stops when a jar moved meanwhile', async () => {
    const [a, b] = [await book(f.weld, '1 kg', { place: 'Row Z' }), await book(f.weld, '2 kg', { place: 'Row Z' })];
    const id = await created('/api/stocktakes', { id: newId(), place: 'Row Z', blind: true });
    const enter = (stockLot: string, quantityText: string, seenOnHand: number, rest: object = {}) =>
      post(`/api/stocktakes/${id}/entries`, {
        id: newId(),
        stockLotId: stockLot,
        quantityText,
        gross: false,
        seenOnHand,
        fromBalance: false,
        ...rest,
      });
    await enter(a, '1 kg', 1_000_000).expect(200);
    await enter(b, '200 g', 2_000_000).expect(200);
    const lines = async () => (await get<Stocktake>(`/api/stocktakes/${id}`)).lines;
    expect((await lines()).map((l) => [l.difference, l.reasons[0]])).toEqual([
      [0, undefined],
      [-1_800_000, 'a decimal point slipped'],
    ]);
    await post(`/api/stock-lots/${a}/takings`, {
      id: newId(),
      kind: 'use',
      quantityText: '100 g',
      note: 'strip',
    }).expect(200);
    expect((await enter(a, '1 kg', 1_000_000).expect(409)).body).toMatchObject({ code: 'changedMeanwhile' });
    expect(await refused(`/api/stocktakes/${id}/booking`, { id: newId(), reasons: [] })).toMatch(
      /moved since it was counted/,
    );
    await enter(a, '900 g', 900_000).expect(200);
    expect(
      (
        await post(`/api/stocktakes/${id}/booking`, {
          id: newId(),
          reasons: [{ stockLotId: b, note: 'mice' }],
        }).expect(200)
      ).body,
    ).toEqual({ booked: 1 });
    expect((await stockLotOf(b)).lines.at(-1)).toMatchObject({ kind: 'count', amount: -1_800_000, note: 'mice' });
    expect((await post(`/api/stocktakes/${id}/booking`, { id: newId(), reasons: [] })).status).toBe(409);
    expect(await refused('/api/stocktakes', { id: newId(), place: 'Nowhere', blind: false })).toMatch(
      /Nothing stands at/,
    );
  });

  it('counts the jars chosen, wherever they stand, and none beside them', async () => {
    const [a, b] = [await book(f.weld, '1 kg', { place: 'Row K' }), await book(f.alum, '2 kg', { place: 'Row L' })];
    await book(f.weld, '3 kg', { place: 'Row K' });
    const id = await created('/api/stocktakes', { id: newId(), place: '', chosen: [b, a], blind: true });
    const count = await get<Stocktake>(`/api/stocktakes/${id}`);
    expect(count.lines.map((l) => l.row.id)).toEqual([a, b]);
    expect(count.chosen).toEqual([b, a]);
    const unknown = { id: newId(), place: '', chosen: [a, newId()], blind: true };
    expect((await post('/api/stocktakes', unknown)).status).toBe(404);
  });

  it('says of several jars at once where they stand now, of all of them or of none, and who said it', async () => {
    const [a, b] = [await book(f.weld, '1 kg', { place: 'Row K' }), await book(f.alum, '2 kg', { place: 'Row L' })];
    const placeOf = async (jar: string): Promise<string> => (await stockLotOf(jar)).row.place;
    const to = (place: string, ...jars: string[]): object => ({
      id: newId(),
      moved: jars.map((stockLotId) => ({ stockLotId, place })),
    });
    expect((await post('/api/stock-lots/moves', to('Row M', a, newId()))).status).toBe(404);
    expect(await placeOf(a)).toBe('Row K');
    await post('/api/stock-lots/moves', to('Row M', a, b)).expect(200);
    expect([await placeOf(a), await placeOf(b)]).toEqual(['Row M', 'Row M']);
    // Somebody with the label open meanwhile is told.
    const { version } = await stockLotOf(b);
    const stale = { version: version - 1, place: 'Row L', note: '', bestBefore: null };
    expect((await studio.agent.put(`/api/stock-lots/${b}`).send(stale)).status).toBe(409);
    const { deeds } = await get<DeedPage>(`/api/deeds?thingId=${b}`);
    expect(deeds[0]?.changes).toMatchObject({ place: ['Row L', 'Row M'] });
  });

  it('keeps a safety sheet and a photograph as they came, and nothing that only says it is one', async () => {
    const pdf = Buffer.from('%PDF-1.7 a sheet');
    const send = (path: string, type: string, content: Buffer) =>
      studio.agent.post(`${path}?id=${newId()}&name=sheet.pdf`).set('content-type', type).send(content);
    const { id } = (await send(`/api/materials/${f.alum}/attachments`, 'application/pdf', pdf).expect(200)).body as {
      id: string;
    };
    const back = await studio.agent
      .get(`/api/attachments/${id}`)
      .buffer(true)
      .parse((res, done) => {
        const parts: Buffer[] = [];
        res.on('data', (c: Buffer) => parts.push(c));
        res.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    expect(back.body).toEqual(pdf);
    expect(back.headers['content-security-policy']).toMatch(/sandbox/);
    expect(
      (await send(`/api/materials/${f.alum}/attachments`, 'application/pdf', Buffer.from('<html>')).expect(422)).body,
    ).toMatchObject({ detail: expect.stringMatching(/kept as a PDF/) as string });
    expect(
      (await send(`/api/stock-lots/${f.alumStockLot}/attachments`, 'application/pdf', pdf).expect(422)).body,
    ).toMatchObject({ detail: expect.stringMatching(/PNG, JPEG or WebP/) as string });
    await send(
      `/api/stock-lots/${f.alumStockLot}/attachments`,
      'image/png',
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]),
    ).expect(200);
    expect((await stockLotOf(f.alumStockLot)).attachments).toMatchObject([{ kind: 'photo', type: 'image/png' }]);
    expect((await get<MaterialPage>(`/api/materials/${f.alum}`)).attachments).toMatchObject([
      { kind: 'sheet', bytes: 16 },
    ]);
  });

  it('winds fibre off and cuts it into pieces of another size, which stay what they were', async () => {
    const skeins = newId();
    const wound = {
      id: newId(),
      kind: 'wind',
      inputs: [{ movementId: newId(), stockLotId: f.woolStockLot, quantityText: '400 g' }],
      output: {
        movementId: newId(),
        stockLotId: skeins,
        materialId: null,
        newMaterial: 'Rug wool, small skeins',
        tag: 'SKE-1',
        quantityText: '395 g',
        place: 'Loft',
        bestBefore: null,
        piece: { word: 'skein', weightText: '50 g' },
      },
      note: '',
    };
    await post('/api/conversions', wound).expect(200);
    const jar = await stockLotOf(skeins);
    expect([jar.row.onHand, jar.parents[0]?.id]).toEqual([395_000, f.woolStockLot]);
    const { material: made } = await get<MaterialPage>(`/api/materials/${jar.row.materialId}`);
    expect([made.kind, made.base]).toMatchObject([
      'fibre',
      { fibre: 'wool', pieceWord: 'skein', usualPieceWeightG: 50 },
    ]);
    const refused = async (kind: string, stockLotId: string): Promise<string> =>
      (
        (
          await post('/api/conversions', {
            ...wound,
            id: newId(),
            kind,
            inputs: [{ movementId: newId(), stockLotId, quantityText: '100 g' }],
            output: { ...wound.output, stockLotId: newId(), movementId: newId(), tag: '' },
          }).expect(422)
        ).body as Problem
      ).detail;
    expect(await refused('cut', f.weldStockLot)).toMatch(/no fibre, so it can’t be cut/);
    expect(await refused('grind', f.woolStockLot)).toMatch(/is fibre: it can be wound off or cut, not ground/);
  });

  it('values stock both ways and carries cost into a lot, heat and hands too where they have a price', async () => {
    const cheap = await material('Cheap weld');
    await book(cheap, '1 kg', { cost: '10.00', receivedOn: '2026-03-01' });
    const dear = await book(cheap, '1 kg', { cost: '20.00', receivedOn: '2026-04-01' });
    await post(`/api/stock-lots/${dear}/takings`, {
      id: newId(),
      kind: 'use',
      quantityText: '500 g',
      note: 'trial',
    }).expect(200);
    const row = async (on = '') =>
      (await get<ValuationReport>(`/api/stores/valuation${on}`)).rows.find((r) => r.materialId === cheap);
    expect(await row()).toMatchObject({
      fifo: { onHandMinor: 2500, usedMinor: 500 },
      average: { onHandMinor: 2250, usedMinor: 750 },
    });
    expect(await row('?on=2026-03-15')).toMatchObject({ onHand: 1_000_000, fifo: { onHandMinor: 1000 } });
    await book(f.weld, '9 kg', { cost: '90.00', receivedOn: '2026-01-01' });
    const ring = newId();
    await post('/api/heat-sources', { id: ring, name: 'Ring', powerW: 3000, efficiencyPercent: 50, note: '' }).expect(
      200,
    );
    await studio.context.database.db.execute(`UPDATE vessels SET heat_source_id = '${ring}'`);
    const lot = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    await dyeLot(studio, f, lot, { grams: 200 });
    const cost = await get<LotCost>(`/api/lots/${lot}/cost`);
    expect(cost.rows.find((r) => r.materialId === f.weld)).toMatchObject({ amount: 200_000, fifoMinor: 200 });
    expect([cost.planned.heatMinor, cost.real.handsMinor, cost.real.waterMinor]).toEqual([null, null, null]);
    const weld = cost.rows.find((r) => r.materialId === f.weld);
    expect(weld).toMatchObject({ plannedAmount: 200_000, plannedMinor: weld?.averageMinor });
    await studio.context.database.db.execute(
      'UPDATE studio SET energy_minor_per_kwh = 30, hour_minor = 1500, water_minor_per_m3 = 4000',
    );
    const priced = await get<LotCost>(`/api/lots/${lot}/cost`);
    for (const took of [priced.planned, priced.real]) {
      expect(took.heatKwh).toBeGreaterThan(0);
      expect(took.heatMinor).toBe(Math.round(took.heatKwh * 30));
      expect(took.waterMinor).toBe(Math.round(took.waterL * 4));
      expect(took.handsMinor).toBe(Math.round((took.handsMin / 60) * 1500));
    }
    const open = await makeLot(studio, f, { quantityText: '2 hanks of 100 g' });
    const ahead = await get<LotCost>(`/api/lots/${open}/cost`);
    expect([ahead.real.heatKwh, ahead.real.waterL, ahead.real.handsMin, ahead.fifoMinor]).toEqual([0, 0, 0, 0]);
    expect(ahead.rows.find((r) => r.materialId === f.weld)).toMatchObject({
      plannedMinor: weld?.plannedMinor,
      amount: 0,
    });
  });

  it('looks ahead from what was used, and writes the list to take along', async () => {
    const berry = await material('Berries', { facts: { reorderPoint: 900_000, reorderQuantity: 2_000_000 } });
    const stockLot = await book(berry, '3 kg', { receivedOn: '2026-01-05', bestBefore: '2026-07-01' });
    for (let week = 0; week < 3; week += 1) {
      await post(`/api/stock-lots/${stockLot}/takings`, {
        id: newId(),
        kind: 'use',
        quantityText: '700 g',
        note: '',
      }).expect(200);
      studio.pass(7 * 24 * 60);
      await signInAgain();
    }
    const { rows, expiring } = await get<Forecast>('/api/stores/ahead');
    const row = rows.find((r) => r.materialId === berry);
    expect(row).toMatchObject({
      act: 'order',
      free: 900_000,
      reorderPoint: { value: 900_000 },
      quantity: { value: 2_000_000 },
    });
    expect(row?.runOut?.likelyDays).toBeGreaterThan(20);
    expect(row?.runOut?.earlyDays ?? 0).toBeLessThan(row?.runOut?.likelyDays ?? 0);
    expect(expiring.map((j) => j.id)).toContain(stockLot);
    const list = await studio.agent.get('/api/stores/ahead.csv').expect(200);
    expect(list.text).toMatch(/order,Berries,2 kg,900 g/);
    expect((await get<MaterialPage>(`/api/materials/${berry}`)).days.map((d) => d.onHand)).toEqual([
      3_000_000, 2_300_000, 1_600_000, 900_000,
    ]);
  });

  it('mirrors the shelf without missing a change, and agrees with the ledgers', async () => {
    const summed = new Map((await get<ShelfRow[]>('/api/stores')).map((r) => [r.id, r.onHand]));
    const rows = (await studio.context.database.db.execute(
      sql`SELECT stock_lot_id AS id, sum(amount)::float8 AS amount FROM movements GROUP BY 1`,
    )) as unknown as { rows: { id: string; amount: number }[] };
    for (const { id, amount } of rows.rows) expect(summed.get(id)).toBe(amount);
    const { version } = await stockLotOf(f.woolStockLot);
    await studio.agent
      .put(`/api/stock-lots/${f.woolStockLot}`)
      .send({ version, place: 'Moved', note: '', bestBefore: null })
      .expect(200);
    expect((await get<ShelfRow[]>('/api/stores')).find((r) => r.id === f.woolStockLot)?.place).toBe('Moved');
  });
});
