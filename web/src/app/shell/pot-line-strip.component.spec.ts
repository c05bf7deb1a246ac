import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Today } from '@vestigia/contract';
import { beforeEach, describe, expect, it } from 'vitest';
import { ServerClock } from '../api/server-clock';
import { StudioCalendar } from '../services/studio-calendar';
import { PotLineStrip } from './pot-line-strip';
import { TodayNow } from './today-now';

const NOW = Date.parse('2026-06-09T10:00:00Z');
const soak = (n: number): Today['running'][number] => ({
  lotId: `lot-${n}`,
  lotTag: `Lot ${n}`,
  title: 'Cold mordant',
  vesselNames: [`Pail ${n}`],
  startedAt: new Date(NOW - 3_600_000).toISOString(),
  pausedAt: null,
  durationMin: 600,
  attended: false,
  hot: false,
});

describe('the pot line', () => {
  const running = signal<Today['running']>([]);
  const show = async (...pots: Today['running']): Promise<HTMLElement> => {
    running.set(pots);
    const view = TestBed.createComponent(PotLineStrip);
    await view.whenStable();
    return view.nativeElement as HTMLElement;
  };
  beforeEach(() => {
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ServerClock, useValue: { now: () => NOW } },
        { provide: StudioCalendar, useValue: { hoursWithin: () => [], formatMoment: () => 'soon' } },
        { provide: TodayNow, useValue: { today: { value: () => ({ running: running() }) } } },
      ],
    });
  });

  it('is one line while nothing is on', async () => {
    const line = await show();
    expect(line.classList).toContain('still');
    expect(line.textContent.trim()).toBe('Nothing in the pots');
    expect(line.querySelector('.scale')).toBeNull();
  });

  it('grows with what is on, so that nothing is cut', async () => {
    const line = await show(...[1, 2, 3, 4, 5, 6, 7].map(soak));
    expect(line.style.getPropertyValue('--rows')).toBe('7');
    const rows = [...line.querySelectorAll<HTMLElement>('.segment')].map((s) => s.style.getPropertyValue('--row'));
    expect(rows.sort()).toEqual(['0', '1', '2', '3', '4', '5', '6']);
  });
});
