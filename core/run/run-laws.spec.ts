import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { benchActs } from './bench-acts';
import type { LotPlan, PlannedStep } from '../scaling/lot-plan';
import { findRunDeviations } from './run-deviations';
import type { BroughtEntry, RunEntry, RunEntryKind } from './run-entry';
import { foldRun, isOver, minutesInWork, stepState } from './run-record';
import { ruleOnEntry } from './run-rules';

const LOT_AT = Date.parse('2026-06-01T08:00:00.000Z');
const step = (index: number, after: number[]): PlannedStep => ({
  index,
  key: '',
  kind: index === 0 ? 'mordant' : 'dye',
  title: `step ${index}`,
  instruction: '',
  durationMin: 60,
  attended: false,
  lookFor: '',
  usesBath: false,
  liquor: '',
  cautions: [],
  after,
  finishedBy: 'clock',
  wait: null,
  course: [],
  repeats: 1,
  strain: null,
  targetPh: null,
  forWhom: '',
  baths: [],
  weighings:
    index === 0
      ? [
          {
            batch: 1,
            forBatches: [1],
            materialId: 'alum',
            materialName: 'alum',
            measure: 'weight',
            target: { value: 90, unit: 'g', working: { formula: '', inputs: [], notes: [] } },
            tolerance: 1,
            picks: [{ stockLotId: 'A1', amount: 90_000 }],
            advice: [],
          },
        ]
      : [],
});
const plan: LotPlan = {
  pieces: 2,
  pieceWeightG: 100,
  wof: { value: 200, unit: 'g', working: { formula: '', inputs: [], notes: [] } },
  liquorRatio: 30,
  groups: [],
  batches: [],
  materials: [],
  cautions: [],
  steps: [step(0, []), step(1, []), step(2, [0, 1])],
};

interface Try {
  readonly kind: RunEntryKind;
  readonly stepIndex: number;
  readonly spoken: boolean;
  readonly early: boolean;
  readonly grams: number;
  readonly gapMin: number;
}
const tries = fc.array(
  fc.record({
    kind: fc.constantFrom<RunEntryKind>(
      'start',
      'weigh',
      'temperature',
      'note',
      'pause',
      'resume',
      'redo',
      'finish',
      'skip',
      'pull',
      'ph',
    ),
    stepIndex: fc.integer({ min: 0, max: 3 }),
    spoken: fc.boolean(),
    early: fc.boolean(),
    grams: fc.integer({ min: -20, max: 400 }),
    gapMin: fc.integer({ min: 0, max: 90 }),
  }),
  { maxLength: 60 },
);

/** Whatever hands do, in any order: only what the rules let through is written. */
function run(all: readonly Try[]): { entries: RunEntry[]; nowMs: number } {
  const entries: RunEntry[] = [];
  let nowMs = LOT_AT;
  all.forEach((t, i) => {
    nowMs += t.gapMin * 60_000;
    const weighing =
      t.kind === 'weigh' ? { batch: 1, materialId: 'alum', stockLotId: 'A1', quantityText: `${t.grams} g` } : null;
    const detail = {
      ...(t.early ? { outOfOrder: true } : {}),
      ...(t.kind === 'ph' ? { ph: 7 } : {}),
      ...(t.kind === 'pull' ? { piece: 1 + (i % 4) } : {}),
    };
    const brought = {
      id: `e${i}`,
      stepIndex: t.stepIndex,
      kind: t.kind,
      replacesId: null,
      temperatureC: t.kind === 'temperature' ? t.grams : null,
      text: t.spoken ? 'said' : null,
      weighing,
      detail,
    } as BroughtEntry;
    const ruling = ruleOnEntry(
      { plan, entries, lotAt: new Date(LOT_AT).toISOString(), nowMs, lotTag: 'L-0001', elsewhere: [] },
      brought,
      nowMs,
    );
    if (ruling.ok) entries.push({ ...ruling.entry, at: new Date(nowMs).toISOString() });
    else expect(ruling.refusal.message).toMatch(/^[“A-Z0-9−-].*[.?]$/s);
  });
  return { entries, nowMs };
}

describe('laws of a run', () => {
  it('never finishes what did not begin, never weighs nothing or less, and pulls a piece once a doing', () => {
    fc.assert(
      fc.property(tries, (all) => {
        const { entries } = run(all);
        for (const record of foldRun(entries, plan.steps.length)) {
          if (record.finishedAt !== undefined)
            expect(Date.parse(record.finishedAt)).toBeGreaterThanOrEqual(Date.parse(record.startedAt ?? 'never'));
          expect(record.weighings.every((w) => w.amount > 0)).toBe(true);
          expect(record.temperaturesC.every((c) => c >= -5 && c <= 105)).toBe(true);
          const pieces = (record.pulls ?? []).map((p) => p.piece);
          expect(new Set(pieces).size).toBe(pieces.length);
        }
      }),
    );
  });
  it('keeps a step’s minutes between nothing and the time that passed', () => {
    fc.assert(
      fc.property(tries, (all) => {
        const { entries, nowMs } = run(all);
        for (const record of foldRun(entries, plan.steps.length)) {
          const minutes = minutesInWork(record, nowMs);
          expect(minutes).toBeGreaterThanOrEqual(0);
          expect(minutes).toBeLessThanOrEqual((nowMs - LOT_AT) / 60_000 + 1e-9);
        }
      }),
    );
  });
  it('always has something to do until every step is over, and nothing after', () => {
    fc.assert(
      fc.property(tries, (all) => {
        const { entries, nowMs } = run(all);
        const records = foldRun(entries, plan.steps.length);
        const acts = benchActs([{ lotId: 'l', plan, entries }], nowMs);
        expect(acts.length > 0).toBe(!records.every(isOver));
        expect(acts.every((a) => !['done', 'skipped'].includes(stepState(a.record)))).toBe(true);
      }),
    );
  });
  it('tells every skip, every doing over and every early start', () => {
    fc.assert(
      fc.property(tries, (all) => {
        const { entries } = run(all);
        const messages = findRunDeviations(plan, entries, String).map((d) => d.message);
        expect(messages.filter((w) => w.startsWith('done over')).length).toBe(
          entries.filter((e) => e.kind === 'redo').length,
        );
        for (const record of foldRun(entries, plan.steps.length))
          if (record.skippedReason !== undefined) expect(messages).toContain(`skipped: ${record.skippedReason}`);
      }),
    );
  });
});
