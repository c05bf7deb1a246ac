import { describe, expect, it } from 'vitest';
import { checkPlan } from './check-plan';
import type { HousePlan, PlanFacts, PlannableLot, PlannableStep } from './house-plan';
import { houseProblem, keepPlan, ofPlanStep, planClock, planStepId } from './house-problem';
import type { HouseRoom } from './house-times';
import { TIMES_AT_FIRST } from './house-times';
import { sayPlanHelp, whatWouldMakeIt } from './make-it';
import type { PlannedHouse, WantedPlace } from './plan-house';
import { movedSteps, planHouse } from './plan-house';
import { sayPlanBreach, whyNotAt } from './say-breach';
import { sayTouch, touchesAhead } from './touches-ahead';

const NOW = '2026-06-01T08:02:00.000Z';
const cold = { beginHandsMin: 10, aloneMin: 120, aloneMaxMin: null, endHandsMin: 10, watched: false, isHot: false };
const step = (index: number, said: Partial<PlannableStep> = {}): PlannableStep => ({
  index,
  kind: 'dye',
  title: `Step ${index}`,
  times: cold,
  vesselIds: [],
  weighs: false,
  liquor: '',
  after: index === 0 ? [] : [index - 1],
  wait: null,
  hazards: [],
  beginFromOn: null,
  beginByOn: null,
  ...said,
});
const lot = (id: string, steps: readonly PlannableStep[], said: Partial<PlannableLot> = {}): PlannableLot => ({
  id,
  tag: `Lot ${id}`,
  pieces: 4,
  wantedOn: null,
  steps,
  records: steps.map(() => ({})),
  ...said,
});
const house = (lots: readonly PlannableLot[], said: Partial<PlanFacts> = {}): PlanFacts => ({
  now: NOW,
  zone: 'Europe/London',
  times: TIMES_AT_FIRST,
  people: [
    { id: 'wenna', name: 'Wenna' },
    { id: 'corin', name: 'Corin' },
  ],
  vessels: [
    { id: 'kettle', name: 'Kettle', heatSourceId: 'ring' },
    { id: 'pan', name: 'Pan', heatSourceId: 'ring' },
  ],
  heatSources: [{ id: 'ring', name: 'Gas ring', powerW: 3000 }],
  lots,
  accepted: null,
  ...said,
});
const plan = (facts: PlanFacts, wanted: readonly WantedPlace[] = []): PlannedHouse => {
  const found = planHouse(facts, { seed: 1, rounds: 200 }, { wanted });
  expect(checkPlan(found.problem, found.plan)).toEqual([]);
  return found;
};
const lateLot = (lotId: string, lateMin: number, hotMordantIds: string[] = []) => ({ lotId, lateMin, hotMordantIds });
const startOf = (found: PlannedHouse, id: string): string | undefined => {
  const at = found.plan.placed.find((p) => p.stepId === id)?.startMin;
  return at === undefined ? undefined : planClock(found.problem.origin).toIso(at);
};
const acceptedOf = (found: PlannedHouse, locked: readonly string[] = []): HousePlan =>
  keepPlan(found.problem, found.plan, new Set(locked));

