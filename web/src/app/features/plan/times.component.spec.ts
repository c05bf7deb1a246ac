import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { TIMES_AT_FIRST } from '@vestigia/core';
import { Subject, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { Session } from '../../api/session';
import { PlanTimesPage } from './times';

const TIMES = { ...TIMES_AT_FIRST, version: 3 };
const STUDIO = {
  people: [
    { id: 'w', name: 'Wenna', role: 'dyer' },
    { id: 'g', name: 'Guest', role: 'guest' },
  ],
  heatSources: [{ id: 'r', name: 'Gas ring' }],
  vessels: [
    { id: 'k', name: 'Kettle' },
    { id: 'p', name: 'Pan' },
  ],
};

describe('hours and equipment', () => {
  const news = new Subject<readonly string[]>();
  const api = {
    get: vi.fn((path: string) => of(path === '/api/plan/times' ? TIMES : STUDIO)),
    put: vi.fn((_path: string, body: object) => of({ ...body, version: 4 })),
  };
  const session = { person: signal(null), zone: signal('Europe/London'), may: () => true };
  let fixture: ComponentFixture<PlanTimesPage>;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const field = (name: string): HTMLInputElement => host().querySelector(`input[name="${name}"]`) as HTMLInputElement;
  const write = async (name: string, text: string): Promise<void> => {
    field(name).value = text;
    field(name).dispatchEvent(new Event('input', { bubbles: true }));
    await fixture.whenStable();
  };
  const press = async (label: RegExp): Promise<void> => {
    [...host().querySelectorAll('button')].find((b) => label.test(b.textContent ?? ''))?.click();
    await fixture.whenStable();
  };
  const act = (): HTMLButtonElement => host().querySelector('vs-act-bar button') as HTMLButtonElement;
  const missing = (): string => host().querySelector('vs-act-bar .missing')?.textContent?.trim() ?? '';
  beforeEach(async () => {
    localStorage.clear();
    api.put.mockClear();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ApiClient, useValue: api },
        { provide: LiveChanges, useValue: { listen: () => news } },
        { provide: Session, useValue: session },
      ],
    });
    fixture = TestBed.createComponent(PlanTimesPage);
    await fixture.whenStable();
  });

  it('are written as people write them, echoed as they are understood, and kept as hours', async () => {
    expect(field('week').value).toBe('Mon–Fri 8–18, Sat 9–13');
    await write('week', 'tue-thu 9.30-17');
    expect(host().querySelector('mat-hint')?.textContent).toBe('Tue–Thu 9:30–17');
    await write('evening0', '21');
    await write('pots0', '2');
    act().click();
    await fixture.whenStable();
    expect(api.put).toHaveBeenCalledWith(
      '/api/plan/times',
      expect.objectContaining({
        version: 3,
        week: [[], [['09:30', '17:00']], [['09:30', '17:00']], [['09:30', '17:00']], [], [], []],
        people: [{ personId: 'w', week: null, eveningsUntil: '21:00', away: [], leaves: [] }],
        heat: [{ heatSourceId: 'r', potsAtOnce: 2, outUntil: null }],
      }),
    );
  });
  it.each([
    ['week', 'whenever', /“whenever” can’t be read as hours/],
    ['week0', 'Mon', /“Mon” can’t be read as hours/],
    ['evening0', 'late', /“late” is no time of day/],
  ])('say what is wrong with %s and aren’t kept', async (name, text, says) => {
    await write(name, text);
    expect(missing()).toMatch(says);
    expect(act().disabled).toBe(true);
  });
  it('want both ends of days off, the last day following the first', async () => {
    await press(/Add days off/);
    expect(missing()).toBe('Days away want a first and a last day.');
    await write('closedFrom0', '24 Dec 2026');
    expect(field('closedTo0').value).not.toBe('');
    expect(missing()).toBe('');
    await press(/Take out/);
    expect(field('closedFrom0')).toBeNull();
  });
  it('say what somebody leaves to others', async () => {
    const boxes = [...host().querySelectorAll<HTMLInputElement>('details input[type=checkbox]')];
    boxes[1]?.click();
    await fixture.whenStable();
    act().click();
    await fixture.whenStable();
    const [, body] = api.put.mock.calls[0] as [string, { people: { leaves: string[] }[] }];
    expect(body.people[0]?.leaves).toEqual(['caustic']);
  });

  it('say which pots are out of order, and what there is room for', async () => {
    await write('pot1', '24 Dec 2026');
    await write('dryingPieces', '40');
    act().click();
    await fixture.whenStable();
    expect(api.put).toHaveBeenCalledWith(
      '/api/plan/times',
      expect.objectContaining({
        pots: [{ vesselId: 'p', outUntil: '2026-12-24' }],
        room: { dryingPieces: 40, coldPots: null, balances: null },
      }),
    );
  });

  it('keep what is being written when there is news of the plan', async () => {
    await write('week', 'tue-thu 9.30-17');
    news.next(['plan']);
    await fixture.whenStable();
    expect(field('week').value).toBe('tue-thu 9.30-17');
  });
});
