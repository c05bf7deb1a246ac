import type { LotDetail, Note, Problem, SearchHit } from '@vestigia/contract';
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
  runEntry,
  verdict,
} from '../test/test-studio';

describe.each(KINDS)('notes on anything, on a %s', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  let lot: string;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
    lot = await makeLot(studio, f, { quantityText: '6 hanks of 100 g' });
  });
  afterAll(() => studio.close());

  const write = (subject: string, subjectId: string, text: string, rest: object = {}) =>
    studio.agent.post('/api/notes').send({ id: newId(), subject, subjectId, text, ...rest });
  const read = async (subject: string, id: string): Promise<Note[]> =>
    (await studio.agent.get('/api/notes').query({ subject, id }).expect(200)).body as Note[];
  const find = async (q: string): Promise<SearchHit[]> =>
    (await studio.agent.get('/api/search').query({ q }).expect(200)).body as SearchHit[];

  it('are kept on a jar, a material, a pot, a colourway and a lot, and found by search', async () => {
    for (const [subject, id] of [
      ['stockLot', f.weldStockLot],
      ['material', f.weld],
      ['vessel', f.kettle],
      ['colourway', f.colourway],
      ['lot', lot],
      ['recipe', f.recipeId],
    ] as const) {
      await write(subject, id, `smells of hay, says the ${subject}`).expect(200);
      expect((await read(subject, id)).map((n) => [n.text, n.by.name])).toEqual([
        [`smells of hay, says the ${subject}`, 'Ada Reed'],
      ]);
    }
    const hits = (await find('smells of hay')).map((h) => [h.kind, h.title]);
    expect(hits).toEqual(
      expect.arrayContaining([
        ['material', 'Weld'],
        ['vessel', 'Kettle'],
        ['colourway', 'Marram'],
        ['lot', 'Lot 1'],
        ['recipe', 'Weld on alum'],
      ]),
    );
  });

  it('are corrected by a new one, taken back by an empty one, and never rewritten', async () => {
    const first = newId();
    await write('vessel', f.pan, 'leaks', { id: first }).expect(200);
    await write('vessel', f.pan, 'leaks at the rim', { replacesId: first }).expect(200);
    const [standing] = await read('vessel', f.pan);
    expect(standing?.text).toBe('leaks at the rim');
    const again = await write('vessel', f.pan, 'no', { replacesId: first });
    expect([again.status, (again.body as Problem).code]).toEqual([409, 'alreadyDone']);
    await write('vessel', f.pan, '', { replacesId: standing?.id }).expect(200);
    expect(await read('vessel', f.pan)).toEqual([]);
    await expect(studio.context.database.db.execute(sql`UPDATE notes SET text = 'other'`)).rejects.toThrow();
  });

  it.each([
    ['an empty one', (): string[] => ['lot', lot, ' '], 422, /Write what you want to keep/],
    ['one on nothing', (): string[] => ['lot', newId(), 'x'], 404, /./],
  ])('refuse %s in a sentence', async (_name, of, status, message) => {
    const [subject, id, text] = of() as [string, string, string];
    const reply = await write(subject, id, text);
    expect([reply.status, (reply.body as Problem).detail]).toEqual([status, expect.stringMatching(message)]);
  });

  it('are on one piece of a lot too, and on none that it hasn’t', async () => {
    const of = { batch: 1, group: null, zone: null, piece: '2', dip: null };
    await write('lot', lot, 'a knot has opened', { of }).expect(200);
    expect((await read('lot', lot)).find((n) => n.text === 'a knot has opened')?.of).toEqual(of);
    for (const wrong of [
      { ...of, piece: '70' },
      { ...of, dip: 9 },
      { ...of, batch: 4 },
    ]) {
      const reply = await write('lot', lot, 'x', { of: wrong });
      expect([reply.status, (reply.body as Problem).detail]).toEqual([422, expect.stringMatching(/no such piece/)]);
    }
    expect((await write('vessel', f.pan, 'x', { of })).status).toBe(422);
    const said = (entry: object) => studio.agent.post(`/api/lots/${lot}/entries`).send(entry);
    await said(runEntry(0, 'note', { text: 'hole', detail: { of } })).expect(200);
    expect((await said(runEntry(0, 'note', { text: 'hole', detail: { of: { ...of, piece: '70' } } }))).status).toBe(
      422,
    );
    const { entries } = (await studio.agent.get(`/api/lots/${lot}`).expect(200)).body as LotDetail;
    expect(entries.map((e) => [e.kind, e.detail])).toEqual([['note', { of }]]);
  });

  it('marked for next time are heard when it is dyed again; for the recipe, on the recipe', async () => {
    await dyeLot(studio, f, lot);
    await studio.agent.post(`/api/lots/${lot}/readings`).send(reading('dry', 74)).expect(200);
    await studio.agent.post(`/api/lots/${lot}/verdicts`).send(verdict('pass')).expect(200);
    // A closed lot's record stays as it is; a note is a new fact beside it.
    await write('lot', lot, 'a pinch more alum', { mark: 'next' }).expect(200);
    await write('colourway', f.colourway, 'the customer likes it paler', { mark: 'next' }).expect(200);
    await write('lot', lot, 'the hold may be shorter', { mark: 'recipe' }).expect(200);
    const ask = { colourwayId: f.colourway, quantityText: '1 hank of 100 g', waterId: f.water, reorderOfId: lot };
    const { body } = await studio.agent.post('/api/lots/proposal').send(ask).expect(200);
    const said = (body as { then: { said: { text: string }[] } }).then.said.map((s) => s.text);
    expect(said).toEqual(expect.arrayContaining(['a pinch more alum', 'the customer likes it paler']));
    expect((await read('recipe', f.recipeId)).map((n) => n.text)).toContain('the hold may be shorter');
  });
});
