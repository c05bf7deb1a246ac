import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import type { OpenedDocument } from '@vestigia/contract';
import { Subject, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { BringBack } from './bring-back';

const copy = (day: string) => ({ name: `studio-${day}.zip`, at: `${day}T18:00:00.000Z`, bytes: 390_000 });
const DAYS = ['01', '02', '03', '04', '05', '06', '07'].map((d) => copy(`2026-06-${d}`)).reverse();
const CODES = [{ personId: 'p', name: 'Ada', code: 'ABCD-EFGH-JKMN' }];

describe('an empty studio’s way back', () => {
  const api = { get: vi.fn(), post: vi.fn(), upload: vi.fn(), delete: vi.fn(() => of({ ok: true })) };
  let fixture: ComponentFixture<BringBack>;
  let opened: OpenedDocument['codes'][];
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const press = async (label: RegExp): Promise<void> => {
    [...host().querySelectorAll('button')].find((b) => label.test(b.textContent ?? ''))?.click();
    await fixture.whenStable();
  };
  const shown = async (
    copies: ReturnType<typeof copy>[],
    phase = 'none',
    done = 0,
    total: number | null = null,
  ): Promise<void> => {
    api.get.mockImplementation((path: string) => of(path === '/api/auth/copies' ? copies : { phase, done, total }));
    fixture = TestBed.createComponent(BringBack);
    opened = [];
    fixture.componentInstance.opened.subscribe((codes) => opened.push(codes));
    await fixture.whenStable();
  };
  beforeEach(() => {
    for (const call of [api.get, api.post, api.upload]) call.mockReset();
    TestBed.configureTestingModule({ providers: [{ provide: ApiClient, useValue: api }] });
  });

  it('shows the newest five copies, older ones when asked, and none where there are none', async () => {
    await shown(DAYS);
    expect(host().querySelectorAll('tbody tr')).toHaveLength(5);
    await press(/older/);
    expect(host().querySelectorAll('tbody tr')).toHaveLength(7);
    await shown([]);
    expect(host().querySelector('table')).toBeNull();
  });

  it('opens the copy that was pressed, says how far, can be stopped, and hands on the codes', async () => {
    await shown(DAYS, 'keeping', 30, 120);
    const opening = new Subject<OpenedDocument>();
    api.post.mockReturnValue(opening);
    await press(/Bring this back/);
    expect(api.post).toHaveBeenCalledWith('/api/auth/copies', { name: DAYS[0]!.name });
    await vi.waitFor(() => expect(host().querySelector('[role=status]')?.textContent).toContain('Writing it down'));
    expect(host().querySelector('progress')?.value).toBeCloseTo(0.25, 6);
    await press(/Stop/);
    expect(api.delete).toHaveBeenCalledWith('/api/auth/document');
    opening.next({ codes: CODES });
    opening.complete();
    await fixture.whenStable();
    expect(opened).toEqual([CODES]);
    expect(host().querySelector('progress')).toBeNull();
  });

  it('says why a file was refused, and the same one may be chosen again', async () => {
    await shown([]);
    api.upload.mockReturnValue(throwError(() => ({ detail: 'This studio file is damaged.' })));
    const input = host().querySelector('input[type=file]') as HTMLInputElement;
    const file = new File(['x'], 'studio.zip');
    Object.defineProperty(input, 'files', { value: [file] });
    input.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(api.upload).toHaveBeenCalledWith('/api/auth/document', file, 'application/octet-stream');
    expect(host().querySelector('[role=alert]')?.textContent).toContain('damaged');
    expect(input.value).toBe('');
    expect(input.disabled).toBe(false);
  });
});
