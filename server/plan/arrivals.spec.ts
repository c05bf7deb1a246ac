import type { HouseTimesEdit, PlanFactsView } from '@vestigia/contract';
import { planClock, planHouse, planStepId } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { elsewhere } from '../test/elsewhere';
import type { Furniture, TestStudio } from '../test/test-studio';
import {
  callsOf,
  delivery,
  furnish,
  makeLot,
  newId,
  openTestStudio,
  runEntry,
  wholeDocument,
} from '../test/test-studio';

describe('stock that is to arrive', () => {
  let studio: TestStudio;
  let f: Furniture;
  let [early, late] = ['', ''];
  const { post, get } = callsOf(() => studio);
  const facts = (): Promise<PlanFactsView> => get<PlanFactsView>('/api/plan');
  const arrival = (materialId: string, arrivesOn: string | null) =>
    studio.agent.put(`/api/materials/${materialId}/arrival`).send({ arrivesOn });
  const beginsOn = async (lotId: string, stepIndex: number): Promise<string | undefined> => {
    const { problem, plan } = planHouse(await facts(), { seed: 1, rounds: 20 });
    const at = plan.placed.find((p) => p.stepId === planStepId(lotId, stepIndex));
    return at && planClock(problem.origin).toIso(at.startMin).slice(0, 10);
  };
  const from = async (lotId: string): Promise<(string | null)[]> =>
    (await facts()).lots.find((l) => l.id === lotId)?.steps.map((s) => s.beginFromOn) ?? [];

  beforeAll(async () => {
    studio = await openTestStudio('folder');
    f = await furnish(studio);
    // 3 kg of weld are there: the second lot is short of 100 g.
    early = await makeLot(studio, f, { quantityText: '12 hanks of 100 g' });
    late = await makeLot(studio, f, { quantityText: '19 hanks of 100 g', acceptShortages: true });
  });
  afterAll(() => studio.close());

  it('is waited for as long as it usually takes, at the step that weighs it, by the lot that is short of it', async () => {
    expect((await facts()).awaited).toEqual([
      {
        materialId: f.weld,
        name: 'Weld',
        measure: 'weight',
        missing: 100_000,
        lotTags: ['Lot 2'],
        arrivesOn: '2026-06-15',
        isSaid: false,
        isMadeHere: false,
      },
    ]);
    expect(new Set(await from(early))).toEqual(new Set([null]));
    const dye = (await facts()).lots.find((l) => l.id === late)?.steps.find((s) => s.kind === 'dye');
    expect((await from(late)).flatMap((day, i) => (day === null ? [] : [[i, day]]))).toEqual([
      [dye?.index, '2026-06-15'],
    ]);
    expect(await beginsOn(late, dye?.index ?? -1)).toBe('2026-06-15');
  });

  it('comes no later for every day that nobody says anything, and is looked for daily once it is overdue', async () => {
    studio.pass(3 * 24 * 60);
    expect((await facts()).awaited).toMatchObject([{ arrivesOn: '2026-06-15' }]);
    studio.pass(-3 * 24 * 60);
  });

  it('is waited for until the day somebody says, and no day that is past', async () => {
    expect((await arrival(f.weld, '2026-05-31')).body).toMatchObject({
      detail: 'That day is past. Choose today or a day to come.',
    });
    await arrival(newId(), '2026-06-03').expect(404);
    await arrival(f.weld, '2026-06-08').expect(200);
    await arrival(f.weld, '2026-06-04').expect(200);
    expect((await facts()).awaited).toMatchObject([{ arrivesOn: '2026-06-04', isSaid: true }]);
    expect(await from(late)).toContain('2026-06-04');
    await arrival(f.weld, null).expect(200);
    expect((await facts()).awaited).toMatchObject([{ arrivesOn: '2026-06-15', isSaid: false }]);
    await arrival(f.weld, '2026-06-04').expect(200);
  });

  it('goes with the studio’s file, and comes out of it again', async () => {
    const was = await wholeDocument(studio.context.database.db, new Date('2026-06-01T20:00:00.000Z'));
    expect(was.arrivals).toMatchObject([{ materialId: f.weld, arrivesOn: '2026-06-04' }]);
    const is = await elsewhere(async ({ open, whole }) => {
      expect((await open(was)).status).toBe(200);
      return whole();
    });
    expect(is.arrivals).toEqual(was.arrivals);
  });

  it('is not waited for once it is there, nor by a step that was begun', async () => {
    await post('/api/stock-lots', delivery(f.weld, '100 g', { bestBefore: '2026-05-20' })).expect(200);
    // What has gone off is no help.
    expect((await facts()).awaited).toHaveLength(1);
    await post('/api/stock-lots', delivery(f.weld, '100 g')).expect(200);
    expect((await facts()).awaited).toEqual([]);
    expect(new Set(await from(late))).toEqual(new Set([null]));
  });

  it('is weighed by its last good day', async () => {
    const ochre = await makeLot(studio, f, { quantityText: '1 hank of 100 g', acceptShortages: true });
    const jar = await get<{ version: number }>(`/api/stock-lots/${f.alumStockLot}`);
    await studio.agent
      .put(`/api/stock-lots/${f.alumStockLot}`)
      .send({ version: jar.version, place: 'Shelf', note: '', bestBefore: '2026-06-05' })
      .expect(200);
    const steps = async () => (await facts()).lots.find((l) => l.id === ochre)?.steps ?? [];
    expect((await steps()).filter((s) => s.beginByOn !== null)).toMatchObject([
      { kind: 'mordant', beginByOn: '2026-06-05' },
    ]);
    const mordant = (await steps()).find((s) => s.kind === 'mordant')?.index ?? -1;
    for (const index of [0, mordant])
      await post(`/api/lots/${ochre}/entries`, runEntry(index, 'skip', { text: 'mordanted before' })).expect(200);
    expect((await steps()).filter((s) => s.beginByOn !== null)).toEqual([]);
  });

  it('is planned with room and pots as the studio says, and refuses a line for nothing', async () => {
    const times = await get<HouseTimesEdit>('/api/plan/times');
    expect([times.pots, times.room]).toEqual([[], { dryingPieces: null, coldPots: null, balances: null }]);
    const put = (said: object) => studio.agent.put('/api/plan/times').send({ ...times, ...said });
    const none = await put({ room: { ...times.room, dryingPieces: 0 } });
    expect(none.status).toBe(400);
    expect(JSON.stringify(none.body)).toMatch(/Write 1 or more, or leave it empty/);
    await put({
      pots: [{ vesselId: f.kettle, outUntil: '2026-06-10' }],
      room: { dryingPieces: 40, coldPots: null, balances: 1 },
    }).expect(200);
    const { problem } = planHouse(await facts(), { seed: 1, rounds: 1 });
    expect(problem.resources.flatMap((r) => (r.kind === 'vessel' ? [] : [[r.name, r.capacity]]))).toEqual([
      ['Drying line', 40],
      ['Balance', 1],
    ]);
    expect(problem.resources.find((r) => r.id === f.kettle)?.out[0]?.[0]).toBe(0);
  });
});