describe('a studio’s open lots as a plan', () => {
  it('begins on the next five minutes, in hours of the studio’s own clock', () => {
    const early = house([lot('a', [step(0)])], { now: '2026-06-01T05:00:00.000Z' });
    // London is an hour ahead of UTC in June, and opens at eight.
    expect(startOf(plan(early), 'a:0')).toBe('2026-06-01T07:00:00.000Z');
    expect(startOf(plan(house([lot('a', [step(0)])])), 'a:0')).toBe('2026-06-01T08:05:00.000Z');
  });
  it('keeps names of lots and steps apart', () => {
    expect(ofPlanStep(planStepId('01-a:b', 12))).toEqual({ lotId: '01-a:b', stepIndex: 12 });
  });
  it('takes what is done and what runs as facts, and what was left out as no time at all', () => {
    const records = [
      { startedAt: '2026-06-01T06:00:00.000Z', finishedAt: '2026-06-01T06:30:00.000Z' },
      { skippedReason: 'not wanted' },
      { startedAt: '2026-06-01T07:00:00.000Z' },
      {},
    ];
    const found = plan(
      house([
        lot(
          'a',
          [0, 1, 2, 3].map((i) => step(i)),
          { records },
        ),
      ]),
    );
    expect(startOf(found, 'a:0')).toBe('2026-06-01T06:00:00.000Z');
    expect(startOf(found, 'a:1')).toBe('2026-06-01T06:30:00.000Z');
    // Begun at seven, it takes 140 minutes.
    expect(startOf(found, 'a:3')).toBe('2026-06-01T09:20:00.000Z');
  });
  it('lets what ran over be done now, at the earliest', () => {
    const records = [{ startedAt: '2026-05-30T07:00:00.000Z' }, {}];
    const found = plan(house([lot('a', [step(0), step(1)], { records })]));
    expect(startOf(found, 'a:1')).toBe('2026-06-01T08:10:00.000Z');
  });
  it('holds a pot over all steps of its liquor, and a burner while something on it is hot', () => {
    const hot = { ...cold, isHot: true, aloneMaxMin: 165 };
    const mordant = (i: number): PlannableStep =>
      step(i, { vesselIds: ['kettle'], liquor: 'mordant', times: i === 0 ? hot : cold });
    const other = step(0, { vesselIds: ['pan'], liquor: 'dye', times: hot });
    const found = plan(house([lot('a', [mordant(0), mordant(1)]), lot('b', [other])]));
    const hold = found.plan.holds.find((h) => h.resourceId === 'kettle');
    expect(hold?.toMin).toBe(found.plan.placed.find((p) => p.stepId === 'a:1')?.endMin);
    const [a, b] = ['a:0', 'b:0'].map((id) => found.plan.placed.find((p) => p.stepId === id));
    expect((a?.endMin ?? 0) <= (b?.startMin ?? 0) || (b?.endMin ?? 0) <= (a?.startMin ?? 0)).toBe(true);
    const wide = { ...TIMES_AT_FIRST, heat: [{ heatSourceId: 'ring', potsAtOnce: 2, outUntil: null }] };
    const both = plan(house([lot('a', [mordant(0), mordant(1)]), lot('b', [other])], { times: wide }));
    expect(new Set(both.plan.placed.filter((p) => p.stepId !== 'a:1').map((p) => p.startMin)).size).toBe(1);
  });
  it('heats one after another what doesn’t stand on a burner together', () => {
    const hot = { ...cold, isHot: true, aloneMaxMin: 165 };
    const two = step(0, { vesselIds: ['kettle', 'pan'], times: hot });
    const alone = (facts: PlanFacts): number => {
      const [at] = plan(facts).plan.placed;
      return (at?.aloneToMin ?? 0) - (at?.aloneFromMin ?? 0);
    };
    expect(alone(house([lot('a', [two])]))).toBe(240);
    const wide = { ...TIMES_AT_FIRST, heat: [{ heatSourceId: 'ring', potsAtOnce: 2, outUntil: null }] };
    expect(alone(house([lot('a', [two])], { times: wide }))).toBe(120);
  });
  it('leaves a pot to the lot that stands in it, though the rest of that lot can’t be planned', () => {
    const inKettle = { vesselIds: ['kettle'] };
    const tooLong = step(1, { times: { ...cold, aloneMin: 5000, watched: true } });
    const records = [{ startedAt: NOW }, {}];
    const found = plan(house([lot('a', [step(0, inKettle), tooLong], { records }), lot('b', [step(0, inKettle)])]));
    expect(found.faults.map((f) => [f.lotId, f.fault.code])).toEqual([['a', 'longerThanHours']]);
    const stands = found.plan.placed.find((p) => p.stepId === 'a:0')?.endMin ?? Infinity;
    expect(found.plan.placed.find((p) => p.stepId === 'b:0')?.startMin).toBeGreaterThanOrEqual(stands);
  });
  it('shares what there is to do among those who could all do it', () => {
    const many = ['a', 'b', 'c', 'd'].map((id) => lot(id, [step(0), step(1)]));
    const found = plan(house(many));
    const touches = found.plan.placed.flatMap((p) => [p.beginBy, p.endBy]);
    const of = (id: string): number => touches.filter((t) => t === id).length;
    expect(Math.abs(of('wenna') - of('corin'))).toBeLessThanOrEqual(4);
  });
  it('knows who is away, who leaves what to others, and when a burner is back', () => {
    const own = { week: null, eveningsUntil: null, away: [], leaves: [] };
    const times = {
      ...TIMES_AT_FIRST,
      people: [
        { ...own, personId: 'wenna', away: [{ from: '2026-06-01', to: '2026-06-02', why: '' }] },
        { ...own, personId: 'corin', leaves: ['dust' as const] },
      ],
      heat: [{ heatSourceId: 'ring', potsAtOnce: 1, outUntil: '2026-06-03' }],
    };
    const dusty = step(0, { hazards: ['dust'] });
    const hot = step(0, { vesselIds: ['pan'], times: { ...cold, isHot: true, aloneMaxMin: 165 } });
    const found = plan(house([lot('a', [dusty]), lot('b', [hot])], { times }));
    expect(startOf(found, 'a:0')).toBe('2026-06-03T07:00:00.000Z');
    expect(startOf(found, 'b:0')).toBe('2026-06-04T07:00:00.000Z');
  });
  it('uses no pot that is out of order', () => {
    const leaky = { ...TIMES_AT_FIRST, pots: [{ vesselId: 'kettle', outUntil: '2026-06-02' }] };
    const found = plan(house([lot('a', [step(0, { vesselIds: ['kettle'] })])], { times: leaky }));
    expect(startOf(found, 'a:0')).toBe('2026-06-03T07:00:00.000Z');
  });
  it('has room on the line, in the cold and on the balance for so much at once, where that was said', () => {
    const dry = (id: string): PlannableLot => lot(id, [step(0, { kind: 'dry' })]);
    const soak = (id: string, vesselId: string): PlannableLot => lot(id, [step(0, { vesselIds: [vesselId] })]);
    const starts = (lots: PlannableLot[], room: Partial<HouseRoom>): number[] => {
      const found = plan(house(lots, { times: { ...TIMES_AT_FIRST, room: { ...TIMES_AT_FIRST.room, ...room } } }));
      const [a, b] = found.plan.placed.map((p) => p.startMin).sort((x, y) => x - y);
      return [(b ?? 0) - (a ?? 0)];
    };
    const two = [dry('a'), dry('b')];
    expect(starts(two, {})).toEqual([0]);
    expect(starts(two, { dryingPieces: 8 })).toEqual([0]);
    expect(starts(two, { dryingPieces: 7 })).toEqual([140]);
    // More than hangs there at once takes all of it.
    expect(starts(two, { dryingPieces: 2 })).toEqual([140]);
    const pots = [soak('a', 'kettle'), soak('b', 'pan')];
    expect([starts(pots, { coldPots: 2 }), starts(pots, { coldPots: 1 })]).toEqual([[0], [140]]);
    const weighed = ['a', 'b'].map((id) => lot(id, [step(0, { weighs: true })]));
    expect([starts(weighed, { balances: 2 }), starts(weighed, { balances: 1 })]).toEqual([[0], [10]]);
  });
  it('waits for what is to arrive, and begins before what it weighs goes off', () => {
    const awaits = plan(house([lot('a', [step(0), step(1, { beginFromOn: '2026-06-04' })])]));
    expect(startOf(awaits, 'a:0')).toBe('2026-06-01T08:05:00.000Z');
    expect(startOf(awaits, 'a:1')).toBe('2026-06-04T07:00:00.000Z');
    const long = step(0, { vesselIds: ['kettle'], times: { ...cold, aloneMin: 3 * 1440 } });
    const fresh = step(0, { vesselIds: ['kettle'], beginByOn: '2026-06-02' });
    const both = plan(house([lot('a', [long], { wantedOn: '2026-06-04' }), lot('b', [fresh])]));
    expect(both.spoiled).toEqual([]);
    expect(startOf(both, 'b:0')).toBe('2026-06-01T08:05:00.000Z');
  });
  it('plans what goes off before there is a place as soon as it can be, and names it', () => {
    const shut = { ...TIMES_AT_FIRST, closed: [{ from: '2026-06-01', to: '2026-06-03', why: 'gale' }] };
    const found = plan(house([lot('a', [step(0, { beginByOn: '2026-06-02' })])], { times: shut }));
    expect([found.spoiled, found.tooLate]).toEqual([['a:0'], []]);
    expect(startOf(found, 'a:0')).toBe('2026-06-04T07:00:00.000Z');
    const gone = plan(house([lot('a', [step(0, { beginByOn: '2026-05-30' })])]));
    expect([gone.spoiled, startOf(gone, 'a:0')]).toEqual([[], '2026-06-01T08:05:00.000Z']);
  });
  it('plans what has waited too long already as soon as it can be, and names it', () => {
    const records = [{ startedAt: '2026-05-29T06:00:00.000Z', finishedAt: '2026-05-29T08:00:00.000Z' }, {}];
    const found = planHouse(
      house([lot('a', [step(0), step(1, { wait: { minMinutes: 0, maxMinutes: 60 } })], { records })]),
      { seed: 1, rounds: 50 },
    );
    expect(found.tooLate).toEqual(['a:1']);
    expect(startOf(found, 'a:1')).toBe('2026-06-01T08:05:00.000Z');
  });
});

