import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { NO_STOCK_FACTS } from '@vestigia/contract';
import { EMPTY, of } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../../api/api-client';
import { LiveChanges } from '../../../api/live-query';
import { MatchTeller } from '../../../services/match-teller';
import { StockLotStrength } from './stock-lot-strength';

const RECORD = {
  readings: [],
  strengths: [],
  materials: [],
  jars: [
    { id: 'jar-a', tag: 'WEL-1', materialId: 'weld', receivedOn: '2025-01-01', free: 0, isReference: true },
    { id: 'jar-b', tag: 'WEL-2', materialId: 'weld', receivedOn: '2026-01-01', free: 9, isReference: false },
  ],
  undyed: [],
  mordanted: [],
  baseLots: [],
  waters: [],
};
const STRENGTH = { stockLotId: 'jar-b', percent: 84.4, fromPercent: 61, toPercent: 117, readings: 6 };
const jar = (facts: object) => ({
  row: { id: 'jar-b', tag: 'WEL-2', materialId: 'weld', place: 'shelf 2', bestBefore: null },
  version: 4,
  note: '',
  facts: { ...NO_STOCK_FACTS, ...facts },
});

describe('the strength of a jar', () => {
  const put = vi.fn();
  const tell = vi.fn();
  let fixture: ComponentFixture<StockLotStrength>;
  const page = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const text = (): string => page().textContent.replaceAll(/\s+/g, ' ');
  const show = async (facts: object = {}): Promise<void> => {
    fixture = TestBed.createComponent(StockLotStrength);
    fixture.componentRef.setInput('stockLot', jar(facts));
    await fixture.whenStable();
    fixture.detectChanges();
  };
  beforeEach(() => {
    put.mockReset().mockReturnValue(of({}));
    tell.mockReset().mockReturnValue(of([STRENGTH]));
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: ApiClient, useValue: { get: () => of(RECORD), put } },
        { provide: MatchTeller, useValue: { tell, learning: EMPTY } },
        { provide: LiveChanges, useValue: { listen: () => EMPTY, connected: signal(true) } },
      ],
    });
  });

  it('says what lots and strips tell of it, how sure, and what doses go by until then', async () => {
    await show();
    expect(text()).toContain('By 6 readings of what was dyed with it it is 84 % of the reference');
    expect(text()).toContain('between 61 and 117 %');
    expect(text()).toContain('Doses take it as the reference until that is said otherwise.');
  });
  it('is dosed by from one press on, as learnt: it is not counted a second time', async () => {
    await show();
    page().querySelector<HTMLButtonElement>('button.act')?.click();
    expect(put).toHaveBeenCalledWith(
      '/api/stock-lots/{id}',
      expect.objectContaining({
        version: 4,
        facts: expect.objectContaining({ strengthPercent: 84, strengthLearnt: true }) as object,
      }),
      'jar-b',
    );
  });
  it('prescribes the test against the reference while it is unsure', async () => {
    await show();
    const link = page().querySelector('a')?.getAttribute('href') ?? '';
    expect(decodeURIComponent(link.replaceAll('+', ' '))).toContain('jars=jar-a jar-b');
    expect(text()).toMatch(/one out of WEL-1, the reference, one out of WEL-2/);
  });
  it.each([
    ['somebody tested it', { strengthPercent: 90 }],
    ['it is the reference itself', { reference: true, strengthPercent: 100 }],
    ['doses go by that already', { strengthPercent: 84, strengthLearnt: true }],
  ])('is not offered again where %s', async (_, facts) => {
    await show(facts);
    expect(page().querySelector('button.act')).toBeNull();
  });
  it('says what is needed before anything can be said', async () => {
    tell.mockReturnValue(of(null));
    await show();
    expect(text()).toContain('once three lots or strips were dyed and read dry');
  });
});
