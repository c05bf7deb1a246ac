import { bathStep, input, planned, pot, recipe, wool } from '../scaling/plan-lot.fixture';
import { describe, expect, it } from 'vitest';
import { layPotLine } from '../schedule/pot-line';
import { sayStepCaution } from '../scaling/step-caution';
import { cautionsForStep } from '../scaling/step-cautions';
import { HAZARDS } from '../safety/hazards';
import { figure } from '../quantity/figure';
import type { StepRecord } from './step-record';
import { sayDeviation } from './deviation';
import { findDeviations } from './deviations';
import type { PlannedStep } from '../scaling/lot-plan';
import type { RunEntry } from './run-entry';
import { currentEntries } from './run-entry';
import { runEntry } from './run-entry.fixture';
import { foldRun, nextStepIndex, stepState } from './run-record';
import { sayMinutes } from '../quantity/duration';

const entry = (id: string, stepIndex: number, kind: RunEntry['kind'], rest: Partial<RunEntry> = {}): RunEntry =>
  runEntry(kind, stepIndex, 60 + id.length, { id, ...rest });
const weighed = (amount: number, stockLotId = 'W1') => ({ batch: 1, materialId: 'weld', stockLotId, amount });

describe('foldRun', () => {
  const entries = [
    entry('a', 0, 'start'),
    entry('b', 0, 'weigh', { weighing: weighed(90_000) }),
    entry('c', 0, 'weigh', { weighing: weighed(100_000), replacesId: 'b' }),
    entry('d', 0, 'finish'),
    entry('e', 1, 'skip', { text: 'no time' }),
  ];
  it('folds a run, corrections applied', () => {
    const records = foldRun(entries, 3);
    expect(records.map(stepState)).toEqual(['done', 'skipped', 'waiting']);
    expect(records[0]?.weighings).toMatchObject([weighed(100_000)]);
    expect(nextStepIndex(records)).toBe(2);
    expect(currentEntries(entries).map((e) => e.id)).toEqual(['a', 'c', 'd', 'e']);
  });
  it('has nothing next when all is done', () => expect(nextStepIndex(foldRun(entries, 2))).toBeUndefined());
});

describe('findDeviations', () => {
  const step: PlannedStep = {
    index: 2,
    key: '',
    kind: 'dye',
    title: 'Dye',
    instruction: '',
    temperatureC: 75,
    ceilingC: 80,
    durationMin: 60,
    attended: false,
    lookFor: '',
    usesBath: true,
    liquor: '',
    cautions: [],
    after: [1],
    finishedBy: 'clock',
    wait: null,
    course: [],
    repeats: 1,
    strain: null,
    targetPh: null,
    forWhom: '',
    baths: [],
    weighings: [
      {
        batch: 1,
        forBatches: [1],
        materialId: 'weld',
        materialName: 'Weld',
        measure: 'weight',
        target: figure(100, 'g', '', []),
        tolerance: 2,
        advice: [],
        picks: [{ stockLotId: 'W1', amount: 100_000 }],
      },
    ],
  };
  const asPlanned: StepRecord = {
    stepIndex: 2,
    startedAt: '2026-06-01T09:00:00Z',
    finishedAt: '2026-06-01T10:00:00Z',
    temperaturesC: [75],
    weighings: [weighed(100_000)],
  };
  it.each<[string, Partial<StepRecord>, string[]]>([
    ['as planned', {}, []],
    ['at the edge of the tolerance', { weighings: [weighed(102_000)] }, []],
    ['too much', { weighings: [weighed(106_000)] }, ['6 g more Weld than planned in batch 1']],
    ['too little', { weighings: [weighed(90_000)] }, ['10 g less Weld than planned in batch 1']],
    ['another jar', { weighings: [weighed(100_000, 'W9')] }, ['Weld taken from W9 instead of the jar planned']],
    ['nothing weighed', { weighings: [] }, ['no Weld weighed for batch 1']],
    [
      'above the ceiling',
      { temperaturesC: [70, 84] },
      ['reached 84 °C, above the ceiling of 80 °C: the colour may have dulled'],
    ],
    ['not hot enough', { temperaturesC: [60] }, ['only reached 60 °C, planned 75 °C: expect paler']],
    ['too short', { finishedAt: '2026-06-01T09:30:00Z' }, ['short: 30 min instead of 1 h, expect paler']],
    ['far too long in the heat', { finishedAt: '2026-06-01T12:00:00Z' }, ['3 h instead of 1 h, expect deeper']],
    ['skipped', { skippedReason: 'no gas' }, ['skipped: no gas']],
  ])('%s', (_name, change, label) =>
    expect(findDeviations(step, { ...asPlanned, ...change }, { tagOf: (id) => id }).map(sayDeviation)).toEqual(label),
  );
  it('counts what its pot needs to come to heat, where the recipe’s own time is the hold alone', () => {
    const heated = planned(
      input({
        recipe: recipe({ steps: [bathStep('dye', [], { temperatureC: 75, durationMin: 60 })] }),
        bases: [wool(4)],
        vessels: [pot('kettle', 40, { heatSource: { id: 'r', name: 'ring', powerW: 1200, efficiencyPercent: 60 } })],
      }),
    ).steps[1] as PlannedStep;
    const heating = heated.baths[0]?.heating;
    const heatMin = heating?.ok ? heating.minutes.value : NaN;
    expect(heatMin).toBeGreaterThan(60);
    const after = (minutes: number): string[] => {
      const finishedAt = new Date(Date.parse('2026-06-01T09:00:00Z') + minutes * 60_000).toISOString();
      const record = { ...asPlanned, finishedAt, weighings: [] };
      return findDeviations(heated, record, { tagOf: (id) => id }).map(sayDeviation);
    };
    expect(after(60 + heatMin)).toEqual([]);
    expect(after(2 * (60 + heatMin))).toEqual([expect.stringMatching(/instead of/)]);
    // A recipe that gives the heating its own time has said so.
    const said = { ...heated, course: [{ do: 'raise' as const, toC: 75, minutes: 30 }] };
    const late = new Date(Date.parse('2026-06-01T09:00:00Z') + (60 + heatMin) * 60_000).toISOString();
    expect(findDeviations(said, { ...asPlanned, finishedAt: late, weighings: [] }, { tagOf: (id) => id })).toHaveLength(
      1,
    );
  });
  it('says nothing of a step not done yet', () =>
    expect(findDeviations(step, { stepIndex: 2, temperaturesC: [], weighings: [] }, { tagOf: String })).toEqual([]));
});