describe('the plan that was accepted', () => {
  const lots = [lot('a', [step(0), step(1)]), lot('b', [step(0), step(1)])];
  const first = plan(house(lots));
  const accepted = acceptedOf(first);
  it('is stood by, and nothing moves', () => {
    const again = plan(house(lots, { accepted }));
    expect(movedSteps(accepted, again)).toEqual([]);
    expect(acceptedOf(again)).toEqual(accepted);
  });
  it('gives way where somebody wants a step elsewhere, later or earlier, and what follows with it', () => {
    const at = (first.plan.placed.find((p) => p.stepId === 'a:0')?.startMin ?? 0) + 120;
    const later = plan(house(lots, { accepted }), [{ stepId: 'a:0', startMin: at }]);
    expect(later.plan.placed.find((p) => p.stepId === 'a:0')?.startMin).toBe(at);
    expect(movedSteps(accepted, later).map((m) => m.stepId)).toEqual(['a:0', 'a:1']);
    const back = plan(house(lots, { accepted: acceptedOf(later) }), [{ stepId: 'a:0', startMin: at - 120 }]);
    expect(back.plan.placed.find((p) => p.stepId === 'a:0')?.startMin).toBe(at - 120);
  });
  it('keeps what was locked where it is, and plans the rest round it', () => {
    const locked = acceptedOf(first, ['a:1']);
    const slow = [{ startedAt: '2026-06-01T08:00:00.000Z' }, {}];
    const again = planHouse(
      house([lot('a', lots[0]?.steps ?? [], { records: slow }), lot('b', [step(0), step(1)])], { accepted: locked }),
      { seed: 1, rounds: 50 },
    );
    expect(startOf(again, 'a:1')).toBe(startOf(first, 'a:1'));
  });
  it('plans anew what was locked to a moment that went by without it', () => {
    const locked = acceptedOf(first, ['a:0']);
    const later = plan(house(lots, { accepted: locked, now: '2026-06-01T12:02:00.000Z' }));
    expect(startOf(later, 'a:0')).toBe('2026-06-01T12:05:00.000Z');
  });
  it('says why a step can’t simply stand elsewhere', () => {
    const night = planClock(first.problem.origin).toMin('2026-06-01T23:00:00.000Z');
    const said = whyNotAt(first.problem, first.plan, 'a:0', night).map((b) => sayPlanBreach(first.problem, b));
    expect(said.some((s) => /isn’t here then for “Lot a, Step 0”/.test(s))).toBe(true);
    expect(said.some((s) => /“Lot a, Step 1” would not follow “Lot a, Step 0”/.test(s))).toBe(true);
    const there = first.plan.placed.find((p) => p.stepId === 'a:0')?.startMin ?? 0;
    expect(whyNotAt(first.problem, first.plan, 'a:0', there)).toEqual([]);
  });
  it('asks for hands in the order of the clock, and no longer for what is begun or done', () => {
    const touches = touchesAhead({ accepted, lots });
    expect(touches.length).toBe(8);
    expect([...touches].sort((x, y) => (x.startAt < y.startAt ? -1 : 1))).toEqual(touches);
    expect(sayTouch({ kind: 'begin', title: 'Dye' })).toBe('Begin: Dye');
    const begun = [lot('a', lots[0]?.steps ?? [], { records: [{ startedAt: NOW }, {}] })];
    expect(touchesAhead({ accepted, lots: begun }).map((t) => [t.stepIndex, t.kind])).toEqual([
      [0, 'end'],
      [1, 'begin'],
      [1, 'end'],
    ]);
    expect(touchesAhead({ accepted: null, lots })).toEqual([]);
  });
});

