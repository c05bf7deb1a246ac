import { describe, expect, it } from 'vitest';
import { bathStep, input, percent, planned, recipe } from '../scaling/plan-lot.fixture';
import { benchActs } from './bench-acts';
import type { BroughtEntry, RunEntry } from './run-entry';
import { at, runEntry } from './run-entry.fixture';
import { foldRun, stepState } from './run-record';
import { ruleOnEntry } from './run-rules';

const plan = planned(
  input({
    recipe: recipe({
      steps: [bathStep('mordant', [percent('alum', 12)], { key: 'm' }), bathStep('dye', [], { key: 'd' })],
    }),
  }),
);
const [mordant, dye] = ['m', 'd'].map((key) => plan.steps.find((s) => s.key === key)!);
const entry = (
  id: string,
  stepIndex: number,
  minute: number,
  { kind = 'note', ...rest }: Partial<RunEntry>,
): RunEntry => runEntry(kind, stepIndex, minute, { id, ...rest });
const weighed = (id: string, minute: number, batch: number, share = 1): RunEntry => {
  const w = mordant!.weighings.find((x) => x.batch === batch)!;
  return entry(id, mordant!.index, minute, {
    kind: 'weigh',
    weighing: { batch, materialId: 'alum', stockLotId: w.picks[0]!.stockLotId, amount: w.target.value * 1000 * share },
  } as Partial<RunEntry>);
};
const fibre = [entry('f1', 0, 0, { kind: 'start' }), entry('f2', 0, 1, { kind: 'finish', text: 'weighed before' })];
const begun = [...fibre, entry('s', mordant!.index, 2, { kind: 'start' })];
const ruled = (entries: readonly RunEntry[], brought: object) =>
  ruleOnEntry(
    { plan, entries, lotAt: at(-10), nowMs: Date.parse(at(500)), lotTag: 'Lot 1', elsewhere: [] },
    {
      id: 'new',
      stepIndex: mordant!.index,
      replacesId: null,
      temperatureC: null,
      text: null,
      weighing: null,
      detail: null,
      ...brought,
    } as BroughtEntry,
    Date.parse(at(400)),
  );
const reason = (entries: readonly RunEntry[], brought: object): string => {
  const ruling = ruled(entries, brought);
  return ruling.ok ? 'taken' : ruling.refusal.reason;
};
const grams = String(mordant!.weighings[0]!.target.value);
const again = (detail: object | null = null) => ({
  kind: 'weigh',
  weighing: { batch: 1, materialId: 'alum', stockLotId: 'A', quantityText: `${grams} g` },
  detail,
});

describe('two tablets weigh the same', () => {
  it('the second is asked: it went in on top, or it was the same weighing', () => {
    expect(reason(begun, again())).toBe('taken');
    const ruling = ruled([...begun, weighed('w', 3, 1)], again());
    expect(ruling.ok ? '' : ruling.refusal.message).toMatch(/were weighed for batch 1 already. Say whether/);
    expect(reason([...begun, weighed('w', 3, 1)], again({ again: true }))).toBe('taken');
  });
  it('another batch, a portion still open, and a correction are no second weighing', () => {
    expect(reason([...begun, weighed('w', 3, 2)], again())).toBe('taken');
    const portion = { ...weighed('w', 3, 1, 0.5), detail: { more: true } } as RunEntry;
    expect(reason([...begun, portion], again())).toBe('taken');
    expect(reason([...begun, weighed('w', 3, 1)], { ...again(), replacesId: 'w' })).toBe('taken');
  });
});

describe('a slip is taken back', () => {
  const finished = [
    ...begun,
    weighed('w', 3, 1),
    weighed('w2', 4, 2),
    entry('e', mordant!.index, 60, { kind: 'finish' }),
  ];
  const back = (replacesId: string, rest: object = {}) => ({ kind: 'takeBack', replacesId, ...rest });
  const backEntry = (replacesId: string): RunEntry =>
    entry('b', mordant!.index, 70, { kind: 'takeBack', replacesId } as Partial<RunEntry>);
  it('a finish, while the next step has not begun: the step runs on', () => {
    expect(reason(finished, back('e'))).toBe('taken');
    expect(stepState(foldRun([...finished, backEntry('e')], plan.steps.length)[mordant!.index]!)).toBe('running');
    expect(reason([...finished, entry('d', dye!.index, 61, { kind: 'start' })], back('e'))).toBe('begunSince');
  });
  it('a begin, while nothing else was written in the step', () => {
    expect(reason(begun, back('s'))).toBe('taken');
    expect(reason(finished, back('s'))).toBe('doneSince');
    expect(stepState(foldRun([...begun, backEntry('s')], plan.steps.length)[mordant!.index]!)).toBe('waiting');
  });
  it('a weighing counts no more, and is asked for again', () => {
    const record = foldRun([...begun, weighed('w', 3, 1), backEntry('w')], plan.steps.length)[mordant!.index];
    expect(record?.weighings).toEqual([]);
  });
  it.each([
    ['nothing', null],
    ['what isn’t there', 'nowhere'],
    ['an entry of another step', 'f2'],
  ])('not %s', (_name, replacesId) => expect(reason(finished, back(replacesId as string))).toBe('badCorrection'));
  it('not twice, and not a cancelling', () => {
    expect(reason([...finished, backEntry('e')], back('e'))).toBe('replacedAlready');
    expect(reason([...begun, entry('c', mordant!.index, 5, { kind: 'redo', text: 'spilt' })], back('c'))).toBe(
      'badCorrection',
    );
  });
});

describe('done over', () => {
  const over = (keepsWeighings: boolean): RunEntry[] => [
    ...begun,
    weighed('w', 3, 1),
    weighed('w2', 4, 2),
    entry('r', mordant!.index, 60, { kind: 'redo', text: 'uneven', detail: { keepsWeighings } } as Partial<RunEntry>),
    entry('s2', mordant!.index, 61, { kind: 'start' }),
  ];
  const next = (entries: readonly RunEntry[]) => benchActs([{ lotId: 'l', plan, entries }], Date.parse(at(62)))[0];
  it('with what was weighed, nothing leaves a jar twice', () => expect(next(over(true))?.kind).toBe('finish'));
  it('weighed out anew, all is asked for again', () => expect(next(over(false))?.kind).toBe('weigh'));
});
