import { describe, expect, it } from 'vitest';
import { findChainFault } from '../recipe/chain';
import { bathStep, input, percent, planned, recipe } from '../scaling/plan-lot.fixture';
import { sayDeviation } from './deviation';
import { findDeviations } from './deviations';
import { recipeAsDone } from './recipe-as-done';
import type { BroughtEntry, RunEntry } from './run-entry';
import { at, runEntry } from './run-entry.fixture';
import { foldRun } from './run-record';
import { ruleOnEntry } from './run-rules';

const steps = [
  bathStep('mordant', [percent('alum', 12)], { key: 'alum', durationMin: 300 }),
  bathStep('dye', [percent('weld', 50)], { key: 'dye', temperatureC: 75, durationMin: 60 }),
  bathStep('modify', [], { key: 'iron', durationMin: 6, attended: true }),
];
const plan = planned(input({ recipe: recipe({ steps }) }));
const stepOf = (key: string) => plan.steps.find((s) => s.key === key)!;
const entry = (key: string, minute: number, { kind = 'note', ...rest }: Partial<RunEntry>): RunEntry =>
  runEntry(kind, stepOf(key).index, minute, rest);
const ran = (key: string, from: number, to: number): RunEntry[] => [
  entry(key, from, { kind: 'start' }),
  ...stepOf(key).weighings.map((w) =>
    entry(key, from, {
      kind: 'weigh',
      weighing: {
        batch: w.batch,
        materialId: w.materialId,
        stockLotId: w.picks[0]!.stockLotId,
        amount: w.target.value * 1000,
      },
    } as Partial<RunEntry>),
  ),
  entry(key, to, { kind: 'finish' }),
];
const records = (entries: readonly RunEntry[]) => foldRun(entries, plan.steps.length);
const label = (key: string, entries: readonly RunEntry[]): string[] =>
  findDeviations(stepOf(key), records(entries)[stepOf(key).index]!, { tagOf: (id) => id }).map(sayDeviation);
const asDone = (entries: readonly RunEntry[]) => recipeAsDone(steps, plan, records(entries));

describe('what was not planned is kept as fact', () => {
  it('a material put in as well, weighed or guessed, from a jar or from none', () => {
    const added = entry('dye', 130, {
      kind: 'add',
      weighing: { batch: 1, materialId: 'onion', stockLotId: 'ONI-1', amount: 20_000 },
      detail: { batch: 1, name: 'Onion skins', measure: 'weight', quantityText: '20 g', guessed: true },
    } as Partial<RunEntry>);
    const handful = entry('dye', 131, {
      kind: 'add',
      detail: { batch: 1, name: 'dock root', measure: 'weight', quantityText: 'a handful' },
    } as Partial<RunEntry>);
    expect(label('dye', [...ran('dye', 120, 180), added, handful])).toEqual([
      expect.stringMatching(/^Onion skins was put in as well, about 20 g in batch 1: /),
      expect.stringMatching(/^dock root was put in as well, a handful in batch 1: /),
    ]);
  });
  it('water beyond a tenth of the bath; what steamed off before is only made up for', () => {
    const liquorMl = stepOf('dye').baths[0]!.liquor.value;
    const move = (kind: 'add' | 'evaporate', share: number): RunEntry =>
      entry('dye', 140, { kind: 'bath', detail: { bath: { kind, ml: liquorMl * share } } } as Partial<RunEntry>);
    expect(label('dye', [...ran('dye', 120, 180), move('add', 0.2)])).toEqual([
      expect.stringMatching(/was stretched to/),
    ]);
    expect(label('dye', [...ran('dye', 120, 180), move('evaporate', 0.2), move('add', 0.2)])).toEqual([]);
    expect(label('dye', [...ran('dye', 120, 180), move('add', 0.09)])).toEqual([]);
  });
  it('pieces, steps beside the chain, another pot midway, a pot that stood still', () => {
    expect(
      label('dye', [
        ...ran('dye', 120, 180),
        entry('dye', 130, {
          kind: 'pieces',
          text: 'a test piece',
          detail: { batch: 1, change: -1 },
        } as Partial<RunEntry>),
        entry('dye', 181, {
          kind: 'extra',
          detail: { title: 'Rinse in the sea', stepKind: 'rinse', minutes: 10 },
        } as Partial<RunEntry>),
        entry('dye', 140, {
          kind: 'moved',
          detail: { vessels: [{ batch: 1, vesselId: 'other', vesselName: 'Old pan' }] },
        } as Partial<RunEntry>),
      ]),
    ).toEqual([
      expect.stringMatching(/in Old pan instead of/),
      expect.stringMatching(/^1 piece taken out of batch 1 \(a test piece\)/),
      expect.stringMatching(/“Rinse in the sea” was done after it, .* \(10 min\)/),
    ]);
    expect(
      label('dye', [
        ...ran('dye', 120, 240),
        entry('dye', 130, { kind: 'pause' }),
        entry('dye', 190, { kind: 'resume' }),
      ]),
    ).toEqual([expect.stringMatching(/^stood still for 1 h/)]);
  });
  it('a cold step and one with hands at it last as long as they lasted', () => {
    expect(label('alum', ran('alum', 0, 900))).toEqual(['15 h instead of 5 h']);
    expect(label('iron', ran('iron', 0, 40))).toEqual(['40 min instead of 6 min, expect a stronger shift']);
    expect(label('iron', ran('iron', 0, 10))).toEqual([]);
  });
});

