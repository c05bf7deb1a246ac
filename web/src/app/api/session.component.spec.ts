import { TestBed } from '@angular/core/testing';
import { firstValueFrom, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from './api-client';
import { LiveChanges } from './live-query';
import { Session } from './session';

const ADA = { id: 'a', name: 'Ada', role: 'helper' as const };
const STATE = { studio: { name: 'House', zone: 'UTC', signInNote: '' }, people: [ADA], person: ADA };

describe('who is in', () => {
  const api = { get: vi.fn(() => of(STATE)), delete: vi.fn() };
  const changes = { close: vi.fn() };
  let session: Session;
  beforeEach(async () => {
    localStorage.clear();
    api.get.mockClear();
    api.delete.mockReset();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: api },
        { provide: LiveChanges, useValue: changes },
      ],
    });
    session = TestBed.inject(Session);
    await firstValueFrom(session.look());
  });

  it('may what their role may, and nobody more than look', () => {
    expect(['guest', 'helper', 'dyer', 'owner'].map((r) => session.may(r as 'guest'))).toEqual([
      true,
      true,
      false,
      false,
    ]);
    session.person.set(null);
    expect(session.may('helper')).toBe(false);
  });

  it('leaves without the server; it hears of it before it is asked who is in', async () => {
    api.delete.mockReturnValue(throwError(() => ({ detail: 'away' })));
    await firstValueFrom(session.leave());
    expect(session.person()).toBeNull();
    expect(changes.close).toHaveBeenCalled();
    // Still away: who is in isn't asked, for the server would still say Ada.
    await expect(firstValueFrom(session.look())).rejects.toEqual({ detail: 'away' });
    expect(api.get).toHaveBeenCalledTimes(1);
    api.delete.mockReturnValue(of({ ok: true }));
    api.get.mockReturnValueOnce(of({ ...STATE, person: null as never }));
    await firstValueFrom(session.look());
    expect(session.person()).toBeNull();
    await firstValueFrom(session.look());
    expect(api.delete).toHaveBeenCalledTimes(3);
  });

  it('leaves at once where the server is there', async () => {
    api.delete.mockReturnValue(of({ ok: true }));
    await firstValueFrom(session.leave());
    await firstValueFrom(session.look());
    expect(api.delete).toHaveBeenCalledTimes(1);
  });
});
