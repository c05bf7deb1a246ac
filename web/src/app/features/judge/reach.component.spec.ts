import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { ReachAnswer, ReachAsk } from '@vestigia/core';
import type { Observable } from 'rxjs';
import { BehaviorSubject, EMPTY, NEVER, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { MatchTeller } from '../../services/match-teller';
import { ReachPage } from './reach';

const UNDYED = { L: 88, a: 0, b: 11, illuminant: 'D65', observer: '10' };
const MASTER = { L: 74, a: -4, b: 50, illuminant: 'D65', observer: '10' };
const DYEING = {
  baseId: 'hanks',
  baseLotId: 'bale 3',
  doses: [{ materialId: 'weld', stockLotId: 'jar-b', role: 'dyestuff' }],
  water: { id: 'tap' },
};
const ANSWERS: Readonly<Record<string, unknown>> = {
  '/api/match/record': {
    readings: ['1', '2', '3'].map((id) => ({ id, dyeing: DYEING, colour: {}, isMaster: false })),
    strengths: [],
    materials: [
      { id: 'weld', name: 'Weld', kind: 'dyestuff' },
      { id: 'woad', name: 'Woad', kind: 'dyestuff' },
      { id: 'alum', name: 'Alum', kind: 'mordant' },
    ],
    jars: [
      { id: 'jar-b', tag: 'WEL-2', materialId: 'weld', receivedOn: '2026-01-01', free: 9, costMinorPerG: 4 },
      { id: 'jar-w', tag: 'WOA-1', materialId: 'woad', receivedOn: '2026-01-01', free: 9, costMinorPerG: null },
    ],
    undyed: [{ of: 'hanks', colour: { lab: UNDYED, spectrum: null } }],
    mordanted: [],
    baseLots: [],
    waters: [{ id: 'tap', name: 'Tap', ph: 7, hardnessDh: 14, ironMgPerL: null }],
  },
  '/api/colourways': [{ id: 'marram', name: 'Marram', master: MASTER, base: { id: 'hanks', name: 'Rug wool' } }],
  '/api/materials': [
    { id: 'hanks', name: 'Rug wool', kind: 'fibre', base: { fibre: 'wool', undyed: UNDYED }, facts: { season: null } },
    { id: 'weld', name: 'Weld', kind: 'dyestuff', base: null, facts: { season: { fromMonth: 1, toMonth: 12 } } },
    { id: 'madder', name: 'Madder', kind: 'dyestuff', base: null, facts: { season: null } },
  ],
  '/api/fastness': [
    {
      kind: 'light',
      place: 'window',
      madeWith: { fibre: 'wool', dyestuffs: ['Weld'], mordants: ['Alum'] },
      readings: [{ id: 'r', cloth: null, days: 28, deltaE00: 4, grade: 3, replacesId: null }],
      curve: null,
    },
  ],
  '/api/studio': { currency: 'GBP' },
};
const reached = (rest: object) => ({
  dyestuffs: [{ materialId: 'weld', stockLotId: 'jar-b', percentOwf: 42, isAtMost: false, readings: 20, onFibre: 12 }],
  mordants: [{ materialId: 'alum', percentOwf: 12 }],
  dyeing: { fibre: 'wool', doses: [{ stockLotId: 'jar-b', percentOwf: 42 }] },
  lab: { L: 74, a: -3, b: 48 },
  deltaE00: 1.1,
  within80: 2,
  expectedDeltaE: 1.8,
  ...rest,
});
const TOLD = { state: 'told', singles: [reached({})], pairs: [] } as unknown as ReachAnswer;

describe('what reaches a shade', () => {
  const tell = vi.fn<(question: string, ask: ReachAsk) => unknown>();
  let fixture: ComponentFixture<ReachPage>;
  /** What is answered otherwise than by ANSWERS. */
  let told: Record<string, Observable<unknown>>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent.replaceAll(/\s+/g, ' ');
  const look = async (): Promise<void> => {
    await fixture.whenStable();
    page().querySelector<HTMLButtonElement>('button.main')?.click();
    await fixture.whenStable();
    fixture.detectChanges();
  };

  beforeEach(async () => {
    told = {};
    tell.mockReset().mockReturnValue(of(TOLD));
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: ApiClient, useValue: { get: (path: string) => told[path] ?? of(ANSWERS[path]) } },
        { provide: MatchTeller, useValue: { tell, learning: EMPTY } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
    fixture = TestBed.createComponent(ReachPage);
    await fixture.whenStable();
  });

  it('begins with the master and the base of the colourway come from, on the lot of the base dyed last', async () => {
    fixture.componentRef.setInput('colourway', 'marram');
    await look();
    const [[question, ask]] = tell.mock.calls as [[string, ReachAsk]];
    expect(question).toBe('reach');
    expect([ask.standard.L, ask.ground.fibre, ask.ground.baseLotId, ask.onlyFromShelf]).toEqual([
      74,
      'wool',
      'bale 3',
      true,
    ]);
    expect(ask.ground.water.hardnessDh).toBe(14);
  });
  it('takes the shelf alone, or what can be gathered now as well, and says of what no jar stands how long it is in season', async () => {
    fixture.componentRef.setInput('lab', '74 -4 50');
    await look();
    expect(tell.mock.calls.at(-1)![1].inSeason).toEqual([]);
    const from = page().querySelector<HTMLSelectElement>('select[name="from"]')!;
    from.value = 'season';
    from.dispatchEvent(new Event('change'));
    const [way] = [
      reached({
        dyestuffs: [
          { materialId: 'weld', stockLotId: null, percentOwf: 42, isAtMost: false, readings: 20, onFibre: 12 },
        ],
      }),
    ];
    tell.mockReturnValue(of({ ...TOLD, singles: [way] }));
    await look();
    const [, ask] = tell.mock.calls.at(-1)!;
    expect([ask.onlyFromShelf, ask.inSeason]).toEqual([true, ['weld']]);
    expect(page().textContent).toContain('no jar of Weld, in season until December');
  });
  it('says first what is surest, then what each costs, how fast it is, and what it stands on', async () => {
    fixture.componentRef.setInput('lab', '74 -4 50');
    await look();
    expect(page().querySelector('.say')?.textContent.replaceAll('\u00a0', ' ')).toMatch(
      /Weld 42\.0 % over Alum 12\.0 %, ΔE00 1\.1 from it/,
    );
    const row = [...page().querySelectorAll('tbody tr > *')].map((c) => c.textContent.trim());
    expect(row.slice(1)).toEqual(['WEL-2', '1.1', '2.0', '£1.68', '3.92.3 to 6.7', 'not tested', '12 of 20']);
    expect(text()).toContain('nothing can be said of: Woad');
  });
  it('says how what comes nearest still differs where nothing reaches it', async () => {
    tell.mockReturnValue(of({ ...TOLD, singles: [reached({ deltaE00: 9, lab: { L: 84, a: -3, b: 48 } })] }));
    fixture.componentRef.setInput('lab', '74 -4 50');
    await look();
    expect(page().querySelector('.say')?.textContent).toMatch(/yet even that comes out .*paler.*ΔE00 9\.0/);
  });
  it.each([
    [
      'nothing was dyed often enough',
      of({ state: 'told', singles: [], pairs: [] }),
      /No dyestuff on the shelf was dyed and read 3 times/,
    ],
    ['it takes a while', NEVER, /Trying what was dyed before/],
    ['it failed', throwError(() => new Error('gone')), /could not be worked out here/],
  ])('says so where %s', async (_, answer, said) => {
    tell.mockReturnValue(answer);
    fixture.componentRef.setInput('lab', '74 -4 50');
    await look();
    expect(text()).toMatch(said);
  });
  it('leaves what was chosen, whatever is dyed meanwhile on another tablet', async () => {
    const record = new BehaviorSubject(ANSWERS['/api/match/record'] as { readings: { dyeing: object }[] });
    told = { '/api/match/record': record };
    fixture = TestBed.createComponent(ReachPage);
    fixture.componentRef.setInput('lab', '74 -4 50');
    await fixture.whenStable();
    const base = page().querySelector<HTMLSelectElement>('[name=base]')!;
    expect(base.value).toBe('hanks');
    const { value } = record;
    record.next({ ...value, readings: value.readings.map((r) => ({ ...r, dyeing: { ...DYEING, baseId: 'ribbon' } })) });
    await look();
    const [[, ask]] = tell.mock.calls as [[string, ReachAsk]];
    expect(ask.ground.baseId).toBe('hanks');
  });
  it('says before the form what has to be dyed first, and what a limit is', async () => {
    told = { '/api/match/record': of({ ...(ANSWERS['/api/match/record'] as object), readings: [] }) };
    fixture = TestBed.createComponent(ReachPage);
    await look();
    expect(page().querySelector('form')).toBeNull();
    expect(text()).toContain('3 lots or strips at least, and none was so far');
    told = {};
    fixture = TestBed.createComponent(ReachPage);
    fixture.componentRef.setInput('lab', '74 -4 50');
    await fixture.whenStable();
    const most = page().querySelector<HTMLInputElement>('[name=most]')!;
    most.value = '0';
    most.dispatchEvent(new Event('input'));
    await look();
    expect(text()).toContain('At most of each is a number above 0');
    expect(tell).not.toHaveBeenCalled();
  });
  it('asks for what is missing', async () => {
    await look();
    expect(text()).toContain('Give the shade as L*, a* and b*, all three.');
    expect(tell).not.toHaveBeenCalled();
  });
});
