import type { HouseTimesEdit, PlanFactsView, Today } from '@vestigia/contract';
import type { PlannedHouse } from '@vestigia/core';
import { checkPlan, keepPlan, planHouse, readWeek } from '@vestigia/core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { elsewhere } from '../test/elsewhere';
import type { Furniture, TestStudio } from '../test/test-studio';
import { callsOf, furnish, makeLot, newId, openTestStudio, runEntry, wholeDocument } from '../test/test-studio';

const HOUR = 60;

describe('the plan of a studio', () => {
  let studio: TestStudio;
  let f: Furniture;
  let lotId: string;
  const { post, get } = callsOf(() => studio);
  const facts = (): Promise<PlanFactsView> => get<PlanFactsView>('/api/plan');
  const planned = async (): Promise<PlannedHouse> => planHouse(await facts(), { seed: 1, rounds: 60 });
  const accept = async (p: PlannedHouse, said: object = {}) =>
    post('/api/plan', {
      id: newId(),
      origin: p.problem.origin,
      after: (await facts()).accepted?.id ?? null,
      plan: keepPlan(p.problem, p.plan, new Set()),
      ...said,
    });

  beforeAll(async () => {
    studio = await openTestStudio('folder');
    f = await furnish(studio);
  });
  afterAll(() => studio.close());

  it('is empty in an idle studio, which is open as studios are', async () => {
    expect(await facts()).toMatchObject({ lots: [], accepted: null, zone: 'Europe/London' });
    expect((await facts()).times.week[0]).toEqual([['08:00', '18:00']]);
    const nothing = await planned();
    expect([nothing.plan.placed, nothing.plan.proven]).toEqual([[], true]);
  });

  it('places every step of an open lot, by the rules, from now on', async () => {
    lotId = await makeLot(studio, f, { quantityText: '4 hanks of 100 g' });
    const p = await planned();
    expect(p.faults).toEqual([]);
    expect(checkPlan(p.problem, p.plan)).toEqual([]);
    expect(p.plan.placed).toHaveLength((await facts()).lots[0]?.steps.length ?? 0);
    expect(Math.min(...p.plan.placed.map((s) => s.startMin))).toBeGreaterThanOrEqual(0);
    expect(p.problem.lots[0]?.holds.length).toBeGreaterThan(0);
  });

  it('is kept when it is accepted, and stood by when it is made again', async () => {
    await (
      await accept(await planned())
    ).status;
    const first = await facts();
    expect(first.accepted).toMatchObject({ by: 'Ada Reed' });
    const again = await planned();
    expect(again.plan.cost.moved).toBe(0);
    expect(keepPlan(again.problem, again.plan, new Set()).places).toEqual(first.accepted?.places);
  });

  it('is refused where another was accepted since, or a step began meanwhile', async () => {
    const p = await planned();
    expect((await accept(p, { after: newId() })).body).toMatchObject({
      detail: 'Ada Reed has accepted another plan since. Look at it; yours is worked out again from there.',
    });
    const crossed = keepPlan(p.problem, p.plan, new Set());
    const [one, ...others] = crossed.places;
    const early = { ...one, startAt: '2026-06-01T02:00:00.000Z', aloneFromAt: '2026-06-01T02:00:00.000Z' };
    const night = (await accept(p, { plan: { ...crossed, places: [early, ...others] } })).body as { detail: string };
    expect(night.detail).toMatch(/worked out again/);
    expect((await facts()).accepted?.places).toEqual(crossed.places);
  });

  it('is looked at whole where something in it was locked: freed and moved into the night, it is refused', async () => {
    const p = await planned();
    const [first] = p.plan.placed;
    const locked = keepPlan(p.problem, p.plan, new Set([first?.stepId ?? '']));
    expect((await accept(p, { plan: locked })).status).toBe(200);
    const at = (hours: number): string => new Date(Date.parse(p.problem.origin) + hours * 3_600_000).toISOString();
    const night = { startAt: at(15), aloneFromAt: at(15), aloneToAt: at(15.25), endAt: at(15.25) };
    const moved = (isLocked: boolean) => ({
      ...locked,
      places: locked.places.map((x) => (x.stepIndex === 0 ? { ...x, ...night, locked: isLocked } : x)),
    });
    for (const isLocked of [false, true])
      expect((await accept(p, { plan: moved(isLocked) })).body).toMatchObject({ reason: 'planBroken' });
    expect((await accept(p)).status).toBe(200);
  });

  it('has no hands of those who only look on', async () => {
    await post('/api/people', { id: newId(), name: 'Gus Sedge', passphrase: 'nine grey hanks', role: 'guest' }).expect(
      200,
    );
    expect((await facts()).people.map((who) => who.name)).toEqual(['Ada Reed']);
  });

  it('takes what runs as a fact, and lets what follows wait for it', async () => {
    await post(`/api/lots/${lotId}/entries`, runEntry(0, 'start')).expect(200);
    studio.pass(3 * HOUR);
    const p = await planned();
    const [running, next] = p.plan.placed;
    expect(running?.startMin).toBe(-3 * HOUR);
    expect(next?.startMin).toBeGreaterThanOrEqual(running?.endMin ?? Infinity);
    expect(checkPlan(p.problem, p.plan)).toEqual([]);
    expect((await accept(p)).status).toBe(200);
  });

  it('goes by the hours that are said, and refuses them from an older page', async () => {
    const times = await get<HouseTimesEdit>('/api/plan/times');
    const week = readWeek('Tue 10-16') ?? [];
    const said = { ...times, week, closed: [{ from: '2026-06-02', to: '2026-06-02', why: 'Market' }] };
    await studio.agent.put('/api/plan/times').send(said).expect(200);
    expect((await studio.agent.put('/api/plan/times').send(said)).status).toBe(409);
    const p = await planned();
    const [, next] = p.plan.placed;
    // Tuesday a week later, ten o'clock in London.
    const at = new Date(Date.parse(p.problem.origin) + (next?.startMin ?? 0) * 60_000).toISOString();
    expect(at).toBe('2026-06-09T09:00:00.000Z');
  });

  it('says of a lot that it can’t be planned, and plans the others', async () => {
    const times = await get<HouseTimesEdit>('/api/plan/times');
    const never = { ...times, week: readWeek('') ?? [] };
    await studio.agent.put('/api/plan/times').send(never).expect(200);
    const p = await planned();
    // What runs already stands in its pot all the same.
    expect(p.plan.placed.map((s) => s.stepId)).toEqual([`${lotId}:0`]);
    expect(p.faults.map((x) => [x.lotId, x.fault.code])).toEqual([[lotId, 'longerThanHours']]);
  });

  it('knows by which day a lot is promised, and refuses a day that is past', async () => {
    const want = (wantedOn: string | null) => studio.agent.put(`/api/lots/${lotId}/wanted`).send({ wantedOn });
    expect((await want('2026-05-31')).body).toMatchObject({
      detail: 'That day is past. Choose today or a day to come.',
    });
    await want('2026-06-20').expect(200);
    expect((await facts()).lots[0]?.wantedOn).toBe('2026-06-20');
    expect((await planned()).problem.lots[0]?.dueMin ?? null).toBeNull();
    await want(null).expect(200);
    expect((await facts()).lots[0]?.wantedOn).toBeNull();
    await want('2026-06-20').expect(200);
  });

  it('says on Today what it asks for soon', async () => {
    const times = await get<HouseTimesEdit>('/api/plan/times');
    await studio.agent
      .put('/api/plan/times')
      .send({ ...times, week: readWeek('daily 0-24'), closed: [] })
      .expect(200);
    const before = (await get<Today>('/api/today')).byPlan.filter((t) => t.stepIndex > 1);
    expect((await accept(await planned())).status).toBe(200);
    const { byPlan } = await get<Today>('/api/today');
    expect(byPlan.length).toBeGreaterThan(before.length);
    expect(byPlan[0]).toMatchObject({ lotTag: 'Lot 1', title: 'Mordant', kind: 'begin' });
    expect(byPlan.every((t) => Date.parse(t.startAt) < Date.parse('2026-06-02T18:05:00Z'))).toBe(true);
  });

  it('stands in a calendar, by download and by an address that can be ended', async () => {
    const times = await get<HouseTimesEdit>('/api/plan/times');
    await studio.agent
      .put('/api/plan/times')
      .send({ ...times, week: readWeek('daily 8-18'), closed: [] })
      .expect(200);
    expect((await accept(await planned())).status).toBe(200);
    const file = (
      await studio.agent
        .get('/api/plan/calendar')
        .expect(200)
        .expect('content-type', /text\/calendar/)
    ).text;
    expect(file.match(/BEGIN:VEVENT/g)?.length ?? 0).toBeGreaterThan(3);
    expect(file).toMatch(/SUMMARY:Lot 1\\, Begin: Mordant/);
    expect(await get('/api/plan/calendar/address')).toEqual({ has: false, key: null });
    const address = async (): Promise<string> =>
      ((await post('/api/plan/calendar/address', {}).expect(200)).body as { key: string }).key;
    const [first, second] = [await address(), await address()];
    const byKey = (key: string) => studio.stranger.get(`/api/calendar?key=${key}`);
    await byKey(first).expect(404);
    expect((await byKey(second).expect(200)).text).toBe(file);
    await studio.agent.delete('/api/plan/calendar/address').expect(200);
    await byKey(second).expect(404);
    await studio.stranger.get('/api/plan/calendar').expect(401);
  });

  it('goes with the studio’s file, and comes out of it again', async () => {
    const was = await wholeDocument(studio.context.database.db, new Date('2026-06-01T20:00:00.000Z'));
    expect([was.plans.length, was.lotsWanted.length, was.houseTimes?.closed.length]).toEqual([6, 1, 0]);
    const is = await elsewhere(async ({ open, whole }) => {
      expect((await open(was)).status).toBe(200);
      return whole();
    });
    expect([is.plans, is.lotsWanted, is.houseTimes]).toEqual([was.plans, was.lotsWanted, was.houseTimes]);
  });
});
