import { TestBed } from '@angular/core/testing';
import type { LotDetail } from '@vestigia/contract';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../api/api-client';
import { JustKept } from '../api/just-kept';
import { ServerClock } from '../api/server-clock';
import { Session } from '../api/session';
import { lotFixture } from '../testing/lot.fixture';
import { GivenVerdicts } from './given-verdicts';

type Given = LotDetail['verdicts'][number];

const GIVEN: Given = {
  id: 'v1',
  verdict: 'refuse',
  of: null,
  reason: 'patchy',
  at: '2026-06-01T09:00:00.000Z',
  by: { id: 'ada', name: 'Ada' },
  toMaster: 1.25,
  toFirst: null,
  betweenBatches: null,
  restsOn: 'eye',
  takenBack: null,
};

describe('the verdicts of a lot', () => {
  const post = vi.fn(() => of({ id: 't1' }));
  let minutes = 0;
  const shown = (verdicts: readonly Given[]): HTMLElement => {
    const fixture = TestBed.createComponent(GivenVerdicts);
    fixture.componentRef.setInput('lot', { ...lotFixture(), verdicts: [...verdicts] });
    fixture.detectChanges();
    return fixture.nativeElement as HTMLElement;
  };

  beforeEach(() => {
    post.mockClear();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { post } },
        { provide: ServerClock, useValue: { now: () => Date.parse(GIVEN.at) + minutes * 60_000 } },
        { provide: Session, useValue: { may: () => true, zone: () => 'UTC' } },
      ],
    });
  });

  it('can be taken back within the hour, by the id of the one that stands last', () => {
    minutes = 59;
    const page = shown([{ ...GIVEN, id: 'v0', verdict: 'hold' }, GIVEN]);
    const buttons = page.querySelectorAll('button');
    expect([...buttons].map((b) => b.getAttribute('aria-label'))).toEqual(['Take back: Refused']);
    buttons[0]?.click();
    expect(post).toHaveBeenCalledWith(
      '/api/lots/{id}/verdicts/take-back',
      expect.objectContaining({ verdictId: 'v1' }),
      lotFixture().summary.id,
    );
  });

  it('stands after the hour', () => {
    minutes = 61;
    expect(shown([GIVEN]).querySelector('button')).toBeNull();
  });

  it('stays to be read once it was taken back, with who did', () => {
    minutes = 5;
    const page = shown([{ ...GIVEN, takenBack: { at: '2026-06-01T09:05:00.000Z', by: { id: 'bo', name: 'Bo' } } }]);
    expect(page.querySelector('.struck')?.textContent).toContain('Refused');
    expect(page.textContent).toMatch(/Taken back by Bo/);
    expect(page.querySelector('button')).toBeNull();
  });

  it('is marked for a moment when this page gave it', () => {
    vi.useFakeTimers();
    const page = shown([GIVEN]);
    expect(page.querySelector('.just-kept')).toBeNull();
    TestBed.inject(JustKept).note('v1');
    TestBed.tick();
    const kept = page.querySelector<HTMLElement>('.just-kept');
    expect(kept?.textContent).toContain('Refused');
    expect(kept?.style.getPropertyValue('--just-now')).toBe('"just now "');
    vi.advanceTimersByTime(6000);
    TestBed.tick();
    expect(page.querySelector('.just-kept')).toBeNull();
    vi.useRealTimers();
  });
});