describe('a promise that can’t be kept', () => {
  const inKettle = (id: string, wantedOn: string | null): PlannableLot =>
    lot(id, [step(0, { vesselIds: ['kettle'], times: { ...cold, aloneMin: 5 * 60 } })], { wantedOn });
  const times = { ...TIMES_AT_FIRST, week: [[['08:00', '15:00']], [['08:00', '15:00']], [], [], [], [], []] } as const;
  const facts = house([inKettle('a', '2026-06-01'), inKettle('b', '2026-06-01')], { times: { ...times } });
  const found = plan(facts);
  it('is late, and what would keep it is named: another pot, a longer evening, going first', () => {
    const late = found.plan.lots.filter((l) => l.lateMin > 0).map((l) => l.lotId);
    expect(late).toHaveLength(1);
    const helps = whatWouldMakeIt(found.problem, lateLot(late[0] ?? '', found.plan.cost.lateMin), {
      seed: 1,
      rounds: 40,
    });
    const made = helps.filter((h) => h.lateMin === 0).map((h) => h.help.code);
    expect(made).toEqual(expect.arrayContaining(['another', 'first']));
    expect(made).not.toContain('hands');
    expect(helps.map((h) => sayPlanHelp(h.help)).join('; ')).toMatch(/a second pot like Kettle/);
  });
  it('is kept by planning anew, where only what was settled keeps it from being', () => {
    const wanted = [inKettle('a', null), inKettle('b', null)];
    const settled = plan(house(wanted, { times: { ...times } }));
    const last = settled.plan.lots.reduce((x, y) => (x.finishMin > y.finishMin ? x : y)).lotId;
    const promised = wanted.map((l) => (l.id === last ? { ...l, wantedOn: '2026-06-01' } : l));
    const { problem } = settled;
    const dueMin = houseProblem(house(promised), problem.origin).lots.find((l) => l.id === last)?.dueMin ?? null;
    const now = { ...problem, lots: problem.lots.map((l) => (l.id === last ? { ...l, dueMin } : l)) };
    expect(whatWouldMakeIt(now, lateLot(last, 600), { seed: 1, rounds: 40 })).toEqual([
      { help: { code: 'anew' }, lateMin: 0 },
    ]);
  });
  it('is kept by a cold mordant where no burner is to be had', () => {
    const out = { ...TIMES_AT_FIRST, heat: [{ heatSourceId: 'ring', potsAtOnce: 1, outUntil: '2026-06-05' }] };
    const hot = step(0, { kind: 'mordant', vesselIds: ['kettle'], times: { ...cold, isHot: true } });
    const late = plan(house([lot('a', [hot, step(1)], { wantedOn: '2026-06-03' })], { times: out }));
    const tried = whatWouldMakeIt(late.problem, lateLot('a', late.plan.cost.lateMin, ['a:0']), { seed: 1, rounds: 40 });
    expect(tried).toContainEqual({ help: { code: 'coldMordant' }, lateMin: 0 });
    expect(tried.map((t) => sayPlanHelp(t.help)).join()).toMatch(/a cold mordant of a day to a week/);
    const without = whatWouldMakeIt(late.problem, lateLot('a', late.plan.cost.lateMin), { seed: 1, rounds: 40 });
    expect(without.map((t) => t.help.code)).not.toContain('coldMordant');
  });
  it('has nothing to say of a lot it doesn’t have', () =>
    expect(whatWouldMakeIt(found.problem, lateLot('c', 0), { seed: 1, rounds: 1 })).toEqual([]));
  it('counts the day to its evening', () =>
    expect(planClock(NOW).toIso(houseProblem(facts, NOW).lots[0]?.dueMin ?? 0)).toBe('2026-06-01T17:00:00.000Z'));
});
