import { findRunDeviations } from './run-deviations';
import { describe, expect, it } from 'vitest';
import { benchActs } from './bench-acts';
import { isShownEveryTime, sayStepCaution } from '../scaling/step-caution';
import { cautionsForStep } from '../scaling/step-cautions';
import type { StepRecord } from './step-record';
import { sayDeviation } from './deviation';
import { findDeviations } from './deviations';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { offTarget, targetNow } from './rescale';
import type { BroughtEntry, RunEntry, RunEntryOf } from './run-entry';
import { at, runEntry as entry } from './run-entry.fixture';
import { foldRun, minutesInWork, stepState } from './run-record';
import { ruleOnEntry } from './run-rules';
import { phLock } from './ph-lock';
import { forgottenPots } from './forgotten-pots';

const LOT_AT = '2026-06-01T08:00:00.000Z';
const figure = (value: number) => ({ value, unit: 'g', working: { formula: '', inputs: [], notes: [] } });
const pick = (stockLotId: string | null, grams: number) => ({ stockLotId, amount: grams * 1000 });
const weighing = (materialId: string, batch: number, grams: number, picks = [pick(`${materialId}-1`, grams)]) => ({
  batch,
  forBatches: [batch],
  materialId,
  materialName: materialId,
  measure: 'weight' as const,
  target: figure(grams),
  tolerance: 1,
  picks,
  advice: [],
});
const step = (index: number, kind: PlannedStep['kind'], rest: Partial<PlannedStep> = {}): PlannedStep => ({
  index,
  key: '',
  kind,
  title: kind,
  instruction: '',
  durationMin: 60,
  attended: false,
  lookFor: '',
  usesBath: false,
  liquor: '',
  weighings: [],
  cautions: [],
  after: index === 0 ? [] : [index - 1],
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
const plan = (...steps: PlannedStep[]): LotPlan => ({
  pieces: 6,
  pieceWeightG: 100,
  wof: figure(600),
  liquorRatio: 30,
  groups: [
    {
      key: 'a',
      baseId: 'wool',
      baseName: 'Rug wool',
      fibre: 'wool',
      blend: [],
      pieceWord: 'hank',
      part: '',
      partName: '',
      pieces: 6,
      pieceWeightG: 100,
    },
  ],
  batches: [],
  materials: [],
  steps,
  cautions: [],
});
const took = (
  materialId: string,
  batch: number,
  grams: number,
  minute = 1,
  rest: Partial<RunEntryOf<'weigh'>> & { stepIndex?: number; stockLot?: string } = {},
): RunEntry =>
  entry('weigh', rest.stepIndex ?? 0, minute, {
    weighing: { batch, materialId, stockLotId: rest.stockLot ?? `${materialId}-1`, amount: grams * 1000 },
    ...rest,
  });

describe('folding a run', () => {
  it('leaves pauses out of the minutes, and knows a pause that is still on', () => {
    const [record] = foldRun(
      [entry('start', 0, 0), entry('pause', 0, 10), entry('resume', 0, 25), entry('pause', 0, 40)],
      1,
    ) as [StepRecord];
    expect(stepState(record)).toBe('paused');
    expect(minutesInWork(record, Date.parse(at(90)))).toBe(25);
    const [done] = foldRun(
      [entry('start', 0, 0), entry('pause', 0, 10), entry('resume', 0, 25), entry('finish', 0, 60)],
      1,
    ) as [StepRecord];
    expect(minutesInWork(done, 0)).toBe(45);
  });
  it('does a step over: it waits again, what was weighed before no longer answers it, and why stands in the record', () => {
    const [record] = foldRun(
      [
        entry('start', 0, 0),
        took('alum', 1, 90),
        entry('finish', 0, 60),
        entry('redo', 0, 70, { text: 'forgot the tartar' }),
      ],
      1,
    ) as [StepRecord];
    expect([stepState(record), record.weighings, record.redone]).toEqual(['waiting', [], ['forgot the tartar']]);
  });
  it('takes corrections in place of what they correct', () => {
    const wrong = entry('temperature', 0, 5, { temperatureC: 95 });
    const [record] = foldRun(
      [entry('start', 0, 0), wrong, entry('temperature', 0, 6, { temperatureC: 75, replacesId: wrong.id })],
      1,
    ) as [StepRecord];
    expect(record.temperaturesC).toEqual([75]);
  });
});

describe('a weighing that can’t be done', () => {
  const both = plan(step(0, 'mordant', { weighings: [weighing('alum', 1, 90), weighing('tartar', 1, 36)] }));
  const rule = (entries: RunEntry[], brought: Partial<BroughtEntry>): string => {
    const facts = { plan: both, entries, lotAt: LOT_AT, nowMs: Date.parse(at(30)), lotTag: 'L-0001', elsewhere: [] };
    const base = { id: 'x', stepIndex: 0, replacesId: null, temperatureC: null, weighing: null, text: null };
    const ruling = ruleOnEntry(facts, { ...base, detail: null, ...brought } as BroughtEntry, Date.parse(at(30)));
    return ruling.ok ? 'ok' : ruling.refusal.reason;
  };
  const begun = [entry('start', 0, 0)];
  const out = (materialId: string) => ({ batch: 1, materialId });
  const left = entry('leaveOut', 0, 1, { text: 'none on the shelf', detail: out('alum') });

  it('is left out with a reason, and the step goes on with the others', () => {
    expect(rule(begun, { kind: 'leaveOut', detail: out('alum') })).toBe('reasonMissing');
    expect(rule(begun, { kind: 'leaveOut', detail: out('weld'), text: 'none' })).toBe('notPlanned');
    expect(rule(begun, { kind: 'leaveOut', text: 'none' })).toBe('missing');
    expect(rule(begun, { kind: 'leaveOut', detail: out('alum'), text: 'none' })).toBe('ok');
    const [next] = benchActs([{ lotId: 'l', plan: both, entries: [...begun, left] }], Date.parse(at(5)));
    expect(next).toMatchObject({ kind: 'weigh', weighing: { materialId: 'tartar' } });
    expect(rule([...begun, left], { kind: 'finish' })).toBe('notWeighed');
    expect(rule([...begun, left, took('tartar', 1, 36)], { kind: 'finish' })).toBe('ok');
  });
  it('is told as such, and not once it was weighed after all', () => {
    const told = (...entries: RunEntry[]) => findRunDeviations(both, [...begun, ...entries], () => 'a jar');
    expect(told(left).map((d) => d.message)).toEqual(['alum left out of batch 1: none on the shelf']);
    expect(told(left, took('alum', 1, 90)).map((d) => d.message)).toEqual([]);
  });
});

describe('what may be written into a run', () => {
  const steps = plan(
    step(0, 'mordant', { weighings: [weighing('alum', 1, 90)] }),
    step(1, 'extract', { after: [], usesBath: true }),
    step(2, 'dye', { after: [0, 1], usesBath: true }),
  );
  const rule = (entries: RunEntry[], brought: Partial<BroughtEntry>, minute = 30, nowMinute = minute) => {
    const ruling = ruleOnEntry(
      { plan: steps, entries, lotAt: LOT_AT, nowMs: Date.parse(at(nowMinute)), lotTag: 'L-0001', elsewhere: [] },
      {
        id: 'x',
        stepIndex: 0,
        kind: 'start',
        replacesId: null,
        temperatureC: null,
        text: null,
        weighing: null,
        detail: null,
        ...brought,
      } as BroughtEntry,
      Date.parse(at(minute)),
    );
    return ruling.ok ? 'ok' : ruling.refusal.reason;
  };
  const begun = [entry('start', 0, 0)];
  it.each<[string, RunEntry[], Partial<BroughtEntry>, string]>([
    ['a branch beside another', begun, { stepIndex: 1 }, 'ok'],
    ['a step whose branches are open', begun, { stepIndex: 2 }, 'outOfOrder'],
    ['it all the same, said why', begun, { stepIndex: 2, text: 'the pot is hot', detail: { outOfOrder: true } }, 'ok'],
    ['twice begun', begun, {}, 'alreadyBegun'],
    ['a step that isn’t there', begun, { stepIndex: 9 }, 'noSuchStep'],
    ['a pause before it began', [], { kind: 'pause' }, 'notBegun'],
    ['a pause', begun, { kind: 'pause' }, 'ok'],
    ['going on where nothing is paused', begun, { kind: 'resume' }, 'notPaused'],
    ['a finish with something not weighed', begun, { kind: 'finish' }, 'notWeighed'],
    ['a finish with a reason', begun, { kind: 'finish', text: 'none left' }, 'ok'],
    ['a skip without a reason', begun, { kind: 'skip' }, 'reasonMissing'],
    ['any open step skipped', begun, { kind: 'skip', stepIndex: 2, text: 'no need' }, 'ok'],
    ['a redo of what was not done', [], { kind: 'redo', text: 'again' }, 'notDone'],
    ['a probe that lies', begun, { kind: 'temperature', temperatureC: 4000 }, 'outOfRange'],
    ['no pH', begun, { kind: 'ph', detail: {} }, 'missing'],
    [
      'a weight that is none',
      begun,
      { kind: 'weigh', weighing: { batch: 1, materialId: 'alum', stockLotId: 'j', quantityText: 'some' } },
      'notANumber',
    ],
    [
      'a negative weight',
      begun,
      { kind: 'weigh', weighing: { batch: 1, materialId: 'alum', stockLotId: 'j', quantityText: '-5 g' } },
      'notPositive',
    ],
    [
      'a material of another step',
      begun,
      { kind: 'weigh', weighing: { batch: 1, materialId: 'weld', stockLotId: 'j', quantityText: '5 g' } },
      'notPlanned',
    ],
    [
      'anything after it was cancelled',
      [...begun, entry('cancel', 0, 5, { text: 'no' })],
      { kind: 'weigh', weighing: { batch: 1, materialId: 'alum', stockLotId: 'j', quantityText: '90 g' } },
      'cancelled',
    ],
    [
      'a piece pulled twice',
      [...begun, entry('pull', 0, 5, { detail: { piece: 2 } })],
      { kind: 'pull', detail: { piece: 2 } },
      'pulledAlready',
    ],
    [
      'a correction of another kind',
      begun,
      { kind: 'note', text: 'x', replacesId: begun[0]?.id ?? '' },
      'badCorrection',
    ],
  ])('%s', (_, entries, brought, reason) => expect(rule(entries, brought)).toBe(reason));
  it('keeps to time: not in the future, not before the lot, not finished before it began', () => {
    expect(rule(begun, { kind: 'finish', text: 'x' }, 60, 30)).toBe('inFuture');
    expect(rule([], {}, -60, 30)).toBe('beforeLot');
    expect(rule([entry('start', 0, 20)], { kind: 'finish', text: 'x' }, 10, 30)).toBe('finishedBeforeStart');
  });
  it('keeps protein fibre out of a bath until its pH is back', () => {
    const bathed = plan(
      step(0, 'extract', { after: [], usesBath: true }),
      step(1, 'adjustPh', { usesBath: true, targetPh: { low: 6, high: 7.2 } }),
      step(2, 'dye', { usesBath: true }),
    );
    const lock = (...entries: RunEntry[]) =>
      phLock(bathed, foldRun(entries, 3), bathed.steps[2] as PlannedStep)?.message;
    expect(lock()).toMatch(/nobody has taken it/);
    expect(lock(entry('start', 1, 0), entry('ph', 1, 5, { detail: { ph: 9.4 } }))).toMatch(/pH 9.4/);
    expect(
      lock(
        entry('start', 1, 0),
        entry('ph', 1, 5, { detail: { ph: 9.4 } }),
        entry('ph', 1, 9, { detail: { ph: 6.8 } }),
      ),
    ).toBeUndefined();
    expect(lock(entry('skip', 1, 0, { text: 'no strips' }))).toBeUndefined();
    const read = (ph: number): RunEntry[] => [
      entry('start', 1, 0),
      entry('ph', 1, 5, { detail: { ph } }),
      entry('finish', 1, 6),
      entry('skip', 0, 0, { text: 'extracted yesterday' }),
    ];
    const begin = (ph: number, text: string | null): string => {
      const facts = {
        plan: bathed,
        entries: read(ph),
        lotAt: LOT_AT,
        nowMs: Date.parse(at(30)),
        lotTag: 'L-0001',
        elsewhere: [],
      };
      const brought = { id: 'x', stepIndex: 2, kind: 'start', replacesId: null, temperatureC: null, weighing: null };
      const ruling = ruleOnEntry(facts, { ...brought, text, detail: null } as BroughtEntry, Date.parse(at(30)));
      return ruling.ok ? 'ok' : ruling.refusal.reason;
    };
    // Cochineal with acid, madder with chalk: borne for a while, where somebody says why.
    expect([begin(3, null), begin(3, 'cochineal wants it'), begin(8.6, 'madder, with chalk')]).toEqual([
      'phLocked',
      'ok',
      'ok',
    ]);
    expect([begin(2.2, 'in a hurry'), begin(9.6, 'in a hurry'), begin(6.5, null)]).toEqual([
      'phLocked',
      'phLocked',
      'ok',
    ]);
    expect(
      phLock(
        { ...bathed, groups: [{ ...(bathed.groups[0] as LotPlan['groups'][number]), fibre: 'linen' }] },
        foldRun([], 3),
        bathed.steps[2] as PlannedStep,
      ),
    ).toBeUndefined();
  });
});

describe('the one thing to do next', () => {
  const two = plan(
    step(0, 'mordant', {
      weighings: [
        weighing('weld', 1, 100, [pick('W1', 60), pick('W2', 40)]),
        weighing('weld', 2, 100, [pick('W2', 100)]),
      ],
    }),
  );
  const next = (entries: RunEntry[], p = two, minute = 30) =>
    benchActs([{ lotId: 'l', plan: p, entries }], Date.parse(at(minute)))[0];
  const weld = (batch: number, stockLot: string, grams = 60, more = false) =>
    took('weld', batch, grams, 1, { stockLot, detail: { more } });
  const begun = entry('start', 0, 0);
  it('begins a step before anything', () => expect(next([])).toMatchObject({ kind: 'begin', step: { index: 0 } }));
  it('weighs batch by batch, jar by jar', () => {
    expect(next([begun])).toMatchObject({ kind: 'weigh', target: 60_000, pick: { stockLotId: 'W1' } });
    expect(next([begun, weld(1, 'W1')])).toMatchObject({ target: 40_000, pick: { stockLotId: 'W2' } });
    expect(next([begun, weld(1, 'W1'), weld(1, 'W2')])).toMatchObject({ weighing: { batch: 2 } });
  });
  it('takes as many weighings from another jar as answered the picks', () =>
    expect(next([begun, weld(1, 'X'), weld(1, 'Y')])).toMatchObject({ weighing: { batch: 2 } }));
  it('stays with a pick that comes in portions until its last', () => {
    expect(next([begun, weld(1, 'W1', 25, true)])).toMatchObject({
      pick: { stockLotId: 'W1' },
      soFar: 25_000,
      portion: 2,
    });
    expect(next([begun, weld(1, 'W1', 25, true), weld(1, 'W1', 35)])).toMatchObject({
      pick: { stockLotId: 'W2' },
      portion: 1,
    });
  });
  it('does not count a corrected weighing twice', () => {
    const x = weld(1, 'X');
    expect(next([begun, weld(2, 'W2'), x, { ...weld(1, 'X'), replacesId: x.id }])).toMatchObject({
      weighing: { batch: 1 },
    });
  });
  it('finishes at its hour, pauses put off; what is over time comes first over all lots', () => {
    const soak = plan(step(0, 'mordant'));
    expect(next([begun, entry('pause', 0, 10), entry('resume', 0, 20)], soak)).toMatchObject({
      kind: 'finish',
      endsMs: Date.parse(at(70)),
    });
    const acts = benchActs(
      [
        { lotId: 'a', plan: soak, entries: [entry('start', 0, 0)] },
        { lotId: 'b', plan: soak, entries: [] },
        { lotId: 'c', plan: soak, entries: [entry('start', 0, 20)] },
      ],
      Date.parse(at(65)),
    );
    expect(acts.map((a) => [a.lotId, a.kind])).toEqual([
      ['a', 'finish'],
      ['b', 'begin'],
      ['c', 'finish'],
    ]);
  });
  it('offers branches beside each other, and nothing of a cancelled lot', () => {
    const branched = plan(step(0, 'mordant'), step(1, 'extract', { after: [] }), step(2, 'dye', { after: [0, 1] }));
    expect(benchActs([{ lotId: 'l', plan: branched, entries: [] }], 0).map((a) => a.step.index)).toEqual([0, 1]);
    expect(benchActs([{ lotId: 'l', plan: branched, entries: [entry('cancel', 0, 1, { text: 'no' })] }], 0)).toEqual(
      [],
    );
  });
  it('calls pulls one by one, each at its minute', () => {
    const pulling = [
      begun,
      entry('pulls', 0, 1, { detail: { pullMinutes: [10, 20, 40] } }),
      entry('pull', 0, 10, { detail: { piece: 1 } }),
    ];
    expect(next(pulling, plan(step(0, 'dye')), 12)).toMatchObject({
      kind: 'pull',
      piece: 2,
      of: 3,
      dueMs: Date.parse(at(20)),
      rank: 6,
    });
    expect(next(pulling, plan(step(0, 'dye')), 20)).toMatchObject({ rank: 0 });
  });
  it('knows a hot pot that was forgotten', () => {
    const pot = {
      lotId: 'l',
      lotTag: 'Lot 1',
      title: 'Dye',
      startedAt: at(0),
      durationMin: 60,
      attended: false,
      hot: true,
    };
    expect(forgottenPots([pot, { ...pot, hot: false }, { ...pot, attended: true }], Date.parse(at(64)))).toEqual([]);
    expect(forgottenPots([pot], Date.parse(at(70)))).toMatchObject([{ overMin: 10 }]);
  });
});

describe('weighed off its target', () => {
  const p = plan(
    step(0, 'fibre', { weighings: [weighing('wool', 1, 600)] }),
    step(1, 'mordant', { weighings: [weighing('alum', 1, 90), weighing('tartar', 1, 36), weighing('alum', 2, 90)] }),
  );
  const off = (entries: RunEntry[], stepIndex: number, materialId: string, grams: number) => {
    const s = p.steps[stepIndex] as PlannedStep;
    return offTarget(
      p,
      foldRun(entries, 2),
      entries,
      s,
      s.weighings.find((w) => w.materialId === materialId) as PlannedStep['weighings'][number],
      grams * 1000,
    );
  };
  it('says nothing within tolerance', () => expect(off([], 1, 'alum', 90.9)).toBeUndefined());
  it('says what too much does, and offers what goes with it and the other batches', () => {
    const found = off([entry('start', 1, 0), took('alum', 1, 99, 1, { stepIndex: 1 })], 1, 'alum', 99);
    expect(found?.effect).toMatch(/10 % more alum.*harsh/);
    expect(found?.offers.map((o) => [o.key, o.rescale.map((r) => `${r.materialId} ${r.batch} ${r.factor}`)])).toEqual([
      ['companions', ['tartar 1 1.1']],
      ['otherBatches', ['alum 2 1.1']],
    ]);
  });
  it('rescales every dose of a batch to the fibre as weighed, and targets follow', () => {
    const found = off([took('wool', 1, 540)], 0, 'wool', 540);
    const rescale = found?.offers[0]?.rescale ?? [];
    expect([found?.offers[0]?.key, rescale.map((r) => r.materialId)]).toEqual(['toFibre', ['alum', 'tartar']]);
    const alum = p.steps[1]?.weighings[0] as PlannedStep['weighings'][number];
    const entries = [entry('rescale', 0, 2, { detail: { rescale } })];
    expect(targetNow(alum, 1, entries)).toBe(81_000);
    expect(
      benchActs([{ lotId: 'l', plan: p, entries: [entry('finish', 0, 1), entry('start', 1, 2), ...entries] }], 0)[0],
    ).toMatchObject({ kind: 'weigh', target: 81_000 });
  });
});

describe('what was done otherwise', () => {
  const dyed = step(0, 'dye', {
    temperatureC: 75,
    wait: { minMinutes: 0, maxMinutes: 30 },
    targetPh: { low: 6, high: 7 },
    baths: [{ batches: [1], vesselId: 'kettle', vesselName: 'Kettle' } as unknown as PlannedStep['baths'][number]],
  });
  const label = (entries: RunEntry[], readyAt?: string) =>
    findDeviations(dyed, foldRun(entries, 1)[0] as StepRecord, { tagOf: String, readyAt })
      .map(sayDeviation)
      .join(' | ');
  it.each<[string, RunEntry[], RegExp]>([
    ['late', [entry('start', 0, 90)], /late: stood 1 h 30 min/],
    [
      'the wrong pot',
      [entry('start', 0, 1, { detail: { vessels: [{ batch: 1, vesselId: 'pan', vesselName: 'Pan' }] } })],
      /in Pan instead of Kettle/,
    ],
    ['another water', [entry('start', 0, 1, { detail: { water: { id: 'r', name: 'rain' } } })], /rain used instead/],
    ['out of order', [entry('start', 0, 1, { text: 'hurry', detail: { outOfOrder: true } })], /out of order: hurry/],
    ['short', [entry('start', 0, 1), entry('finish', 0, 20)], /short: 19 min instead of 1 h, expect paler/],
    [
      'its pH',
      [entry('start', 0, 1), entry('ph', 0, 2, { detail: { ph: 8.5 } }), entry('finish', 0, 61)],
      /left at pH 8.5/,
    ],
    [
      'a hold that sagged',
      [
        entry('start', 0, 1),
        entry('temperature', 0, 50, { temperatureC: 75, detail: { heldMin: 30 } }),
        entry('finish', 0, 61),
      ],
      /held 30 min of 1 h within 4\u00a0°C of 75 °C/,
    ],
    [
      'what a person told',
      [entry('start', 0, 1), entry('note', 0, 2, { text: 'it boiled', detail: { deviation: true } })],
      /it boiled/,
    ],
    [
      'done over',
      [entry('start', 0, 1), entry('redo', 0, 2, { text: 'spilt' }), entry('start', 0, 3)],
      /done over: spilt/,
    ],
  ])('%s', (_, entries, expected) => expect(label(entries, at(0))).toMatch(expected));
  it('says nothing of a plain note, a pause, or a pot as planned', () =>
    expect(
      label(
        [
          entry('start', 0, 1, { detail: { vessels: [{ batch: 1, vesselId: 'kettle', vesselName: 'Kettle' }] } }),
          entry('note', 0, 2, { text: 'nice' }),
          entry('pause', 0, 5),
          entry('resume', 0, 35),
          entry('finish', 0, 91),
        ],
        at(0),
      ),
    ).toBe(''));
});

describe('cautions', () => {
  it('shows every time what burns or poisons, and lets the rest be put away', () => {
    const cautions = cautionsForStep({ kind: 'mordant', usesBath: true, temperatureC: 80 }, [
      'caustic',
      'dust',
      'ironSalt',
    ]);
    expect(cautions.filter(isShownEveryTime)).toHaveLength(2);
    expect(cautions.map(sayStepCaution).some((c) => c.includes('window open'))).toBe(true);
  });
});