describe('what may be written', () => {
  const facts = (entries: readonly RunEntry[]) => ({
    plan,
    entries,
    lotAt: at(-10),
    nowMs: Date.parse(at(1000)),
    lotTag: 'L-1',
    elsewhere: [],
  });
  const ruled = (brought: object, entries: readonly RunEntry[] = [entry('dye', 0, { kind: 'start' })]) =>
    ruleOnEntry(
      facts(entries),
      {
        id: 'x',
        stepIndex: stepOf('dye').index,
        replacesId: null,
        temperatureC: null,
        text: null,
        weighing: null,
        detail: null,
        ...brought,
      } as BroughtEntry,
      Date.parse(at(500)),
    );
  const pieces = plan.batches[0]!.pieces;
  it.each([
    ['nothing said of what went in', { kind: 'add' }, /Say what went in/],
    [
      'an unreadable amount out of a jar',
      {
        kind: 'add',
        weighing: { batch: 1, materialId: 'm', stockLotId: 'j', quantityText: 'a handful' },
        detail: { name: 'Onion', quantityText: 'a handful' },
      },
      /./,
    ],
    ['moved nowhere', { kind: 'moved', detail: {} }, /which pot/],
    ['no pieces', { kind: 'pieces', detail: { batch: 1, change: 0 } }, /how many pieces/],
    ['more out than there are', { kind: 'pieces', detail: { batch: 1, change: -pieces - 1 } }, /no more than that/],
    ['a batch that isn’t', { kind: 'pieces', detail: { batch: 9, change: 1 } }, /no batch 9/],
    ['a step without a name', { kind: 'extra', detail: { stepKind: 'rinse' } }, /what was done/],
  ])('is refused: %s', (_name, brought, message) => {
    const ruling = ruled(brought);
    expect(ruling.ok).toBe(false);
    expect(ruling.ok ? '' : ruling.refusal.message).toMatch(message);
  });
  it('is taken: a handful from no jar, all the pieces out, a step beside the chain', () => {
    for (const brought of [
      { kind: 'add', detail: { name: 'dock root', quantityText: 'a handful' } },
      { kind: 'pieces', detail: { batch: 1, change: -pieces } },
      { kind: 'extra', detail: { title: 'Rinse', stepKind: 'rinse' } },
    ])
      expect(ruled(brought).ok).toBe(true);
  });
});

describe('the recipe as it was really done', () => {
  const all = [...ran('alum', 0, 300), ...ran('dye', 300, 360), ...ran('iron', 360, 366)];
  it('is the recipe itself where all went as planned', () => {
    expect(asDone(all)).toEqual({ steps, changes: [] });
  });
  it('has the times, the heat and the doses as they were', () => {
    const weldG = stepOf('dye').weighings.reduce((sum, w) => sum + w.target.value, 0);
    const done = asDone([
      ...ran('alum', 0, 900),
      entry('dye', 900, { kind: 'start' }),
      entry('dye', 901, {
        kind: 'weigh',
        weighing: { batch: 1, materialId: 'weld', stockLotId: 'W', amount: weldG * 1500 },
      } as Partial<RunEntry>),
      entry('dye', 930, { kind: 'temperature', temperatureC: 90 } as Partial<RunEntry>),
      entry('dye', 960, { kind: 'finish' }),
      ...ran('iron', 960, 1000),
    ]);
    expect(done.steps.map((s) => [s.durationMin, s.temperatureC])).toEqual([
      [900, undefined],
      [60, 90],
      [40, undefined],
    ]);
    expect(done.steps[1]?.doses).toEqual([{ materialId: 'weld', by: 'percentOwf', percentOwf: 75 }]);
    expect(done.changes.map((c) => c.message)).toEqual([
      '15 h instead of 5 h',
      expect.stringMatching(/Weld|weld/),
      'at 90 °C instead of 75 °C',
      '40 min instead of 6 min',
    ]);
  });
  it('has what was put in as well, in its per cent or in its words', () => {
    const done = asDone([
      ...all,
      entry('dye', 320, {
        kind: 'add',
        weighing: { batch: 1, materialId: 'onion', stockLotId: 'O', amount: plan.wof.value * 100 },
        detail: { batch: 1, name: 'Onion', measure: 'weight', quantityText: '' },
      } as Partial<RunEntry>),
      entry('dye', 321, {
        kind: 'add',
        detail: { batch: 1, name: 'dock root', measure: 'weight', quantityText: 'a handful' },
      } as Partial<RunEntry>),
    ]);
    expect(done.steps[1]?.doses.at(-1)).toEqual({ materialId: 'onion', by: 'percentOwf', percentOwf: 10 });
    expect(done.steps[1]?.instruction).toContain('Also a handful of dock root.');
  });
  it('leaves skipped steps out and puts extra ones in, and the chain still holds', () => {
    const done = asDone([
      entry('alum', 0, { kind: 'skip', text: 'mordanted before' }),
      ...ran('dye', 300, 360),
      entry('dye', 361, {
        kind: 'extra',
        detail: { title: 'Sea rinse', stepKind: 'rinse', minutes: 10 },
      } as Partial<RunEntry>),
      ...ran('iron', 380, 386),
    ]);
    expect(done.steps.map((s) => s.title)).toEqual(['dye', 'Sea rinse', 'modify']);
    expect(findChainFault(done.steps, [])).toBeUndefined();
    expect(done.steps[0]?.after).toEqual([]);
    expect(done.steps[2]?.after).toEqual([done.steps[1]?.key]);
  });
});
