import type { ReadingView, RunEntryView } from '@vestigia/contract';
import type { LotPlan, ShadeOf } from '@vestigia/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { LotFacts } from './lot-progress';
import { foldProgress } from './lot-progress';

const by = { id: 'p', name: 'Ada' };
const AT = '2026-06-01T09:00:00.000Z';
const step = (index: number, kind: LotPlan['steps'][number]['kind']): LotPlan['steps'][number] => ({
  index,
  key: '',
  kind,
  title: kind,
  instruction: '',
  durationMin: 60,
  attended: index === 0,
  lookFor: '',
  usesBath: false,
  liquor: '',
  weighings: [],
  cautions: [],
  after: [],
  finishedBy: 'clock',
  wait: null,
  course: [],
  repeats: 1,
  strain: null,
  targetPh: null,
  forWhom: '',
  baths: [],
});
const plan = {
  cautions: [],
  batches: [],
  materials: [],
  steps: [step(0, 'fibre'), step(1, 'dye'), step(2, 'dry')],
} as unknown as LotPlan;
let n = 0;
const did = (stepIndex: number, kind: RunEntryView['kind'], rest: Partial<RunEntryView> = {}): RunEntryView =>
  ({
    id: `e${(n += 1)}`,
    stepIndex,
    kind,
    at: AT,
    recordedAt: AT,
    by,
    replacesId: null,
    temperatureC: null,
    text: null,
    weighing: null,
    detail: null,
    photos: [],
    ...rest,
  }) as RunEntryView;
const read = (batch: number, state: ReadingView['state'], L: number, rest: Partial<ReadingView> = {}): ReadingView => ({
  id: `r${(n += 1)}`,
  batch,
  group: null,
  zone: null,
  piece: null,
  dip: null,
  state,
  lab: { L, a: 5, b: 40 },
  illuminant: 'D65',
  observer: '10',
  taken: null,
  note: '',
  at: AT,
  by,
  replacesId: null,
  ...rest,
});
const said = (verdict: 'pass' | 'hold' | 'refuse', at = AT, of: ShadeOf | null = null) => ({
  verdict,
  at,
  of,
  takenBack: null,
});
const facts = (change: Partial<LotFacts> = {}): LotFacts => ({
  lot: { id: 'l', plan, at: AT },
  standards: { master: { L: 60, a: 5, b: 40, illuminant: 'D65', observer: '10' }, expected: [] },
  entries: [],
  readings: [],
  eyes: [],
  verdicts: [],
  ...change,
});
const done = [did(0, 'start'), did(0, 'finish'), did(1, 'start'), did(1, 'finish'), did(2, 'start'), did(2, 'finish')];

describe('foldProgress', () => {
  it.each<[string, Partial<LotFacts>, string, string | undefined]>([
    ['planned before anything', {}, 'planned', 'fibre'],
    ['in work from the first touch', { entries: done.slice(0, 1) }, 'inWork', 'fibre'],
    ['in work between steps', { entries: done.slice(0, 2) }, 'inWork', 'dye'],
    ['to judge when all is done', { entries: done }, 'toJudge', undefined],
    ['held', { entries: done, verdicts: [said('hold')] }, 'held', undefined],
    ['released after a hold', { entries: done, verdicts: [said('hold'), said('pass')] }, 'released', undefined],
    ['refused', { entries: done.slice(0, 3), verdicts: [said('refuse')] }, 'refused', 'dye'],
    [
      'cancelled, with nothing next',
      { entries: [...done.slice(0, 2), did(1, 'cancel', { text: 'withdrawn' })] },
      'cancelled',
      undefined,
    ],
  ])('is %s', (_name, change, state, next) => {
    const progress = foldProgress(facts(change));
    expect(progress.state).toBe(state);
    expect(progress.next?.title).toBe(next);
  });

  it('marks stations done, running and skipped, and knots what went otherwise', () => {
    const { stations } = foldProgress(
      facts({ entries: [...done.slice(0, 2), did(1, 'skip', { text: 'no gas' }), did(2, 'start')] }),
    );
    expect(stations.map((s) => [s.state, s.hasDeviation])).toEqual([
      ['done', false],
      ['skipped', true],
      ['running', false],
    ]);
  });

  it('takes its colour from settled readings under the master’s light, corrections applied', () => {
    const wrong = read(1, 'dry', 30);
    const progress = foldProgress(
      facts({
        entries: done,
        readings: [
          read(1, 'wet', 45),
          wrong,
          read(1, 'dry', 62, { replacesId: wrong.id }),
          read(2, 'dry', 64),
          read(2, 'cured', 90, { illuminant: 'A' }),
        ],
      }),
    );
    expect(progress.result).toMatchObject({ L: 62, illuminant: 'D65' });
    expect(foldProgress(facts({ entries: done, readings: [read(1, 'wet', 45)] })).result).toBeNull();
  });

  it('keeps what was judged: a piece read again later, faded or washed, changes nothing of the lot', () => {
    const later = '2027-01-01T00:00:00.000Z';
    const readings = [read(1, 'dry', 60.5), read(2, 'dry', 60.5)];
    const judged = foldProgress(facts({ entries: done, readings, verdicts: [said('pass')] }));
    const faded = [...readings, read(1, 'washed', 75, { at: later })];
    expect(foldProgress(facts({ entries: done, readings: faded, verdicts: [said('pass')] }))).toMatchObject({
      result: judged.result,
      deltaE: judged.deltaE,
    });
    expect(foldProgress(facts({ entries: done, readings: faded, verdicts: [said('hold')] })).deltaE).toBeGreaterThan(5);
  });

  it('goes on without a piece that is refused by itself, whose colour stays as it was refused', () => {
    const piece = { batch: 1, group: null, zone: null, piece: '2', dip: null };
    const readings = [read(1, 'dry', 60.5), read(1, 'dry', 75, { piece: '2' })];
    const verdicts = [said('refuse', AT, piece)];
    const after = read(1, 'washed', 85, { piece: '2', at: '2026-07-01T00:00:00.000Z' });
    const alone = foldProgress(facts({ entries: done, readings: [...readings, after], verdicts }));
    expect([alone.state, alone.result?.L, (alone.deltaE ?? 9) < 1]).toEqual(['toJudge', 60.5, true]);
    expect(alone.family?.map((m) => [m.label, m.lab?.L, m.apart])).toEqual([
      ['', 60.5, null],
      ['piece 2', 75, 'refuse'],
    ]);
    const passed = [...verdicts, said('pass', AT)];
    expect(foldProgress(facts({ entries: done, readings, verdicts: passed })).state).toBe('released');
  });

  it('is the same however often it is folded, and never moves backwards as entries are added', () => {
    const rank = { planned: 0, inWork: 1, toJudge: 2 } as Record<string, number>;
    fc.assert(
      fc.property(fc.integer({ min: 0, max: done.length }), (length) => {
        const entries = done.slice(0, length);
        const progress = foldProgress(facts({ entries }));
        expect(foldProgress(facts({ entries }))).toEqual(progress);
        const later = foldProgress(facts({ entries: done.slice(0, length + 1) }));
        expect(rank[later.state] ?? 9).toBeGreaterThanOrEqual(rank[progress.state] ?? 9);
        expect(later.stations.filter((s) => s.state === 'done').length).toBeGreaterThanOrEqual(
          progress.stations.filter((s) => s.state === 'done').length,
        );
      }),
      { seed: 61 },
    );
  });
});
