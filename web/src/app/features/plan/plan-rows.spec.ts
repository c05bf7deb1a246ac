import type { PlanFactsView } from '@vestigia/contract';
import { keepPlan, planHouse, planStepId } from '@vestigia/core';
import { describe, expect, it } from 'vitest';
import type { PlanView } from './plan-rows';
import { planRows, touchesOf } from './plan-rows';

const id = (n: number): string => `00000000-0000-7000-8000-00000000000${n}`;
const [LOT, WENNA, CORIN, KETTLE, RING] = [1, 2, 3, 4, 5].map(id);
const times = { beginHandsMin: 10, aloneMin: 120, aloneMaxMin: 165, endHandsMin: 10, watched: false, isHot: true };
const step = (index: number, over: object = {}) => ({
  index,
  kind: 'dye' as const,
  title: ['Mordant', 'Dye', 'Rinse'][index] ?? '',
  times,
  vesselIds: index < 2 ? [KETTLE ?? ''] : [],
  weighs: false,
  liquor: index < 2 ? 'one' : '',
  after: index === 0 ? [] : [index - 1],
  wait: null,
  hazards: [],
  learntOf: null,
  beginFromOn: null,
  beginByOn: null,
  ...over,
});
const rinse = { beginHandsMin: 0, aloneMin: 20, aloneMaxMin: 20, endHandsMin: 0, watched: true, isHot: false };
const facts: PlanFactsView = {
  now: '2026-06-01T08:00:00.000Z',
  zone: 'Europe/London',
  times: {
    version: 1,
    week: Array.from({ length: 7 }, () => [['08:00', '18:00'] as [string, string]]),
    closed: [],
    people: [],
    heat: [],
    pots: [],
    room: { dryingPieces: null, coldPots: null, balances: null },
  },
  people: [
    { id: WENNA ?? '', name: 'Wenna' },
    { id: CORIN ?? '', name: 'Corin' },
  ],
  vessels: [{ id: KETTLE ?? '', name: 'Kettle', heatSourceId: RING ?? '' }],
  heatSources: [{ id: RING ?? '', name: 'Gas ring', powerW: 3000 }],
  lots: [
    {
      id: LOT ?? '',
      tag: 'Lot 1',
      pieces: 4,
      colourway: 'Marram',
      lab: null,
      wantedOn: null,
      order: null,
      steps: [step(0), step(1), step(2, { times: rinse })],
      records: [{}, {}, {}],
    },
  ],
  took: null,
  awaited: [],
  learnt: [],
  kept: null,
  accepted: null,
};
const found = planHouse(facts, { seed: 1, rounds: 50 });
const origin = Date.parse('2026-06-01T08:00:00.000Z');

describe('a plan in rows', () => {
  it('has a row for each lot with its steps, hands at both ends', () => {
    const [row] = planRows(found, facts, 'lot');
    expect([row?.name, row?.note, row?.lotId]).toEqual(['Lot 1', 'Marram', LOT]);
    expect(row?.blocks.map((b) => b.title)).toEqual(['Mordant', 'Dye', 'Rinse']);
    const [mordant] = row?.blocks ?? [];
    expect(mordant?.fromMs).toBe(origin);
    expect(mordant?.hands).toEqual([
      { fromMs: origin, toMs: origin + 10 * 60_000 },
      { fromMs: origin + 130 * 60_000, toMs: origin + 140 * 60_000 },
    ]);
  });
  it('holds a pot over both steps in it, and has them on its burner too', () => {
    const [kettle, ring] = planRows(found, facts, 'vessel');
    expect([kettle?.name, ring?.name]).toEqual(['Kettle', 'Gas ring']);
    expect(kettle?.held).toEqual([{ lotTag: 'Lot 1', fromMs: origin, toMs: kettle?.blocks[1]?.toMs }]);
    for (const row of [kettle, ring]) expect(row?.blocks.map((b) => b.title)).toEqual(['Mordant', 'Dye']);
  });
  it('gives a person each touch of theirs by itself, under a name of its own', () => {
    const blocks = planRows(found, facts, 'person').flatMap((r) => r.blocks);
    expect(blocks).toHaveLength(5);
    expect(new Set(blocks.map((b) => b.key)).size).toBe(5);
    expect(blocks.every((b) => b.toMs - b.fromMs <= 20 * 60_000)).toBe(true);
  });
  it('leaves out what is long over, and has no hands at what is begun', () => {
    const records = [
      { startedAt: '2026-06-01T05:00:00.000Z', finishedAt: '2026-06-01T06:00:00.000Z' },
      { startedAt: '2026-06-01T07:30:00.000Z' },
      {},
    ];
    const run = { ...facts, lots: facts.lots.map((l) => ({ ...l, records })) };
    const [row] = planRows(planHouse(run, { seed: 1, rounds: 10 }), run, 'lot');
    expect(row?.blocks.map((b) => [b.title, b.isFact, b.hands.length])).toEqual([
      ['Dye', true, 0],
      ['Rinse', false, 1],
    ]);
  });
  it('shows where the accepted plan has what moved, in each view, and the thread of the lot over all of it', () => {
    const accepted = { ...keepPlan(found.problem, found.plan, new Set()), id: id(9), at: facts.now, by: 'Wenna' };
    const agreed = { ...facts, accepted };
    const rinseAt = found.plan.placed[2]?.startMin ?? 0;
    const wanted = [{ stepId: planStepId(LOT ?? '', 1), startMin: rinseAt + 60 }];
    const moved = planHouse(agreed, { seed: 1, rounds: 10 }, { wanted });
    const was = (view: PlanView): string[][] =>
      planRows(moved, agreed, view).map((r) => r.was.map((w) => `${(w.toMs - w.fromMs) / 60_000} min`));
    expect(planRows(planHouse(agreed, { seed: 1, rounds: 10 }), agreed, 'lot')[0]?.was).toEqual([]);
    expect(was('lot')).toEqual([['140 min', '20 min']]);
    expect(was('vessel')).toEqual([['140 min'], ['140 min']]);
    // Hands begin the dyeing and end it; the rinse is stayed with.
    expect(was('person').flat().sort()).toEqual(['10 min', '10 min', '20 min']);
    const [row] = planRows(moved, agreed, 'lot');
    expect(row?.thread).toEqual({ lotTag: 'Lot 1', fromMs: row?.blocks[0]?.fromMs, toMs: row?.blocks[2]?.toMs });
  });
  it('is the same as a list in the order of the clock', () => {
    expect(touchesOf(found).map((t) => [t.kind, t.title, t.minutes])).toEqual([
      ['begin', 'Mordant', 10],
      ['end', 'Mordant', 10],
      ['begin', 'Dye', 10],
      ['end', 'Dye', 10],
      ['stay', 'Rinse', 20],
    ]);
    expect(touchesOf(found)[0]?.stepId).toBe(planStepId(LOT ?? '', 0));
  });
});
