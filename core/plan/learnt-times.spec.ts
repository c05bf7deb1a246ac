import { describe, expect, it } from 'vitest';
import { Chance } from '../quantity/chance';
import type { StepRecord } from '../run/step-record';
import type { PlannedStep } from '../scaling/lot-plan';
import type { Hindcast } from './hindcast';
import { fourInFiveBy, hindcast, lotsTook } from './hindcast';
import type { PlannableStep } from './house-plan';
import { TIMES_AT_FIRST } from './house-times';
import { learnTimes, stepsTook, withLearnt } from './learnt-times';
import { planHouse } from './plan-house';

const MINUTE_MS = 60_000;
const at = (min: number): string => new Date(Date.parse('2026-06-01T08:00:00Z') + min * MINUTE_MS).toISOString();
const step = (rest: Partial<PlannedStep> = {}): PlannedStep =>
  ({
    key: 'dips',
    title: 'Dips',
    kind: 'dye',
    durationMin: 100,
    attended: true,
    finishedBy: 'clock',
    ...rest,
  }) as PlannedStep;
const record = (tookMin: number, rest: Partial<StepRecord> = {}): StepRecord => ({
  stepIndex: 0,
  temperaturesC: [],
  weighings: [],
  startedAt: at(0),
  finishedAt: at(tookMin),
  ...rest,
});

describe('what a step really takes', () => {
  const took = (steps: PlannedStep, ...records: StepRecord[]) =>
    records.flatMap((r) => stepsTook('weld', [steps], [r]));
  it.each<[string, Partial<PlannedStep>, boolean]>([
    ['is learnt where somebody stays with it', { attended: true }, true],
    ['is learnt where it ends when it looks so', { attended: false, finishedBy: 'eye' }, true],
    ['is learnt of drying', { attended: false, kind: 'dry' }, true],
    ['is what the recipe says where it ends by the clock', { attended: false }, false],
  ])('%s', (_what, rest, isLearnt) => expect(took(step(rest), record(130)).length > 0).toBe(isLearnt));

  it('is the middle one of three lots or more, without pauses, and without what was forgotten or pressed twice', () => {
    const three = [record(120), record(130), record(160, { pausedMs: 20 * MINUTE_MS })];
    const learnt = learnTimes(took(step(), ...three, record(5000), record(1)));
    expect([...learnt.values()]).toEqual([{ factor: 1.3, lots: 3 }]);
    expect(learnTimes(took(step(), ...three.slice(0, 2))).size).toBe(0);
    expect(learnTimes(took(step(), ...three, record(180))).get('weld dips')?.factor).toBeCloseTo(1.35);
  });
  it('leaves out what was skipped or isn’t over', () => {
    const { finishedAt: _finishedAt, ...open } = record(120);
    expect(took(step(), record(120, { skippedReason: 'ready' }), open)).toEqual([]);
  });
  it('takes the place of what the recipe says, and leaves hands and what it may be longer', () => {
    const times = { beginHandsMin: 15, aloneMin: 60, aloneMaxMin: 90, endHandsMin: 10, watched: false, isHot: true };
    expect(withLearnt(times, { factor: 1.5, lots: 4 })).toEqual({ ...times, aloneMin: 90, aloneMaxMin: 120 });
    expect(withLearnt(times, undefined)).toBe(times);
  });
});

describe('how long lots take', () => {
  const facts = {
    now: at(0),
    zone: 'Europe/London',
    times: TIMES_AT_FIRST,
    people: [{ id: 'ada', name: 'Ada' }],
    vessels: [],
    heatSources: [],
  };
  const plannable = (index: number, rest: Partial<PlannableStep> = {}): PlannableStep => ({
    index,
    kind: 'dye',
    title: `step ${index}`,
    times: { beginHandsMin: 10, aloneMin: 120, aloneMaxMin: null, endHandsMin: 0, watched: false, isHot: false },
    vesselIds: [],
    weighs: false,
    liquor: '',
    after: index === 0 ? [] : [index - 1],
    wait: null,
    hazards: [],
    beginFromOn: null,
    beginByOn: null,
    ...rest,
  });
  const lot = (records: { startedAt?: string; finishedAt?: string; skippedReason?: string }[]) => ({
    id: 'a',
    tag: 'Lot 1',
    pieces: 4,
    wantedOn: null,
    steps: [plannable(0), plannable(1)],
    records,
  });
  it('is held against a plan of the lot by itself, from where it began', () => {
    const found = hindcast(
      facts,
      lot([
        { startedAt: at(0), finishedAt: at(140) },
        { startedAt: at(150), finishedAt: at(400) },
      ]),
    );
    expect(found).toEqual({ lotId: 'a', plannedMin: 260, tookMin: 400 });
  });
  it('says nothing of a lot that was never begun, and leaves out what was skipped', () => {
    expect(hindcast(facts, lot([{}, {}]))).toBeUndefined();
    const skipped = [{ startedAt: at(0), finishedAt: at(140) }, { skippedReason: 'ready' }];
    expect(hindcast(facts, lot(skipped))?.plannedMin).toBe(130);
  });
  it('says nothing of too few', () =>
    expect(lotsTook(Array.from({ length: 3 }, () => ({ lotId: '', plannedMin: 1, tookMin: 1 })))).toBeNull());

  it('is held against lots that it doesn’t stand on: each by what the others say', () => {
    const took = (...minutes: number[]) => lotsTook(minutes.map((tookMin) => ({ lotId: '', plannedMin: 10, tookMin })));
    expect(took(10, 10, 10, 10)?.within).toBeNull();
    // The one that took longest lies beyond what all the others say; each of the others within.
    expect(took(10, 11, 12, 13, 40)).toMatchObject({ lots: 5, within: 4 });
    expect(took(10, 10, 10, 10, 10)?.within).toBe(5);
  });

  it('is no longer than said for four in five, however long lots take: checked by drawing', () => {
    const chance = new Chance(11);
    // Some lots run on a little, some by days.
    const draw = (): Hindcast => {
      const long = chance.next() < 0.15 ? 2 + 3 * chance.next() : 0.8 + 0.6 * chance.next();
      return { lotId: '', plannedMin: 1000, tookMin: 1000 * long };
    };
    for (const lots of [4, 9, 40]) {
      let kept = 0;
      const times = 3000;
      for (let i = 0; i < times; i += 1) {
        const took = lotsTook(Array.from({ length: lots }, draw));
        if (draw().tookMin / 1000 <= (took?.fourInFive ?? 0)) kept += 1;
      }
      // Two standard errors of a share of 3,000.
      expect(kept / times).toBeGreaterThan(0.8 - 0.015);
    }
  });

  it('moves a promise later by the share of what is still ahead, and never earlier', () => {
    const found = planHouse({ ...facts, lots: [lot([{}, {}])], accepted: null }, { seed: 1, rounds: 5 });
    const by = (fourInFive: number) => fourInFiveBy(found, 'a', { middle: 1, fourInFive, lots: 9, within: 8 });
    expect([by(1), by(1.5), by(0.7)]).toEqual([260, 390, 260]);
    expect(fourInFiveBy(found, 'a', null)).toBeUndefined();
    expect(fourInFiveBy(found, 'b', { middle: 1, fourInFive: 1, lots: 9, within: 9 })).toBeUndefined();
  });
});
