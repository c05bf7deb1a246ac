import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { MatInputHarness } from '@angular/material/input/testing';
import { provideRouter } from '@angular/router';
import type { GradedAnswer, GradedAsk } from '@vestigia/core';
import { EMPTY, of, throwError } from 'rxjs';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { MatchTeller } from '../../services/match-teller';
import { GradedPage } from './graded';

const DYEING = {
  colourwayId: 'marram',
  doses: [
    {
      stage: 'mordant',
      materialId: 'alum',
      stockLotId: 'reference of alum',
      role: 'mordant',
      percentOwf: 12,
      ageYears: 0,
    },
    {
      stage: 'dye',
      materialId: 'weld',
      stockLotId: 'reference of weld',
      role: 'dyestuff',
      percentOwf: 40,
      ageYears: 0,
    },
  ],
  courses: [],
};
const record = (readings: object[]) => ({
  readings,
  strengths: [],
  materials: [{ id: 'weld', name: 'Weld', kind: 'dyestuff' }],
  jars: [{ id: 'jar-b', tag: 'WEL-2', materialId: 'weld', receivedOn: '2026-01-01', free: 9 }],
  undyed: [],
  mordanted: [],
  baseLots: [],
  waters: [],
});
const shade = (by: number, stepDeltaE: number | null) => ({ lab: { L: 80, a: -2, b: 40 }, by, stepDeltaE });
const TOLD: GradedAnswer = {
  state: 'told',
  isPaceKnown: true,
  ways: [
    { how: 'dose', shades: [shade(0.2, null), shade(1, 6)], unevenness: 1, reaches: true, dyeShare: 0.6 },
    { how: 'minutes', shades: [shade(6.2, null), shade(60, 6)], unevenness: 1.4, reaches: true, dyeShare: 1 },
    { how: 'dips', shades: [shade(2, null), shade(1, 5)], unevenness: 1, reaches: false, dyeShare: 0.5 },
  ],
};

describe('a graded family', () => {
  const tell = vi.fn<(question: string, ask: GradedAsk) => unknown>();
  let fixture: ComponentFixture<GradedPage>;
  let read: object[];
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent.replaceAll(/\s+/g, ' ');
  const show = async (): Promise<void> => {
    fixture = TestBed.createComponent(GradedPage);
    fixture.componentRef.setInput('id', 'marram');
    await settle();
  };
  const settle = async (): Promise<void> => {
    await fixture.whenStable();
    vi.advanceTimersByTime(1000);
    await fixture.whenStable();
    fixture.detectChanges();
  };
  beforeEach(() => {
    vi.useFakeTimers({ toFake: ['setInterval', 'clearInterval', 'Date'] });
    read = [{ id: 'master', dyeing: DYEING, colour: {}, isMaster: true, readWithin80: null }];
    tell.mockReset().mockReturnValue(of(TOLD));
    const get = (path: string) =>
      of(path === '/api/match/record' ? record(read) : { colourway: { id: 'marram', name: 'Marram' } });
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: ApiClient, useValue: { get } },
        { provide: MatchTeller, useValue: { tell, learning: EMPTY } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
  });
  afterEach(() => vi.useRealTimers());

  it('is of the recipe out of today’s jars, and says what each piece takes, is pulled at, or which dip it is', async () => {
    await show();
    const [[, ask]] = tell.mock.calls as [[string, GradedAsk]];
    expect(ask.dyeing.doses.map((d) => d.stockLotId)).toEqual(['reference of alum', 'jar-b']);
    expect([ask.shades, ask.palestShare]).toEqual([6, 0.2]);
    expect(text()).toContain('Takes least dye: 60 % of the dye that 2 pieces');
    for (const said of [
      '1: 8.0 g Weld',
      '2: 40.0 g Weld',
      '1: out after 6 min',
      '1: dip 2',
      '2: dip 1',
      '1.4 times the mean',
    ])
      expect(text()).toContain(said);
  });
  it('carries the pulls to the lot, and says how one piece is lifted', async () => {
    await show();
    expect(text()).toContain('lift one part more out of the liquor at 6 min and 60 min');
    const link = [...page().querySelectorAll('a')].find((a) => a.textContent.includes('be called at each pull'));
    expect(decodeURIComponent(link?.getAttribute('href') ?? '')).toContain('pulls=6 60');
  });
  it.each([
    ['How many shades', '1', /2 to 24 shades/],
    ['The palest, % of the way', '95', /from 0 to 90 %/],
    ['One piece weighs, g', '0', /what one piece weighs/],
  ])('says what is wrong with “%s” %s, and asks nothing', async (label, written, said) => {
    await show();
    tell.mockClear();
    const loader = TestbedHarnessEnvironment.loader(fixture);
    await (await loader.getHarness(MatInputHarness.with({ label }))).setValue(written);
    await settle();
    expect(text()).toMatch(said);
    expect(tell).not.toHaveBeenCalled();
  });
  it('says so where the pace isn’t known, nothing was planned, too little was read, or it failed', async () => {
    tell.mockReturnValue(of({ ...TOLD, isPaceKnown: false, ways: TOLD.ways.slice(0, 1) }));
    await show();
    expect(text()).toContain('three samples at different times tell how fast it goes on');
    tell.mockReturnValue(of({ state: 'tooFew', readings: 1, needed: 3 }));
    await show();
    expect(text()).toContain('1 of 3 readings');
    tell.mockReturnValue(throwError(() => new Error('gone')));
    await show();
    expect(text()).toContain('could not be worked out here');
    read = [];
    await show();
    expect(text()).toContain('No lot of this colourway was planned yet');
  });
});
