import type { FirstLot, Problem, Proposal, RecipeSummary, ShelfRow, StockLot } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { TestStudio } from '../test/test-studio';
import { agreed, KINDS, newId, openTestStudio, runEntry } from '../test/test-studio';

describe.each(KINDS)('a first lot in an empty studio, on a %s', (kind) => {
  let studio: TestStudio;
  beforeAll(async () => {
    studio = await openTestStudio(kind);
  });
  afterAll(() => studio.close());

  const first = (rest: Partial<FirstLot> = {}): FirstLot => ({
    id: newId(),
    name: `Onion on wool ${newId()}`,
    pot: { name: '12 l pot', metal: 'stainless', litres: 12 },
    base: { name: 'Wool', fibre: 'wool', pieceWord: 'skein', usualPieceWeightG: 100 },
    starter: 'alumHot',
    dyestuffKey: 'onion-skins',
    onHand: [
      { key: '', quantityText: '300 g' },
      { key: 'potassium-alum', quantityText: '45 g' },
      { key: 'onion-skins', quantityText: '190 g', guessed: true },
    ],
    ...rest,
  });
  const send = (body: object) => studio.agent.post('/api/first-lot').send(body);
  const shelf = async (): Promise<ShelfRow[]> => (await studio.agent.get('/api/stores').expect(200)).body as ShelfRow[];

  const noteOf = async (id: string): Promise<string> =>
    ((await studio.agent.get(`/api/stock-lots/${id}`).expect(200)).body as StockLot).note;

  it('one press sets it up, and the lot is proposed, agreed and begun', async () => {
    const body = first();
    await send(body).expect(200);
    // Sent again, it is done once.
    await send(body).expect(200);
    expect((await shelf()).map((r) => [r.material, r.onHand])).toEqual(
      expect.arrayContaining([
        ['Wool', 300_000],
        ['Potassium alum', 45_000],
        ['Onion skins', 190_000],
      ]),
    );
    // What nobody weighed says so on its jar; what was weighed says nothing.
    const notes = await Promise.all((await shelf()).map(async (r) => [r.material, await noteOf(r.id)]));
    expect(notes).toEqual(
      expect.arrayContaining([
        ['Wool', ''],
        ['Onion skins', expect.stringContaining('Count it when you can.')],
      ]),
    );
    const ask = { colourwayId: body.id, quantityText: '3 skeins of 100 g', waterId: null, reorderOfId: null };
    const proposal = (await studio.agent.post('/api/lots/proposal').send(ask).expect(200)).body as Proposal;
    expect(proposal.plan.materials.every((m) => m.short === 0)).toBe(true);
    expect(proposal.checks.filter((c) => c.severity === 'stop')).toEqual([]);
    const id = newId();
    await studio.agent
      .post('/api/lots')
      .send({ id, ask, ...agreed(proposal) })
      .expect(200);
    await studio.agent.post(`/api/lots/${id}/entries`).send(runEntry(0, 'start')).expect(200);
  });

  it('what the studio has already is used again', async () => {
    const before = await shelf();
    const wool = before.find((r) => r.material === 'Wool')?.materialId ?? '';
    await send(first({ pot: null, base: { materialId: wool }, onHand: [] })).expect(200);
    expect((await shelf()).length).toBe(before.length);
    const recipes = (await studio.agent.get('/api/recipes').expect(200)).body as RecipeSummary[];
    expect(recipes).toHaveLength(2);
    expect(recipes.every((r) => r.versions[0]?.status === 'trial')).toBe(true);
  });

  it.each([
    ['a vat dye', { dyestuffKey: 'indigo' }, /dyes from a vat/],
    ['a way that doesn’t suit the cloth', { starter: 'tanninAcetate' as const }, /doesn’t suit wool/],
    ['a dyestuff nobody knows', { dyestuffKey: 'moon-dust' }, /not in the catalogue/],
  ])('refuses %s in a sentence, and sets nothing up', async (_name, change, message) => {
    const before = await shelf();
    const base = { name: `Wool ${newId()}`, fibre: 'wool' as const, pieceWord: 'skein', usualPieceWeightG: 100 };
    const { status, body } = await send(first({ base, ...change }));
    expect(status).toBe(422);
    expect((body as Problem).detail).toMatch(message);
    expect(await shelf()).toEqual(before);
  });
});
