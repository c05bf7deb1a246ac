import { describe, expect, it } from 'vitest';
import type { StepRecord } from '../run/step-record';
import { bathStep, input, percent, planned, recipe } from '../scaling/plan-lot.fixture';
import type { LotToMatch, MatchFacts } from './lot-dyeing';
import { dyeingOfLot, metalMeant, mordantOfLot } from './lot-dyeing';

const UNDYED = { lab: { L: 86, a: 0, b: 9 }, spectrum: null };
const facts: MatchFacts = {
  kinds: new Map([
    ['weld', 'dyestuff'],
    ['alum', 'mordant'],
    ['hanks', 'fibre'],
  ]),
  receivedOn: new Map(),
  undyed: new Map([['hanks', UNDYED]]),
  mordanted: new Map(),
};
const HOT = [
  { do: 'raise', toC: 85, minutes: 40 },
  { do: 'hold', toC: 85, minutes: 60 },
] as const;
const chain = [
  bathStep('mordant', [percent('alum', 15)], { temperatureC: 85, durationMin: 60 }),
  bathStep('dye', [percent('weld', 100)], { course: [...HOT] }),
];
const plan = planned(input({ recipe: recipe({ steps: chain }) }));
const dyeStep = plan.steps.findIndex((s) => s.kind === 'dye');
const ran = (index: number, rest: Partial<StepRecord>): StepRecord[] =>
  plan.steps.map((_, stepIndex) => ({
    stepIndex,
    temperaturesC: [],
    weighings: [],
    ...(stepIndex === index ? rest : {}),
  }));
const lot = (records: readonly StepRecord[], of = plan): LotToMatch => ({
  colourwayId: 'marram',
  at: '2026-05-01T08:00:00.000Z',
  plan: of,
  records,
  water: null,
});
const dyed = (records: readonly StepRecord[], of = plan) =>
  dyeingOfLot(lot(records, of), { batch: 1, group: null, dip: null }, facts);
const pointsOf = (stage: string, records: readonly StepRecord[], of = plan): [number, number][] =>
  (dyed(records, of)?.courses.find((c) => c.stage === stage)?.points ?? []).map((p) => [
    Math.round(p.minute),
    Math.round(p.celsius),
  ]);
const START = { startedAt: '2026-05-01T08:00:00.000Z' };

describe('how hot a lot really was, and how long', () => {
  it('is as planned where nothing was written down', () => {
    expect(pointsOf('dye', [])).toEqual([
      [0, 20],
      [40, 85],
      [100, 85],
    ]);
    expect(pointsOf('mordant', []).at(-1)).toEqual([60, 85]);
  });
  it('takes the time it took, and is held as hot as somebody read', () => {
    const slow = { ...START, finishedAt: '2026-05-01T10:00:00.000Z' };
    expect(pointsOf('dye', ran(dyeStep, { ...slow, temperaturesC: [50, 79, 80, 81] }))).toEqual([
      [0, 20],
      [48, 80],
      [120, 80],
    ]);
  });
  it('what a probe followed is what it saw, corner by corner', () => {
    const course = [
      { minute: 0, temperatureC: 30 },
      { minute: 50, temperatureC: 88 },
      { minute: 110, temperatureC: 70 },
    ];
    const seen = ran(dyeStep, { ...START, finishedAt: '2026-05-01T10:00:00.000Z', heldMin: 12, course });
    expect(pointsOf('dye', seen)).toEqual([
      [0, 30],
      [50, 88],
      [110, 70],
    ]);
  });
  it('where only the minutes in band are known, the hold is as long as that, and heating up counts besides', () => {
    const held = ran(dyeStep, { ...START, finishedAt: '2026-05-01T10:00:00.000Z', heldMin: 45 });
    expect(pointsOf('dye', held)).toEqual([
      [0, 20],
      [40, 85],
      [85, 85],
    ]);
  });
  it('dips are gone through one by one', () => {
    const dip = [
      { do: 'hold', toC: 50, minutes: 10 },
      { do: 'air', minutes: 15 },
    ] as const;
    const dipped = planned(
      input({
        recipe: recipe({
          steps: [chain[0]!, bathStep('dye', [percent('weld', 100)], { course: [...dip], repeats: 3 })],
        }),
      }),
    );
    const points = pointsOf('dye', [], dipped);
    expect(points.filter(([, celsius]) => celsius === 50)).toHaveLength(3);
    expect(points.at(-1)).toEqual([75, 20]);
  });
});

describe('what fibre brings along', () => {
  it('is its own colour where that lot of it was read, else the base’s', () => {
    const bale = plan.materials.find((m) => m.materialId === 'hanks')?.picks[0]?.stockLotId ?? '';
    expect(dyed([])?.undyed).toBe(UNDYED);
    const yellow = { lab: { L: 78, a: 3, b: 24 }, spectrum: null };
    const read = { ...facts, undyed: new Map([...facts.undyed, [bale, yellow] as const]) };
    expect(dyeingOfLot(lot([]), { batch: 1, group: null, dip: null }, read)?.undyed).toBe(yellow);
  });
  it('is the mordant it was kept with, where this lot mordants nothing itself', () => {
    const before = mordantOfLot(lot([]), facts)!;
    expect(before.doses).toMatchObject([{ materialId: 'alum', stage: 'mordant', percentOwf: 15 }]);
    const bale = plan.materials.find((m) => m.materialId === 'hanks')?.picks[0]?.stockLotId ?? '';
    const onlyDyed = planned(input({ recipe: recipe({ steps: [chain[1]!] }) }));
    const kept = { ...facts, mordanted: new Map([[bale, before]]) };
    const own = dyeingOfLot(lot([], onlyDyed), { batch: 1, group: null, dip: null }, kept);
    expect(own?.doses.map((d) => d.materialId)).toEqual(['alum', 'weld']);
    expect(own?.courses.map((c) => c.stage)).toEqual(['mordant', 'dye']);
    expect(mordantOfLot(lot([], onlyDyed), facts)).toBeUndefined();
  });
});

describe('the pot a recipe is meant for', () => {
  it('is one that gives nothing wherever it may be, whatever its lot was dyed in; else what it was dyed in', () => {
    const of = (...allowedMetals: ('enamel' | 'iron')[]) => recipe({ steps: chain, allowedMetals });
    expect(metalMeant(of('iron', 'enamel'), 'iron')).toBe('stainless');
    expect(metalMeant(of('iron'), 'iron')).toBe('iron');
    const inIron = chain.map((s) => (s.kind === 'dye' ? { ...s, metals: ['iron' as const] } : s));
    expect(metalMeant(recipe({ steps: inIron, allowedMetals: ['enamel'] }), 'iron')).toBe('iron');
  });
});
