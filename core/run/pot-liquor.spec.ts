import { describe, expect, it } from 'vitest';
import { bathStep, input, material, percent, planned, pot, recipe, stockLot, wool } from '../scaling/plan-lot.fixture';
import { potLiquor } from './pot-liquor';
import type { StepRecord } from './step-record';

const parts = [
  { key: 'first', name: 'first dip', sharePercent: 50 },
  { key: 'second', name: 'second dip', sharePercent: 50 },
];
const plan = planned(
  input({
    recipe: recipe({
      parts,
      steps: [
        bathStep('mordant', [percent('alum', 15)], { title: 'Mordant' }),
        bathStep('dye', [percent('weld', 50)], { title: 'First', bath: 'dye', parts: ['first'] }),
        bathStep('adjustPh', [percent('vinegar', 5)], { title: 'Sour', bath: 'dye', parts: ['first'] }),
        bathStep('exhaust', [], { title: 'Second', bath: 'dye', parts: ['second'] }),
      ],
    }),
    bases: [wool(8)],
    vessels: [pot('kettle', 60), pot('pan', 30)],
    materials: [
      { ...material('alum', stockLot('ALU-1', 9000)), kind: 'mordant' },
      { ...material('weld', stockLot('WEL-1', 9000)), kind: 'dyestuff' },
      { ...material('vinegar', stockLot('VIN-1', 9000)), kind: 'assistant' },
    ],
  }),
);
const stepOf = (title: string) => {
  const step = plan.steps.find((s) => s.title === title);
  if (!step) throw new Error(`no step ${title}`);
  return step;
};

/** Every step as planned, weighed out and over; `change` adds what was noted at one of them. */
const done = (change: Readonly<Record<string, Partial<StepRecord>>> = {}): StepRecord[] =>
  plan.steps.map((s) => ({
    stepIndex: s.index,
    startedAt: '2026-06-01T08:00:00.000Z',
    finishedAt: '2026-06-01T09:00:00.000Z',
    temperaturesC: [],
    weighings: s.weighings.map((w) => ({
      batch: w.batch,
      materialId: w.materialId,
      stockLotId: '',
      amount: w.target.value * 1000,
      more: false,
    })),
    ...change[s.title],
  }));
const left = (title: string, records: readonly StepRecord[] = done(), batch = 1) =>
  potLiquor(plan, records, stepOf(title), batch);

describe('what is left in a pot', () => {
  it('is of the bath’s own dyestuff, not of the spoon of vinegar that came last', () => {
    const { main, left: liquor } = left('Sour');
    expect(main?.name).toBe('weld');
    expect(liquor.contents.map((c) => c.name)).toEqual(['weld', 'vinegar']);
  });

  it('is less by what each dip drew, one after the other', () => {
    // 200 g of weld in 12 l; 400 g of wool draw 60 % and carry off 0.6 l of it.
    const first = left('First');
    expect([first.mainDosedG, first.dips, first.main?.grams]).toEqual([200, 1, 76]);
    const second = left('Second', done(), 2);
    expect([second.mainDosedG, second.dips, second.main?.grams]).toEqual([200, 2, 28.88]);
    expect(second.left.volumeMl).toBe(11_400);
  });

  it('keeps what was dissolved when water steams off, and loses a share with what is taken out', () => {
    const moved = (kind: 'evaporate' | 'takeOut' | 'add' | 'level', ml: number) =>
      left('First', done({ First: { bathMoves: [{ kind, ml, batch: 1, at: '2026-06-01T08:30:00.000Z' }] } })).main
        ?.grams;
    expect(moved('evaporate', 6000)).toBe(72);
    expect(moved('level', 6000)).toBe(72);
    expect(moved('takeOut', 6000)).toBe(36);
    expect(moved('add', 3000)).toBe(76.8);
  });

  it('is of the mordant in a mordant bath, and nothing of another bath', () => {
    const { main, left: liquor } = left('Mordant');
    expect([main?.name, liquor.contents.length]).toEqual(['alum', 1]);
  });
});
