import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { Session } from '../../api/session';
import { StockAwaited } from './stock-awaited';

const WELD = {
  materialId: 'w',
  name: 'Weld',
  measure: 'weight' as const,
  missing: 100_000,
  lotTags: ['Lot 2', 'Lot 5'],
  arrivesOn: '2026-06-15',
  isSaid: false,
  isMadeHere: false,
};

describe('what is waited for', () => {
  const api = { put: vi.fn(() => of({ ok: true })) };
  const may = vi.fn(() => true);
  let fixture: ComponentFixture<StockAwaited>;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const said = (): string => (host().textContent ?? '').replace(/\s+/g, ' ');
  const button = (label: string): HTMLButtonElement | undefined =>
    [...host().querySelectorAll('button')].find((b) => b.textContent?.trim() === label);
  const press = async (label: string): Promise<void> => {
    button(label)?.click();
    await fixture.whenStable();
  };
  const write = async (text: string): Promise<void> => {
    const field = host().querySelector('input') as HTMLInputElement;
    field.value = text;
    field.dispatchEvent(new Event('input', { bubbles: true }));
    await fixture.whenStable();
  };
  const open = async (material: typeof WELD): Promise<void> => {
    fixture = TestBed.createComponent(StockAwaited);
    fixture.componentRef.setInput('material', material);
    await fixture.whenStable();
  };
  beforeEach(() => {
    api.put.mockClear();
    may.mockReturnValue(true);
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: ApiClient, useValue: api },
        { provide: Session, useValue: { person: signal(null), zone: signal('Europe/London'), may } },
      ],
    });
  });

  it('says how much for which lots, and that nobody said when it comes', async () => {
    await open(WELD);
    expect(said()).toMatch(/Weld 100 g for Lot 2, Lot 5\. Nobody said when it comes: .* from 15 Jun 2026,/);
    expect(button('Say the day')?.getAttribute('aria-label')).toBe('Say the day Weld is to be here');
  });
  it('knows that nobody delivers a bath of the house', async () => {
    await open({ ...WELD, name: 'Weld bath', isMadeHere: true });
    expect(said()).toMatch(/It is a bath of the house: .* counts on it at once/);
  });
  it('takes the day, which isn’t taken away where there is none', async () => {
    await open(WELD);
    await press('Say the day');
    expect([button('Keep the day')?.disabled, button('Nobody knows')]).toEqual([true, undefined]);
    await write('4 Jun 2026');
    await press('Keep the day');
    expect(api.put).toHaveBeenCalledWith('/api/materials/{id}/arrival', { arrivesOn: '2026-06-04' }, 'w');
    expect(host().querySelector('input')).toBeNull();
  });
  it('keeps what is typed when there is news of other lots, and lets a day be taken back', async () => {
    await open({ ...WELD, isSaid: true });
    expect(said()).toMatch(/to be here on 15 Jun 2026/);
    await press('Change');
    await write('4 Jun 2026');
    fixture.componentRef.setInput('material', { ...WELD, isSaid: true, missing: 200_000 });
    await fixture.whenStable();
    expect(host().querySelector('input')?.value).toBe('4 Jun 2026');
    await press('Nobody knows');
    expect(api.put).toHaveBeenCalledWith('/api/materials/{id}/arrival', { arrivesOn: null }, 'w');
  });
  it('lets only those say it who may', async () => {
    may.mockReturnValue(false);
    await open(WELD);
    expect(host().querySelector('button')).toBeNull();
  });
});
