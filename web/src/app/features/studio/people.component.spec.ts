import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { NEVER, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { Session } from '../../api/session';
import { People } from './people';

const [ADA, BO] = [
  { id: 'a', name: 'Ada', role: 'owner' },
  { id: 'b', name: 'Bo', role: 'dyer' },
];

describe('people of the studio', () => {
  const api = { post: vi.fn(), put: vi.fn(), get: vi.fn(() => of([])), delete: vi.fn() };
  const session = { person: signal(ADA), may: vi.fn((_needs: string) => true), look: () => of(undefined) };
  let fixture: ComponentFixture<People>;
  let changes = 0;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const press = async (label: RegExp): Promise<void> => {
    [...host().querySelectorAll('button')].find((b) => label.test(b.textContent ?? ''))?.click();
    await fixture.whenStable();
  };
  const write = (name: string, text: string): void => {
    const field = host().querySelector(`input[name=${name}]`) as HTMLInputElement;
    field.value = text;
    field.dispatchEvent(new Event('input'));
  };
  const said = (): string[] => [...host().querySelectorAll('[role=status]')].map((s) => s.textContent?.trim() ?? '');
  beforeEach(async () => {
    api.post.mockReset();
    api.put.mockReset();
    session.may.mockReturnValue(true);
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: api },
        { provide: LiveChanges, useValue: { listen: () => NEVER } },
        { provide: Session, useValue: session },
      ],
    });
    fixture = TestBed.createComponent(People);
    fixture.componentRef.setInput('people', [ADA, BO]);
    changes = 0;
    fixture.componentInstance.changed.subscribe(() => (changes += 1));
    await fixture.whenStable();
  });

  it('one changes one’s own passphrase; a colleague who forgot theirs is given a code', async () => {
    const rows = [...host().querySelectorAll('tr')].map((r) => r.textContent?.replace(/\s+/g, ' ').trim());
    expect(rows[0]).toMatch(/^Ada \(you\).*Change your passphrase/);
    expect(rows[1]).toMatch(/^Bo.*Forgot the passphrase/);
    api.post.mockReturnValue(of({ code: 'ABCD-EFGH-JKMN' }));
    await press(/Forgot/);
    expect(api.post).toHaveBeenCalledWith('/api/people/{id}/code', undefined, 'b');
    expect(said()[0]).toMatch(/Bo comes in once with the code ABCD-EFGH-JKMN/);
  });

  it('a wrong passphrase is said and what was typed stays; the right one is told as changed', async () => {
    await press(/Change your/);
    write('current', 'wrong');
    write('chosen', 'nine new words');
    api.put.mockReturnValue(throwError(() => ({ detail: 'That is not your passphrase as it stands. Try again.' })));
    await press(/Change the passphrase/);
    expect(host().querySelector('[role=alert]')?.textContent).toContain('not your passphrase');
    expect((host().querySelector('input[name=chosen]') as HTMLInputElement).value).toBe('nine new words');
    write('current', 'right');
    api.put.mockReturnValue(of({ ok: true }));
    await press(/Change the passphrase/);
    expect(api.put).toHaveBeenLastCalledWith('/api/auth/passphrase', {
      current: 'right',
      passphrase: 'nine new words',
    });
    expect(said()).toEqual(['Your passphrase is changed. Other tablets on which you were in ask for the new one.']);
    expect(host().querySelector('input[name=current]')).toBeNull();
  });

  it('an owner says what somebody may do; what is refused stands as it was', async () => {
    const choice = host().querySelector('select[aria-label="What Ada may do"]') as HTMLSelectElement;
    expect(choice.value).toBe('owner');
    api.put.mockReturnValue(throwError(() => ({ detail: 'Ada is the only owner here.' })));
    choice.value = 'helper';
    choice.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(api.put).toHaveBeenLastCalledWith('/api/people/{id}/role', { role: 'helper' }, 'a');
    expect(choice.value).toBe('owner');
    expect(host().querySelector('[role=alert]')?.textContent).toContain('only owner');
    api.put.mockReturnValue(of({ ok: true }));
    choice.value = 'dyer';
    choice.dispatchEvent(new Event('change'));
    expect(changes).toBe(1);
  });

  it('somebody who doesn’t decide sees what each may do, and changes their own passphrase alone', async () => {
    session.may.mockReturnValue(false);
    fixture = TestBed.createComponent(People);
    fixture.componentRef.setInput('people', [ADA, BO]);
    await fixture.whenStable();
    expect([...host().querySelectorAll('select')].map((s) => s.name)).toEqual(['language']);
    expect(host().querySelector('input[name=pname]')).toBeNull();
    expect(host().textContent).toContain('dyer: also recipes, prices and files');
    expect([...host().querySelectorAll('button')].map((b) => b.textContent?.trim())).toEqual([
      'Change your passphrase',
    ]);
  });

  it('each chooses what they read this in, by its own name; a refusal leaves it as it was', async () => {
    const field = host().querySelector('select[name=language]') as HTMLSelectElement;
    expect([field.value, ...[...field.options].map((o) => `${o.lang} ${o.text}`)]).toEqual([
      'en',
      'en English',
      'de Deutsch',
    ]);
    api.put.mockReturnValue(throwError(() => ({ detail: 'Away.' })));
    field.value = 'de';
    field.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(api.put).toHaveBeenCalledWith('/api/auth/language', { language: 'de' });
    expect(host().textContent).toContain('Away.');
  });

  it('somebody new is added under one id however often that is tried', async () => {
    write('pname', 'Cy');
    write('ppass', 'seven wet hanks');
    api.post.mockReturnValue(throwError(() => ({ detail: 'Away.' })));
    await press(/Add this person/);
    api.post.mockReturnValue(of({ id: 'c' }));
    await press(/Add this person/);
    const [first, second] = api.post.mock.calls.map(([, body]) => (body as { id: string }).id);
    expect(second).toBe(first);
    expect(changes).toBe(1);
    expect((host().querySelector('input[name=pname]') as HTMLInputElement).value).toBe('');
  });
});
