import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { Deed, Session as LivingSession } from '@vestigia/contract';
import { NEVER, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { Session } from '../../api/session';
import { DeedsOf } from '../../ui/deeds-of';
import { DeedsPage } from './deeds';
import { Sessions } from './sessions';

const deed = (seq: number, rest: Partial<Deed> = {}): Deed => ({
  id: `d${seq}`,
  seq,
  at: '2026-06-01T09:00:00.000Z',
  by: { id: 'a', name: 'Ada' },
  kind: 'changed',
  thing: 'vessel',
  thingId: 'v',
  name: `Kettle ${seq}`,
  changes: { heldIron: [false, true] },
  note: '',
  ...rest,
});
type Query = { query?: Record<string, string> };

describe('who did what', () => {
  const api = { get: vi.fn(), delete: vi.fn() };
  const session = { zone: signal('UTC'), may: vi.fn((_needs: string) => true) };
  let fixture: ComponentFixture<unknown>;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const press = async (label: RegExp): Promise<void> => {
    [...host().querySelectorAll('button')].find((b) => label.test(b.textContent ?? ''))?.click();
    await fixture.whenStable();
  };
  const choose = async (name: string, value: string): Promise<void> => {
    const field = host().querySelector(`select[name=${name}]`) as HTMLSelectElement;
    field.value = value;
    field.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };
  const rows = (): string[] =>
    [...host().querySelectorAll('tbody tr')].map((r) => r.textContent?.replace(/\s+/g, ' ').trim() ?? '');
  beforeEach(() => {
    for (const call of [api.get, api.delete, session.may]) call.mockReset();
    session.may.mockReturnValue(true);
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ApiClient, useValue: api },
        { provide: LiveChanges, useValue: { listen: () => NEVER } },
        { provide: Session, useValue: session },
      ],
    });
  });

  it('shows the newest first, goes back page by page, and begins anew when something else is chosen', async () => {
    api.get.mockImplementation((path: string, { query = {} }: Query = {}) => {
      if (path === '/api/studio') return of({ people: [{ id: 'a', name: 'Ada', role: 'owner' }] });
      if (query['thing'] === 'water') return of({ deeds: [deed(3, { thing: 'water', name: 'Tap' })], hasMore: false });
      return query['before'] === undefined
        ? of({ deeds: [deed(9), deed(8)], hasMore: true })
        : of({ deeds: [deed(7)], hasMore: false });
    });
    fixture = TestBed.createComponent(DeedsPage);
    await fixture.whenStable();
    expect(rows()).toEqual([
      expect.stringContaining('Ada changed the vessel Kettle 9 held iron: no → yes'),
      expect.stringContaining('Kettle 8'),
    ]);
    await press(/older/);
    expect(api.get).toHaveBeenLastCalledWith('/api/deeds', { query: { before: '8' } });
    expect(rows()).toHaveLength(3);
    expect(host().textContent).not.toContain('Show older');
    await choose('thing', 'water');
    expect(rows()).toEqual([expect.stringContaining('Ada changed the water Tap')]);
    await choose('by', 'a');
    expect(api.get).toHaveBeenLastCalledWith('/api/deeds', { query: { thing: 'water', by: 'a' } });
  });

  it('of one thing is read when it is unfolded, and not offered to a guest', async () => {
    api.get.mockReturnValue(of({ deeds: [deed(1)], hasMore: false }));
    fixture = TestBed.createComponent(DeedsOf);
    fixture.componentRef.setInput('thing', 'vessel');
    fixture.componentRef.setInput('thingId', 'v');
    await fixture.whenStable();
    expect(api.get).not.toHaveBeenCalled();
    const details = host().querySelector('details') as HTMLDetailsElement;
    details.open = true;
    details.dispatchEvent(new Event('toggle'));
    await fixture.whenStable();
    expect(api.get).toHaveBeenCalledWith('/api/deeds', { query: { thing: 'vessel', thingId: 'v' } });
    expect(host().textContent).toContain('Ada changed the vessel Kettle 1');
    session.may.mockReturnValue(false);
    fixture = TestBed.createComponent(DeedsOf);
    fixture.componentRef.setInput('thing', 'vessel');
    await fixture.whenStable();
    expect(host().querySelector('details')).toBeNull();
  });

  it('where people are in: each but this one can be ended', async () => {
    const living = (id: string, isThis: boolean): LivingSession => ({
      id,
      person: { id: 'a', name: 'Ada' },
      since: '2026-06-01T09:00:00.000Z',
      until: '2026-06-15T09:00:00.000Z',
      browser: 'Mozilla/5.0 (X11; Linux x86_64) Chrome/140.0 Safari/537.36',
      address: '10.0.0.7',
      isThis,
    });
    api.get.mockReturnValue(of([living('one', true), living('two', false)]));
    fixture = TestBed.createComponent(Sessions);
    await fixture.whenStable();
    expect(rows()[0]).toContain('Chrome on Linux, here');
    expect(host().querySelectorAll('button')).toHaveLength(1);
    api.delete.mockReturnValue(of({ ok: true }));
    api.get.mockReturnValue(of([living('one', true)]));
    await press(/End it there/);
    expect(api.delete).toHaveBeenCalledWith('/api/sessions/{id}', 'two');
    expect(rows()).toHaveLength(1);
  });
});
