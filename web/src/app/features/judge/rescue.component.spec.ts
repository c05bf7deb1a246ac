import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { RescueAnswer, RescueAsk } from '@vestigia/core';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { MatchTeller } from '../../services/match-teller';
import { lotFixture } from '../../testing/lot.fixture';
import { WELD_PLAN } from '../../testing/match.fixture';
import type { Missed } from './rescue';
import { Rescue } from './rescue';

const D65 = { illuminant: 'D65', observer: '10' } as const;
const WANTED = { L: 70, a: -4, b: 50, ...D65 };
const READ = { L: 76, a: -4, b: 42, ...D65 };
const ANSWERS: Readonly<Record<string, unknown>> = {
  '/api/match/record': {
    readings: [],
    strengths: [],
    materials: [
      { id: 'weld', name: 'Weld', kind: 'dyestuff' },
      { id: 'hanks', name: 'Rug wool', kind: 'fibre' },
    ],
    jars: [{ id: 'jar-b', tag: 'WEL-2', materialId: 'weld', receivedOn: '2026-01-01', free: 9 }],
    undyed: [{ of: 'hanks', colour: { lab: { L: 88, a: 0, b: 11 }, spectrum: null } }],
    mordanted: [],
    baseLots: [],
    waters: [],
  },
  '/api/colourways': [
    { id: 'saltings', name: 'Saltings', master: READ, base: { id: 'hanks' }, toleranceDeltaE: 2 },
    { id: 'on silk', name: 'Foam', master: READ, base: { id: 'ribbon' }, toleranceDeltaE: 2 },
  ],
};
const TOLD = {
  state: 'told',
  missedBy: 5.2,
  isDeeper: false,
  ways: [
    {
      how: 'moreDye',
      added: [{ stage: 'dye', materialId: 'weld', stockLotId: 'jar-b', percentOwf: 9 }],
      longerMin: 0,
      dipsMore: 0,
      lab: { L: 70.5, a: -4, b: 49 },
      deltaE00: 0.5,
      within80: 1.2,
      expectedDeltaE: 1,
    },
  ],
  soldAs: [{ id: 'saltings', deltaE00: 0.4, isWithin: true }],
} satisfies RescueAnswer;

describe('a shade that missed', () => {
  const tell = vi.fn<(question: string, ask: RescueAsk) => unknown>();
  const show = async (missed: Partial<Missed> = {}): Promise<string> => {
    const fixture = TestBed.createComponent(Rescue);
    fixture.componentRef.setInput('lot', { ...lotFixture(), plan: WELD_PLAN, entries: [], water: null });
    fixture.componentRef.setInput('missed', {
      batch: 1,
      group: null,
      dip: null,
      under: READ,
      standard: WANTED,
      ...missed,
    });
    await fixture.whenStable();
    fixture.detectChanges();
    return (fixture.nativeElement as HTMLElement).textContent.replaceAll(/\s+/g, ' ');
  };
  beforeEach(() => {
    tell.mockReset().mockReturnValue(of(TOLD));
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: ApiClient, useValue: { get: (path: string) => of(ANSWERS[path]) } },
        { provide: MatchTeller, useValue: { tell, learning: EMPTY } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
  });

  it('is told what to weigh on top for its own fibre, out of which jar, with the caution at it', async () => {
    const said = await show();
    expect(said).toContain('36.0 g Weld out of WEL-2');
    expect(said).toContain('supplier’s safety data sheet');
    expect(said).toContain('lies within the tolerance of Saltings (ΔE00 0.4)');
  });
  it('is held against the other colourways of its own base only', async () => {
    await show();
    const [[, ask]] = tell.mock.calls as [[string, RescueAsk]];
    expect(ask.others.map((o) => o.id)).toEqual(['saltings']);
    expect([ask.read.L, ask.standard.L, ask.dyeing.doses[0]?.percentOwf]).toEqual([76, 70, 50]);
  });
  it.each([
    ['deeper all over', { ...TOLD, isDeeper: true, ways: [] }, /nothing here takes dye off again/],
    ['beyond help', { ...TOLD, ways: [] }, /nothing on the shelf promises to bring it clearly nearer/],
    ['too early to say', { state: 'tooFew', readings: 2, needed: 3 } as const, /2 of 3 readings/],
    [
      'near nothing else',
      { ...TOLD, soldAs: [{ id: 'saltings', deltaE00: 7, isWithin: false }] },
      /ΔE00 7\.0 away: too far/,
    ],
  ])('says so where it is %s', async (_, answer, said) => {
    tell.mockReturnValue(of(answer));
    expect(await show()).toMatch(said);
  });
  it('says what it can’t say of a reading under a lamp', async () => {
    expect(await show({ under: { ...READ, illuminant: 'A' } })).toContain('another light than D65');
    expect(tell).not.toHaveBeenCalled();
  });
});
