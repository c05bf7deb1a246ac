import type {
  DryForecastView,
  FastnessOf,
  FastnessTest,
  JarGave,
  KnownColour,
  LotSummary,
  NearColour,
  PatchCard,
  Problem,
  ReadPieces,
  ReaderView,
  RepeatabilityView,
  Swatch,
  Today,
} from '@vestigia/contract';
import { BANDS_NM, readColourFile, takenBy } from '@vestigia/core';
import { sql } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  KINDS,
  dyeLot,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  reading,
  verdict,
  wholeDocument,
} from '../test/test-studio';

/** A day of the studio’s, so many days from today. */
const dayOf = (studio: TestStudio, fromToday = 0): string =>
  new Date(studio.context.clock().getTime() + fromToday * 86_400_000).toISOString().slice(0, 10);

describe.each(KINDS)('the swatch book, colours and fastness (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let lot: string;
  const post = (path: string, body: object) => studio.agent.post(path).send(body);
  const get = async <T>(path: string): Promise<T> => (await studio.agent.get(path).expect(200)).body as T;
  const said = async (asked: ReturnType<typeof post>, status: number): Promise<string> =>
    ((await asked.expect(status)).body as Problem).detail;
  const snippet = (rest: object = {}): object => ({
    id: newId(),
    name: 'Marram, border',
    lotId: lot,
    place: null,
    note: '',
    ...rest,
  });
  const spectrum = BANDS_NM.map((nm) => 0.1 + (nm - 400) / 500);

  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    lot = await makeLot(studio, f, { quantityText: '2 hanks of 50 g' });
    await dyeLot(studio, f, lot, { grams: 100 });
    const read = (state: string, L: number, rest: object = {}) =>
      post(`/api/lots/${lot}/readings`, { ...reading(state, L), ...rest }).expect(200);
    await read('wet', 60);
    await read('dry', 74, { taken: takenBy('spectrum', { spectrum, reader: 'house' }) });
    await post(`/api/lots/${lot}/verdicts`, verdict('pass')).expect(200);
  });
  afterAll(() => studio.close());

  describe('the book', () => {
    it('takes a snippet of a lot at the next free place, with what it was made with written already', async () => {
      const { body } = await post('/api/swatches', snippet()).expect(200);
      expect(body).toMatchObject({ page: 1, slot: 1 });
      const [swatch] = await get<Swatch[]>('/api/swatches');
      expect(swatch?.madeWith).toMatchObject({
        base: 'Rug wool',
        fibre: 'wool',
        dyestuffs: ['Weld'],
        mordants: ['Potassium alum'],
        minutes: 60,
        dip: null,
      });
      expect([swatch?.lab?.L, swatch?.lot?.tag]).toEqual([74, 'Lot 1']);
      const { body: next } = await post('/api/swatches', snippet({ name: 'another' })).expect(200);
      expect(next).toMatchObject({ page: 1, slot: 2 });
    });
    it('takes one that no lot here gave, with what is known of it', async () => {
      const lab = { L: 40, a: 20, b: 10, illuminant: 'D65', observer: '10' };
      await post('/api/swatches', {
        ...snippet({ name: 'found in a drawer', lotId: null, place: { page: 3, slot: 4 } }),
        lab,
        base: 'silk',
        dyestuffs: 'madder and cutch',
      }).expect(200);
      const found = (await get<Swatch[]>('/api/swatches')).find((s) => s.page === 3);
      expect([found?.madeWith.dyestuffs, found?.lab, found?.lot]).toEqual([['madder', 'cutch'], lab, null]);
    });
    it('has one snippet a place; it is moved, noted on, taken out', async () => {
      const [first, second] = await get<Swatch[]>('/api/swatches');
      expect(await said(post('/api/swatches', snippet({ place: { page: 1, slot: 1 } })), 422)).toMatch(
        /there is Marram, border already/,
      );
      await post('/api/swatches', snippet({ place: { page: 1, slot: 13 } })).expect(400);
      expect(await said(post('/api/swatches', snippet({ of: { batch: 1, dip: 9 } })), 422)).toMatch(/no such piece/);
      const edit = { version: 1, page: 2, slot: 1, note: 'cut from the edge' };
      const put = (id: string, body: object) => studio.agent.put(`/api/swatches/${id}`).send(body);
      await put(second?.id ?? '', edit).expect(200);
      await put(second?.id ?? '', { ...edit, slot: 2 }).expect(409);
      await put(first?.id ?? '', edit).expect(422);
      await post(`/api/swatches/${second?.id}/taken-out`, { id: newId() }).expect(200);
      await post(`/api/swatches/${second?.id}/taken-out`, { id: newId() }).expect(404);
      expect((await get<Swatch[]>('/api/swatches')).map((s) => [s.page, s.slot])).toEqual([
        [1, 1],
        [3, 4],
      ]);
    });
    it('is printed page by page, and tells all of a snippet in an open file', async () => {
      const page = await studio.agent.get('/api/swatches/page.pdf?page=1').expect(200);
      expect((page.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
      const [first] = await get<Swatch[]>('/api/swatches');
      const file = await studio.agent.get(`/api/swatches/${first?.id}/file`).expect(200);
      const told = file.body as { format: string; readings: { state: string; taken: { spectrum: number[] } | null }[] };
      expect([told.format, told.readings.map((r) => r.state)]).toEqual(['vestigia-swatch', ['wet', 'dry']]);
      expect(told.readings[1]?.taken?.spectrum).toHaveLength(31);
    });
  });

  describe('colours', () => {
    it('are known by what gave them: a material, a base, a jar, a recipe', async () => {
      const kinds = async (query: string): Promise<string[]> =>
        (await get<KnownColour[]>(`/api/colours?${query}`)).map((c) => c.kind).sort();
      expect(await kinds('')).toEqual(['colourway', 'lot', 'swatch', 'swatch']);
      for (const query of [
        `materialId=${f.weld}`,
        `materialId=${f.wool}`,
        `stockLotId=${f.weldStockLot}`,
        `recipeVersionId=${f.version}`,
      ])
        expect([query, await kinds(query)]).toEqual([query, ['lot', 'swatch']]);
      expect(await kinds(`materialId=${newId()}`)).toEqual([]);
    });
    it('stand beside each jar of dyestuff as it gave them last', async () => {
      const gave = await get<JarGave[]>('/api/colours/jars');
      const [lot] = (await get<LotSummary[]>('/api/lots')).filter((l) => l.result);
      expect(gave).toMatchObject([
        { stockLotId: f.weldStockLot, materialId: f.weld, tag: lot?.tag, lab: { L: lot?.result?.L } },
      ]);
    });
    it('are found by how near they are, and a new one is found at once', async () => {
      const near = await get<NearColour[]>('/api/colours/nearest?L=41&a=20&b=10&count=2');
      expect([near.length, near[0]?.title]).toEqual([2, 'found in a drawer']);
      expect(near[0]?.deltaE).toBeLessThan(near[1]?.deltaE ?? 0);
      const lab = { L: 41, a: 20, b: 10, illuminant: 'D65', observer: '10' };
      await post('/api/swatches', snippet({ name: 'nearer', lotId: null, lab })).expect(200);
      expect((await get<NearColour[]>('/api/colours/nearest?L=41&a=20&b=10&count=1'))[0]?.title).toBe('nearer');
    });
    it('are not looked for by half a colour', async () => {
      const reply = await studio.agent.get('/api/colours/nearest?L=&a=20&b=10').expect(400);
      expect((reply.body as Problem).detail).toMatch(/L\* must be a number/);
    });
    it.each(['cgats', 'csv'])('are written as %s, and read again', async (format) => {
      const { text } = await studio.agent.get(`/api/colours/file?format=${format}`).expect(200);
      const read = readColourFile(text);
      expect(read.ok && read.swatches.map((s) => [s.name, Math.round((s.spectrum?.[0] ?? 0) * 100)])).toEqual([
        ['Lot 1 · batch 1 · dry', 10],
      ]);
    });
    it('are printed as a palette; an empty one is refused', async () => {
      const lab = { L: 41, a: 20, b: 10, illuminant: 'D65', observer: '10' };
      const pdf = await post('/api/palette.pdf', {
        title: 'Shore',
        colours: [{ name: 'one', detail: '', lab }],
      }).expect(200);
      expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
      expect(await said(post('/api/palette.pdf', { title: 'Shore', colours: [] }), 400)).toMatch(
        /nothing in the palette/,
      );
    });
  });

  describe('fastness', () => {
    const test = (rest: object): object => ({
      id: newId(),
      kind: 'light',
      place: 'window',
      name: 'Weld in the south window',
      lotId: lot,
      startedOn: dayOf(studio, -28),
      note: '',
      ...rest,
    });
    const seen = (rest: object): object => ({
      id: newId(),
      cloth: null,
      onDate: dayOf(studio),
      before: null,
      after: null,
      typedGrade: null,
      note: '',
      replacesId: null,
      ...rest,
    });
    const before = { L: 74, a: -4, b: 52 };

    it('a half-covered card is read as it fades: grade, curve, when it shows, when it is due', async () => {
      const id = newId();
      await post('/api/fastness', test({ id })).expect(200);
      for (const [days, b] of [
        [7, 49],
        [28, 45],
      ] as const) {
        const onDate = dayOf(studio, days - 28);
        await post(`/api/fastness/${id}/readings`, seen({ before, after: { ...before, b }, onDate })).expect(200);
      }
      const [card] = await get<FastnessTest[]>('/api/fastness');
      expect(card?.readings.map((r) => r.days)).toEqual([7, 28]);
      expect(card?.curve?.shows.find((s) => s.place === 'window' && s.deltaE00 === 1)?.days).toBeGreaterThan(1);
      expect(card?.dueOn).toBe(dayOf(studio, 28));
      expect(card?.change).toBeLessThan(5);
      await expect(studio.context.database.db.execute(sql`DELETE FROM fastness_readings`)).rejects.toThrow();
    });
    it('a wash stains white cloths, read or graded by eye', async () => {
      const id = newId();
      const wash = test({ id, kind: 'wash', place: null, name: 'Weld, washed', cloths: ['wool', 'cotton'] });
      await post('/api/fastness', wash).expect(200);
      expect((await get<Today>('/api/today')).fastnessDue.map((d) => d.name)).toEqual(['Weld, washed']);
      const white = { L: 95, a: 0, b: 2 };
      await post(`/api/fastness/${id}/readings`, seen({ typedGrade: 4.5 })).expect(200);
      await post(
        `/api/fastness/${id}/readings`,
        seen({ cloth: 'wool', before: white, after: { L: 88, a: -1, b: 14 } }),
      ).expect(200);
      await post(`/api/fastness/${id}/readings`, seen({ cloth: 'cotton', typedGrade: 4 })).expect(200);
      const own = (await get<FastnessTest[]>('/api/fastness')).find((t) => t.id === id);
      expect([own?.change, own?.readings.map((r) => r.byEye), own?.dueOn]).toEqual([4.5, [true, false, true], null]);
      expect(own?.staining).toBeLessThan(4);
    });
    it('flows back to the recipe and the goods, and says what stands on an open shelf has faded', async () => {
      for (const of of [`subject=recipeVersion&id=${f.version}`, `subject=lot&id=${lot}`]) {
        const known = await get<FastnessOf>(`/api/fastness/of?${of}`);
        expect(known.pairs.map((p) => [p.dyestuff, p.mordant, p.tests])).toEqual([['Weld', 'Potassium alum', 2]]);
        expect(known.care.join(' ')).toMatch(/Wash it/);
      }
      const jar = newId();
      await post(`/api/lots/${lot}/fibre`, {
        id: jar,
        movementId: newId(),
        newBaseId: newId(),
        treatment: 'finished',
        light: 'open',
        baseId: null,
        newBase: 'Marram hanks, finished',
        tag: '',
        quantityText: '50 g',
        place: 'shop',
        note: '',
      }).expect(200);
      const onShelf = async () => (await get<FastnessOf>(`/api/fastness/of?subject=stockLot&id=${jar}`)).onShelf;
      expect(await onShelf()).toMatchObject({ days: 0, deltaE00: 0 });
      studio.pass(9 * 24 * 60);
      const later = await onShelf();
      expect(later?.days).toBe(9);
      expect(later?.deltaE00).toBeGreaterThan(0);
    });
    it.each([
      ['one that begins tomorrow', () => test({ startedOn: '2099-01-01' }), 422, /still to come/],
      ['a card that hangs nowhere', () => test({ place: null }), 400, /where the card hangs/],
      ['a wash in a window', () => test({ kind: 'wash' }), 400, /hangs/],
    ])('refuses %s in a sentence', async (_name, body, status, message) =>
      expect(await said(post('/api/fastness', body()), status)).toMatch(message),
    );
    it.each([
      ['neither read nor graded', {}, 400, /give it a grade/],
      ['a grade of 6', { typedGrade: 6 }, 400, /from 1 to 5/],
      ['a day to come', { typedGrade: 3, onDate: '2099-01-01' }, 422, /still to come/],
      ['a day before it began', { typedGrade: 3, onDate: '2001-01-01' }, 422, /before the test began/],
      ['a cloth that was not washed', { typedGrade: 3, cloth: 'silk' }, 422, /No such white cloth/],
    ])('refuses a reading: %s', async (_name, rest, status, message) => {
      const [first] = await get<FastnessTest[]>('/api/fastness');
      expect(await said(post(`/api/fastness/${first?.id}/readings`, seen(rest)), status)).toMatch(message);
    });
  });

  it('sets of pieces get a tag each; none is printed of nothing', async () => {
    const sheet = {
      lotTag: 'Lot 1',
      colourway: 'Marram',
      sets: [
        ['1', '4'],
        ['2', '3'],
      ],
      care: ['Wash it cool.'],
    };
    const pdf = await post('/api/set-tags.pdf', sheet).expect(200);
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    expect(await said(post('/api/set-tags.pdf', { ...sheet, sets: [] }), 400)).toMatch(/Sort the pieces/);
  });

  it('pieces that were read by themselves are known, with what of their lot stands on the shelf', async () => {
    const pieces = (): Promise<ReadPieces[]> => get(`/api/colourways/${f.colourway}/pieces`);
    expect(await pieces()).toEqual([]);
    const read = (piece: string, L: number, state = 'dry') =>
      post(`/api/lots/${lot}/readings`, { ...reading(state, L), piece }).expect(200);
    await read('1', 73);
    await read('1', 74);
    await read('2', 60, 'wet');
    expect(await pieces()).toMatchObject([
      { lotId: lot, tag: 'Lot 1', onShelfG: 50, pieces: [{ mark: '1', lab: { L: 74 } }] },
    ]);
    const kept = {
      treatment: 'finished',
      light: 'open',
      baseId: null,
      newBase: 'Marram, finished',
      newBaseId: newId(),
    };
    await post(`/api/lots/${lot}/fibre`, {
      ...kept,
      id: newId(),
      movementId: newId(),
      tag: '',
      quantityText: '50 g',
      place: 'shelf',
      note: '',
    }).expect(200);
    expect((await pieces())[0]?.onShelfG).toBe(100);
  });

  it('a ladder is printed about a colour', async () => {
    const lab = { L: 60, a: 5, b: 30, illuminant: 'D65', observer: '10' };
    const pdf = await post('/api/ladder.pdf', { title: 'Marram', lab }).expect(200);
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    expect(await said(post('/api/ladder.pdf', { title: 'x', lab: { ...lab, L: 140 } }), 400)).toMatch(/L\*/);
  });

  it('the printed card counts as it was measured last', async () => {
    expect(await get<PatchCard>('/api/patch-card')).toBeNull();
    const pdf = await studio.agent.get('/api/patch-card.pdf').expect(200);
    expect((pdf.body as Buffer).subarray(0, 5).toString()).toBe('%PDF-');
    const card = (L: number, count = 12): object => ({
      id: newId(),
      labs: Array.from({ length: count }, () => ({ L, a: 0, b: 0 })),
      note: '',
    });
    expect(await said(post('/api/patch-card', card(50, 11)), 400)).toMatch(/12 patches/);
    expect(await said(post('/api/patch-card', card(140)), 400)).toMatch(/L\*/);
    await post('/api/patch-card', card(50)).expect(200);
    await post('/api/patch-card', card(51)).expect(200);
    expect((await get<PatchCard>('/api/patch-card'))?.labs.map((l) => l.L)).toEqual(Array<number>(12).fill(51));
  });

  it('over time: repeatability declines on one lot, readers are known, a wet reading waits for pairs', async () => {
    const chart = await get<RepeatabilityView>(`/api/colourways/${f.colourway}/repeatability`);
    expect([chart.points.map((p) => p.tag), chart.limits]).toEqual([['Lot 1'], null]);
    expect(await get<ReaderView[]>('/api/readers')).toMatchObject([{ name: 'house', readings: 1, offset: null }]);
    const dry = await get<DryForecastView>('/api/dry-forecast?L=60&a=-4&b=50&fibre=wool');
    expect(dry).toEqual({ pairs: 1, needed: 6, forecast: null });
    expect((await studio.agent.get('/api/dry-forecast?L=x&a=0&b=0&fibre=wool')).status).toBe(400);
  });

  it('is in the studio’s file, and comes in again', async () => {
    const file = await wholeDocument(studio.context.database.db);
    expect([file.swatches.length, file.fastnessTests.length, file.fastnessReadings.length]).toEqual([4, 2, 5]);
  });
});
