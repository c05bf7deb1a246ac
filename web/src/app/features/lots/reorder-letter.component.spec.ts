import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { MatchRecord, Proposal } from '@vestigia/contract';
import type { ReorderAnswer, ReorderAsk } from '@vestigia/core';
import { EMPTY, NEVER, of, throwError } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { WELD_PLAN } from '../../testing/match.fixture';
import { ReorderLetter } from './reorder-letter';
import type { TakenCorrection } from './taken-correction';
import { ContextPanel } from '../../services/context-panel';
import { MatchTeller } from '../../services/match-teller';

const MASTER = { L: 74, a: -4, b: 50, illuminant: 'D65' as const, observer: '10' as const };
const RECORD = {
  readings: [],
  strengths: [],
  materials: [
    { id: 'weld', name: 'Weld', kind: 'dyestuff' },
    { id: 'hanks', name: 'Rug wool', kind: 'fibre' },
  ],
  jars: [
    {
      id: 'jar-b',
      tag: 'WEL-2',
      materialId: 'weld',
      receivedOn: '2026-01-01',
      free: 900_000,
      isReference: false,
      dosedAsPercent: null,
      costMinorPerG: 5,
    },
    {
      id: 'jar-a',
      tag: 'WEL-1',
      materialId: 'weld',
      receivedOn: '2025-01-01',
      free: 900_000,
      isReference: false,
      dosedAsPercent: 80,
      costMinorPerG: null,
    },
  ],
  undyed: [
    { of: 'hanks', colour: { lab: { L: 88, a: 0, b: 11 }, spectrum: null } },
    { of: 'bale-2', colour: { lab: { L: 91, a: 0, b: 8 }, spectrum: null } },
  ],
  mordanted: [],
  baseLots: [
    { id: 'bale-1', tag: 'RUG-1', baseId: 'hanks', free: 5_000_000 },
    { id: 'bale-2', tag: 'RUG-2', baseId: 'hanks', free: 400_000 },
    { id: 'bale-3', tag: 'RUG-3', baseId: 'hanks', free: 399_000 },
    { id: 'cloth-1', tag: 'LIN-1', baseId: 'linen', free: 9_000_000 },
  ],
  waters: [{ id: 'tap', name: 'Tap', ph: 7.2, hardnessDh: 14, ironMgPerL: null }],
  // Whatever else is asked of the server is answered with this too.
  currency: 'GBP',
} as unknown as MatchRecord;
const way = (rest: object) => ({
  how: 'doses',
  lab: { L: 74, a: -4, b: 49 },
  deltaE00: 0.4,
  within80: 0.9,
  expectedDeltaE: 0.8,
  turned: [{ materialId: 'weld', stockLotId: 'jar-b', percentOwf: 56, share: 1.12, isOtherJar: false }],
  doses: [{ materialId: 'weld', stage: 'dye', stockLotId: 'jar-b', percentOwf: 56 }],
  worked: {
    start: { L: 75, a: -4, b: 47 },
    steps: [
      {
        what: { of: 'jar', materialId: 'weld', stockLotIds: ['jar-b'], readings: 5 },
        from: { L: 75, a: -4, b: 47 },
        to: { L: 74, a: -4, b: 49 },
        deltaE00: 1.2,
        within80: 0.4,
      },
    ],
    end: { L: 74, a: -4, b: 49 },
    readings: 20,
  },
  waterId: null,
  baseLotId: null,
  dipsMore: 0,
  timeShare: 1,
  ...rest,
});
const TOLD = {
  state: 'told',
  ofColourway: 5,
  readings: 20,
  unchanged: way({
    how: 'unchanged',
    turned: [],
    doses: [{ stockLotId: 'jar-b', percentOwf: 50 }],
    lab: { L: 77, a: -4, b: 44 },
    deltaE00: 2.6,
    within80: 1.1,
  }),
  ways: [
    way({}),
    way({
      how: 'jars',
      turned: [{ materialId: 'weld', stockLotId: 'jar-a', percentOwf: 50, share: 1, isOtherJar: true }],
      doses: [{ materialId: 'weld', stage: 'dye', stockLotId: 'jar-a', percentOwf: 50 }],
    }),
    way({
      how: 'addition',
      turned: [{ materialId: 'iron', stockLotId: 'jar-i', percentOwf: 1, share: null, isOtherJar: true }],
      doses: [{ materialId: 'iron', stage: 'modifier', stockLotId: 'jar-i', percentOwf: 1 }],
    }),
  ],
  factors: [
    {
      factor: { of: 'water' },
      effect: { from: { L: 74, a: -4, b: 50 }, to: { L: 75, a: -4, b: 48 }, deltaE00: 1, within80: 0.3 },
    },
  ],
  strikeOff: null,
} as unknown as ReorderAnswer;

