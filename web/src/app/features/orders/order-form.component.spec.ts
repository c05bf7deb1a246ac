import { signal } from '@angular/core';
import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import { By } from '@angular/platform-browser';
import { provideRouter } from '@angular/router';
import type { OrderDetail } from '@vestigia/contract';
import { Subject, of, throwError } from 'rxjs';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { ApiClient } from '../../api/api-client';
import { LiveChanges } from '../../api/live-query';
import { Session } from '../../api/session';
import { StudioCalendar } from '../../services/studio-calendar';
import { ReaderFile } from '../../ui/reader-file';
import { OrderFormPage } from './order-form';

const LINE: OrderDetail['lines'][number] = {
  id: 'line',
  what: 'hanks',
  pieces: 6,
  pieceWeightG: null,
  colourwayId: null,
  matchLotId: null,
  brought: null,
  broughtNote: '',
  setOf: null,
  priceMinor: null,
  care: '',
  colourway: null,
  matchLot: null,
  standing: { state: 'toDye', handedOver: 0, setAside: 0, onShelf: 0, inWork: 0, toDye: 6 },
  lots: [],
  held: [],
  sets: [],
  tagged: null,
};
const ORDER: OrderDetail = {
  id: 'order',
  number: 4,
  version: 2,
  customer: { id: 'c', number: 1, name: 'Odile' },
  state: 'agreed',
  wantedOn: null,
  note: '',
  at: '2026-06-01T08:00:00.000Z',
  by: { id: 'w', name: 'Wenna' },
  currency: 'EUR',
  lines: [LINE],
};

describe('the form of an order', () => {
  let stands: OrderDetail;
  const news = new Subject<readonly string[]>();
  const api = {
    get: vi.fn((path: string) => of(path === '/api/orders/{id}' ? stands : [])),
    put: vi.fn((_path: string, _body: object, _id: string) => of({ ok: true })),
    post: vi.fn((_path: string, body: object) => of(body)),
  };
  let fixture: ComponentFixture<OrderFormPage>;
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const field = (name: string): HTMLInputElement => host().querySelector(`[name="${name}"]`) as HTMLInputElement;
  const write = async (name: string, text: string): Promise<void> => {
    field(name).value = text;
    field(name).dispatchEvent(new Event('input', { bubbles: true }));
    await fixture.whenStable();
  };
  const press = async (label: RegExp): Promise<void> => {
    [...host().querySelectorAll('button')].find((b) => label.test(b.textContent ?? ''))?.click();
    await fixture.whenStable();
  };
  const missing = (): string => host().querySelector('vs-act-bar .missing')?.textContent?.trim() ?? '';
  const show = async (id?: string): Promise<void> => {
    fixture = TestBed.createComponent(OrderFormPage);
    fixture.componentRef.setInput('id', id);
    await fixture.whenStable();
  };
  beforeEach(() => {
    localStorage.clear();
    vi.clearAllMocks();
    stands = ORDER;
    TestBed.configureTestingModule({
      providers: [
        provideRouter([{ path: '**', children: [] }]),
        { provide: ApiClient, useValue: api },
        { provide: LiveChanges, useValue: { listen: () => news } },
        { provide: Session, useValue: { person: signal(null), zone: signal('Europe/London'), may: () => true } },
        { provide: StudioCalendar, useValue: { today: () => '2026-06-01' } },
      ],
    });
  });

  it('sends somebody new along with the order, as one', async () => {
    await show();
    expect(missing()).toBe('Who wants it is still missing.');
    await write('name', 'Hesper');
    await write('pieces0', '3');
    await write('what0', 'hanks for a shawl');
    await press(/Keep the order/);
    expect(api.post).toHaveBeenCalledTimes(1);
    expect(api.post.mock.calls[0]?.[1]).toMatchObject({
      customer: { name: 'Hesper' },
      lines: [{ pieces: 3, what: 'hanks for a shawl', brought: null }],
    });
  });
  it('takes their colour out of a reader’s file', async () => {
    await show();
    fixture.debugElement.query(By.directive(ReaderFile)).componentInstance.taken.emit({
      lab: { L: 61.2, a: -8, b: 33.5 },
      way: 'file',
      spectrum: null,
    });
    await fixture.whenStable();
    expect(['L0', 'a0', 'b0'].map((name) => field(name).value)).toEqual(['61.2', '-8', '33.5']);
  });
  it('wants a colour whole, and drops no part of it', async () => {
    await show();
    await write('name', 'Hesper');
    await write('pieces0', '3');
    await write('what0', 'hanks');
    await write('L0', '47');
    expect(missing()).toMatch(/all three/);
    await write('a0', '21');
    await write('b0', '18');
    expect(missing()).toBe('');
  });
  it('keeps what is being written when there is news, of a new order and of one that is changed', async () => {
    await show();
    await write('what0', 'half a word');
    news.next([]);
    await fixture.whenStable();
    expect(field('what0').value).toBe('half a word');
    await show('order');
    await write('what0', 'hanks for a rug');
    stands = { ...ORDER, lines: [{ ...LINE, standing: { ...LINE.standing, onShelf: 6, toDye: 0 } }] };
    news.next([]);
    await fixture.whenStable();
    expect(field('what0').value).toBe('hanks for a rug');
    expect(host().textContent).not.toContain('Changed by somebody else');
  });
  it('shows what somebody else changed meanwhile, and saves over it only once that is chosen', async () => {
    await show('order');
    await write('what0', 'hanks for a rug');
    api.put.mockReturnValueOnce(throwError(() => ({ code: 'stale', detail: 'Someone changed this.' })));
    stands = { ...ORDER, version: 3, note: 'in a box' };
    await press(/Keep the order/);
    expect(host().textContent).toContain('is “in a box” now');
    await press(/Keep what I wrote/);
    await press(/Keep the order/);
    expect(api.put.mock.calls.map((c) => (c[1] as { version: number }).version)).toEqual([2, 3]);
    expect(field('what0').value).toBe('hanks for a rug');
  });
});
