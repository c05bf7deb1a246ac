import type { PlanFactsView } from '@vestigia/contract';
import type { DoneByPlan } from '@vestigia/core';
import { keepPlan, planHouse, plansKept } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Furniture, TestStudio } from '../test/test-studio';
import { callsOf, dyeLot, furnish, makeLot, newId, openTestStudio, reading, verdict } from '../test/test-studio';

const LOTS = 4;

describe('what a studio learns of its times', () => {
  let studio: TestStudio;
  let f: Furniture;
  const { post, get } = callsOf(() => studio);
  const facts = (): Promise<PlanFactsView> => get<PlanFactsView>('/api/plan');
  beforeAll(async () => {
    studio = await openTestStudio('folder');
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  it('is nothing at first, and of lots that are done how long each step took and each lot as a whole', async () => {
    await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
    const recipes = (await facts()).lots[0]?.steps ?? [];
    expect([(await facts()).took, recipes.every((s) => s.learntOf === null)]).toEqual([null, true]);
    const byPlan: DoneByPlan[] = [];
    for (let n = 0; n < LOTS; n += 1) {
      const lotId = await makeLot(studio, f, { quantityText: '1 hank of 100 g' });
      const made = planHouse(await facts(), { seed: 1, rounds: 5 });
      const plan = keepPlan(made.problem, made.plan, new Set());
      const body = { id: newId(), origin: made.problem.origin, after: (await facts()).accepted?.id ?? null, plan };
      await post('/api/plan', body).expect(200);
      const ends = plan.places.flatMap((p) => (p.lotId === lotId ? [p.endAt] : [])).sort();
      await dyeLot(studio, f, lotId, { grams: 100 });
      byPlan.push({ saidAt: ends.at(-1) ?? '', doneAt: (await facts()).now });
      await post(`/api/lots/${lotId}/readings`, reading('dry')).expect(200);
      await post(`/api/lots/${lotId}/verdicts`, verdict('pass')).expect(200);
    }
    const { lots, took, kept } = await facts();
    expect(took?.lots).toBe(LOTS);
    expect(took?.fourInFive).toBeGreaterThanOrEqual(took?.middle ?? Infinity);
    expect(kept).toEqual(plansKept(byPlan));
    // Weighing the fibre is stayed with: a quarter of an hour is meant, an hour was taken.
    const [fibre, ...others] = lots[0]?.steps ?? [];
    expect(fibre).toMatchObject({ learntOf: LOTS, times: { aloneMin: 60, watched: true } });
    expect(others.filter((s) => s.learntOf === null).length).toBeGreaterThan(0);
  });
});
