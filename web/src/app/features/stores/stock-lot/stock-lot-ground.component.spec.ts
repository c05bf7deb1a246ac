import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { NO_STOCK_FACTS } from '@vestigia/contract';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../../api/api-client';
import { LiveChanges } from '../../../api/live-query';
import { StockLotGround } from './stock-lot-ground';

const LIGHT = { illuminant: 'D65', observer: '10' };
const bale = (facts: object) => ({
  row: { id: 'bale-2', tag: 'RUG-2', materialId: 'rug', kind: 'fibre', place: 'loft', bestBefore: null },
  version: 3,
  note: 'from the coast',
  facts: { ...NO_STOCK_FACTS, ...facts },
});

describe('what a bale looks like before it is dyed', () => {
  const put = vi.fn();
  const changed = vi.fn();
  let fixture: ComponentFixture<StockLotGround>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent.replaceAll(/\s+/g, ' ');
  const show = async (facts: object = {}): Promise<void> => {
    fixture = TestBed.createComponent(StockLotGround);
    fixture.componentRef.setInput('stockLot', bale(facts));
    fixture.componentInstance.changed.subscribe(changed);
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const type = (name: string, value: string): void => {
    const field = page().querySelector<HTMLInputElement>(`input[name="${name}"]`)!;
    field.value = value;
    field.dispatchEvent(new Event('input'));
    field.dispatchEvent(new Event('change'));
  };
  const press = async (name: string): Promise<void> => {
    [...page().querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const kept = () => put.mock.calls[0]?.[1] as { version: number; note: string; facts: Record<string, unknown> };
  beforeEach(() => {
    put.mockReset().mockReturnValue(of({}));
    changed.mockReset();
    TestBed.configureTestingModule({
      providers: [
        { provide: ApiClient, useValue: { get: () => of([]), put } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
  });

  it('is kept as it was read, and nothing else of the bale is changed', async () => {
    await show();
    expect(text()).toContain('Nobody read it by itself');
    type('L', '78.5');
    type('a', '2');
    type('b', '21');
    await press('Keep its colour');
    expect(kept()).toMatchObject({ version: 3, note: 'from the coast' });
    expect(kept().facts).toEqual({
      ...NO_STOCK_FACTS,
      colour: { L: 78.5, a: 2, b: 21, ...LIGHT },
      colourSpectrum: null,
    });
    expect(changed).toHaveBeenCalledOnce();
  });

  it('half a colour is none, and nothing typed is lost', async () => {
    await show();
    type('L', '78.5');
    await press('Keep its colour');
    expect(put).not.toHaveBeenCalled();
    expect(text()).toContain('Give the colour as L*, a* and b*, all three.');
    expect(page().querySelector<HTMLInputElement>('input[name="L"]')!.value).toBe('78.5');
  });

  it('a reading can be taken away again; the shade that fibre was dyed can’t', async () => {
    await show({ colour: { L: 78.5, a: 2, b: 21, ...LIGHT } });
    expect(text()).toContain('Read as L* 78.5, a* 2.0, b* 21.0');
    await press('Take it as the base again');
    expect(kept().facts).toMatchObject({ colour: null, colourSpectrum: null });
    await show({ colour: { L: 50, a: 30, b: 20, ...LIGHT }, treatment: 'dyed' });
    expect(text()).toContain('Kept as L* 50.0');
    expect(text()).not.toContain('Take it as the base again');
  });
});
