import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import type { StudioCopies } from '@vestigia/contract';
import { Subject, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { StudioCalendar } from '../../services/studio-calendar';
import { Copies } from './copies';

const COPY = { name: 'studio-2026-06-01T18-00-00Z.zip', at: '2026-06-01T18:00:00.000Z', bytes: 12_400_000 };
const TOLD: StudioCopies = {
  folder: '/usb/copies',
  copies: [COPY],
  isMaking: false,
  problem: null,
  isOld: false,
  freeBytes: 5e9,
  isNearlyFull: false,
};

describe('copies of the whole studio', () => {
  const api = { get: vi.fn(), post: vi.fn() };
  let fixture: ComponentFixture<Copies>;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const alerts = (): string[] => [...host().querySelectorAll('[role=alert]')].map((a) => a.textContent?.trim() ?? '');
  const button = (): HTMLButtonElement => host().querySelector('button') as HTMLButtonElement;
  const shown = async (told: Partial<StudioCopies>): Promise<void> => {
    api.get.mockReturnValue(of({ ...TOLD, ...told }));
    fixture = TestBed.createComponent(Copies);
    await fixture.whenStable();
  };
  beforeEach(() => {
    api.get.mockReset();
    api.post.mockReset();
    const calendar = { formatDay: (at: string) => at.slice(0, 10), formatClock: (at: string) => at.slice(11, 16) };
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: api },
        { provide: StudioCalendar, useValue: calendar },
      ],
    });
  });

  it('tell of the last good one, and warn of nothing where all is well', async () => {
    await shown({});
    expect(host().textContent).toContain('2026-06-01, 18:00');
    expect(host().textContent).toContain('12 MB');
    expect(alerts()).toEqual([]);
  });

  it.each([
    [{ isOld: true }, /That is days ago/],
    [{ isOld: true, copies: [] }, /Work was done for days without one/],
    [{ isNearlyFull: true, freeBytes: 400_000_000 }, /nearly full: 400 MB are left/],
    [{ problem: 'There is no room for a copy in /usb/copies.' }, /no room/],
  ])('warn with %j', async (told, says) => {
    await shown(told);
    expect(alerts()).toHaveLength(1);
    expect(alerts()[0]).toMatch(says);
  });

  it('one by hand is made once however often it is pressed, told when it is good, and shown', async () => {
    await shown({ copies: [] });
    const made = new Subject<typeof COPY>();
    api.post.mockReturnValue(made);
    button().click();
    await fixture.whenStable();
    expect(button().disabled).toBe(true);
    button().click();
    expect(api.post).toHaveBeenCalledTimes(1);
    api.get.mockReturnValue(of(TOLD));
    made.next(COPY);
    await fixture.whenStable();
    expect(host().querySelector('[role=status]')?.textContent).toContain('A copy of 12 MB was made and is good');
    expect(host().querySelectorAll('tbody tr')).toHaveLength(1);
  });

  it('that went wrong say why, where the hand is', async () => {
    await shown({});
    api.post.mockReturnValue(throwError(() => ({ detail: 'The copy was no good and was thrown away.' })));
    button().click();
    await fixture.whenStable();
    expect(alerts()).toEqual(['The copy was no good and was thrown away.']);
  });

  it('older ones are folded until they are asked for', async () => {
    const copies = Array.from({ length: 9 }, (_, i) => ({ ...COPY, name: `${i}` }));
    await shown({ copies });
    expect(host().querySelectorAll('tbody tr')).toHaveLength(3);
    [...host().querySelectorAll('button')].find((b) => b.textContent?.includes('Show all 9'))?.click();
    await fixture.whenStable();
    expect(host().querySelectorAll('tbody tr')).toHaveLength(9);
  });
});