describe('sayMinutes', () => {
  it.each<[number, string]>([
    [0, '0 min'],
    [45, '45 min'],
    [60, '1 h'],
    [95, '1 h 35 min'],
    [1440, '24 h'],
    [10_080, '7 d'],
    [3000, '2 d 2 h'],
    [-5, '0 min'],
  ])('%i is %s', (minutes, label) => expect(sayMinutes(minutes)).toBe(label));
});

describe('layPotLine', () => {
  const now = Date.parse('2026-06-01T12:00:00Z');
  const window = { fromMs: now - 4 * 3_600_000, toMs: now + 4 * 3_600_000, nowMs: now };
  const running = (startedAt: string, durationMin: number, rest = {}) => ({
    lotId: startedAt,
    lotTag: 'Lot 1',
    title: 'Mordant',
    vesselNames: ['kettle'],
    startedAt,
    durationMin,
    attended: false,
    ...rest,
  });
  it('places, clips, stacks and names the next moment', () => {
    const line = layPotLine(
      [
        running('2026-06-01T11:00:00Z', 120),
        running('2026-06-01T06:00:00Z', 60),
        running('2026-06-01T11:30:00Z', 600, { vesselNames: ['pan', 'pot'] }),
      ],
      window,
    );
    expect(line.now01).toBe(0.5);
    expect(line.segments.map((s) => [s.label, s.due, s.row])).toEqual([
      ['kettle', true, 0],
      ['kettle', false, 1],
      ['pan', false, 2],
      ['pot', false, 3],
    ]);
    expect(line.segments[1]).toMatchObject({ from01: 0.375, to01: 0.625 });
    expect(line.next).toMatchObject({ at: '2026-06-01T07:00:00.000Z', label: 'Mordant, Lot 1' });
  });
  it('wants hands at once where hands are wanted', () =>
    expect(
      layPotLine([running('2026-06-01T11:00:00Z', 120, { attended: true, vesselNames: [] })], window),
    ).toMatchObject({ next: { at: '2026-06-01T11:00:00.000Z' }, segments: [{ label: 'Lot 1' }] }));
  it('has nothing next when nothing runs', () =>
    expect(layPotLine([], window)).toEqual({ segments: [], rows: 0, now01: 0.5 }));
  it('refuses a window that ends before it starts', () =>
    expect(() => layPotLine([], { fromMs: 2, toMs: 1, nowMs: 1 })).toThrow(RangeError));
});

describe('cautionsForStep', () => {
  const said = (...of: Parameters<typeof cautionsForStep>): string[] => cautionsForStep(...of).map(sayStepCaution);
  it.each(HAZARDS.map((h) => [h]))('names protection for %s and points to the sheet', (hazard) => {
    const cautions = said({ kind: 'mordant', usesBath: true, temperatureC: 20 }, [hazard, hazard]);
    expect(cautions.filter((c) => c.includes('safety data sheet'))).toHaveLength(1);
    expect(cautions.join(' ')).not.toMatch(/\bsafe\b|harmless/);
  });
  it('warns of steam from fifty degrees', () => {
    expect(said({ kind: 'dye', usesBath: false, temperatureC: 50 }, []).join()).toContain('Steam');
    expect(cautionsForStep({ kind: 'dye', usesBath: false, temperatureC: 49 }, [])).toEqual([]);
  });
  it('leaves waste to local rules', () =>
    expect(said({ kind: 'rinse', usesBath: false }, []).join()).toContain('local rules'));
});
