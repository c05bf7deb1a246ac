import { LiveAnnouncer } from '@angular/cdk/a11y';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { TestBed } from '@angular/core/testing';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from './api-client';
import { JustKept } from './just-kept';

describe('what was kept just now', () => {
  const announce = vi.fn();
  beforeEach(() => {
    vi.useFakeTimers();
    announce.mockClear();
    TestBed.configureTestingModule({
      providers: [provideHttpClient(), provideHttpClientTesting(), { provide: LiveAnnouncer, useValue: { announce } }],
    });
  });
  afterEach(() => vi.useRealTimers());

  it('is said once, by the row that stands for it where there is one', () => {
    const kept = TestBed.inject(JustKept);
    kept.note('a');
    kept.say('a', 'Lot 87');
    kept.say('a', 'Lot 87');
    vi.advanceTimersByTime(10_000);
    expect(announce.mock.calls).toEqual([['Kept: Lot 87']]);
    expect(kept.has('a')).toBe(false);
  });

  it('is said again the next time, though its row came late the first', () => {
    const kept = TestBed.inject(JustKept);
    kept.note('a');
    vi.advanceTimersByTime(2000);
    kept.say('a', 'Pan');
    vi.advanceTimersByTime(10_000);
    kept.note('a');
    kept.say('a', 'Pan, 6 l');
    vi.advanceTimersByTime(10_000);
    expect(announce.mock.calls).toEqual([['Done.'], ['Kept: Pan'], ['Kept: Pan, 6 l']]);
  });

  it('is said plainly where nothing on the page stands for it', () => {
    TestBed.inject(JustKept).note();
    vi.advanceTimersByTime(10_000);
    expect(announce.mock.calls).toEqual([['Done.']]);
  });

  it('is what the server took, and neither what it refused nor what was only asked', () => {
    const kept = TestBed.inject(JustKept);
    const api = TestBed.inject(ApiClient);
    const http = TestBed.inject(HttpTestingController);
    const note = (id: string) =>
      api.post('/api/notes', { id, subject: 'lot', subjectId: id, text: 'x', mark: null, of: null, replacesId: null });
    note('n1').subscribe();
    http.expectOne('/api/notes').flush({ id: 'n1' });
    note('n2').subscribe({ error: () => undefined });
    http.expectOne('/api/notes').flush({ detail: 'No.' }, { status: 422, statusText: 'no' });
    api.put('/api/vessels/{id}', {} as never, 'v1').subscribe();
    http.expectOne('/api/vessels/v1').flush({ id: 'v1' });
    expect(['n1', 'n2', 'v1'].map((id) => kept.has(id))).toEqual([true, false, true]);
  });
});
