import { describe, expect, it } from 'vitest';
import type { PlannedStep } from '../scaling/lot-plan';
import { bathStep, input, material, percent, planned, pot, recipe, stockLot } from '../scaling/plan-lot.fixture';
import { potsInUse, potTaken } from './pots-in-use';
import type { BroughtEntry, BroughtEntryOf, RunEntry } from './run-entry';
import { at, runEntry } from './run-entry.fixture';
import { foldRun } from './run-record';
import { ruleOnEntry } from './run-rules';

const plan = planned(
  input({
    recipe: recipe({
      steps: [
        bathStep('mordant', [percent('alum', 15)], { title: 'Mordant' }),
        bathStep('extract', [percent('weld', 50)], { title: 'Draw', bath: 'dye', key: 'draw', after: [] }),
        bathStep('dye', [], { title: 'Dye', bath: 'dye', key: 'dye' }),
      ],
    }),
    vessels: [pot('kettle', 60), pot('tub', 50), pot('vat', 60)],
    materials: [material('alum', stockLot('ALU-1', 9000)), material('weld', stockLot('WEL-1', 9000))],
  }),
);
const stepOf = (title: string): PlannedStep => {
  const step = plan.steps.find((s) => s.title === title);
  if (!step) throw new Error(`no step ${title}`);
  return step;
};
const entry = (kind: RunEntry['kind'], title: string, minute: number, rest: object = {}): RunEntry =>
  runEntry(kind, stepOf(title).index, minute, { id: `${kind} ${title}`, ...rest });
const held = (...entries: RunEntry[]) => potsInUse(plan, foldRun(entries, plan.steps.length), 'L-0001');
const dyePot = stepOf('Dye').baths[0]?.vesselName;

describe('a pot', () => {
  it('is taken from its first filling until the last step of its liquor is over', () => {
    const draw = [entry('start', 'Draw', 0), entry('finish', 'Draw', 60)];
    expect(held()).toEqual([]);
    expect(held(...draw).map((p) => [p.vesselName, p.title])).toEqual([[dyePot, 'Draw']]);
    expect(held(...draw, entry('start', 'Dye', 70)).map((p) => p.title)).toEqual(['Dye']);
    expect(held(...draw, entry('start', 'Dye', 70), entry('finish', 'Dye', 130))).toEqual([]);
    expect(held(...draw, entry('skip', 'Dye', 70, { text: 'boiled dry' }))).toEqual([]);
  });

  it('is the one it was really begun in', () => {
    const vessels = [{ batch: 1, vesselId: 'vat', vesselName: 'vat' }];
    expect(held(entry('start', 'Draw', 0, { detail: { vessels } })).map((p) => p.vesselName)).toEqual(['vat']);
  });
});

describe('beginning in a pot that holds another liquor', () => {
  const mordant = stepOf('Mordant');
  const [filling] = mordant.baths;
  const elsewhere = [
    {
      vesselId: filling?.vesselId ?? '',
      vesselName: filling?.vesselName ?? '',
      title: 'Boil the walnuts',
      liquor: 'of step 2',
      lotTag: 'L-0002',
    },
  ];
  const begin = (change: Partial<BroughtEntryOf<'start'>>, pots = elsewhere) => {
    const brought: BroughtEntry = {
      id: 'x',
      stepIndex: mordant.index,
      kind: 'start',
      replacesId: null,
      temperatureC: null,
      text: null,
      weighing: null,
      detail: null,
      ...change,
    };
    const entries = [entry('skip', plan.steps[0]?.title ?? '', 0, { text: 'weighed before' })];
    const facts = { plan, entries, lotAt: at(0), nowMs: Date.parse(at(30)), lotTag: 'L-0001', elsewhere: pots };
    const ruling = ruleOnEntry(facts, brought, Date.parse(at(20)));
    return ruling.ok ? 'ok' : ruling.refusal;
  };

  it('is refused, by name of the lot and the step that are in it', () =>
    expect(begin({})).toMatchObject({
      reason: 'potInUse',
      message: expect.stringContaining('still holds “Boil the walnuts” of L-0002. Finish that first'),
    }));
  it('goes in another pot, with a reason, or as it is keyed in from a card', () => {
    expect(begin({ detail: { vessels: [{ batch: 1, vesselId: 'spare', vesselName: 'spare' }] } })).toBe('ok');
    expect(begin({ text: 'emptied into the tub' })).toBe('ok');
    expect(begin({ detail: { readBy: 'card' } })).toBe('ok');
    expect(begin({}, [])).toBe('ok');
  });
  it('is no matter of the liquor it goes on with', () => {
    const own = held(entry('start', 'Draw', 0));
    expect(potTaken(stepOf('Dye'), undefined, { own, elsewhere: [] })).toBeUndefined();
    const inDyePot = [{ batch: 1, vesselId: own[0]?.vesselId ?? '', vesselName: '' }];
    expect(potTaken(mordant, inDyePot, { own, elsewhere: [] })?.title).toBe('Draw');
  });
});
