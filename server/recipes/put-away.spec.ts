import type { Colourway, ListedMaterial, Problem, RecipeSummary } from '@vestigia/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { KINDS, furnish, makeLot, newId, openTestStudio, wholeDocument } from '../test/test-studio';

describe.each(KINDS)('what is put away (%s)', (kind) => {
  let studio: TestStudio;
  let f: Furniture;
  const put = (things: string, id: string, putAway = true) =>
    studio.agent.put(`/api/${things}/${id}/put-away`).send({ putAway });
  const list = async <T>(things: string): Promise<T[]> =>
    (await studio.agent.get(`/api/${things}`).expect(200)).body as T[];

  beforeAll(async () => {
    studio = await openTestStudio(kind);
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  it('a recipe and a colourway say so, stay whole, and come back', async () => {
    const [recipe] = await list<RecipeSummary>('recipes');
    const [colourway] = await list<Colourway>('colourways');
    await put('recipes', recipe?.id ?? '').expect(200);
    await put('colourways', colourway?.id ?? '').expect(200);
    expect((await list<RecipeSummary>('recipes'))[0]?.putAway).toBe(true);
    expect((await list<Colourway>('colourways'))[0]).toMatchObject({ putAway: true, name: colourway?.name });
    // Dyed again all the same: it is out of the way, and not gone.
    await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const told = await wholeDocument(studio.context.database.db);
    expect(told.recipes.find((r) => r.id === recipe?.id)?.putAway).toBe(true);
    expect(told.colourways.find((c) => c.id === colourway?.id)?.putAway).toBe(true);
    await put('recipes', recipe?.id ?? '', false).expect(200);
    expect((await list<RecipeSummary>('recipes'))[0]?.putAway).toBe(false);
  });

  it('a material is put away only when none of it is left', async () => {
    const { detail, reason } = (await put('materials', f.weld).expect(422)).body as Problem;
    expect([reason, detail]).toEqual(['stillThere', expect.stringMatching(/on the shelf still, in .+Use it up/)]);
    const id = newId();
    const [weld] = (await list<ListedMaterial>('materials')).filter((m) => m.id === f.weld);
    const { version: _version, bulkDensityGPerMl: _density, putAway: _away, ...facts } = weld as ListedMaterial;
    await studio.agent
      .post('/api/materials')
      .send({ ...facts, id, name: 'Old madder' })
      .expect(200);
    await put('materials', id).expect(200);
    expect((await list<ListedMaterial>('materials')).find((m) => m.id === id)?.putAway).toBe(true);
    await put('materials', newId()).expect(404);
  });
});
