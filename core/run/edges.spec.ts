import { describe, expect, it } from 'vitest';
import { figure } from '../quantity/figure';
import type { LotPlan, PlannedStep, PlannedWeighing } from '../scaling/lot-plan';
import type { StepRecord } from './step-record';
import { sayDeviation } from './deviation';
import { findDeviations } from './deviations';
import { offTarget, rescaleFactor, targetNow } from './rescale';
import type { RunEntry, RunEntryOf } from './run-entry';
import { runEntry } from './run-entry.fixture';

/** Both sides of every edge that a run is ruled by: each row fails when its limit moves. */
const weighing = (materialId: string, grams: number): PlannedWeighing => ({
  batch: 1,
  forBatches: [1],
  materialId,
  materialName: materialId,
  measure: 'weight',
  target: figure(grams, 'g', '', []),
  tolerance: 1,
  picks: [{ stockLotId: 'S1', amount: grams * 1000 }],
  advice: [],
});
const step = (index: number, rest: Partial<PlannedStep> = {}): PlannedStep => ({
  index,
  key: '',
  kind: 'dye',
  title: 'Dye',
  instruction: '',
  durationMin: 60,
  attended: false,
  lookFor: '',
  usesBath: true,
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
  ...rest,
});
const entry = (id: string, { kind = 'note', ...rest }: Partial<RunEntry>): RunEntry =>
  runEntry(kind, 1, 60, { id, ...rest });
const rescale = (id: string, factor: number, rest: Partial<RunEntryOf<'rescale'>> = {}): RunEntry =>
  entry(id, {
    kind: 'rescale',
    detail: { rescale: [{ stepIndex: 1, batch: 1, materialId: 'weld', factor }] },
    ...rest,
  });

describe('rescaling', () => {
  it('multiplies: a second one acts on what the first left', () => {
    expect(rescaleFactor([rescale('a', 1.1), rescale('b', 0.5)], 1, 1, 'weld')).toBeCloseTo(0.55, 10);
    expect(targetNow(weighing('weld', 100), 1, [rescale('a', 1.1), rescale('b', 0.5)])).toBe(55_000);
  });

  it('of another step, batch or material leaves a target alone', () => {
    const entries = [rescale('a', 2)];
    expect([
      rescaleFactor(entries, 2, 1, 'weld'),
      rescaleFactor(entries, 1, 2, 'weld'),
      rescaleFactor(entries, 1, 1, 'alum'),
      rescaleFactor([], 1, 1, 'weld'),
    ]).toEqual([1, 1, 1, 1]);
  });

  it('that was corrected counts as corrected', () =>
    expect(rescaleFactor([rescale('a', 2), rescale('b', 1.2, { replacesId: 'a' })], 1, 1, 'weld')).toBeCloseTo(
      1.2,
      10,
    ));
});

describe('a weighing off its target', () => {
  const weld = weighing('weld', 100);
  const alum = weighing('alum', 15);
  const plan = {
    batches: [{ number: 1, wof: figure(100, 'g', '', []) }],
    groups: [],
    materials: [
      { materialId: 'weld', name: 'weld' },
      { materialId: 'alum', name: 'alum' },
    ],
    steps: [step(0), step(1, { weighings: [weld, alum] })],
  } as unknown as LotPlan;
  const records: StepRecord[] = [0, 1].map((stepIndex) => ({ stepIndex, temperaturesC: [], weighings: [] }));
  const off = (grams: number) => offTarget(plan, records, [], plan.steps[1] as PlannedStep, weld, grams * 1000);

  it.each([
    [101, false],
    [101.1, true],
    [99, false],
    [98.9, true],
  ])('of %d g for 100 g within 1 g is told: %s', (grams, told) => expect(off(grams) !== undefined).toBe(told));

  it.each([
    ['half of it', 50, true],
    ['under half of it', 49.9, false],
    ['twice as much', 200, true],
    ['over twice as much', 200.1, false],
  ])('%s is rescaled to or taken for a slip of the pen', (_name, grams, offered) => {
    const told = off(grams);
    expect((told?.offers.length ?? 0) > 0).toBe(offered);
    expect(told?.effect.includes('far off')).toBe(!offered);
  });
});

describe('deviations of time', () => {
  const asPlanned: StepRecord = {
    stepIndex: 1,
    startedAt: '2026-06-01T09:00:00Z',
    finishedAt: '2026-06-01T10:00:00Z',
    temperaturesC: [],
    weighings: [],
  };
  const finishedAfter = (minutes: number): string =>
    new Date(Date.parse('2026-06-01T09:00:00Z') + minutes * 60_000).toISOString();
  const messages = (planned: PlannedStep, record: Partial<StepRecord>, readyAt?: string): string[] =>
    findDeviations(planned, { ...asPlanned, ...record }, { tagOf: String, ...(readyAt ? { readyAt } : {}) }).map(
      sayDeviation,
    );

  it.each([
    ['a quarter short is let pass', 45, 0],
    ['more than a quarter short is told', 44, 1],
    ['a quarter over, but under half an hour, is let pass', 89, 0],
    ['half an hour over is let pass', 90, 0],
    ['more than half an hour over is told', 91, 1],
  ])('%s', (_name, minutes, count) =>
    expect(messages(step(1, { temperatureC: 75 }), { finishedAt: finishedAfter(minutes) })).toHaveLength(count),
  );

  it.each([
    ['three quarters of a hold', 45, 0],
    ['less than three quarters of a hold', 44, 1],
  ])('%s', (_name, heldMin, count) =>
    expect(
      messages(step(1, { course: [{ do: 'hold', toC: 75, minutes: 60 }] }), { heldMin }).filter((m) =>
        m.startsWith('held'),
      ),
    ).toHaveLength(count),
  );

  it.each([
    ['stood three quarters of its wait', '2026-06-01T07:30:00Z', 0],
    ['stood less than that', '2026-06-01T07:31:00Z', 1],
    ['stood as long as it may', '2026-06-01T05:00:00Z', 0],
    ['stood longer than it may', '2026-06-01T04:59:00Z', 1],
  ])('%s', (_name, readyAt, count) =>
    expect(messages(step(1, { wait: { minMinutes: 120, maxMinutes: 240 } }), {}, readyAt)).toHaveLength(count),
  );

  it.each([
    ['as hot as the band allows', [80], 0],
    ['hotter', [80.1], 1],
    ['as cool as the band allows', [70], 0],
    ['cooler', [69.9], 1],
  ])('%s', (_name, temperaturesC, count) =>
    expect(messages(step(1, { temperatureC: 75 }), { temperaturesC })).toHaveLength(count),
  );
});