describe('what earlier lots say of a lot that is planned', () => {
  const tell = vi.fn<(ask: ReorderAsk) => unknown>();
  let fixture: ComponentFixture<ReorderLetter>;
  let taken: TakenCorrection[];
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent.replaceAll(/\s+/g, ' ');
  const show = async (inputs: object = {}): Promise<void> => {
    const all = {
      proposal: { plan: WELD_PLAN, whole: [] } as unknown as Proposal,
      colourwayId: 'marram',
      master: MASTER,
      toleranceDeltaE: 2,
      waterId: 'tap',
      ...inputs,
    };
    for (const [name, value] of Object.entries(all)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    vi.advanceTimersByTime(1000);
    await fixture.whenStable();
    fixture.detectChanges();
  };

  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'Date'] });
    tell.mockReset().mockReturnValue(of(TOLD));
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: ApiClient, useValue: { get: () => of(RECORD) } },
        {
          provide: MatchTeller,
          useValue: { learning: EMPTY, tell: (_question: 'reorder', ask: ReorderAsk) => tell(ask) },
        },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
    fixture = TestBed.createComponent(ReorderLetter);
    taken = [];
    fixture.componentInstance.taken.subscribe((c) => taken.push(c));
  });
  afterEach(() => vi.useRealTimers());

  it('is one sentence first, then what to do; the plan takes it by one press', async () => {
    await show();
    expect(page().querySelector('.opening')?.textContent).toMatch(/^As it is planned it should come out .*paler/);
    expect(text()).toContain('With Weld 12 % more it should come out');
    page().querySelector<HTMLButtonElement>('.ways button.act')?.click();
    expect(taken).toEqual([
      { corrected: [{ materialId: 'weld', share: 1.12 }], added: [], outOf: [], dyeTimeShare: 1, waterId: null },
    ]);
  });
  it('another jar is planned by the same press: the same weight of it, however strong the plan takes it', async () => {
    await show();
    page().querySelectorAll<HTMLButtonElement>('.ways button.act')[1]?.click();
    expect(taken).toEqual([
      {
        corrected: [{ materialId: 'weld', share: 0.8 }],
        added: [],
        outOf: [{ materialId: 'weld', stockLotId: 'jar-a', part: 1 }],
        dyeTimeShare: 1,
        waterId: null,
      },
    ]);
  });
  it('asks with every lot of the base that holds enough, and in how many dips; one press plans the other lot', async () => {
    const dipped = { ...WELD_PLAN, steps: [{ ...WELD_PLAN.steps[0], repeats: 4 }] };
    const onBale2 = way({ how: 'baseLot', baseLotId: 'bale-2', turned: [], timeShare: 1.25, dipsMore: 1 });
    tell.mockReturnValue(of({ ...TOLD, ways: [onBale2] }));
    await show({ proposal: { plan: dipped, whole: [] } as unknown as Proposal });
    const asked = tell.mock.calls.at(-1)![0];
    expect(asked.dips).toBe(4);
    expect(asked.baseLots?.map((b) => [b.baseLotId, b.undyed.lab.L])).toEqual([
      ['bale-1', 88],
      ['bale-2', 91],
    ]);
    expect(text()).toContain('on RUG-2, another lot of the base and one dip more');
    page().querySelector<HTMLButtonElement>('.ways button.act')?.click();
    expect(taken).toMatchObject([
      { outOf: [{ materialId: 'hanks', stockLotId: 'bale-2', part: 1 }], dyeTimeShare: 1.25, corrected: [] },
    ]);
  });

  it('a touch of something after the dye is planned by the same press, in a bath after it', async () => {
    await show();
    page().querySelectorAll<HTMLButtonElement>('.ways button.act')[2]?.click();
    expect(taken).toMatchObject([
      {
        corrected: [],
        added: [{ materialId: 'iron', percentOwf: 1, afterDye: true }],
        outOf: [{ materialId: 'iron', stockLotId: 'jar-i', part: 1 }],
      },
    ]);
  });
  it('a strike-off that is worth its while says what to weigh, and is planned by one press', async () => {
    const asked: TakenCorrection[] = [];
    fixture.componentInstance.struckOff.subscribe((c) => asked.push(c));
    tell.mockReturnValue(
      of({ ...TOLD, strikeOff: { way: way({}), withoutDeltaE: 2.1, afterDeltaE: 0.7, formula: 'de00' } }),
    );
    await show();
    expect(text()).toContain('without one the lot is likely to lie ΔE00 2.1 from the master, after one 0.7');
    expect(text()).toContain('Weld 11.2 g');
    const button = [...page().querySelectorAll('button')].find((b) => b.textContent.includes('Plan the strike-off'));
    button?.click();
    expect(asked).toEqual([
      {
        corrected: [{ materialId: 'weld', share: 1.12 }],
        added: [],
        // Out of the same jar and the same lot of the base as the whole lot.
        outOf: [
          { materialId: 'weld', stockLotId: 'jar-b', part: 1 },
          { materialId: 'hanks', stockLotId: 'bale-1', part: 1 },
        ],
        dyeTimeShare: 1,
        waterId: null,
      },
    ]);
  });
  it('opens the working of a way in the margin: what each thing does, and what that stands on', async () => {
    await show();
    page().querySelector<HTMLButtonElement>('.ways vs-figure button')?.click();
    const { figure } = TestBed.inject(ContextPanel).working() ?? {};
    expect(figure?.working.inputs.map((i) => i.name)).toEqual([
      'As the recipe gives it out of the reference jars, in middling water',
      'Weld out of WEL-2',
      'Foretold',
      'The master',
    ]);
    expect(figure?.working.inputs[1]?.source).toBe('ΔE00 1.2, give or take 0.4, 5 readings of it');
  });
  it('says what a way costs beside the plan, and nothing where that is not known', async () => {
    await show();
    expect(text()).toContain('within 0.9; costs £1.20 more.');
    expect(text()).not.toContain('jar-a; costs');
  });
  it('a little of another dyestuff and a longer stay are planned by the same press', async () => {
    const more = {
      how: 'addition',
      turned: [{ materialId: 'madder', stockLotId: 'jar-m', percentOwf: 0.4321, share: null, isOtherJar: true }],
      doses: [{ materialId: 'madder', stockLotId: 'jar-m', stage: 'dye', percentOwf: 0.4321 }],
      timeShare: 1.2,
    };
    tell.mockReturnValue(of({ ...TOLD, ways: [way(more)] }));
    await show();
    page().querySelector<HTMLButtonElement>('.ways button.act')?.click();
    expect(taken).toEqual([
      {
        corrected: [],
        added: [{ materialId: 'madder', percentOwf: 0.432, afterDye: false }],
        outOf: [{ materialId: 'madder', stockLotId: 'jar-m', part: 1 }],
        dyeTimeShare: 1.2,
        waterId: null,
      },
    ]);
  });
  it('is held to what is planned by a tick, and asked anew', async () => {
    await show();
    tell.mockClear();
    page().querySelectorAll<HTMLInputElement>('.tick input')[2]?.click();
    await show();
    const [[ask]] = tell.mock.calls as [[ReorderAsk]];
    expect(ask.bounds).toEqual({
      onlyPlannedJars: false,
      onlyPlannedWater: false,
      noMoreThanPlanned: true,
      noDearer: false,
      mostShare: null,
    });
  });
  it('is held to so many times what is planned; what is no such number is said, and the bound stays', async () => {
    await show();
    const type = async (value: string): Promise<void> => {
      const field = page().querySelector<HTMLInputElement>('input[name="mostShare"]')!;
      field.value = value;
      field.dispatchEvent(new Event('input'));
      field.dispatchEvent(new Event('change'));
      await show();
    };
    await type('1.25');
    expect(tell.mock.calls.at(-1)![0].bounds?.mostShare).toBe(1.25);
    await type('0.5');
    expect(text()).toContain('A number from 1 to 10, or empty for twice.');
    expect(tell.mock.calls.at(-1)![0].bounds?.mostShare).toBe(1.25);
    await type('');
    expect(tell.mock.calls.at(-1)![0].bounds?.mostShare).toBeNull();
  });
  it('takes no share of what goes in whole: a counted packet', async () => {
    await show({ proposal: { plan: WELD_PLAN, whole: ['sachet'] } as unknown as Proposal, formula: 'cmc11' });
    const [[ask]] = tell.mock.calls as [[ReorderAsk]];
    expect([ask.fixed, ask.formula]).toEqual([['sachet'], 'cmc11']);
    // 900 g of each jar for 400 g of wool.
    expect(ask.mostPercent?.get('jar-b')).toBe(225);
  });
  it('asks about the plan as it is dosed, and about the recipe as it is proven', async () => {
    await show({
      corrected: { corrected: [{ materialId: 'weld', share: 1.25 }], added: [], outOf: [], dyeTimeShare: 1 },
    });
    const [[ask]] = tell.mock.calls as [[ReorderAsk]];
    expect([ask.plan.doses[0]?.percentOwf, ask.recipe.doses[0]?.percentOwf]).toEqual([50, 40]);
    expect([ask.plan.water.hardnessDh, ask.plan.fibre, ask.standard.L]).toEqual([14, 'wool', 74]);
  });
  it('tells on demand what of then and now does how much, and how sure that is', async () => {
    await show();
    expect(text()).toContain('the water');
    expect(text()).toContain('ΔE00 1.0');
    expect(text()).toContain('sure');
  });
  it.each([
    ['no master', { master: null }, /Without a master nobody knows/],
    ['a master read under a lamp', { master: { ...MASTER, illuminant: 'A' } }, /read under another light/],
  ])('says what it can’t say: %s', async (_name, inputs, said) => {
    await show(inputs);
    expect(text()).toMatch(said);
    expect(tell).not.toHaveBeenCalled();
  });
  it('says that it is looking while that takes time, and says so where it could not be worked out', async () => {
    tell.mockReturnValue(NEVER);
    await show();
    expect(text()).toContain('Looking through what was dyed before');
    tell.mockReturnValue(throwError(() => new Error('gone')));
    await show({ waterId: '' });
    expect(page().querySelector('section')).toBeNull();
    expect(text()).toContain('could not be worked out here');
    expect(text()).not.toContain('Looking through');
  });
});
